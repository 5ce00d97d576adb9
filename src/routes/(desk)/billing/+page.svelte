<script lang="ts">
	import Search from '$lib/ui/parts/Search.svelte';
	import { filtersOf } from '$lib/ui/parts/filters';
	import { BILLING_PAGES } from '$lib/ui/invoices/tabs';
	import InvoiceRows from '$lib/ui/invoices/InvoiceRows.svelte';

	import Pager from '$lib/ui/parts/Pager.svelte';
	import Tabs from '$lib/ui/parts/Places.svelte';

	let { data } = $props();
	const STATES = {
		all: 'All',
		draft: 'Drafts',
		unpaid: 'Unpaid',
		late: 'Late',
		paid: 'Paid',
		credited: 'Credited'
	} as const;
	const AGES = {
		any: 'any age',
		'1-30': '1–30 days late',
		'31-60': '31–60 days late',
		'61-90': '61–90 days late',
		over90: 'over 90 days late'
	} as const;
	let filtered = $derived(
		Boolean(
			data.query.search ||
			data.query.customerId ||
			data.query.age !== 'any' ||
			data.query.state !== 'all'
		)
	);

	const { address, search, choose } = filtersOf('/billing');
</script>

<svelte:head><title>Billing · Axiometer</title></svelte:head>
<div class="page">
	<div class="flex gap-3.5 items-center flex-wrap">
		<h1>Billing</h1>
		<Search
			class="flex-[1_1_260px] max-w-110 ml-auto phone:max-w-none phone:order-3"
			label="Search invoices"
			placeholder="Name, number, amount, or a word on it"
			value={data.query.search}
			onsearch={search}
		/>
		<label class="phone:ml-auto">
			<span class="sr-only">How late</span>
			<select
				class="box"
				value={data.query.age}
				onchange={(event) =>
					choose({ age: event.currentTarget.value === 'any' ? '' : event.currentTarget.value })}
			>
				{#each Object.entries(AGES) as [value, label] (value)}<option {value}>{label}</option
					>{/each}
			</select>
		</label>
	</div>
	<Tabs label="Billing" pages={BILLING_PAGES} />
	<nav
		class="flex gap-1 mt-3.5 mb-2.5 mx-0 flex-wrap"
		aria-label="State"
		data-sveltekit-keepfocus
		data-sveltekit-noscroll
	>
		{#each Object.entries(STATES) as [state, label] (state)}
			<a
				class="pt-2 pb-1.5 px-3 no-underline border-b-4 border-b-transparent hover:bg-(--tape-tint) [&.on]:border-b-(--tape) [&.on]:font-[650]"
				href={address({ state: state === 'all' ? '' : state })}
				class:on={data.query.state === state}
				aria-current={data.query.state === state ? 'true' : undefined}
			>
				{label}
				<span class="numbers text-(--ink-2) text-[0.9rem] font-normal"
					>{data.counts[state as keyof typeof STATES].toLocaleString('en-GB')}</span
				>
			</a>
		{/each}
		{#if data.query.customerId}<a
				class="pt-2 pb-1.5 px-3 border-b-4 border-b-transparent ml-auto underline hover:bg-(--tape-tint)"
				href={address({ customer: '' })}>One customer only · show all</a
			>{/if}
	</nav>
	{#if data.rows.length === 0}
		<div class="panel p-7 grid gap-3 justify-items-start">
			{#if filtered}
				<h2>Nothing matches</h2>
				<p>No invoice or draft fits what you chose. <a href="/billing">Show everything</a></p>
			{:else}
				<h2>Your invoices will stand here</h2>
				<p>Write the first one: a customer’s name and a line is enough to begin.</p>
				<form method="post" action="/billing/new">
					<button class="button filled">Write an invoice</button>
				</form>
			{/if}
		</div>
	{:else}
		<InvoiceRows rows={data.rows} today={data.today} />
		<Pager before={data.before} after={data.after} />
		<form method="post" action="/billing/new" class="mt-2">
			<input type="hidden" name="selfBilled" value="1" />
			<button class="button plain">Record an invoice a contractor wrote for you</button>
		</form>
	{/if}
</div>
