<script lang="ts">
	import Choice from '$lib/ui/parts/Choice.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { displayDate, displayMoment } from '$lib/core/calendar/conversion';
	import { displayAmount, displayPounds } from '$lib/core/money/display';

	let { data } = $props();
	let left = $state<Record<number, boolean>>({});
	let filters: HTMLFormElement;
	let options = $derived(data.choice.options);
	let chosen = $derived(data.rows.filter((row) => !left[row.payerId]));
	let sum = $derived(chosen.reduce((total, row) => total + row.balance, 0));
	let noAddress = $derived(chosen.filter((row) => row.address === '').length);
	let hidden = $derived(data.hidden);
	const again = () => filters.requestSubmit();
</script>

<svelte:head><title>Statements · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/owed">Owed</a></p>
	<h1>Statements</h1>
	<div
		class="columns grid grid-cols-[minmax(0,1fr)_340px] gap-y-3.5 gap-x-5.5 items-start mt-3 max-[900px]:grid-cols-1"
	>
		<section>
			<form
				class="panel flex flex-wrap gap-y-2 gap-x-4.5 items-end py-3.5 px-4.5 mb-3"
				bind:this={filters}
				onchange={again}
			>
				{#if data.payer}<input type="hidden" name="payer" value={data.payer} />{/if}
				<Choice label="They show" name="style" value={options.style}>
					<option value="openItems">what is open</option>
					<option value="activity">everything since a day</option>
				</Choice>
				{#if options.style === 'activity'}<DateField
						label="From"
						name="from"
						value={options.from}
						error={data.wrong.from}
					/>{/if}
				<DateField label="As of" name="asOf" value={options.asOf} error={data.wrong.asOf} />
				<Choice label="Aged by" name="ageing" value={options.ageing}>
					<option value="dueDate">due date</option>
					<option value="issueDate">issue date</option>
				</Choice>
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
			{#if hidden > 0}<p class="panel note py-2.5 px-3.5 bg-(--tape-tint) mb-3" role="status">
					<b
						>{hidden}
						{hidden === 1 ? 'document or payment is' : 'documents and payments are'} newer than {displayDate(
							options.asOf
						)}</b
					>
					and will not show. Is the date the one you want?
				</p>{/if}
			<ul class="panel">
				{#each data.rows as row (row.payerId)}
					<li
						class="grid grid-cols-[auto_minmax(0,1fr)_auto_110px] gap-y-1 gap-x-3.5 items-center py-2.25 px-4 border-b border-b-(--hair) last:border-b-0 phone:grid-cols-[auto_minmax(0,1fr)_auto] phone:py-2.25 phone:px-3 [&.off]:opacity-65"
						class:off={left[row.payerId]}
					>
						<label class="check"
							><input
								type="checkbox"
								aria-label="A statement for {row.payer}"
								checked={!left[row.payerId]}
								onchange={(event) => (left[row.payerId] = !event.currentTarget.checked)}
							/></label
						>
						<span class="who"
							><a class="block wrap-anywhere font-semibold" href="/owed/{row.payerId}"
								>{row.payer}</a
							><span class="quiet block wrap-anywhere">{row.address || 'no e-mail address'}</span
							></span
						>
						<a
							class="quiet underline phone:row-start-2 phone:col-start-2"
							target="_blank"
							href="/owed/statements/preview?of={row.payerId}&{data.query}">Preview</a
						>
						<b class="numbers text-right">{displayAmount(row.balance)}</b>
						{#if row.unapplied > 0}
							<div
								class="col-[2_/_-1] flex flex-wrap gap-y-1.5 gap-x-3 items-center border-l-4 border-l-(--tape) pl-2.5"
							>
								<span
									>{displayPounds(row.unapplied)} in hand is not applied{row.usable
										? ', and stands next to what it could pay'
										: ''}.</span
								>
								{#if row.usable}
									<Form action="?/apply&{data.query}" keyed hidden={{ payer: row.payerId }}>
										<button class="button"
											>Apply it now<span class="sr-only"> for {row.payer}</span></button
										>
									</Form>
								{/if}
							</div>
						{/if}
					</li>
				{:else}<li
						class="grid-cols-[auto_minmax(0,1fr)_auto_110px] gap-y-1 gap-x-3.5 items-center py-2.25 px-4 border-b border-b-(--hair) block last:border-b-0 phone:grid-cols-[auto_minmax(0,1fr)_auto] phone:py-2.25 phone:px-3"
					>
						Nobody has a balance as of {displayDate(options.asOf)}.
					</li>{/each}
			</ul>
		</section>
		<aside class="panel py-4.5 px-5 border-l-6 border-l-(--tape) grid gap-2.5 max-[900px]:-order-1">
			<h2>Send them</h2>
			<p class="numbers [font:650_1.9rem_var(--font-heading)]" aria-live="polite">
				{displayPounds(sum)}
			</p>
			<p>
				in {chosen.length}
				{chosen.length === 1 ? 'statement' : 'statements'}, what contractors deduct included{noAddress
					? `, ${noAddress} of them without an e-mail address`
					: ''}
			</p>
			<Form class="grid gap-2" action="?/start&{data.query}" keyed>
				{#each chosen as row (row.payerId)}<input
						type="hidden"
						name="payer"
						value={row.payerId}
					/>{/each}
				<button class="button filled" name="action" value="send"
					>Send {chosen.length === 1 ? 'it' : `all ${chosen.length}`} by mail</button
				>
				<button class="button" name="action" value="make">One PDF to print</button>
			</Form>
			<p class="quiet">Each gets its own mail with the PDF and a link to pay all or some of it.</p>
			{#if data.runs.length}
				<h3>Before</h3>
				<ul>
					{#each data.runs as run (run.id)}
						<li class="run flex justify-between gap-2.5 py-1 px-0">
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
