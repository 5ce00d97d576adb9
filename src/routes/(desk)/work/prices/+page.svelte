<script lang="ts">
	import { filtersOf } from '$lib/ui/parts/filters';
	import Plus from '@lucide/svelte/icons/plus';
	import { KIND_NAMES } from '$lib/core/words';
	import Pager from '$lib/ui/parts/Pager.svelte';
	import RemovedBefore from '$lib/ui/parts/RemovedBefore.svelte';
	import Tabs from '$lib/ui/parts/Places.svelte';
	import { WORK_PAGES } from '$lib/ui/jobs/tabs';

	let { data } = $props();
	const { address, search, choose } = filtersOf('/work/prices');
	let nothing = $derived(
		data.total === 0 && !data.query.typed && !data.query.category && !data.query.archived
	);
</script>

<svelte:head><title>Price list · Axiometer</title></svelte:head>
<div class="page">
	<div class="flex gap-y-2 gap-x-3 items-center flex-wrap">
		<h1>Work</h1>
		<span class="flex-1"></span>
		<a class="button" href="/work/prices/import">Bring in a file</a>
		<a class="button" href="/work/prices/raise">Raise prices</a>
		<a class="button filled" href="/work/prices/new"
			><Plus size={18} aria-hidden="true" />New entry</a
		>
	</div>
	<Tabs label="Work" pages={WORK_PAGES} />
	<RemovedBefore done="The entry is on the list again." />
	{#if nothing}
		<div class="panel p-5 grid gap-2.5 justify-items-start">
			<h2>What you sell will stand here</h2>
			<p>
				Labour and materials with their prices: typed once, found by a few letters on every sheet
				and job. A supplier’s list comes in as a CSV file.
			</p>
			<a class="button filled" href="/work/prices/new">Add the first entry</a>
		</div>
	{:else}
		<div class="flex gap-y-2 gap-x-3 items-center flex-wrap mb-2.5">
			<input
				class="box max-w-90 flex-[1_1_200px]"
				type="search"
				aria-label="Search the price list"
				placeholder="Any words, in any order"
				value={data.query.typed}
				oninput={(event) => search(event.currentTarget.value)}
			/>
			<select
				class="box flex-[1_1_200px] max-w-55"
				aria-label="Category"
				value={data.query.category}
				onchange={(event) => choose({ category: event.currentTarget.value })}
			>
				<option value="">all categories</option>
				{#each data.categories as category (category)}<option value={category}>{category}</option
					>{/each}
			</select>
			<span class="quiet numbers">{data.total.toLocaleString('en-GB')} entries</span>
			<span class="flex-1"></span>
			<a href="/lists/prices">As a table</a>
			<a href="/work/prices/export">CSV</a>
			<a href={address({ archived: data.query.archived ? '' : 'yes' })}
				>{data.query.archived ? 'Show what is in use' : 'Show what was put aside'}</a
			>
		</div>
		<ul class="panel">
			{#each data.rows as row (row.id)}
				<li>
					<a
						class="grid grid-cols-[110px_minmax(0,1fr)_110px_100px_70px] gap-y-1 gap-x-3.5 items-center py-2.25 px-4 no-underline border-b border-b-(--hair) phone:grid-cols-[minmax(0,1fr)_auto_auto] hover:bg-(--tape-tint)"
						href="/work/prices/{row.id}"
					>
						<span class="mono quiet phone:hidden">{row.code}</span>
						<span class="what"
							><b class="block wrap-anywhere">{row.name}</b><span class="quiet block wrap-anywhere"
								>{row.kit ? 'kit' : KIND_NAMES[row.kind]}{row.category
									? ` · ${row.category}`
									: ''}</span
							></span
						>
						<span class="numbers quiet text-right phone:hidden"
							>{row.cost ? `cost ${row.cost}` : ''}</span
						>
						<b class="numbers text-right">{row.unitPrice || (row.kit ? 'its parts' : '–')}</b>
						<span class="quiet"
							>{row.unit}{#if row.withVat}<span class="block">with VAT</span>{/if}</span
						>
					</a>
				</li>
			{:else}
				<li class="p-5">
					Nothing fits. <a
						class="grid grid-cols-[110px_minmax(0,1fr)_110px_100px_70px] gap-y-1 gap-x-3.5 items-center py-2.25 px-4 no-underline border-b border-b-(--hair) phone:grid-cols-[minmax(0,1fr)_auto_auto] hover:bg-(--tape-tint)"
						href="/work/prices">Show everything</a
					>
				</li>
			{/each}
		</ul>
		<Pager before={data.before} after={data.after} words={['Back', 'More']} />
	{/if}
</div>
