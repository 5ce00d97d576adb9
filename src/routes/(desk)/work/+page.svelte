<script lang="ts">
	import Plus from '@lucide/svelte/icons/plus';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { displayDate, londonTime } from '$lib/core/calendar/conversion';
	import { JOB_STATE_NAMES, type JobState } from '$lib/core/jobs/types';
	import Pager from '$lib/ui/parts/Pager.svelte';
	import Tabs from '$lib/ui/parts/Places.svelte';
	import { WORK_PAGES } from '$lib/ui/jobs/tabs';

	let { data } = $props();
	const STATES = Object.entries(JOB_STATE_NAMES) as [JobState, string][];

	function address(change: Record<string, string>): string {
		const next = new URLSearchParams(page.url.searchParams);
		next.delete('before');
		next.delete('after');
		for (const [name, value] of Object.entries(change)) {
			if (value) next.set(name, value);
			else next.delete(name);
		}
		return `/work${next.size ? `?${next}` : ''}`;
	}
	let timer: ReturnType<typeof setTimeout>;
	function search(typed: string) {
		clearTimeout(timer);
		timer = setTimeout(
			() =>
				goto(address({ q: typed.trim() }), { keepFocus: true, replaceState: true, noScroll: true }),
			180
		);
	}
	let anything = $derived(Object.values(data.counts).some((n) => n > 0));
</script>

<svelte:head><title>Work · Axiometer</title></svelte:head>
<div class="page">
	<div class="top">
		<h1>Work</h1>
		<span class="gap"></span>
		<a class="button filled" href="/work/new"><Plus size={18} aria-hidden="true" />New job</a>
	</div>
	<Tabs label="Work" pages={WORK_PAGES} />

	{#if data.clock}
		<a class="panel running" href="/work/{data.clock.jobId}"
			>The clock runs on <b>{data.clock.title}</b> since {londonTime(data.clock.startedAt!)}</a
		>
	{/if}
	{#if data.visits.length}
		<h2>Today’s visits</h2>
		<ol class="visits">
			{#each data.visits as visit (visit.id)}
				<li>
					<a class="panel visit" class:done={visit.done} href="/work/{visit.jobId}">
						<b class="numbers time">{visit.from || 'all day'}</b>
						<span>
							<b>{visit.site || visit.customer}</b>
							<span class="quiet">{visit.title}{visit.site ? ` · ${visit.customer}` : ''}</span>
							<span class="quiet">{visit.address.split('\n').slice(0, 2).join(', ')}</span>
							{#if visit.accessNotes}<span class="access">{visit.accessNotes}</span>{/if}
						</span>
						<span class="tag"
							>{visit.done ? 'done' : visit.person || JOB_STATE_NAMES[visit.state]}</span
						>
					</a>
				</li>
			{/each}
		</ol>
	{/if}

	<div class="bar">
		<h2>Jobs</h2>
		<input
			class="box"
			type="search"
			aria-label="Search jobs"
			placeholder="Number, title, customer or site"
			value={data.typed}
			oninput={(event) => search(event.currentTarget.value)}
		/>
		{#if data.labels.length}
			<select
				class="box"
				aria-label="Label"
				value={data.label}
				onchange={(event) => goto(address({ label: event.currentTarget.value }))}
			>
				<option value="">any label</option>
				{#each data.labels as label (label)}<option value={label}>{label}</option>{/each}
			</select>
		{/if}
	</div>
	<nav class="states" aria-label="State">
		<a href={address({ state: '' })} class:on={!data.state}>All</a>
		{#each STATES as [state, label] (state)}
			{#if data.counts[state] > 0}<a href={address({ state })} class:on={data.state === state}
					>{label} <span class="numbers">{data.counts[state].toLocaleString('en-GB')}</span></a
				>{/if}
		{/each}
	</nav>
	{#if data.rows.length === 0}
		<div class="panel empty">
			{#if anything}
				<h2>Nothing matches</h2>
				<p>No job fits what you chose. <a href="/work">Show all</a></p>
			{:else}
				<h2>Your jobs will stand here</h2>
				<p>
					A job holds what was agreed, every visit, time and costs, and is billed when it is done.
				</p>
				<a class="button filled" href="/work/new">Begin the first job</a>
			{/if}
		</div>
	{:else}
		<ul class="panel rows">
			{#each data.rows as job (job.id)}
				<li>
					<a href="/work/{job.id}">
						<span class="mono">{job.number}</span>
						<span class="what"
							><b>{job.title}</b><span class="quiet"
								>{job.customer}{job.site ? ` · ${job.site}` : ''}</span
							></span
						>
						<span class="labels"
							>{#each job.labels as label (label)}<span class="tag">{label}</span>{/each}</span
						>
						<span class="state" data-state={job.state}
							>{JOB_STATE_NAMES[job.state]}{job.finishedOn && job.state !== 'underWay'
								? ` ${displayDate(job.finishedOn)}`
								: ''}</span
						>
					</a>
				</li>
			{/each}
		</ul>
		<Pager before={data.before} after={data.after} />
	{/if}
</div>

<style>
	.top,
	.bar {
		display: flex;
		gap: 8px 14px;
		align-items: center;
		flex-wrap: wrap;
	}
	.gap {
		flex: 1;
	}
	.bar {
		margin-top: 18px;
	}
	.bar .box {
		max-width: 340px;
		flex: 1 1 200px;
	}
	.bar select.box {
		max-width: 200px;
	}
	.running {
		display: block;
		padding: 11px 16px;
		border-left: 6px solid var(--tape);
		margin-bottom: 14px;
	}
	.visits {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(320px, 1fr));
		gap: 10px;
		margin: 8px 0 6px;
	}
	.visit {
		display: grid;
		grid-template-columns: 62px 1fr auto;
		gap: 4px 12px;
		padding: 12px 14px;
		text-decoration: none;
		align-items: start;
		height: 100%;
	}
	.visit span > * {
		display: block;
	}
	.visit:hover,
	.rows a:hover {
		background: var(--tape-tint);
	}
	.visit.done .time {
		text-decoration: line-through;
	}
	.access {
		font-size: 0.906rem;
		border-left: 3px solid var(--tape);
		padding-left: 8px;
		margin-top: 4px;
	}
	.states {
		display: flex;
		gap: 4px 16px;
		flex-wrap: wrap;
		padding: 8px 0;
	}
	.states a {
		color: var(--ink-2);
		text-decoration: none;
		padding: 4px 0;
	}
	.states a.on {
		color: var(--ink);
		font-weight: 600;
		box-shadow: inset 0 -3px 0 var(--tape);
	}
	.rows a {
		display: grid;
		grid-template-columns: 84px minmax(0, 1fr) auto minmax(150px, auto);
		gap: 4px 16px;
		align-items: center;
		padding: 10px 16px;
		text-decoration: none;
		border-bottom: 1px solid var(--hair);
	}
	.rows li:last-child a {
		border: 0;
	}
	.what > * {
		display: block;
		overflow-wrap: anywhere;
	}
	.labels {
		display: flex;
		gap: 4px;
		flex-wrap: wrap;
	}
	.state {
		text-align: right;
		color: var(--ink-2);
		font-size: 0.906rem;
	}
	.state[data-state='finished'] {
		color: var(--ink);
		font-weight: 600;
	}
	.empty {
		padding: 26px;
		display: grid;
		gap: 10px;
		justify-items: start;
	}
	@media (max-width: 760px) {
		.visits {
			grid-template-columns: 1fr;
		}
		.rows a {
			grid-template-columns: 1fr auto;
		}
		.rows .mono {
			display: none;
		}
		.labels {
			display: none;
		}
	}
</style>
