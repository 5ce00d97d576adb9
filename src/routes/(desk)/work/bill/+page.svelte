<script lang="ts">
	import NeedsScripts from '$lib/ui/parts/NeedsScripts.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import Segments from '$lib/ui/parts/Segments.svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { untrack } from 'svelte';
	import { displayDate, displayMoment } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import { readMinor } from '$lib/core/money/json';
	import {
		isAskedFor,
		leftOutBecause,
		RECENT_DAYS,
		type RunFilter,
		type RunPlan,
		type Waiting
	} from '$lib/core/jobs/run';
	import type { JobState } from '$lib/core/jobs/types';
	import Tabs from '$lib/ui/parts/Places.svelte';
	import RunReview from '$lib/ui/billing/RunReview.svelte';
	import { WORK_PAGES } from '$lib/ui/jobs/tabs';

	let { data } = $props();
	/** Which states of jobs a run bills. What is under way has only time and costs to bill. */
	const STATES: Record<
		'finished' | 'all' | 'underWay',
		{ words: string; states: readonly JobState[] }
	> = {
		finished: { words: 'finished work', states: ['finished'] },
		all: { words: 'and what is under way', states: ['booked', 'underWay', 'finished'] },
		underWay: { words: 'only what is under way', states: ['booked', 'underWay'] }
	};
	let choice = $state({
		customerId: untrack(() => data.customer),
		billToId: '',
		siteId: '',
		label: '',
		state: untrack(() => (data.chosen ? 'all' : 'finished')) as keyof typeof STATES,
		from: '',
		to: '',
		within14: false,
		split: 'customer' as 'customer' | 'job',
		shape: 'job' as 'job' | 'items' | 'period'
	});
	/** What was chosen in the list stands here already; the rest is left out until it is ticked. */
	let left = $state<Record<number, boolean>>(
		untrack(() =>
			data.chosen
				? Object.fromEntries(data.jobs.map(({ id }) => [id, !data.chosen?.includes(id)]))
				: {}
		)
	);
	let missing = $derived(
		(data.chosen ?? []).filter((id) => !data.jobs.some((job) => job.id === id)).length
	);
	let plan = $state<RunPlan | null>(null);
	let failed = $state('');
	let reviewing = $state(false);

	const distinct = (pairs: [number | null, string][]) =>
		[...new Map(pairs.filter(([id]) => id !== null)).entries()].sort((a, b) =>
			a[1].localeCompare(b[1])
		) as [number, string][];
	let customers = $derived(distinct(data.jobs.map((job) => [job.customerId, job.customer])));
	let sites = $derived(distinct(data.jobs.map((job) => [job.siteId, job.site])));
	let payers = $derived(
		distinct(data.jobs.map((job) => [job.billToId, data.payers[job.billToId ?? 0] ?? '']))
	);
	let labels = $derived([...new Set(data.jobs.flatMap((job) => job.labels))].sort());
	let filter = $derived<RunFilter>({
		...(choice.customerId ? { customerId: Number(choice.customerId) } : {}),
		...(choice.billToId ? { billToId: Number(choice.billToId) } : {}),
		...(choice.siteId ? { siteId: Number(choice.siteId) } : {}),
		...(choice.label ? { label: choice.label } : {}),
		from: choice.from,
		to: choice.to
	});
	const out = (job: Waiting) =>
		leftOutBecause({ ...STATES[choice.state], within14: choice.within14 }, job, data.today);
	let matching = $derived(
		data.jobs.filter(
			(job) => isAskedFor(filter, job) && (choice.state !== 'underWay' || job.finishedOn === null)
		)
	);
	let chosen = $derived(matching.filter((job) => !left[job.id] && !out(job)));
	let sum = $derived(chosen.reduce((total, job) => total + job.amount, 0));
	let people = $derived(new Set(chosen.map((job) => job.customerId)).size);
	let all = $derived(data.jobs.reduce((total, job) => total + job.amount, 0));
	let old = $derived(matching.filter((job) => job.finishedOn && job.days > RECENT_DAYS).length);
	let body = $derived({
		...filter,
		...(choice.state === 'finished' ? {} : { states: STATES[choice.state].states }),
		within14: choice.within14,
		split: choice.split,
		shape: choice.shape,
		jobIds: chosen.map((job) => job.id)
	});

	async function review() {
		failed = '';
		reviewing = true;
		const response = await fetch('/work/bill/api', {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify(body)
		}).catch(() => null);
		reviewing = false;
		if (response?.ok) plan = JSON.parse(await response.text(), readMinor) as RunPlan;
		else failed = 'It could not be worked out just now. Try again in a moment.';
	}
	// A review that no longer fits the choice would mislead.
	$effect(() => {
		void JSON.stringify(body);
		plan = null;
	});
