<script lang="ts">
	import Choice from '$lib/ui/parts/Choice.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { displayDate, displayMoment } from '$lib/core/calendar/conversion';
	import { CURRENCY_NAMES } from '$lib/core/money/currencies';
	import { displayAmount, displayMoney } from '$lib/core/money/display';

	let { data } = $props();
	/** What the owner chose against what is proposed. */
	let chose = $state<Record<number, boolean>>({});
	/** Why a payer gets none unless it is chosen: nobody is pressed for what it has in its favour, or disputes. */
	function whyNot(row: (typeof data.rows)[number]): string {
		if (data.payer) return '';
		if (row.disputed.length) return `disputes ${row.disputed.join(', ')}`;
		return row.balance < 0 ? 'it is in their favour' : '';
	}
	const gets = (row: (typeof data.rows)[number]) => chose[row.payerId] ?? whyNot(row) === '';
	let filters: HTMLFormElement;
	let options = $derived(data.choice.options);
	const money = (amount: number) => displayMoney(amount, options.currency);
	let chosen = $derived(data.rows.filter(gets));
	let sum = $derived(chosen.reduce((total, row) => total + row.balance, 0));
	let noAddress = $derived(chosen.filter((row) => row.address === ''));
	let withAddress = $derived(chosen.length - noAddress.length);
	let leftOut = $derived(data.rows.filter((row) => !gets(row)));
	const SHOWN = 60;
	let shown = $derived(data.all ? data.rows : data.rows.slice(0, SHOWN));
	const statements = (n: number) => (n === 1 ? '1 statement' : `${n} statements`);
	/** The first few by name, each with why it is left out. */
	const namesOf = (rows: typeof data.rows) => {
		const named = rows.slice(0, 4).map((row) => {
			const why = whyNot(row);
			return why ? `${row.payer} (${why})` : row.payer;
		});
		return `${named.join(', ')}${rows.length > 4 ? ` and ${rows.length - 4} more` : ''}`;
	};
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
				{#if data.currencies.length > 1 || options.currency !== 'GBP'}<Choice
						label="In"
						name="money"
						value={options.currency}
					>
						{#each [...new Set([...data.currencies, options.currency])] as one (one)}<option
								value={one}>{CURRENCY_NAMES[one].many}</option
							>{/each}
					</Choice>{/if}
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
				{#each shown as row (row.payerId)}
					{@const why = whyNot(row)}
					<li
						class="grid grid-cols-[auto_minmax(0,1fr)_auto_110px] gap-y-1 gap-x-3.5 items-center py-2.25 px-4 border-b border-b-(--hair) last:border-b-0 phone:grid-cols-[auto_minmax(0,1fr)_auto] phone:py-2.25 phone:px-3 [&.off]:bg-(--quiet-fill)"
						class:off={!gets(row)}
					>
						<label class="check"
							><input
								type="checkbox"
								aria-label="A statement for {row.payer}"
								checked={gets(row)}
								onchange={(event) => (chose[row.payerId] = event.currentTarget.checked)}
							/></label
						>
						<span class="who"
							><a class="block wrap-anywhere font-semibold" href="/owed/{row.payerId}"
								>{row.payer}</a
							><span class="quiet block wrap-anywhere"
								>{row.address || 'no e-mail address'}{why ? ` · ${why}` : ''}</span
							></span
						>
						<a
							class="quiet underline phone:row-start-2 phone:col-start-2"
							target="_blank"
							href="/owed/statements/preview?of={row.payerId}&{data.query}"
							>Preview <span class="sr-only">for {row.payer}</span></a
						>
						<b class="numbers text-right">{displayAmount(row.balance)}</b>
						{#if row.unapplied > 0}
							<div
								class="col-[2_/_-1] flex flex-wrap gap-y-1.5 gap-x-3 items-center border-l-4 border-l-(--tape) pl-2.5"
							>
								<span
									>{money(row.unapplied)} in hand is not applied{row.usable
										? ', and stands next to what it could pay'
										: ''}.</span
								>
								{#if row.usable}
									<Form action="?/apply&{data.query}" keyed hidden={{ payer: row.payerId }}>
										<button class="button"
											>Apply it now <span class="sr-only">for {row.payer}</span></button
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
			{#if shown.length < data.rows.length}<p class="pt-2.5">
					<a class="button" href="?{data.query}{data.query ? '&' : ''}all=1" data-sveltekit-noscroll
						>Show all {data.rows.length}</a
					>
				</p>{/if}
		</section>
		<aside class="panel py-4.5 px-5 border-l-6 border-l-(--tape) grid gap-2.5 max-[900px]:-order-1">
			<h2>Send them</h2>
			<p class="numbers [font:650_1.9rem_var(--font-heading)]" aria-live="polite">
				{money(sum)}
			</p>
			<p>what contractors deduct included</p>
			<ul class="list-disc pl-5 [&_li]:py-0.5" aria-live="polite">
				<li><b>{statements(withAddress)}</b> by e-mail</li>
				{#if noAddress.length}<li>
						<b>{noAddress.length}</b> cannot go: no e-mail address
						<span class="quiet block">{namesOf(noAddress)}</span>
					</li>{/if}
				{#if leftOut.length}<li>
						<b>{leftOut.length}</b> left out
						<span class="quiet block">{namesOf(leftOut)}</span>
					</li>{/if}
			</ul>
			<Form class="grid gap-2" action="?/start&{data.query}" keyed>
				{#each chosen as row (row.payerId)}<input
						type="hidden"
						name="payer"
						value={row.payerId}
					/>{/each}
				<button class="button filled" name="action" value="send"
					>Send {withAddress === 1 ? 'it' : `all ${withAddress}`} by e-mail</button
				>
				<button class="button" name="action" value="make"
					>One PDF of {chosen.length} to print</button
				>
			</Form>
			<p class="quiet">
				Each gets its own e-mail with the PDF and a link to pay all or some of it.
			</p>
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
