<script lang="ts">
	import Search from '$lib/ui/parts/Search.svelte';
	import { filtersOf } from '$lib/ui/parts/filters';
	import Plus from '@lucide/svelte/icons/plus';
	import { displayDate, londonTime } from '$lib/core/calendar/conversion';
	import { STANDING_NAMES, type Standing } from '$lib/core/jobs/types';
	import Pager from '$lib/ui/parts/Pager.svelte';
	import Tabs from '$lib/ui/parts/Places.svelte';
	import { WORK_PAGES } from '$lib/ui/jobs/tabs';

	let { data } = $props();
	const STATES = Object.entries(STANDING_NAMES) as [Standing, string][];

	const { address, search, choose } = filtersOf('/work');
	let anything = $derived(Object.values(data.counts).some((n) => n > 0));
</script>

<svelte:head><title>Work · Axiometer</title></svelte:head>
<div class="page">
	<div class="flex gap-y-2 gap-x-3.5 items-center flex-wrap">
		<h1>Work</h1>
		<span class="flex-1"></span>
		<a class="button filled" href="/work/new"><Plus size={18} aria-hidden="true" />New job</a>
	</div>
	<Tabs label="Work" pages={WORK_PAGES} />

	{#if data.clock}
		<a
			class="panel block py-2.75 px-4 border-l-6 border-l-(--tape) mb-3.5"
			href="/work/{data.clock.jobId}"
			>The clock runs on <b>{data.clock.title}</b> since {londonTime(data.clock.startedAt!)}</a
		>
	{/if}
	{#if data.visits.length}
		<h2>Today’s visits</h2>
		<ol
			class="grid grid-cols-[repeat(auto-fill,minmax(320px,1fr))] gap-2.5 mt-2 mb-1.5 mx-0 phone:grid-cols-[1fr]"
		>
			{#each data.visits as visit (visit.id)}
				<li>
					<a
						class="panel visit grid grid-cols-[62px_1fr_auto] gap-y-1 gap-x-3 py-3 px-3.5 no-underline items-start h-full hover:bg-(--tape-tint)"
						class:done={visit.done}
						href="/work/{visit.jobId}"
					>
						<b class="numbers time in-[.done]:line-through">{visit.from || 'all day'}</b>
						<span>
							<b class="block">{visit.site || visit.customer}</b>
							<span class="quiet block"
								>{visit.title}{visit.site ? ` · ${visit.customer}` : ''}</span
							>
							<span class="quiet block">{visit.address.split('\n').slice(0, 2).join(', ')}</span>
							{#if visit.accessNotes}<span
									class="text-[0.906rem] border-l-3 border-l-(--tape) pl-2 mt-1 block"
									>{visit.accessNotes}</span
								>{/if}
						</span>
						<span class="tag"
							>{visit.done ? 'done' : visit.person || STANDING_NAMES[visit.standing]}</span
						>
					</a>
				</li>
			{/each}
		</ol>
	{/if}

	<div class="flex gap-y-2 gap-x-3.5 items-center flex-wrap mt-4.5">
		<h2>Jobs</h2>
		<a class="quiet" href="/lists/jobs">as a table</a>
		<Search
			class="flex-[1_1_200px] max-w-85"
			label="Search jobs"
			placeholder="Number, title, customer or site"
			value={data.typed}
			onsearch={search}
		/>
		{#if data.labels.length}
			<select
				class="box flex-[1_1_200px] max-w-50"
				aria-label="Label"
				value={data.label}
				onchange={(event) => choose({ label: event.currentTarget.value })}
			>
				<option value="">any label</option>
				{#each data.labels as label (label)}<option value={label}>{label}</option>{/each}
			</select>
		{/if}
	</div>
	<nav class="flex gap-y-1 gap-x-4 flex-wrap py-2 px-0" aria-label="State">
		<a
			class="text-(--ink-2) no-underline py-1 px-0 [&.on]:text-(--ink) [&.on]:font-semibold [&.on]:shadow-[inset_0_-3px_0_var(--tape)]"
			href={address({ state: '' })}
			class:on={!data.state}>All</a
		>
		{#each STATES as [state, label] (state)}
			{#if data.counts[state] > 0}<a
					class="text-(--ink-2) no-underline py-1 px-0 [&.on]:text-(--ink) [&.on]:font-semibold [&.on]:shadow-[inset_0_-3px_0_var(--tape)]"
					href={address({ state })}
					class:on={data.state === state}
					>{label} <span class="numbers">{data.counts[state].toLocaleString('en-GB')}</span></a
				>{/if}
		{/each}
	</nav>
	{#if data.rows.length === 0}
		<div class="panel p-6.5 grid gap-2.5 justify-items-start">
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
					<a
						class="grid grid-cols-[84px_minmax(0,1fr)_auto_minmax(150px,auto)] gap-y-1 gap-x-4 items-center py-2.5 px-4 no-underline border-b border-b-(--hair) phone:grid-cols-[1fr_auto] hover:bg-(--tape-tint) in-[li:last-child]:border-0"
						href="/work/{job.id}"
					>
						<span class="mono phone:hidden">{job.number}</span>
						<span class="what"
							><b class="block wrap-anywhere">{job.title}</b><span class="quiet block wrap-anywhere"
								>{job.customer}{job.site ? ` · ${job.site}` : ''}</span
							></span
						>
						<span class="flex gap-1 flex-wrap phone:hidden"
							>{#each job.labels as label (label)}<span class="tag">{label}</span>{/each}</span
						>
						<span
							class="state text-right text-(--ink-2) text-[0.906rem] [&[data-state='finished']]:text-(--ink) [&[data-state='finished']]:font-semibold"
							data-state={job.standing}
							>{STANDING_NAMES[job.standing]}{job.finishedOn && job.standing !== 'underWay'
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
