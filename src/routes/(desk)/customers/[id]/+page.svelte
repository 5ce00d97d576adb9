<script lang="ts">
	import Fold from '$lib/ui/parts/Fold.svelte';
	import { enhance } from '$app/forms';
	import { invalidateAll } from '$app/navigation';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import { formatVatNumber } from '$lib/core/regimes/gb/checks';
	import { JOB_STATE_NAMES } from '$lib/core/jobs/types';
	import CustomerEditor from '$lib/ui/customers/CustomerEditor.svelte';
	import InvoiceRows from '$lib/ui/invoices/InvoiceRows.svelte';
	import { pressKey } from '$lib/ui/parts/keys';
	import { notices } from '$lib/ui/parts/notices.svelte';

	let { data, form } = $props();
	let customer = $derived(data.customer);
	let key = $state(pressKey());
	let shown = $state(0);
	const VIEWS = [
		['documents', 'Documents'],
		['jobs', 'Jobs'],
		['account', 'Account']
	] as const;
	let view = $state<(typeof VIEWS)[number][0]>('documents');
	let people = $state<{ id: number; name: string }[] | null>(null);
	async function findPeople() {
		const response = await fetch('/customers/api?q=').catch(() => null);
		people = response?.ok ? await response.json() : [];
	}

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
		notices.say('Saved. Documents issued before keep what they were issued with.');
		return null;
	}
</script>

<svelte:head><title>{customer.name} · Axiometer</title></svelte:head>
<div class="page">
	<div class="top">
		<div>
			<h1>
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
		<span class="gap"></span>
		{#if customer.archivedAt === null}
			<form method="post" action="/billing/new">
				<input type="hidden" name="customer" value={customer.id} /><input
					type="hidden"
					name="key"
					value={key}
				/><button class="button filled">Write an invoice</button>
			</form>
		{/if}
		<form method="post" action="?/archive" use:enhance>
			<input type="hidden" name="archived" value={customer.archivedAt === null ? 'yes' : 'no'} />
			<button class="button">{customer.archivedAt === null ? 'Archive' : 'Bring back'}</button>
		</form>
		{#if customer.documentCount === 0}<form method="post" action="?/remove" use:enhance>
				<button class="button danger">Remove</button>
			</form>{/if}
	</div>
	{#if form && 'message' in form}<p class="wrong" role="alert">{form.message}</p>{/if}
	{#if customer.privateNote}<p class="panel private"><b>Private:</b> {customer.privateNote}</p>{/if}
	<div class="columns">
		<section>
			<nav class="views" aria-label="What to see">
				{#each VIEWS as [name, label] (name)}<button
						aria-pressed={view === name}
						onclick={() => (view = name)}>{label}</button
					>{/each}
			</nav>
			{#if view === 'documents'}
				{#if data.rows.length}<InvoiceRows rows={data.rows} today={data.today} />
				{:else}<div class="panel none">
						<h2>No documents yet</h2>
						<p>What you bill this customer will stand here.</p>
					</div>{/if}
			{:else if view === 'jobs'}
				<ul class="panel list">
					{#each data.jobs as job (job.id)}
						<li>
							<a href="/work/{job.id}"><span class="mono">{job.number}</span> {job.title}</a>
							<span class="quiet"
								>{JOB_STATE_NAMES[job.state]}{job.site ? ` · ${job.site}` : ''}</span
							>
						</li>
					{:else}<li>No jobs yet.</li>{/each}
					<li><a href="/work/new?customer={customer.id}">Begin a job</a></li>
				</ul>
			{:else}
				<table class="panel numbers">
					<thead
						><tr><th>Date</th><th>What</th><th class="r">Amount</th><th class="r">Balance</th></tr
						></thead
					>
					<tbody>
						{#each data.account as row (row.id)}
							<tr>
								<td>{displayDate(row.date)}</td>
								<td
									>{#if row.documentId}<a href="/billing/{row.documentId}">{row.what}</a
										>{:else}{row.what}{/if}</td
								>
								<td class="r">{displayPounds(row.amount)}</td>
								<td class="r"><b>{displayPounds(row.balance)}</b></td>
							</tr>
						{:else}<tr><td colspan="4">Nothing has happened on this account.</td></tr>{/each}
					</tbody>
				</table>
			{/if}
		</section>
		<aside class="panel">
			{#key `${customer.id}.${shown}`}<CustomerEditor values={customer} onsave={save} />{/key}
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
			{#if data.card}<form method="post" action="?/forgetCard" use:enhance>
					<button class="button plain">Forget the kept card</button>
				</form>{/if}
			<Fold label="The same as another customer?" ontoggle={() => people ?? findPeople()}>
				<form class="merge" method="post" action="?/merge" use:enhance>
					<label class="field"
						><span class="name">Move all into</span><select class="box" name="into" required>
							<option value="">choose</option>
							{#each (people ?? []).filter((one) => one.id !== customer.id) as one (one.id)}<option
									value={one.id}>{one.name}</option
								>{/each}
						</select></label
					>
					<p class="quiet">
						Contacts, sites, jobs, drafts and repeats move. What is issued stays as it was, and this
						customer is archived.
					</p>
					<button class="button">Merge</button>
				</form>
			</Fold>
		</aside>
	</div>
</div>

<style>
	.top {
		display: flex;
		gap: 10px;
		align-items: center;
		flex-wrap: wrap;
		margin-bottom: 14px;
	}
	.gap {
		flex: 1;
	}
	h1 {
		overflow-wrap: anywhere;
	}
	.private {
		padding: 10px 14px;
		margin-bottom: 14px;
		background: var(--tape-tint);
		white-space: pre-line;
	}
	.columns {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 400px;
		gap: 22px;
		align-items: start;
	}
	/* Whose they are is known here. */
	.columns section :global(.who),
	.columns section :global(.head span:first-child) {
		display: none;
	}
	.columns section :global(li a),
	.columns section :global(.head) {
		grid-template-columns: 110px 100px minmax(90px, 130px) minmax(120px, 1fr) minmax(120px, 150px);
		gap: 16px;
	}
	aside {
		padding: 18px 20px;
	}
	.views {
		display: flex;
		gap: 16px;
		margin-bottom: 10px;
	}
	.views button {
		padding: 6px 0;
		color: var(--ink-2);
		border-bottom: 4px solid transparent;
		cursor: pointer;
	}
	.views button[aria-pressed='true'] {
		color: var(--ink);
		font-weight: 600;
		border-color: var(--tape);
	}
	.list li {
		padding: 10px 16px;
		border-bottom: 1px solid var(--hair);
	}
	table {
		width: 100%;
		border-collapse: collapse;
	}
	th,
	td {
		padding: 8px 14px;
		text-align: left;
		border-bottom: 1px solid var(--hair);
	}
	.r {
		text-align: right;
	}
	.merge {
		display: grid;
		gap: 10px;
		justify-items: start;
	}
	.none {
		padding: 24px;
	}
	@media (max-width: 1050px) {
		.columns {
			grid-template-columns: minmax(0, 1fr);
		}
	}
	@media (max-width: 900px) {
		.columns section :global(li a) {
			grid-template-columns: 1fr auto;
		}
	}
</style>
