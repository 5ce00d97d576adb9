<!-- What is known of a customer, to be read; it is changed when that is wanted. -->
<script lang="ts">
	import { formatVatNumber } from '$lib/core/regimes/gb/checks';
	import Facts from '../parts/Facts.svelte';
	import Whereabouts from '../jobs/Whereabouts.svelte';
	import type { CustomerValues } from './values';

	let { customer }: { customer: CustomerValues } = $props();
	const KINDS = { household: 'A household', business: 'A business', contractor: 'A contractor' };
	let { standing } = $derived(customer);
	const WAYS = { card: 'by card', bank: 'from their bank', transfer: 'by transfer' };
	let facts = $derived<[string, string][]>(
		[
			['They are', KINDS[customer.kind]],
			[
				'VAT',
				customer.kind === 'household'
					? ''
					: standing.vatRegistered
						? standing.vatNumber
							? formatVatNumber(standing.vatNumber)
							: 'registered'
						: 'not registered'
			],
			[
				'CIS',
				customer.kind === 'contractor'
					? `${standing.cisRate === null ? 'rate not known' : `deducts ${standing.cisRate} %`}${standing.verificationNumber ? `, ${standing.verificationNumber}` : ''}${standing.endUser ? ', end user' : ''}`
					: ''
			],
			['The bill goes to', customer.billToId ? customer.billToName : ''],
			[
				'Terms',
				customer.termsDays === null
					? ''
					: `${customer.termsDays} days${customer.termsEndOfMonth ? ', end of the month' : ''}`
			],
			['Order number', customer.orderNumberRequired ? 'wanted on every invoice' : ''],
			[
				'They can pay',
				customer.payWays
					? (Object.keys(WAYS) as (keyof typeof WAYS)[])
							.filter((way) => customer.payWays?.[way])
							.map((way) => WAYS[way])
							.join(', ')
					: ''
			]
		].filter((fact): fact is [string, string] => fact[1] !== '')
	);
</script>

<Whereabouts
	flat
	address={customer.address}
	people={[
		{ name: customer.name, phone: customer.phone, email: customer.email },
		...customer.contacts.map(({ name, role, phone, email }) => ({
			name: role ? `${name}, ${role}` : name,
			phone,
			email
		}))
	]}
/>
<Facts {facts} class="mt-2" />
{#if customer.sites.length}
	<h2 class="mt-3 text-base [font-family:inherit]">
		{customer.sites.length === 1 ? 'Site' : `${customer.sites.length} sites`}
	</h2>
	<ul>
		{#each customer.sites as site, index (index)}
			<li class="py-1 border-b border-b-(--hair) last:border-0">
				{site.name}
				<span class="quiet block"
					>{[
						site.address.split('\n').filter(Boolean).join(', '),
						site.accessNotes,
						site.contactName && `there: ${site.contactName}`
					]
						.filter(Boolean)
						.join(' · ')}</span
				>
			</li>
		{/each}
	</ul>
{/if}
