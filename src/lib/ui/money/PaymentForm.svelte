<!-- A payment recorded by hand; a contractor's is expected net of its deduction. -->
<script lang="ts">
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { BOOKS } from '$lib/core/money/currencies';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import type { Minor } from '$lib/core/money/types';
	import type { DocumentDetail } from '$lib/core/documents/detail';
	import Field from '../parts/Field.svelte';
	import PanelForm from '../parts/PanelForm.svelte';
	import WayChoice from './WayChoice.svelte';
	import Money from '../parts/Money.svelte';

	interface Props {
		document: DocumentDetail;
		leftToDeduct: Minor;
		onclose: () => void;
	}
	let { document, leftToDeduct, onclose }: Props = $props();
	let currency = $derived(document.frozen.sheet.currency);
	let abroad = $derived((currency ?? BOOKS) !== BOOKS);
	/** What is to pay, at the document's rate. */
	let pounds = $derived(document.toPaySterling);
	let expected = $derived(document.item?.deduction !== null);
</script>

<section class="panel py-4.5 px-5 mb-3.5" aria-label="Record a payment">
	<PanelForm
		action="?/pay"
		submit="Record it"
		done="The payment is recorded."
		first="[name=&quot;amount&quot;]"
		{onclose}
		class="grid-cols-[repeat(auto-fit,minmax(170px,1fr))] items-start gap-x-4 gap-y-2.5"
	>
		{#snippet children(frame)}
			<Money
				label={abroad ? 'What they paid' : 'What came in'}
				name="amount"
				{currency}
				value={displayAmount(document.toPay).replaceAll(',', '')}
			/>
			{#if abroad}<Money
					label="What reached your bank"
					name="reached"
					placeholder={displayAmount(pounds)}
					hint="At the rate of {document.frozen.exchange?.rate}, {displayPounds(
						pounds
					)} would have come; the difference is kept as one of exchange."
				/>{/if}
			{#if document.frozen.customer.kind !== 'household' && !abroad}
				<Money
					label="Withheld"
					name="withheld"
					placeholder={expected ? 'worked out' : 'nothing'}
					hint={expected
						? `Only if their statement says another amount than ${displayPounds(leftToDeduct)}.`
						: 'Only if they deducted CIS from it although you did not expect it.'}
				/>
			{/if}
			<DateField label="On" name="date" max={document.today} value={document.today} />
			<WayChoice />
			<Field label="Reference" name="reference" />
			{#if frame.error('amount')?.includes('more than')}<label class="check col-span-full"
					><input type="checkbox" name="allowOverpaid" /> It is right: they paid more than is owed</label
				>{/if}
			{#if document.payerMail}<label class="check col-span-full"
					><input type="checkbox" name="receipt" /> Send a receipt to {document.payerMail}</label
				>{/if}
		{/snippet}
	</PanelForm>
</section>
