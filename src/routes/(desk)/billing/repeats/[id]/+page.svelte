<script lang="ts">
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { untrack } from 'svelte';
	import { enhance } from '$app/forms';
	import { invalidateAll } from '$app/navigation';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import type { SheetLine } from '$lib/core/sheet/types';
	import { BILLING_PAGES } from '$lib/ui/invoices/tabs';
	import RepeatFields from '$lib/ui/repeats/RepeatFields.svelte';
	import { notices } from '$lib/ui/parts/notices.svelte';
	import Tabs from '$lib/ui/parts/Places.svelte';
	import JobLines, { type EditedLine } from '$lib/ui/jobs/JobLines.svelte';

	let { data, form } = $props();
	let repeat = $derived(data.repeat);
	let errors = $derived<Record<string, string>>((form && 'fields' in form && form.fields) || {});
	let rule = $derived(repeat.rule);
	let values = $derived({
		name: repeat.name,
		start: rule.start,
		every: String(rule.every),
		unit: rule.unit,
		ends: 'after' in rule.end ? 'after' : 'on' in rule.end ? 'on' : 'never',
		after: 'after' in rule.end ? String(rule.end.after) : '',
		on: 'on' in rule.end ? rule.end.on : '',
		weekend: rule.weekend,
		action: repeat.action
	});
	const STATES = {
		drafted: 'draft',
		issued: 'issued',
		sent: 'sent',
		charging: 'being charged',
		paid: 'paid by card',
		open: 'not charged'
	};
	let lines = $state<EditedLine[]>(
		untrack(() =>
			data.sheet.rows
				.filter((row): row is SheetLine => row.type === 'line')
				.map((row) => ({
					kind: row.kind,
					description: row.description,
					quantity: row.quantity,
					unit: row.unit,
					unitPrice: row.unitPrice,
					vat: row.vat,
					vatReason: row.vatReason,
					discount: row.discount,
					cost: row.cost,
					extra: false,
					itemId: row.itemId ?? null
				}))
		)
	);
	let from = $state(untrack(() => data.coming[0]?.nominal ?? data.today));
	let wrong = $state<Record<string, string>>({});

	async function change() {
		const rows = $state.snapshot(lines).map((line, index) => ({
			id: `r${index + 1}`,
			type: 'line' as const,
			kind: line.kind,
			description: line.description,
			quantity: line.quantity,
			unit: line.unit,
			unitPrice: line.unitPrice,
			vat: line.vat,
			vatReason: line.vatReason,
			discount: line.discount,
			cost: line.cost,
			...(line.itemId ? { itemId: line.itemId } : {})
		}));
		const response = await fetch(`/billing/repeats/${repeat.id}/api`, {
			method: 'PUT',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ from, sheet: { ...data.sheet, rows } })
		}).catch(() => null);
		const answer = await response?.json().catch(() => null);
		// `rows.r2.unitPrice` is `lines.1.unitPrice` in the editor of lines.
		wrong = Object.fromEntries(
			Object.entries((answer?.fields ?? {}) as Record<string, string>).map(([path, message]) => [
				path.replace(/^rows\.r(\d+)/, (_, n) => `lines.${Number(n) - 1}`),
				message
			])
		);
		if (!response?.ok) return notices.say(answer?.message ?? 'It could not be saved just now.');
		await invalidateAll();
		notices.say(`Saved: from ${displayDate(from)} on.`);
	}
</script>

