<script lang="ts">
	import { page } from '$app/state';
	import Form from '$lib/ui/parts/Form.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import PasskeySignIn from '$lib/ui/business/PasskeySignIn.svelte';
	import Entrance from '$lib/ui/business/Entrance.svelte';

	let { data } = $props();
	let to = $derived(page.url.searchParams.get('to'));
	const target = (action: string) => `?/${action}${to ? `&to=${encodeURIComponent(to)}` : ''}`;
</script>

<svelte:head><title>Sign in · Axiometer</title></svelte:head>
<Entrance title="Sign in">
	{#if data.demo}
		<form
			class="grid gap-3.5 justify-items-start [&_.field]:w-full"
			method="post"
			action={target('demo')}
		>
			<p>This is the demo business, Orrell Lime &amp; Plaster. Nothing in it is real.</p>
			<button class="button filled">Sign in as Tamsin Orrell</button>
		</form>
		<p class="quiet or mt-4.5 mb-2 mx-0">or with the password</p>
	{/if}
	<Form class="grid gap-3.5 justify-items-start [&_.field]:w-full" action={target('password')}>
		{#if data.several}<Field
				label="E-mail"
				name="email"
				type="email"
				autocomplete="username"
			/>{/if}
		<Field
			label="Password"
			name="password"
			type="password"
			autocomplete="current-password"
			required
		/>
		{#if data.factors}<Field
				label="Code, if you have a second factor"
				name="code"
				autocomplete="one-time-code"
				maxlength={12}
			/>{/if}
		<button class="button" class:filled={!data.demo}>Sign in</button>
	</Form>
	{#if data.passkeys}<PasskeySignIn to={data.to} />{/if}
</Entrance>
