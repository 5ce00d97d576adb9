<!-- Signing in with a passkey, where this browser knows them. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import { canPasskeys, PasskeyError, signInWithPasskey } from './passkey';

	interface Props {
		/** Where to, once signed in: a path of this app. */
		to: string;
	}
	let { to }: Props = $props();
	let able = $state(false);
	let busy = $state(false);
	let wrong = $state('');
	onMount(() => (able = canPasskeys()));

	async function signIn() {
		if (busy) return;
		busy = true;
		wrong = '';
		try {
			await signInWithPasskey();
			// A whole new page: whoever was signed in before is nobody's business.
			location.assign(to);
		} catch (error) {
			if (!(error instanceof PasskeyError)) throw error;
			wrong = error.message;
			busy = false;
		}
	}
</script>

{#if able}
	<div class="mt-4.5 grid gap-2 justify-items-start">
		<button class="button" type="button" aria-busy={busy} onclick={signIn}
			>Sign in with a passkey</button
		>
		{#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
	</div>
{/if}
