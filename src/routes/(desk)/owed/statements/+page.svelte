<script lang="ts">
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { enhance } from '$app/forms';
	import { displayDate, displayMoment } from '$lib/core/calendar/conversion';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import { pressKey } from '$lib/ui/parts/keys';

	let { data, form } = $props();
	let key = $state(pressKey());
	let left = $state<Record<number, boolean>>({});
	let filters: HTMLFormElement;
	let options = $derived(data.choice.options);
	let chosen = $derived(data.rows.filter((row) => !left[row.payerId]));
	let sum = $derived(chosen.reduce((total, row) => total + row.balance, 0));
	let noAddress = $derived(chosen.filter((row) => row.address === '').length);
	let hidden = $derived(data.hidden);
	let message = $derived(form && 'message' in form ? form.message : '');
	const again = () => filters.requestSubmit();
</script>

<svelte:head><title>Statements · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/owed">Owed</a></p>
	<h1>Statements</h1>
	<div class="columns">
		<section>
			<form class="panel filters" bind:this={filters} onchange={again}>
				{#if data.payer}<input type="hidden" name="payer" value={data.payer} />{/if}
				<label class="field"
					><span class="name">They show</span><select class="box" name="style">
						<option value="openItems" selected={options.style === 'openItems'}>what is open</option>
						<option value="activity" selected={options.style === 'activity'}
							>everything since a day</option
						>
					</select></label
				>
				{#if options.style === 'activity'}<DateField
						label="From"
						name="from"
						value={options.from}
						error={data.wrong.from}
					/>{/if}
				<DateField label="As of" name="asOf" value={options.asOf} error={data.wrong.asOf} />
				<label class="field"
					><span class="name">Aged by</span><select class="box" name="ageing">
						<option value="dueDate">due date</option>
						<option value="issueDate" selected={options.ageing === 'issueDate'}>issue date</option>
					</select></label
				>
				<label class="check"
					><input type="checkbox" name="lines" value="1" checked={options.withLines} />with the
					lines of each invoice</label
				>
				{#if !data.payer}
					<label class="check"
						><input type="checkbox" name="zero" value="1" checked={data.choice.zero} />zero balances
						too</label
					>
					<label class="check"
						><input
							type="checkbox"
							name="archived"
							value="1"
							checked={data.choice.archived}
						/>archived customers too</label
					>
				{/if}
				<noscript><button class="button">Show</button></noscript>
			</form>
			{#if hidden > 0}<p class="panel note" role="status">
					<b
						>{hidden}
						{hidden === 1 ? 'document or payment is' : 'documents and payments are'} newer than {displayDate(
							options.asOf
						)}</b
					>
					and will not show. Is the date the one you want?
				</p>{/if}
			{#if message}<p class="wrong" role="alert">{message}</p>{/if}
			<ul class="panel">
				{#each data.rows as row (row.payerId)}
					<li class:off={left[row.payerId]}>
						<label class="check"
							><input
								type="checkbox"
								aria-label="A statement for {row.payer}"
								checked={!left[row.payerId]}
								onchange={(event) => (left[row.payerId] = !event.currentTarget.checked)}
							/></label
						>
						<span class="who"
							><a href="/owed/{row.payerId}">{row.payer}</a><span class="quiet"
								>{row.address || 'no mail address'}</span
							></span
						>
						<a
							class="quiet"
							target="_blank"
							href="/owed/statements/preview?of={row.payerId}&{data.query}">Preview</a
						>
						<b class="numbers">{displayAmount(row.balance)}</b>
						{#if row.unapplied > 0}
							<div class="credit">
								<span
									>{displayPounds(row.unapplied)} in hand is not applied{row.usable
										? ', and stands next to what it could pay'
										: ''}.</span
								>
								{#if row.usable}
									<form
										method="post"
										action="?/apply&{data.query}"
										use:enhance={() =>
											async ({ update }) => {
												await update({ reset: false });
												key = pressKey();
											}}
									>
										<input type="hidden" name="payer" value={row.payerId} />
										<input type="hidden" name="key" value={key} />
										<button class="button"
											>Apply it now<span class="sr-only"> for {row.payer}</span></button
										>
									</form>
								{/if}
							</div>
						{/if}
					</li>
				{:else}<li class="none">Nobody has a balance as of {displayDate(options.asOf)}.</li>{/each}
			</ul>
		</section>
		<aside class="panel">
			<h2>Send them</h2>
			<p class="big numbers" aria-live="polite">{displayPounds(sum)}</p>
			<p>
				in {chosen.length}
				{chosen.length === 1 ? 'statement' : 'statements'}, what contractors deduct included{noAddress
					? `, ${noAddress} of them without a mail address`
					: ''}
			</p>
			<form
				method="post"
				action="?/start&{data.query}"
				use:enhance={() =>
					async ({ update }) => {
						await update({ reset: false });
						key = pressKey();
					}}
			>
				<input type="hidden" name="key" value={key} />
				{#each chosen as row (row.payerId)}<input
						type="hidden"
						name="payer"
						value={row.payerId}
					/>{/each}
				<button class="button filled" name="action" value="send"
					>Send {chosen.length === 1 ? 'it' : `all ${chosen.length}`} by mail</button
				>
				<button class="button" name="action" value="make">One PDF to print</button>
			</form>
			<p class="quiet">Each gets its own mail with the PDF and a link to pay all or some of it.</p>
			{#if data.runs.length}
				<h3>Before</h3>
				<ul>
					{#each data.runs as run (run.id)}
						<li class="run">
							<a href="/owed/statements/{run.id}">{displayMoment(run.createdAt)}</a>
							<span class="quiet"
								>{run.statements}
								{run.state === 'running'
									? 'under way'
									: run.action === 'send'
										? 'sent'
										: 'made'}</span
							>
						</li>
					{/each}
				</ul>
			{/if}
		</aside>
	</div>
</div>

<style>
	.columns {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 340px;
		gap: 14px 22px;
		align-items: start;
		margin-top: 12px;
	}
	.filters {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 18px;
		align-items: end;
		padding: 14px 18px;
		margin-bottom: 12px;
	}
	.filters .box {
		width: auto;
	}
	.note {
		padding: 10px 14px;
		background: var(--tape-tint);
		margin-bottom: 12px;
	}
	section li {
		display: grid;
		grid-template-columns: auto minmax(0, 1fr) auto 110px;
		gap: 4px 14px;
		align-items: center;
		padding: 9px 16px;
		border-bottom: 1px solid var(--hair);
	}
	section li:last-child {
		border-bottom: 0;
	}
	li.off {
		opacity: 0.65;
	}
	li.none {
		display: block;
	}
	.who > * {
		display: block;
		overflow-wrap: anywhere;
	}
	.who a {
		font-weight: 600;
	}
	b.numbers {
		text-align: right;
	}
	section li > a {
		text-decoration: underline;
	}
	.credit {
		grid-column: 2 / -1;
		display: flex;
		flex-wrap: wrap;
		gap: 6px 12px;
		align-items: center;
		border-left: 4px solid var(--tape);
		padding-left: 10px;
	}
	aside {
		padding: 18px 20px;
		border-left: 6px solid var(--tape);
		display: grid;
		gap: 10px;
	}
	aside form {
		display: grid;
		gap: 8px;
	}
	.big {
		font: 650 1.9rem var(--font-heading);
	}
	.run {
		display: flex;
		justify-content: space-between;
		gap: 10px;
		padding: 4px 0;
	}
	@media (max-width: 900px) {
		.columns {
			grid-template-columns: minmax(0, 1fr);
		}
		aside {
			order: -1;
		}
	}
	@media (max-width: 760px) {
		section li {
			grid-template-columns: auto minmax(0, 1fr) auto;
			padding: 9px 12px;
		}
		section li > .quiet {
			grid-row: 2;
			grid-column: 2;
		}
	}
</style>
