<script lang="ts">
	import { LISTS, pathOfList } from '$lib/core/lists/all';
	import ListPage from '$lib/ui/lists/ListPage.svelte';
	import { LIST_PAGES } from '$lib/ui/lists/pages';
	import { filtersOf } from '$lib/ui/parts/filters';
	import Form from '$lib/ui/parts/Form.svelte';
	import Search from '$lib/ui/parts/Search.svelte';

	let { data } = $props();
	let spec = $derived(LISTS[data.list]);
	let path = $derived(pathOfList(data.list));
	let words = $derived(LIST_PAGES[data.list]);
	let hrefs = $derived(new Map(data.rows.map((row) => [row.id, row.href])));
	let names = $derived(spec.fields.find((field) => field.names)!);
</script>

<svelte:head><title>{words.title} · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href={words.back.href}>{words.back.label}</a></p>
	<div class="flex gap-3.5 items-center flex-wrap">
		<h1>{words.title}</h1>
		<Search
			class="flex-[1_1_260px] max-w-110 ml-auto phone:max-w-none phone:order-3"
			label="Search {spec.words[1]}"
			placeholder={words.search}
			value={data.view.search}
			onsearch={(typed) => filtersOf(path).search(typed)}
		/>
		{#if data.list === 'enquiries'}
			<a class="button" href="/settings/enquiries">Your page</a>
			<a class="button filled" href="/work/enquiries/new">New enquiry</a>
		{/if}
		{#if data.list === 'quotes'}
			<Form leaves keyed action="/work/quotes/new">
				<button class="button filled">New quote</button>
			</Form>
		{/if}
		{#if data.list === 'costs'}
			<a class="button" href="/costs/suppliers">Suppliers</a>
			<a class="button filled" href="/costs/new">New cost</a>
		{/if}
	</div>
	{#key data.list}
		<ListPage
			{path}
			label="{words.title}, amounts in pounds"
			{spec}
			{data}
			views={data.views}
			{...words.head ? { head: words.head } : {}}
			href={(row) => hrefs.get(row.id) ?? path}
			name={(row) => `${row.cells[names.id] ?? ''}, ${spec.words[0]} ${row.id}`}
		>
			{#snippet empty()}
				<h2>{words.empty}</h2>
				<p>{words.first}</p>
			{/snippet}
		</ListPage>
	{/key}
</div>
