<script lang="ts">
	import { goto } from '$app/navigation';
	import CustomerEditor from '$lib/ui/customers/CustomerEditor.svelte';
	import { untrack } from 'svelte';
	import type { CustomerValues } from '$lib/ui/customers/values';
	import { NO_STANDING } from '$lib/core/parties';

	let { form } = $props();
	const typed = untrack(() => form?.typed);
	const blank: CustomerValues = {
		name: '',
		kind: 'household',
		email: '',
		phone: '',
		address: '',
		billToId: null,
		billToName: '',
		currency: 'GBP',
		termsDays: null,
		termsEndOfMonth: false,
		orderNumberRequired: false,
		inTrade: false,
		payWays: null,
		letterheadId: null,
		salutation: '',
		privateNote: '',
		labels: [],
		standing: { ...NO_STANDING },
		contacts: [],
		sites: [],
		...(typed ? { ...typed, kind: typed.kind as CustomerValues['kind'] } : {})
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
		<CustomerEditor
			values={blank}
			onsave={save}
			field="name"
			saveLabel="Add the customer"
			plain={{ action: '/customers/new', errors: form?.errors ?? {} }}
		/>
	</div>
</div>
