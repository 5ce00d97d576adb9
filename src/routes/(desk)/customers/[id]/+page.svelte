<script lang="ts">
	import { page } from '$app/state';
	import Form from '$lib/ui/parts/Form.svelte';
	import Tabs from '$lib/ui/parts/Tabs.svelte';
	import Table from '$lib/ui/parts/Table.svelte';
	import type { Column } from '$lib/ui/parts/table';
	import Fold from '$lib/ui/parts/Fold.svelte';
	import { goto, invalidateAll } from '$app/navigation';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import { formatVatNumber } from '$lib/core/regimes/gb/checks';
	import { STANDING_NAMES } from '$lib/core/jobs/types';
	import Files from '$lib/ui/files/Files.svelte';
	import CustomerFinder from '$lib/ui/customers/CustomerFinder.svelte';
	import CustomerEditor from '$lib/ui/customers/CustomerEditor.svelte';
	import Menu from '$lib/ui/parts/Menu.svelte';
	import CustomerSummary from '$lib/ui/customers/CustomerSummary.svelte';
	import InvoiceRows from '$lib/ui/invoices/InvoiceRows.svelte';
	import { pressKey } from '$lib/ui/parts/keys';
	import { notices } from '$lib/ui/parts/notices.svelte';

	let { data } = $props();
	let customer = $derived(data.customer);
	let key = $state(pressKey());
	let shown = $state(0);
	let changing = $derived(page.url.searchParams.has('change'));
	const close = () => goto(`/customers/${customer.id}`, { noScroll: true });
	let view = $state<'documents' | 'jobs' | 'account'>('documents');

	async function save(values: object) {
		const response = await fetch(`/customers/${customer.id}/api`, {
			method: 'PUT',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ version: customer.version, customer: values })
		});
		const answer = await response.json();
		if (!response.ok) return answer;
		await invalidateAll();
		shown++;
		await close();
		notices.say('Saved. Documents issued before keep what they were issued with.');
		return null;
	}
	const account: Column<(typeof data.account)[number]>[] = [
		{ id: 'date', head: 'Date', text: (row) => displayDate(row.date), sort: (row) => row.date },
		{
			id: 'what',
			head: 'What',
			text: (row) => row.what,
			href: (row) => (row.documentId ? `/billing/${row.documentId}` : null)
		},
		{ id: 'amount', head: 'Amount', text: (row) => displayPounds(row.amount), figures: true },
		{
			id: 'balance',
			head: 'Balance',
			text: (row) => displayPounds(row.balance),
			figures: true,
			look: () => 'font-[650]'
		}
	];
</script>

