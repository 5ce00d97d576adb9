<script lang="ts">
	import Search from '@lucide/svelte/icons/search';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
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

	function address(change: Record<string, string>): string {
		const next = new URLSearchParams(page.url.searchParams);
		next.delete('before');
		next.delete('after');
		for (const [name, value] of Object.entries(change)) {
			if (value) next.set(name, value);
			else next.delete(name);
		}
		return `/billing${next.size ? `?${next}` : ''}`;
	}

	let timer: ReturnType<typeof setTimeout>;
	function search(typed: string) {
		clearTimeout(timer);
		timer = setTimeout(
			() =>
				goto(address({ q: typed.trim() }), { keepFocus: true, replaceState: true, noScroll: true }),
			180
		);
	}
</script>

<svelte:head><title>Billing · Axiometer</title></svelte:head>
<div class="page">
	<div class="top">
		<h1>Billing</h1>
		<div class="find">
			<Search size={18} aria-hidden="true" />
			<input
				class="box"
				type="search"
				aria-label="Search invoices"
				placeholder="Name, number, amount, or a word on it"
				value={data.query.search}
				oninput={(event) => search(event.currentTarget.value)}
			/>
		</div>
		<label class="age">
			<span class="sr-only">How late</span>
			<select
				class="box"
				value={data.query.age}
				onchange={(event) =>
					goto(
						address({ age: event.currentTarget.value === 'any' ? '' : event.currentTarget.value })
					)}
			>
				{#each Object.entries(AGES) as [value, label] (value)}<option {value}>{label}</option
					>{/each}
			</select>
		</label>
	</div>
	<Tabs label="Billing" pages={BILLING_PAGES} />
	<nav class="states" aria-label="State">
		{#each Object.entries(STATES) as [state, label] (state)}
			<a
				href={address({ state: state === 'all' ? '' : state })}
				class:on={data.query.state === state}
				aria-current={data.query.state === state ? 'true' : undefined}
			>
				{label}
				<span class="numbers"
					>{data.counts[state as keyof typeof STATES].toLocaleString('en-GB')}</span
				>
			</a>
		{/each}
		{#if data.query.customerId}<a class="only" href={address({ customer: '' })}
				>One customer only · show all</a
			>{/if}
	</nav>
	{#if data.rows.length === 0}
		<div class="panel empty">
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
	{/if}
</div>

<style>
	.top {
		display: flex;
		gap: 14px;
		align-items: center;
		flex-wrap: wrap;
	}
	.find {
		flex: 1 1 260px;
		max-width: 440px;
		margin-left: auto;
		position: relative;
	}
	.find :global(svg) {
		position: absolute;
		left: 10px;
		top: 12px;
		color: var(--ink-2);
	}
	.find .box {
		padding-left: 36px;
	}
	.states {
		display: flex;
		gap: 4px;
		margin: 14px 0 10px;
		flex-wrap: wrap;
	}
	.states a {
		padding: 8px 12px 6px;
		text-decoration: none;
		border-bottom: 4px solid transparent;
	}
	.states a.on {
		border-bottom-color: var(--tape);
		font-weight: 650;
	}
	.states a:hover {
		background: var(--tape-tint);
	}
	.states span {
		color: var(--ink-2);
		font-size: 0.9rem;
		font-weight: 400;
	}
	.states .only {
		margin-left: auto;
		text-decoration: underline;
	}
	.empty {
		padding: 28px;
		display: grid;
		gap: 12px;
		justify-items: start;
	}
	@media (max-width: 760px) {
		.find {
			max-width: none;
			order: 3;
		}
		.age {
			margin-left: auto;
		}
	}
</style>
