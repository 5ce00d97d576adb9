<script lang="ts">
	import BringIn from '$lib/ui/parts/BringIn.svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import Fold from '$lib/ui/parts/Fold.svelte';
	import Tick from '$lib/ui/parts/Tick.svelte';

	let { data, form } = $props();

	const TEXTS = {
		invoices: {
			title: 'Bring in open invoices',
			text: 'A row for each invoice; for one with several rates of VAT, a row for each rate under the same number. They keep their numbers, are shown, chased and paid like any other, and stay as they are.',
			one: 'open invoice',
			many: 'open invoices',
			to: { href: '/owed', label: 'To what is owed' }
		},
		deposits: {
			title: 'Bring in deposits and credit held',
			text: 'A row for each sum you hold for a customer. With the number of its deposit invoice it becomes that invoice, paid; without, it is money in hand that the next invoice uses.',
			one: 'deposit',
			many: 'deposits',
			to: { href: '/owed', label: 'To what is owed' }
		},
		repeats: {
			title: 'Bring in repeats',
			text: 'A row for each: whom it bills, how much, how often, and the next day. It begins there; nothing is billed for days before.',
			one: 'repeat',
			many: 'repeats',
			to: { href: '/billing/repeats', label: 'To the repeats' }
		}
	};
	/** What a heading holds, where its name does not say it all. */
	const SAYS: Record<string, string> = {
		Number: 'as it stands on the invoice',
		Customer: 'by name; rows of one customer need not be spelt in the same capitals',
		Due: 'where it is missing, by the customer’s terms',
		'Tax point': 'where it is not the day it was issued',
		'Reverse charge': 'yes where the customer accounts for the VAT',
		'VAT returned': 'yes or no, where not all are alike',
		'VAT rate': '20, 5, 0, exempt or outside',
		'Still open': 'what is owed on it, before any deduction',
		Paid: 'what was paid of it so far, in money',
		Withheld: 'what contractors kept of that',
		'Expected deduction': 'what a contractor will deduct of it in all; 0 for nothing',
		Retention: 'what is held back besides, without VAT: it is taxed when it is released',
		Total: 'with VAT',
		'Exchange rate': 'pounds for one of it, for invoices in other money',
		Job: 'made where it is not there',
		'Deposit invoice': 'its number, where one was written',
		Amount: 'with VAT',
		'Price has VAT': 'yes or no; where it is missing, yes for households',
		Every: 'monthly, quarterly, every 2 weeks …',
		Next: 'the day of the next bill, today or later',
		Sends: 'yes: it goes out by itself; otherwise it waits as a draft'
	};
	let words = $derived(TEXTS[data.kind]);
</script>

<svelte:head><title>{words.title} · Axiometer</title></svelte:head>
<div class="page max-w-245">
	<p class="quiet"><a href="/settings">Settings</a> · <a href="/settings/moving">Moving in</a></p>
	<h1 class="mb-1">{words.title}</h1>
	<p class="mb-2">{words.text}</p>
	<Fold label="The columns that are looked for">
		<ul class="grid gap-1 my-2">
			{#each data.columns as { label, required } (label)}
				<li>
					<b>{label}</b>{required ? ' (needed)' : ''}{#if SAYS[label]}<span class="quiet"
							>: {SAYS[label]}</span
						>{/if}
				</li>
			{/each}
		</ul>
		<p><a href="/settings/moving/{data.kind}/template" download>An empty table with them</a></p>
	</Fold>
	<BringIn
		label="A CSV file"
		accept=".csv,.txt,text/csv"
		one={words.one}
		many={words.many}
		to={words.to}
		{form}
	>
		<input type="hidden" name="key" value={data.key} />
		<Tick name="addCustomers">Whoever is no customer yet is added, as a household</Tick>
		{#if data.kind !== 'repeats' && data.asksForReturns}
			<DateField
				label="Your last VAT return went up to"
				name="returnedUntil"
				hint="What has its tax point up to that day was in it, and is in no return again. Empty: nothing was returned yet."
			/>
		{/if}
	</BringIn>
</div>
