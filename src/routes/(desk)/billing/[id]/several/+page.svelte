<script lang="ts">
	import Form from '$lib/ui/parts/Form.svelte';
	import { CUSTOMER_KIND_NAMES } from '$lib/core/words';
	import { page } from '$app/state';

	let { data } = $props();
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
	<Form class="panel py-4 px-4.5 grid gap-3 max-w-190 justify-items-start" keyed>
		<input
			class="box"
			type="search"
			aria-label="Find customers"
			placeholder="Part of a name"
			bind:value={typed}
			onkeydown={(event) => event.key === 'Enter' && event.preventDefault()}
		/>
		<div class="w-full max-h-[50vh] overflow-auto [columns:2_260px]">
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
		<button class="button filled"
			>{chosen.length === 1 ? 'Make 1 draft' : `Make ${chosen.length} drafts`}</button
		>
	</Form>
</div>
