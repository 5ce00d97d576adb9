<script lang="ts">
	import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { daysBetween } from '$lib/core/calendar/queries';
	import { INVOICES } from '$lib/core/lists/invoices';
	import type { Currency } from '$lib/core/money/currencies';
	import { displayMoney } from '$lib/core/money/display';
	import { counted } from '$lib/core/words';
	import ListPage from '$lib/ui/lists/ListPage.svelte';
	import { BILLING_PAGES } from '$lib/ui/invoices/tabs';
	import SettlementBar from '$lib/ui/money/SettlementBar.svelte';
	import { filtersOf } from '$lib/ui/parts/filters';
	import Tabs from '$lib/ui/parts/Places.svelte';
	import Search from '$lib/ui/parts/Search.svelte';

	let { data } = $props();
	const PATH = '/billing';
	const { search } = filtersOf(PATH);
	const COUNTED: Record<string, keyof typeof data.counts> = {
		all: 'all',
		draft: 'draft',
		unpaid: 'unpaid',
		late: 'late',
		paid: 'paid',
		credited: 'credited'
	};
	let views = $derived(
		data.views.map((view) => {
			const counted = COUNTED[view.key];
			return { ...view, count: counted && data.counts[counted] };
		})
	);
	type Row = (typeof data.rows)[number];
	function stateOf({ more }: Row): { words: string; late: boolean } {
		if (more.state === 'draft') return { words: 'draft', late: false };
		if (more.kind === 'creditNote') return { words: 'credit note', late: false };
		if (more.settlement === 'paid')
			return {
				words: more.settledOn ? `paid ${displayDate(String(more.settledOn))}` : 'paid',
				late: false
			};
		if (more.settlement === 'writtenOff') return { words: 'written off', late: false };
		if (more.settlement === 'credited') return { words: 'credited', late: false };
		const days = daysBetween(String(more.due), data.today);
		const part = more.settlement === 'partPaid' ? 'part paid, ' : '';
		return days > 0
			? { words: `${part}${counted(days, 'day')} late`, late: true }
			: { words: `${part}due ${displayDate(String(more.due))}`, late: false };
	}
	/** What tells a row from all others. */
	const currencyOf = (row: Row) => String(row.more.currency) as Currency;
	const tag = ({ id, more }: Row) => String(more.number ?? `draft ${id}`);
	const pence = (cell: Row['more'][string] | undefined) => BigInt(cell ?? 0);
</script>

{#snippet customer(row: Row)}
	<a class="font-semibold" href="{PATH}/{row.id}"
		>{row.more.customer || 'No customer yet'}<span class="sr-only">, {tag(row)}</span></a
	>
{/snippet}
{#snippet number(row: Row)}
	<span class="mono whitespace-nowrap">{row.more.number ?? '–'}</span>
{/snippet}
{#snippet settled(row: Row)}
	{#if row.more.outstanding !== null}
		<span class="block min-w-24 max-w-40 pt-1">
			<SettlementBar
				total={pence(row.more.total)}
				cash={pence(row.more.cash)}
				withheld={pence(row.more.withheld)}
				credited={pence(row.more.credited)}
				writtenOff={pence(row.more.writtenOff)}
				outstanding={pence(row.more.outstanding)}
				currency={currencyOf(row)}
			/>
		</span>
	{:else}–{/if}
{/snippet}
{#snippet state(row: Row)}
	{@const { words, late } = stateOf(row)}
	<span class:late>{words}</span>
	{#if Number(row.more.toPay) > 0 && row.more.toPay !== row.more.total}<small
			class="numbers block text-(--ink-2) text-[0.85rem]"
			>{displayMoney(Number(row.more.toPay), currencyOf(row))} to come</small
		>{/if}
	{#if row.more.mailTrouble}<small class="late flex gap-1 items-center text-[0.85rem]"
			><TriangleAlert size={14} aria-hidden="true" /> e-mail did not arrive</small
		>{/if}
{/snippet}

<svelte:head><title>Billing · Axiometer</title></svelte:head>
<div class="page">
	<div class="flex gap-3.5 items-center flex-wrap">
		<h1>Billing</h1>
		<Search
			class="flex-[1_1_260px] max-w-110 ml-auto phone:max-w-none phone:order-3"
			label="Search invoices"
			placeholder="Name, number, amount, or a word on it"
			value={data.view.search}
			onsearch={search}
		/>
	</div>
	<Tabs label="Billing" pages={BILLING_PAGES} />
	<ListPage
		path={PATH}
		label="Invoices, amounts in pounds"
		spec={INVOICES}
		{data}
		{views}
		head={{ field: 'open', words: 'open' }}
		href={(row) => `${PATH}/${row.id}`}
		name={(row) => `${row.more.customer || 'no customer yet'}, ${tag(row)}`}
		cells={{ customer, number, settled, state }}
		amount={{ of: (row) => Number(row.more.toPaySterling ?? 0), field: 'toPay' }}
	>
		{#snippet empty()}
			<h2>Your invoices will stand here</h2>
			<p>Write the first one: a customer’s name and a line is enough to begin.</p>
			<form method="post" action="{PATH}/new">
				<button class="button filled">Write an invoice</button>
			</form>
		{/snippet}
	</ListPage>
	{#if data.rows.length}
		<form method="post" action="{PATH}/new" class="mt-2">
			<input type="hidden" name="selfBilled" value="1" />
			<button class="button plain">Record an invoice a contractor wrote for you</button>
		</form>
	{/if}
</div>
