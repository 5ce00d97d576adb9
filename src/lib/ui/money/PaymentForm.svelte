<!-- A payment recorded by hand; a contractor's is expected net of its deduction. -->
<script lang="ts">
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import type { DocumentDetail } from '$lib/core/documents/detail';
	import Field from '../parts/Field.svelte';
	import PanelForm from '../parts/PanelForm.svelte';
	import { WAYS_BY_HAND } from './ways';
	import { fieldsOf, typedOf, type FormAnswer } from '../invoices/answers';

	interface Props {
		document: DocumentDetail;
		leftToDeduct: number;
		form: FormAnswer;
		onclose: () => void;
	}
	let { document, leftToDeduct, form, onclose }: Props = $props();
	let errors = $derived(fieldsOf(form));
</script>

<section class="panel" aria-label="Record a payment">
	<PanelForm
		action="?/pay"
		submit="Record it"
		done="The payment is recorded."
		first="[name=&quot;amount&quot;]"
		message={Object.keys(errors).length ? undefined : form?.message}
		{onclose}
		class="grid-cols-[repeat(auto-fit,minmax(170px,1fr))] items-start gap-x-4 gap-y-2.5"
	>
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
	</PanelForm>
</section>

<style>
	section {
		padding: 18px 20px;
		margin-bottom: 14px;
	}
	.wide {
		grid-column: 1 / -1;
	}
</style>