<svelte:head><title>{customer.name} · Axiometer</title></svelte:head>
<div class="page">
	<div class="flex gap-2.5 items-center flex-wrap mb-3.5">
		<div>
			<h1 class="wrap-anywhere">
				{customer.name}{#if customer.archivedAt}
					<span class="tag">archived</span>{/if}
			</h1>
			<p class="quiet">
				{customer.outstanding > 0
					? `${displayPounds(customer.outstanding)} open`
					: customer.outstanding < 0
						? `${displayPounds(-customer.outstanding)} in their favour`
						: 'nothing open'}{data.pays.days === null
					? ''
					: ` · usually pays in ${data.pays.days} days`}{data.card
					? ` · card ending ${data.card} is kept`
					: ''}{customer.billToName ? ` · bill goes to ${customer.billToName}` : ''}
				{#each customer.labels as label (label)}<span class="tag">{label}</span>{/each}
			</p>
		</div>
		<span class="flex-1"></span>
		{#if customer.archivedAt === null}
			<form method="post" action="/billing/new">
				<input type="hidden" name="customer" value={customer.id} /><input
					type="hidden"
					name="key"
					value={key}
				/><button class="button filled">Write an invoice</button>
			</form>
		{/if}
		{#if customer.archivedAt === null}<a class="button" href="/work/new?customer={customer.id}"
				>New job</a
			>{/if}
		<Menu
			entries={[
				{ label: 'A letterhead of its own', href: '?/look', post: {} },
				{ label: 'Their data', href: `/customers/${customer.id}/data` },
				customer.archivedAt === null
					? {
							label: 'Archive',
							href: '?/archive',
							post: { archived: 'yes' },
							done: 'The customer is archived.',
							undo: { action: '?/archive', values: { archived: 'no' } }
						}
					: { label: 'Bring back', href: '?/archive', post: { archived: 'no' } },
				...(customer.documentCount === 0
					? [{ label: 'Remove for good', href: '?/remove', post: {} }]
					: [])
			]}
		/>
	</div>
	{#if customer.privateNote}<p
			class="panel py-2.5 px-3.5 mb-3.5 bg-(--tape-tint) whitespace-pre-line"
		>
			<b>Private:</b>
			{customer.privateNote}
		</p>{/if}
	<div
		class="columns grid grid-cols-[minmax(0,1fr)_400px] gap-5.5 items-start max-[1050px]:grid-cols-1"
	>
		<section>
			<Tabs
				label="What to look at"
				bind:value={view}
				views={[
					{ name: 'documents', label: 'Documents', body: documentsView },
					{ name: 'jobs', label: 'Jobs', body: jobsView },
					{ name: 'account', label: 'Account', body: accountView },
					{ name: 'files', label: 'Files', body: filesView }
				]}
			/>
		</section>
		<aside class="panel py-4.5 px-5">
			{#if changing}
				{#key `${customer.id}.${shown}`}<CustomerEditor
						of={customer.id}
						values={customer}
						onsave={save}
						oncancel={close}
					/>{/key}
			{:else}
				<CustomerSummary {customer} />
				<p class="mt-3">
					<a class="button" href="?change" data-sveltekit-noscroll data-sveltekit-keepfocus
						>Change <span class="sr-only">what is known of {customer.name}</span></a
					>
				</p>
			{/if}
			{#if customer.standings.length > 1}
				<h2>Tax standing over time</h2>
				<ul class="quiet">
					{#each customer.standings as standing (standing.from)}
						<li>
							{standing.from ? `From ${displayDate(standing.from)}` : 'From the start'}: {standing.vatRegistered
								? standing.vatNumber
									? formatVatNumber(standing.vatNumber)
									: 'VAT registered'
								: 'no VAT'}{standing.cisRate === null
								? ''
								: `, deducts ${standing.cisRate} %`}{standing.endUser ? ', end user' : ''}
						</li>
					{/each}
				</ul>
			{/if}
			{#if data.card}<Form action="?/forgetCard">
					<button class="button plain">Forget the kept card</button>
				</Form>{/if}
			<Fold label="The same as another customer?">
				<Form class="grid gap-2.5 justify-items-start" action="?/merge">
					<CustomerFinder label="Move all into" name="into" except={customer.id} />
					<p class="quiet">
						Contacts, sites, jobs, drafts and repeats move. What is issued stays as it was, and this
						customer is archived.
					</p>
					<button class="button">Merge</button>
				</Form>
			</Fold>
		</aside>
	</div>
</div>

{#snippet documentsView()}
	{#if data.rows.length}<InvoiceRows rows={data.rows} today={data.today} ofOne />
	{:else}<div class="panel p-6">
			<h2>No documents yet</h2>
			<p>What you bill this customer will stand here.</p>
		</div>{/if}
{/snippet}

{#snippet jobsView()}
	<ul class="panel list">
		{#each data.jobs as job (job.id)}
			<li class="py-2.5 px-4 border-b border-b-(--hair)">
				<a href="/work/{job.id}"><span class="mono">{job.number}</span> {job.title}</a>
				<span class="quiet">{STANDING_NAMES[job.standing]}{job.site ? ` · ${job.site}` : ''}</span>
			</li>
		{:else}<li class="py-2.5 px-4 border-b border-b-(--hair)">No jobs yet.</li>{/each}
		<li class="py-2.5 px-4 border-b border-b-(--hair)">
			<a href="/work/new?customer={customer.id}">Begin a job</a>
		</li>
	</ul>
{/snippet}

{#snippet filesView()}
	<div class="panel py-4 px-4.5">
		<Files to="customer" id={customer.id} files={data.files} />
	</div>
{/snippet}
{#snippet accountView()}
	<div class="panel overflow-x-auto">
		<Table
			label="Account"
			rows={data.account}
			columns={account}
			id={(row) => row.id}
			empty="Nothing has happened on this account."
		/>
	</div>
{/snippet}
