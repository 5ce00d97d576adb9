<script lang="ts">
	import Plus from '@lucide/svelte/icons/plus';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { KIND_NAMES } from '$lib/core/words';
	import Tabs from '$lib/ui/parts/Places.svelte';
	import { WORK_PAGES } from '$lib/ui/jobs/tabs';

	let { data } = $props();
	function address(change: Record<string, string>): string {
		const next = new URLSearchParams(page.url.searchParams);
		next.delete('page');
		for (const [name, value] of Object.entries(change)) {
			if (value) next.set(name, value);
			else next.delete(name);
		}
		return `/work/prices${next.size ? `?${next}` : ''}`;
	}
	const turn = (n: number) => `${address({})}${address({}).includes('?') ? '&' : '?'}page=${n}`;
	let timer: ReturnType<typeof setTimeout>;
	function search(typed: string) {
		clearTimeout(timer);
		timer = setTimeout(
			() =>
				goto(address({ q: typed.trim() }), { keepFocus: true, replaceState: true, noScroll: true }),
			150
		);
	}
	let nothing = $derived(
		data.total === 0 && !data.query.typed && !data.query.category && !data.query.archived
	);
</script>

<svelte:head><title>Price list · Axiometer</title></svelte:head>
<div class="page">
	<div class="top">
		<h1>Work</h1>
		<span class="gap"></span>
		<a class="button" href="/work/prices/import">Bring in a file</a>
		<a class="button" href="/work/prices/raise">Raise prices</a>
		<a class="button filled" href="/work/prices/new"
			><Plus size={18} aria-hidden="true" />New entry</a
		>
	</div>
	<Tabs label="Work" pages={WORK_PAGES} />
	{#if nothing}
		<div class="panel empty">
			<h2>What you sell will stand here</h2>
			<p>
				Labour and materials with their prices: typed once, found by a few letters on every sheet
				and job. A supplier’s list comes in as a CSV file.
			</p>
			<a class="button filled" href="/work/prices/new">Add the first entry</a>
		</div>
	{:else}
		<div class="bar">
			<input
				class="box"
				type="search"
				aria-label="Search the price list"
				placeholder="Any words, in any order"
				value={data.query.typed}
				oninput={(event) => search(event.currentTarget.value)}
			/>
			<select
				class="box"
				aria-label="Category"
				value={data.query.category}
				onchange={(event) => goto(address({ category: event.currentTarget.value }))}
			>
				<option value="">all categories</option>
				{#each data.categories as category (category)}<option value={category}>{category}</option
					>{/each}
			</select>
			<span class="quiet numbers">{data.total.toLocaleString('en-GB')} entries</span>
			<span class="gap"></span>
			<a href="/work/prices/export">CSV</a>
			<a href={address({ archived: data.query.archived ? '' : 'yes' })}
				>{data.query.archived ? 'Show what is in use' : 'Show what was put aside'}</a
			>
		</div>
		<ul class="panel">
			{#each data.rows as row (row.id)}
				<li>
					<a href="/work/prices/{row.id}">
						<span class="mono quiet">{row.code}</span>
						<span class="what"
							><b>{row.name}</b><span class="quiet"
								>{row.kit ? 'kit' : KIND_NAMES[row.kind]}{row.category
									? ` · ${row.category}`
									: ''}</span
							></span
						>
						<span class="numbers quiet r">{row.cost ? `cost ${row.cost}` : ''}</span>
						<b class="numbers r">{row.unitPrice || (row.kit ? 'its parts' : '–')}</b>
						<span class="quiet">{row.unit}</span>
					</a>
				</li>
			{:else}
				<li class="none">Nothing fits. <a href="/work/prices">Show everything</a></li>
			{/each}
		</ul>
		<div class="pages">
			{#if data.query.page > 1}<a class="button" href={turn(data.query.page - 1)}>Back</a>{/if}
			{#if data.more}<a class="button" href={turn(data.query.page + 1)}>More</a>{/if}
		</div>
	{/if}
</div>

<style>
	.top,
	.bar {
		display: flex;
		gap: 8px 12px;
		align-items: center;
		flex-wrap: wrap;
	}
	.bar {
		margin-bottom: 10px;
	}
	.bar .box {
		max-width: 360px;
		flex: 1 1 200px;
	}
	.bar select.box {
		max-width: 220px;
	}
	.gap {
		flex: 1;
	}
	li a {
		display: grid;
		grid-template-columns: 110px minmax(0, 1fr) 110px 100px 70px;
		gap: 4px 14px;
		align-items: center;
		padding: 9px 16px;
		text-decoration: none;
		border-bottom: 1px solid var(--hair);
	}
	li a:hover {
		background: var(--tape-tint);
	}
	.what > * {
		display: block;
		overflow-wrap: anywhere;
	}
	.r {
		text-align: right;
	}
	.none,
	.empty {
		padding: 20px;
	}
	.empty {
		display: grid;
		gap: 10px;
		justify-items: start;
	}
	.pages {
		display: flex;
		gap: 10px;
		padding: 14px 0;
	}
	@media (max-width: 760px) {
		li a {
			grid-template-columns: minmax(0, 1fr) auto auto;
		}
		li a > .mono,
		li a > .quiet.r {
			display: none;
		}
	}
</style>
