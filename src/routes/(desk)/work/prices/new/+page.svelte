<script lang="ts">
	import { goto } from '$app/navigation';
	import EntryForm, { type EntryValues } from '$lib/ui/prices/EntryForm.svelte';

	let { data } = $props();
	const blank: EntryValues = {
		name: '',
		code: '',
		text: '',
		kind: 'labour',
		unit: '',
		unitPrice: '',
		withVat: false,
		cost: '',
		vat: 'standard',
		vatReason: '',
		category: '',
		kit: null,
		parts: []
	};
	async function save(values: object) {
		const response = await fetch('/work/prices/api', {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify(values)
		});
		const answer = await response.json();
		if (!response.ok) return answer;
		await goto(`/work/prices/${answer.id}`);
		return null;
	}
</script>

<svelte:head><title>New entry · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/work/prices">Price list</a></p>
	<h1>New entry</h1>
	<EntryForm
		values={blank}
		categories={data.categories}
		today={data.today}
		registered={data.registered}
		parties={data.parties}
		onsave={save}
	/>
</div>
