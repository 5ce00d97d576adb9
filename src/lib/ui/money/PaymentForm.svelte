<!-- A payment recorded by hand; a contractor's is expected net of its deduction. -->
<script lang="ts">
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { onMount } from 'svelte';
	import { enhance } from '$app/forms';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import type { DocumentDetail } from '$lib/core/documents/detail';
	import Field from '../parts/Field.svelte';
	import { pressKey } from '../parts/keys';
	import { notices } from '../parts/notices.svelte';
	import { WAYS_BY_HAND } from './ways';
	import { fieldsOf, typedOf, type FormAnswer } from '../invoices/answers';

	interface Props {
		document: DocumentDetail;
		leftToDeduct: number;
		form: FormAnswer;
		onclose: () => void;
	}
	let { document, leftToDeduct, form, onclose }: Props = $props();
	let key = $state(pressKey());
	let busy = $state(false);
	let root: HTMLElement;
	let errors = $derived(fieldsOf(form));
	onMount(() => root.querySelector<HTMLElement>('[name="amount"]')?.focus());
</script>

<section class="panel" aria-label="Record a payment" bind:this={root}>
	<form
		method="post"
		action="?/pay"
		use:enhance={() => {
			busy = true;
			return async ({ result, update }) => {
				await update({ reset: false });
				busy = false;
				if (result.type === 'success') {
					key = pressKey();
					notices.say('The payment is recorded.');
					onclose();
				}
			};
		}}
	>
		<input type="hidden" name="key" value={key} />
		<Field
			label="What came in, £"
			name="amount"
			inputmode="decimal"
			value={typedOf(form, 'amount') ?? displayAmount(document.toPay).replaceAll(',', '')}
			error={errors.amount}
		/>
		{#if document.item?.deduction !== null}
			<Field
				label="Withheld, £"
				name="withheld"
				inputmode="decimal"
				value={typedOf(form, 'withheld') ?? ''}
				placeholder="worked out"
				error={errors.withheld}
				hint="Only if their statement says another amount than {displayPounds(leftToDeduct)}."
			/>
		{/if}
		<DateField
			label="On"
			name="date"
			max={document.today}
			value={typedOf(form, 'date') ?? document.today}
			error={errors.date}
		/>
		<label class="field">
			<span class="name">How</span>
			<select class="box" name="way" value={typedOf(form, 'way') ?? 'bank'}
				>{#each Object.entries(WAYS_BY_HAND) as [value, words] (value)}<option {value}
						>{words}</option
					>{/each}</select
			>
		</label>
		<Field
			label="Reference"
			name="reference"
			value={typedOf(form, 'reference') ?? ''}
			error={errors.reference}
		/>
		{#if errors.amount?.includes('more than')}<label class="check wide"
				><input type="checkbox" name="allowOverpaid" /> It is right: they paid more than is owed</label
			>{/if}
		{#if document.payerMail}<label class="check wide"
				><input type="checkbox" name="receipt" /> Send a receipt to {document.payerMail}</label
			>{/if}
		{#if form?.message && !Object.keys(errors).length}<p class="wrong wide" role="alert">
				{form.message}
			</p>{/if}
		<div class="buttons wide">
			<button class="button filled" aria-busy={busy}>Record it</button>
			<button type="button" class="button plain" onclick={onclose}>Close</button>
		</div>
	</form>
</section>

<style>
	section {
		padding: 18px 20px;
		margin-bottom: 14px;
	}
	form {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(170px, 1fr));
		gap: 10px 16px;
		align-items: start;
	}
	.wide {
		grid-column: 1 / -1;
	}
	.buttons {
		display: flex;
		gap: 10px;
	}
</style>