<svelte:head><title>{repeat.name} · Axiometer</title></svelte:head>
<div class="page">
	<h1>Billing</h1>
	<Tabs label="Billing" pages={BILLING_PAGES} />
	<div class="top">
		<div>
			<h2>{repeat.name}</h2>
			<p class="quiet">
				<a href="/customers/{data.customer.id}">{data.customer.name}</a>{data.card
					? ` · card ending ${data.card.lastDigits} is kept`
					: ''}{repeat.state === 'active' ? '' : ` · ${repeat.state}`}
			</p>
		</div>
		<span class="gap"></span>
		<form method="post" action="?/state" use:enhance>
			{#if repeat.state === 'active'}<button class="button" name="to" value="paused">Pause</button>
			{:else if repeat.state === 'paused'}<button class="button filled" name="to" value="active"
					>Take it up again</button
				>{/if}
			{#if repeat.state !== 'ended'}<button class="button plain" name="to" value="ended"
					>End it</button
				>{/if}
		</form>
		{#if data.card}<form method="post" action="?/forgetCard" use:enhance>
				<button class="button plain">Forget the card</button>
			</form>{/if}
	</div>
	{#if data.waiting.length}
		<form class="panel pile" method="post" action="?/pile" use:enhance>
			<p>
				<b
					>{data.waiting.length} invoices were due while Axiometer was off, {displayDate(
						data.waiting[0]!.date
					)} to {displayDate(data.waiting.at(-1)!.date)}.</b
				> Nothing has gone out.
			</p>
			<button class="button filled" name="answer" value="all"
				>Make and send all {data.waiting.length}</button
			>
			<button class="button" name="answer" value="latest">Only the latest</button>
			<button class="button plain" name="answer" value="none">None of them</button>
		</form>
	{/if}
	<div class="columns">
		<div class="main">
			<section class="panel">
				<h2>To come</h2>
				<ol>
					{#each data.coming as one (one.nominal)}
						<li class:off={one.skipped}>
							<span
								>{displayDate(one.date)}{one.date !== one.nominal
									? ` (for ${displayDate(one.nominal)})`
									: ''}</span
							>
							<b class="numbers">{one.skipped ? 'left out' : displayPounds(one.total)}</b>
							<form method="post" action="?/skip" use:enhance>
								<input type="hidden" name="nominal" value={one.nominal} />
								<input type="hidden" name="skip" value={one.skipped ? 'no' : 'yes'} />
								<button class="button plain"
									>{one.skipped ? 'Take it in' : 'Skip'}<span class="sr-only">
										{displayDate(one.date)}</span
									></button
								>
							</form>
						</li>
					{:else}<li>Nothing more.</li>{/each}
				</ol>
			</section>
			<section class="panel">
				<h2>What it bills</h2>
				<JobLines bind:lines errors={wrong} today={data.today} extras={false} />
				<div class="from">
					<DateField label="This holds from" bind:value={from} />
					<button class="button" onclick={change}>Change from that day on</button>
					{#if wrong.from}<span class="wrong">{wrong.from}</span>{/if}
				</div>
				{#if data.changes.length}<p class="quiet">
						Changed from {data.changes.map((one) => displayDate(one.from)).join(', ')} on.
					</p>{/if}
			</section>
		</div>
		<aside>
			<section class="panel">
				<h2>{data.made.length} made</h2>
				<ul>
					{#each data.made as one (one.nominal)}
						<li>
							<span
								>{#if one.documentId}<a href="/billing/{one.documentId}">{one.number ?? 'Draft'}</a
									>{/if}
								{displayDate(one.date)}
								<span class="quiet"
									>{STATES[one.state]}{one.note ? `: ${one.note}` : ''}{one.nextAttemptOn &&
									one.attempts
										? ` Again on ${displayDate(one.nextAttemptOn)}.`
										: ''}</span
								></span
							>
							<b class="numbers">{displayPounds(one.total ?? 0)}</b>
						</li>
					{:else}<li class="quiet">None yet.</li>{/each}
				</ul>
			</section>
			<form
				class="panel"
				method="post"
				action="?/save"
				use:enhance={() =>
					async ({ result, update }) => {
						await update({ reset: false });
						if (result.type === 'success') notices.say('Saved. What was made stays as it is.');
					}}
			>
				<h2>When and how</h2>
				<input type="hidden" name="version" value={repeat.version} />
				{#key repeat.version}<RepeatFields
						{values}
						{errors}
						card={data.card?.lastDigits ?? ''}
					/>{/key}
				{#if form && 'message' in form && !Object.keys(errors).length}<p class="wrong" role="alert">
						{form.message}
					</p>{/if}
				<button class="button">Save</button>
			</form>
		</aside>
	</div>
</div>

<style>
	.top {
		display: flex;
		gap: 8px 12px;
		align-items: center;
		flex-wrap: wrap;
		margin-bottom: 12px;
	}
	.top h2 {
		font-size: 1.5rem;
	}
	.gap {
		flex: 1;
	}
	.pile {
		padding: 14px 18px;
		background: var(--tape-tint);
		margin-bottom: 14px;
		display: flex;
		flex-wrap: wrap;
		gap: 10px;
		align-items: center;
	}
	.pile p {
		flex: 1 1 300px;
	}
	.columns {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 420px;
		gap: 14px 22px;
		align-items: start;
	}
	.main,
	aside {
		display: grid;
		gap: 14px;
	}
	section,
	aside form {
		padding: 16px 18px;
		display: grid;
		gap: 10px;
	}
	aside form {
		justify-items: start;
	}
	aside form > :global(*) {
		width: 100%;
	}
	aside form > .button {
		width: auto;
	}
	ol li {
		display: grid;
		grid-template-columns: 1fr auto 96px;
		align-items: center;
		border-bottom: 1px solid var(--hair);
	}
	ul li {
		display: flex;
		justify-content: space-between;
		gap: 10px;
		padding: 6px 0;
		border-bottom: 1px solid var(--hair);
	}
	.off span {
		text-decoration: line-through;
	}
	.from {
		display: flex;
		gap: 10px;
		align-items: end;
		flex-wrap: wrap;
	}
	@media (max-width: 1050px) {
		.columns {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
