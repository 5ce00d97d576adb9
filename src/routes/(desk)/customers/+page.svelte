<script lang="ts">
	import Search from '$lib/ui/parts/Search.svelte';
	import { CUSTOMER_KIND_NAMES } from '$lib/core/words';
	import { goto } from '$app/navigation';
	import { displayPounds } from '$lib/core/money/display';

	let { data } = $props();
	let timer: ReturnType<typeof setTimeout>;
	const address = (q: string, archived: boolean) => {
		const query = new URLSearchParams({
			...(q ? { q } : {}),
			...(archived ? { archived: '1' } : {})
		});
		return `/customers${query.size ? `?${query}` : ''}`;
	};
	function search(typed: string) {
		clearTimeout(timer);
		timer = setTimeout(
			() =>
				goto(address(typed.trim(), data.archived), {
					keepFocus: true,
					replaceState: true,
					noScroll: true
				}),
			180
		);
	}
</script>

<svelte:head><title>Customers · Axiometer</title></svelte:head>
<div class="page">
	<div class="flex gap-3.5 items-center flex-wrap mb-3.5">
		<h1>Customers</h1>
		<Search
			class="flex-[1_1_240px] max-w-110 ml-auto phone:order-3 phone:max-w-none"
			label="Search customers"
			placeholder="Name, place or e-mail"
			value={data.search}
			onsearch={search}
		/>
		<a class="button phone:ml-auto" href="/customers/new">Add a customer</a>
		<span class="files"
			><a href="/lists/customers">As a table</a> · <a href="/customers/import">Bring in a file</a> ·
			<a href="/customers/export">CSV</a>
			·
			<a href="/customers/export?as=vcard">vCard</a></span
		>
	</div>
	{#if data.customers.length === 0}
		<div class="panel p-7">
			{#if data.search}<h2>Nobody of that name</h2>
				<p>Try fewer letters, or <a href="/customers/new">add a customer</a>.</p>
			{:else}<h2>Your customers will stand here</h2>
				<p>Add one here, or in the middle of an invoice with only a name.</p>{/if}
		</div>
	{:else}
		<ul class="panel">
			{#each data.customers as one (one.id)}
				<li class="not-first:border-t not-first:border-t-(--hair)">
					<a
						class="grid grid-cols-[minmax(200px,1.2fr)_110px_1.5fr_140px] gap-4 py-3 px-4 no-underline items-center min-h-12 phone:grid-cols-[1fr_auto] phone:gap-y-0.5 phone:gap-x-3 hover:bg-(--tape-tint)"
						href="/customers/{one.id}"
					>
						<b class="font-semibold wrap-anywhere"
							>{one.name}{#if one.archivedAt}
								<span class="tag">archived</span>{/if}</b
						>
						<span class="quiet phone:[&:not(.address)]:hidden">{CUSTOMER_KIND_NAMES[one.kind]}</span
						>
						<span
							class="quiet address overflow-hidden text-ellipsis whitespace-nowrap phone:col-[1_/_3] phone:row-start-2 phone:[&:not(.address)]:hidden"
							>{one.address.split('\n').join(', ') || 'no address yet'}</span
						>
						<span class="numbers owed text-right"
							>{one.owed > 0
								? `${displayPounds(one.owed)} open`
								: one.owed < 0
									? `${displayPounds(-one.owed)} in their favour`
									: ''}</span
						>
					</a>
				</li>
			{/each}
		</ul>
		{#if data.customers.length === 200}<p class="quiet more mt-3 phone:[&:not(.address)]:hidden">
				The first 200. Search to find the others.
			</p>{/if}
	{/if}
	<p class="more mt-3">
		<a href={address(data.search, !data.archived)}
			>{data.archived ? 'Leave archived customers out' : 'Show archived customers too'}</a
		>
	</p>
</div>
