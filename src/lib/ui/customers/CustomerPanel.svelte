<!-- The customer's details beside the sheet: what an invoice needs is asked for here, at its field. -->
<script lang="ts">
	import type { CustomerRecord } from '$lib/core/parties';
	import CustomerEditor from './CustomerEditor.svelte';
	import type { CustomerValues } from './values';

	interface Props {
		id: number;
		field: string | null;
		onsaved: (record: CustomerRecord, mailTo: string) => void;
		onclose: () => void;
	}
	let { id, field, onsaved, onclose }: Props = $props();

	async function load(): Promise<CustomerValues & { version: number }> {
		const response = await fetch(`/customers/${id}/api`);
		const answer = await response.json();
		if (!response.ok) throw new Error(answer.message);
		return answer.detail;
	}

	async function save(version: number, customer: object) {
		const response = await fetch(`/customers/${id}/api`, {
			method: 'PUT',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ version, customer })
		});
		const answer = await response.json();
		if (!response.ok) return answer;
		onsaved(answer.record, answer.mailTo);
		onclose();
		return null;
	}
</script>

<section aria-label="Customer details">
	{#await load() then values}
		<h2 class="mb-3 wrap-anywhere">{values.name}</h2>
		<CustomerEditor
			of={id}
			{values}
			{field}
			onsave={(customer) => save(values.version, customer)}
			oncancel={onclose}
		/>
	{:catch problem}
		<p class="wrong" role="alert">{problem.message || 'The customer could not be loaded.'}</p>
		<button class="button" onclick={onclose}>Close</button>
	{/await}
</section>
