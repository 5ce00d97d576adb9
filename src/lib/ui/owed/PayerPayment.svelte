<!-- One payment for any of a payer's invoices: the one due first, first, or as chosen. -->
<script lang="ts">
	import Table from '../parts/Table.svelte';
	import type { Column } from '../parts/table';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import type { Minor } from '$lib/core/money/types';
	import { parseMoney } from '$lib/core/money/decimal';
	import { readTypedNumber } from '$lib/core/money/typed';
	import { shareOldestFirst } from '$lib/core/settlement/sharing';
	import WayChoice from '../money/WayChoice.svelte';
	import Money from '../parts/Money.svelte';
	import Field from '../parts/Field.svelte';
	import PanelForm from '../parts/PanelForm.svelte';

	interface Props {
		open: {
			documentId: number;
			number: string;
			dueDate: string;
			toPay: Minor;
			deducts: boolean;
			leftToDeduct: Minor;
		}[];
		today: string;
		/** Where a receipt would go; empty: nowhere. */
		mail: string;
		onclose: () => void;
	}
	let { open, today, mail, onclose }: Props = $props();
	let chosen = $state(false);
	let all = $derived(open.reduce((sum, one) => sum + one.toPay, 0n));
	let amount = $state('');
	let typed = $state<Record<number, string>>({});
	let pence = $derived.by(() => {
		const read = readTypedNumber(amount, { decimals: 2, digits: 11 });
		return read.ok ? (parseMoney(read.text) ?? 0n) : 0n;
	});
	let shared = $derived(shareOldestFirst(pence, open));
	let parts = $derived(new Map(shared.shares.map((one) => [one.documentId, one.amount])));

	function choose() {
		typed = Object.fromEntries(
			open.map((one) => [
				one.documentId,
				parts.has(one.documentId)
					? displayAmount(parts.get(one.documentId)!).replaceAll(',', '')
					: ''
			])
		);
		chosen = true;
	}

	type Open = Props['open'][number];
	let invoices = $derived<Column<Open>[]>([
		{ id: 'for', head: 'For', cell: invoiceCell, names: true },
		{ id: 'toPay', head: 'To pay, £', text: (one) => displayAmount(one.toPay), figures: true },
		{ id: 'share', head: 'Of this payment, £', cell: shareCell, figures: true },
		...(open.some((one) => one.deducts)
			? [
					{
						id: 'withheld',
						head: 'Withheld, £',
						cell: withheldCell,
						figures: true
					} satisfies Column<Open>
				]
			: [])
	]);
</script>

<section class="panel py-4.5 px-5 mb-3.5" aria-label="Record a payment">
	<PanelForm
		action="?/pay"
		submit="Record it"
		done="The payment is recorded."
		first="[name=&quot;amount&quot;]"
		{onclose}
	>
		<div
			class="fields grid grid-cols-[repeat(auto-fit,minmax(160px,1fr))] gap-y-2.5 gap-x-4 items-start"
		>
			<Money
				label="What came in"
				name="amount"
				bind:value={amount}
				placeholder={displayAmount(all)}
			/>
			<DateField label="On" name="date" max={today} value={today} />
			<WayChoice />
			<Field label="Reference" name="reference" />
		</div>
		{#if open.length > 0}
			<Table
				label="What it is for"
				rows={open}
				columns={invoices}
				id={(one) => one.documentId}
				flush
			/>
		{/if}
		{#if !chosen && shared.over > 0n}
			<p class="quiet">
				{displayPounds(shared.over)} is more than they owe: it stays in hand. If it is for work to come,
				VAT on it is due at once, and the next page offers the deposit invoice.
			</p>
		{/if}
		{#if chosen}<input type="hidden" name="chosen" value="1" />{/if}
		{#if mail}<label class="check"
				><input type="checkbox" name="receipt" /> Send a receipt to {mail}</label
			>{/if}
		{#snippet more()}
			{#if open.length > 1}
				{#if chosen}<button type="button" class="button plain" onclick={() => (chosen = false)}
						>The one due first, first</button
					>{:else}<button type="button" class="button plain" onclick={choose}
						>Choose what it is for</button
					>{/if}
			{/if}
		{/snippet}
	</PanelForm>
</section>

{#snippet invoiceCell(one: Open)}
	<span class="mono">{one.number}</span>
	<span class="quiet phone:block">due {displayDate(one.dueDate)}</span>
{/snippet}

{#snippet shareCell(one: Open)}
	{#if chosen}<Field
			label="For {one.number}"
			quiet
			look="ml-auto w-30 phone:w-21.5"
			name="shares.{one.documentId}"
			class="box numbers text-right"
			inputmode="decimal"
			bind:value={typed[one.documentId]}
		/>{:else}<b>{parts.has(one.documentId) ? displayAmount(parts.get(one.documentId)!) : '–'}</b
		>{/if}
{/snippet}

{#snippet withheldCell(one: Open)}
	{#if one.deducts}<Field
			label="Withheld from {one.number}"
			quiet
			look="ml-auto w-30 phone:w-21.5"
			name="withheld.{one.documentId}"
			class="box numbers text-right"
			inputmode="decimal"
			placeholder="as expected"
		/>{/if}
{/snippet}
