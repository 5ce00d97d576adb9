<script lang="ts">
	import { untrack } from 'svelte';
	import { goto } from '$app/navigation';
	import { BILLING_PAGES } from '$lib/ui/invoices/tabs';
	import { Draft } from '$lib/ui/lines/draft.svelte';
	import LineEditor from '$lib/ui/lines/LineEditor.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import { notices } from '$lib/ui/parts/notices.svelte';
	import Tabs from '$lib/ui/parts/Places.svelte';

	let { data } = $props();
	const { point, parties } = untrack(() => data);
	const draft = new Draft({ ...parties, draft: { id: point.id, sheet: point.sheet } });
	let name = $state(point.name);
	let wrong = $state<Record<string, string>>({});
	let message = $state('');
	let busy = $state(false);

	async function save(event: SubmitEvent) {
		event.preventDefault();
		busy = true;
		const response = await fetch(`/billing/start/${point.id}/api`, {
			method: 'PUT',
			headers: { 'content-type': 'application/json' },
			body: `{"version":${point.updatedAt},"name":${JSON.stringify(name)},"sheet":${draft.json()}}`
		}).catch(() => null);
		busy = false;
		const answer = await response?.json().catch(() => null);
		if (response?.ok) {
			await goto('/billing/start');
			return notices.say(`“${name.trim()}” is saved. What was begun from it stays as it is.`);
		}
		wrong = draft.refused = answer?.fields ?? {};
		message = answer?.message ?? 'The connection is lost. Nothing was saved; try again.';
	}
</script>

<svelte:head><title>{point.name} · Axiometer</title></svelte:head>
<div class="page">
	<h1>Billing</h1>
	<Tabs label="Billing" pages={BILLING_PAGES} />
	<form class="grid gap-3.5" onsubmit={save} novalidate>
		<section class="panel py-4 px-4.5 grid gap-2.5">
			{#if message}<p class="wrong" role="alert">{message}</p>{/if}
			<div class="max-w-120">
				<Field label="Name, for you" name="name" bind:value={name} error={wrong.name} />
			</div>
			<LineEditor {draft} />
		</section>
		<div class="flex gap-2.5 flex-wrap">
			<button class="button filled" aria-busy={busy}>Save</button>
			<a class="button" href="/billing/start">Leave it as it was</a>
		</div>
	</form>
</div>