</script>

<svelte:head><title>To bill · Axiometer</title></svelte:head>
<div class="page">
	<h1>Work</h1>
	<NeedsScripts />
	<Tabs label="Work" pages={WORK_PAGES} />
	{#if data.jobs.length === 0}
		<div class="panel p-6.5 grid gap-2.5 justify-items-start">
			<h2>Nothing waits to be billed</h2>
			<p>Finished jobs, and time and costs no invoice covers, stand here until they are billed.</p>
			<a class="button" href="/work">Look at the jobs</a>
		</div>
	{:else}
		<div
			class="columns grid grid-cols-[minmax(0,1fr)_380px] gap-y-4 gap-x-5.5 items-start narrow:grid-cols-1"
		>
			<section>
				<div class="grid gap-2 mb-2.5">
					<h2>To bill: <span class="numbers">{displayPounds(all)}</span></h2>
					<div class="flex gap-2 flex-wrap [&_.box]:w-auto [&_.box]:max-w-50">
						<select class="box" aria-label="Customer" bind:value={choice.customerId}>
							<option value="">all customers</option>
							{#each customers as [id, name] (id)}<option value={String(id)}>{name}</option>{/each}
						</select>
						{#if payers.length}<select
								class="box"
								aria-label="Bill-to"
								bind:value={choice.billToId}
							>
								<option value="">any bill-to</option>
								{#each payers as [id, name] (id)}<option value={String(id)}>{name}</option>{/each}
							</select>{/if}
						{#if sites.length}<select class="box" aria-label="Site" bind:value={choice.siteId}>
								<option value="">all sites</option>
								{#each sites as [id, name] (id)}<option value={String(id)}>{name}</option>{/each}
							</select>{/if}
						{#if labels.length}<select class="box" aria-label="Label" bind:value={choice.label}>
								<option value="">any label</option>
								{#each labels as label (label)}<option value={label}>{label}</option>{/each}
							</select>{/if}
						<select class="box" aria-label="State" bind:value={choice.state}>
							{#each Object.entries(STATES) as [state, { words }] (state)}<option value={state}
									>{words}</option
								>{/each}
						</select>
						<span class="days flex flex-wrap gap-2">
							<DateField label="Finished from" bind:value={choice.from} />
							<DateField label="until" bind:value={choice.to} />
						</span>
					</div>
				</div>
				{#if data.chosen}<p class="mb-2.5" role="status">
						{data.chosen.length}
						{data.chosen.length === 1 ? 'job was' : 'jobs were'} chosen in the list{missing
							? `; ${missing} of them ${missing === 1 ? 'has' : 'have'} nothing to bill`
							: ''}. <a href="/work/bill">Begin anew</a>
					</p>{/if}
				<ul class="panel">
					{#each matching as job (job.id)}
						{@const blocked = out(job)?.short}
						<li
							class="grid grid-cols-[24px_minmax(0,1fr)_auto_110px] gap-y-1 gap-x-3 items-center py-2.25 px-3.5 border-b border-b-(--hair) last:border-0 phone:grid-cols-[24px_minmax(0,1fr)_auto] [&.off]:text-(--ink-2)"
							class:off={left[job.id]}
						>
							{#if blocked}<span
									class="w-2 h-2 bg-(--dotted) rounded-full m-auto"
									aria-hidden="true"
								></span>{:else}<input
									class="w-5 h-5 [accent-color:var(--ink)]"
									type="checkbox"
									aria-label="Bill {job.number} {job.title}"
									checked={!left[job.id]}
									onchange={(event) => (left[job.id] = !event.currentTarget.checked)}
								/>{/if}
							<a
								class="group/bill no-underline"
								href={job.staged ? `/work/${job.id}/stage` : `/work/${job.id}`}
							>
								<b class="block wrap-anywhere group-hover/bill:underline">{job.title}</b>
								<span class="quiet block wrap-anywhere"
									><span class="mono">{job.number}</span> · {job.customer}{job.site
										? ` · ${job.site}`
										: ''}</span
								>
							</a>
							<span
								class="quiet phone:col-start-2 phone:row-start-2"
								class:late={job.days > RECENT_DAYS}
								>{blocked || (job.finishedOn ? displayDate(job.finishedOn) : 'under way')}{job.days
									? ` · ${job.days} ${job.days === 1 ? 'day' : 'days'}`
									: ''}</span
							>
							<b class="numbers text-right">{displayPounds(job.amount)}</b>
						</li>
					{:else}<li
							class="grid grid-cols-[24px_minmax(0,1fr)_auto_110px] gap-y-1 gap-x-3 items-center py-2.25 px-3.5 border-b border-b-(--hair) last:border-0 phone:grid-cols-[24px_minmax(0,1fr)_auto]"
						>
							Nothing fits what you chose.
						</li>{/each}
				</ul>
			</section>
			<aside
				class="panel py-4.5 px-5 border-l-6 border-l-(--tape) grid gap-2.5 sticky top-3 max-h-[calc(100vh_-_24px)] overflow-auto narrow:static narrow:max-h-none"
			>
				<h2>Bill run</h2>
				<p class="numbers [font:650_1.9rem_var(--font-heading)]" aria-live="polite">
					{displayPounds(sum)}
				</p>
				<p>
					{chosen.length}
					{chosen.length === 1 ? 'job' : 'jobs'} for {people}
					{people === 1 ? 'customer' : 'customers'}
				</p>
				{#if old > 0}<label class="check"
						><input type="checkbox" bind:checked={choice.within14} /><span
							>Only what was finished within 14 days <span class="quiet"
								>{old}
								{old === 1 ? 'is' : 'are'} older and {old === 1 ? 'keeps its' : 'keep their'} own tax
								point</span
							></span
						></label
					>{/if}
				<Segments
					label="One invoice for each"
					bind:value={choice.split}
					options={[
						{ value: 'customer', label: 'customer' },
						{ value: 'job', label: 'job' }
					]}
				/>
				<Segments
					label="Shown as"
					bind:value={choice.shape}
					options={[
						{ value: 'job', label: 'a line for each job' },
						{ value: 'items', label: 'every item' },
						{ value: 'period', label: 'one line for the period' }
					]}
				/>
				{#if failed}<p class="wrong" role="alert">{failed}</p>{/if}
				{#if plan}
					<RunReview {plan} />
					{#if plan.invoices.length}
						<Form
							class="grid gap-2"
							action="?/start"
							keyed
							hidden={{ choice: JSON.stringify(body) }}
						>
							<button class="button filled" name="action" value="send">Issue and send</button>
							<button class="button" name="action" value="issue">Issue, send later</button>
							<button class="button plain" name="action" value="draft">Make drafts</button>
						</Form>
					{/if}
				{:else}
					<button
						class="button filled"
						onclick={review}
						aria-busy={reviewing}
						disabled={chosen.length === 0}>Review the invoices</button
					>
				{/if}
				{#if data.runs.length}
					<h3>Runs before</h3>
					<ul>
						{#each data.runs as run (run.id)}
							<li class="flex justify-between py-1 px-0">
								<a href="/work/runs/{run.id}">{displayMoment(run.createdAt)}</a>
								<span class="quiet numbers">{run.steps} · {displayPounds(run.total)}</span>
							</li>
						{/each}
					</ul>
				{/if}
			</aside>
		</div>
	{/if}
</div>
