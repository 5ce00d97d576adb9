<script lang="ts">
	import { CUSTOMER_KIND_NAMES } from '$lib/core/words';
	import { enhance } from '$app/forms';
	import { page } from '$app/state';
	import { pressKey } from '$lib/ui/parts/keys';

	let { data, form } = $props();
	const key = pressKey();
	let typed = $state('');
	let chosen = $state<number[]>([]);
	let shown = $derived(
		data.people.filter(
			(one) =>
				chosen.includes(one.id) ||
				typed
					.toLowerCase()
					.split(/\s+/)
					.every((word) => one.name.toLowerCase().includes(word))
		)
	);
</script>

<svelte:head><title>Same invoice to several · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/billing/{page.params.id}">{data.number ?? 'Draft'}</a></p>
	<h1>The same invoice to several customers</h1>
	<p class="quiet">
		A draft for each, with each one’s own tax standing and terms. Nothing goes out yet.
	</p>
	<form class="panel" method="post" use:enhance>
		<input type="hidden" name="key" value={key} />
		<input
			class="box"
			type="search"
			aria-label="Find customers"
			placeholder="Part of a name"
			bind:value={typed}
			onkeydown={(event) => event.key === 'Enter' && event.preventDefault()}
		/>
		<div class="people">
			{#each shown as one (one.id)}
				<label class="check"
					><input type="checkbox" name="customer" value={one.id} bind:group={chosen} /><span
						>{one.name}
						<span class="quiet"
							>{CUSTOMER_KIND_NAMES[one.kind]}{one.id === data.own ? ', has this one' : ''}</span
						></span
					></label
				>
			{/each}
		</div>
		{#if form && 'message' in form}<p class="wrong" role="alert">{form.message}</p>{/if}
		<button class="button filled"
			>{chosen.length === 1 ? 'Make 1 draft' : `Make ${chosen.length} drafts`}</button
		>
	</form>
</div>

<style>
	form {
		padding: 16px 18px;
		display: grid;
		gap: 12px;
		max-width: 760px;
		justify-items: start;
	}
	.people {
		width: 100%;
		max-height: 50vh;
		overflow: auto;
		columns: 2 260px;
	}
</style>
