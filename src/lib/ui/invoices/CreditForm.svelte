<!-- A credit note for the whole invoice: said beforehand what it does, because it cannot be undone. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import { enhance } from '$app/forms';
	import { displayPounds } from '$lib/core/money/display';
	import type { DocumentDetail } from '$lib/core/documents/detail';
	import Field from '../parts/Field.svelte';
	import { pressKey } from '../parts/keys';
	import { notices } from '../parts/notices.svelte';
	import { fieldsOf, typedOf, type FormAnswer } from './answers';

	let {
		document,
		form,
		onclose
	}: { document: DocumentDetail; form: FormAnswer; onclose: () => void } = $props();
	const key = pressKey();
	let busy = $state(false);
	let root: HTMLElement;
	let errors = $derived(fieldsOf(form));
	onMount(() => root.querySelector<HTMLElement>('[name="reason"]')?.focus());
</script>

<section class="panel" aria-label="Credit it" bind:this={root}>
	<form
		method="post"
		action="?/credit"
		use:enhance={() => {
			busy = true;
			return async ({ result, update }) => {
				await update({ reset: false });
				busy = false;
				if (result.type === 'success') {
					notices.say('The credit note is issued.');
					onclose();
				}
			};
		}}
	>
		<input type="hidden" name="key" value={key} />
		<p>
			A credit note for the whole of {document.number} takes {displayPounds(document.total)} off what
			{document.customerName} owes. It gets a number of its own and cannot be undone.
			{#if document.item?.cash}<b
					>They have paid {displayPounds(document.item.cash)}, which you would then owe them.</b
				>{/if}
			A bill that is only unpaid is not credited.
		</p>
		<Field
			label="Why, printed on it"
			name="reason"
			value={typedOf(form, 'reason') ?? ''}
			error={errors.reason}
			placeholder="such as: work not done, wrong customer"
		/>
		{#if form?.message && !Object.keys(errors).length}<p class="wrong" role="alert">
				{form.message}
			</p>{/if}
		<div class="buttons">
			<button class="button danger" aria-busy={busy}>Issue the credit note</button>
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
		gap: 12px;
		max-width: 640px;
	}
	.buttons {
		display: flex;
		gap: 10px;
	}
</style>
