<script lang="ts">
	import { goto } from '$app/navigation';
	import CustomerEditor from '$lib/ui/customers/CustomerEditor.svelte';
	import { NO_STANDING } from '$lib/core/parties';

	const blank = {
		name: '',
		kind: 'household' as const,
		email: '',
		phone: '',
		address: '',
		billToId: null,
		billToName: '',
		termsDays: null,
		termsEndOfMonth: false,
		orderNumberRequired: false,
		payWays: null,
		privateNote: '',
		labels: [],
		standing: { ...NO_STANDING },
		contacts: [],
		sites: []
	};

	async function save(customer: object) {
		const response = await fetch('/customers/api', {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify(customer)
		});
		const answer = await response.json();
		if (!response.ok) return answer;
		await goto(`/customers/${answer.id}`);
		return null;
	}
</script>

<svelte:head><title>New customer · Axiometer</title></svelte:head>
<div class="page">
	<h1>New customer</h1>
	<p class="quiet">A name is enough. What an invoice needs is asked for when it needs it.</p>
	<div class="panel py-5 px-5.5 max-w-180 mt-3">
		<CustomerEditor values={blank} onsave={save} field="name" saveLabel="Add the customer" />
	</div>
</div>
