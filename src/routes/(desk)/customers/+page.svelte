<script lang="ts">
	import { CUSTOMER_KIND_NAMES } from '$lib/core/words';
	import Search from '@lucide/svelte/icons/search';
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
	<div class="top">
		<h1>Customers</h1>
		<div class="find">
			<Search size={18} aria-hidden="true" />
			<input
				class="box"
				type="search"
				aria-label="Search customers"
				placeholder="Name, place or mail address"
				value={data.search}
				oninput={(event) => search(event.currentTarget.value)}
			/>
		</div>
		<a class="button" href="/customers/new">Add a customer</a>
		<span class="files"
			><a href="/customers/import">Bring in a file</a> · <a href="/customers/export">CSV</a> ·
			<a href="/customers/export?as=vcard">vCard</a></span
		>
	</div>
	{#if data.customers.length === 0}
		<div class="panel empty">
			{#if data.search}<h2>Nobody of that name</h2>
				<p>Try fewer letters, or <a href="/customers/new">add a customer</a>.</p>
			{:else}<h2>Your customers will stand here</h2>
				<p>Add one here, or in the middle of an invoice with only a name.</p>{/if}
		</div>
	{:else}
		<ul class="panel">
			{#each data.customers as one (one.id)}
				<li>
					<a href="/customers/{one.id}">
						<b
							>{one.name}{#if one.archivedAt}
								<span class="tag">archived</span>{/if}</b
						>
						<span class="quiet">{CUSTOMER_KIND_NAMES[one.kind]}</span>
						<span class="quiet address"
							>{one.address.split('\n').join(', ') || 'no address yet'}</span
						>
						<span class="numbers owed"
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
		{#if data.customers.length === 200}<p class="quiet more">
				The first 200. Search to find the others.
			</p>{/if}
	{/if}
	<p class="more">
		<a href={address(data.search, !data.archived)}
			>{data.archived ? 'Leave archived customers out' : 'Show archived customers too'}</a
		>
	</p>
</div>

<style>
	.top {
		display: flex;
		gap: 14px;
		align-items: center;
		flex-wrap: wrap;
		margin-bottom: 14px;
	}
	.find {
		position: relative;
		flex: 1 1 240px;
		max-width: 440px;
		margin-left: auto;
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
	li a {
		display: grid;
		grid-template-columns: minmax(200px, 1.2fr) 110px 1.5fr 140px;
		gap: 16px;
		padding: 12px 16px;
		text-decoration: none;
		align-items: center;
		min-height: 48px;
	}
	li a:hover {
		background: var(--tape-tint);
	}
	li + li {
		border-top: 1px solid var(--hair);
	}
	b {
		font-weight: 600;
		overflow-wrap: anywhere;
	}
	.address {
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.owed {
		text-align: right;
	}
	.empty {
		padding: 28px;
	}
	.more {
		margin-top: 12px;
	}
	@media (max-width: 760px) {
		.find {
			order: 3;
			max-width: none;
		}
		.top .button {
			margin-left: auto;
		}
		li a {
			grid-template-columns: 1fr auto;
			gap: 2px 12px;
		}
		.address {
			grid-column: 1 / 3;
			grid-row: 2;
		}
		.quiet:not(.address) {
			display: none;
		}
	}
</style>
