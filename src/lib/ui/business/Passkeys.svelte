<!-- The passkeys of whoever is signed in: added with the password, removed with a press. -->
<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import { onMount } from 'svelte';
	import { displayDate, londonDate } from '$lib/core/calendar/conversion';
	import Field from '../parts/Field.svelte';
	import Form from '../parts/Form.svelte';
	import { notices } from '../parts/notices.svelte';
	import { addPasskey, canPasskeys, PasskeyError } from './passkey';

	interface Props {
		keys: { id: string; name: string; createdAt: number; usedAt: number | null }[];
	}
	let { keys }: Props = $props();
	let able = $state(true);
	let busy = $state(false);
	let wrong = $state('');
	let current = $state('');
	let name = $state('');
	onMount(() => (able = canPasskeys()));

	async function add(event: SubmitEvent) {
		event.preventDefault();
		if (busy) return;
		busy = true;
		wrong = '';
		try {
			await addPasskey(current, name);
			[current, name] = ['', ''];
			await invalidateAll();
			notices.say('The passkey is kept. It signs you in without password and code.');
		} catch (error) {
			if (!(error instanceof PasskeyError)) throw error;
			wrong = error.message;
		} finally {
			busy = false;
		}
	}
	const day = (at: number) => displayDate(londonDate(at));
</script>

<section class="panel grid gap-3 py-4.5 px-5">
	<h2>Passkeys</h2>
	<p>Sign in with the finger, the face or the PIN of a device, instead of password and code.</p>
	{#if keys.length}
		<ul class="grid gap-2">
			{#each keys as one (one.id)}
				<li class="flex flex-wrap items-center justify-between gap-x-3">
					<span
						>{one.name}<span class="quiet block"
							>added on {day(one.createdAt)}{one.usedAt
								? `, last used on ${day(one.usedAt)}`
								: ''}</span
						></span
					>
					<Form
						action="?/removePasskey"
						hidden={{ key: one.id }}
						done="That passkey signs nobody in any more."
						><button class="button plain"
							>Remove<span class="sr-only">: {one.name}, added on {day(one.createdAt)}</span
							></button
						></Form
					>
				</li>
			{/each}
		</ul>
	{/if}
	{#if able}
		<form class="grid gap-3" onsubmit={add}>
			<Field
				label="Name of the device"
				name="device"
				bind:value={name}
				maxlength={100}
				placeholder="Phone, laptop …"
			/>
			<Field
				label="Your password"
				name="current"
				type="password"
				autocomplete="current-password"
				bind:value={current}
				error={wrong || undefined}
			/>
			<div><button class="button" aria-busy={busy}>Add a passkey</button></div>
		</form>
	{:else}<p class="quiet">This browser knows no passkeys.</p>{/if}
</section>
