<script lang="ts">
	import { page } from '$app/state';
	import Field from '$lib/ui/parts/Field.svelte';
	import Entrance from '$lib/ui/business/Entrance.svelte';

	let { data, form } = $props();
	let to = $derived(page.url.searchParams.get('to'));
	const target = (action: string) => `?/${action}${to ? `&to=${encodeURIComponent(to)}` : ''}`;
</script>

<svelte:head><title>Sign in · Axiometer</title></svelte:head>
<Entrance title="Sign in">
	{#if data.demo}
		<form method="post" action={target('demo')}>
			<p>This is the demo business, Orrell Lime &amp; Plaster. Nothing in it is real.</p>
			<button class="button filled">Sign in as Tamsin Orrell</button>
		</form>
		<p class="quiet or">or with the password</p>
	{/if}
	<form method="post" action={target('password')}>
		<Field
			label="Password"
			name="password"
			type="password"
			autocomplete="current-password"
			required
			error={form?.fields.password ?? (form && !form.fields.password ? form.message : undefined)}
		/>
		<button class="button" class:filled={!data.demo}>Sign in</button>
	</form>
</Entrance>

<style>
	form {
		display: grid;
		gap: 14px;
		justify-items: start;
	}
	form :global(.field) {
		width: 100%;
	}
	.or {
		margin: 18px 0 8px;
	}
</style>
