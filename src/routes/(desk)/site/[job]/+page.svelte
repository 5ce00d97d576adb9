<script lang="ts">
	import { displayDate } from '$lib/core/calendar/conversion';
	import Files from '$lib/ui/files/Files.svelte';
	import Whereabouts from '$lib/ui/jobs/Whereabouts.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import Tick from '$lib/ui/parts/Tick.svelte';

	let { data } = $props();
	let job = $derived(data.job);
	let over = $derived(job.state === 'finished' || job.state === 'billed');
	const hours = (minutes: number) =>
		`${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')}`;
</script>

<svelte:head><title>{job.title} · Axiometer</title></svelte:head>
<div class="page max-w-215 grid gap-4">
	<div>
		<p class="quiet"><a href="/site">Your visits</a> · {job.number}</p>
		<h1 class="wrap-anywhere">{job.title}</h1>
		<p>{[job.site, job.customer].filter(Boolean).join(' · ')}</p>
	</div>
	<Whereabouts address={job.address} people={job.phones.map((one) => ({ ...one, email: '' }))} />
	{#if job.accessNotes}<p
			class="panel border-l-4 border-l-(--tape) py-2.5 px-3.5 whitespace-pre-line"
		>
			{job.accessNotes}
		</p>{/if}
	<div class="flex flex-wrap gap-2.5">
		{#if job.running?.here}
			<Form action="?/stop" keyed done="Stopped; the time is kept."
				><button class="button filled min-h-12!">Stop the clock</button></Form
			>
		{:else if !over}
			<Form action="?/start" keyed done={job.running ? 'Started here, stopped there.' : 'Started.'}
				><button class="button filled min-h-12!">Start the clock</button></Form
			>
		{/if}
	</div>
	{#if job.description || job.lines.length}
		<section class="panel grid gap-2 py-4 px-4.5">
			<h2>What is to be done</h2>
			{#if job.description}<p class="whitespace-pre-line wrap-anywhere">{job.description}</p>{/if}
			<ul class="grid gap-1">
				{#each job.lines as line (line.id)}
					<li class="flex flex-wrap justify-between gap-x-4">
						<span class="wrap-anywhere">{line.description}</span>
						<span class="numbers quiet"
							>{line.quantity}
							{line.unit}{'unitPrice' in line ? ` × £${line.unitPrice}` : ''}</span
						>
					</li>
				{/each}
			</ul>
		</section>
	{/if}
	{#each job.visits as visit (visit.id)}
		<Form
			class="panel grid gap-2.5 py-4 px-4.5"
			action="?/note"
			hidden={{ visit: visit.id }}
			done="Kept."
		>
			<h2>
				{visit.date === data.today ? 'Today' : displayDate(visit.date)}{visit.from
					? `, ${visit.from}`
					: ''}
			</h2>
			<Field label="Notes" name="note" rows={3} value={visit.note} />
			<div class="flex flex-wrap items-center justify-between gap-3">
				<Tick name="done" checked={visit.done}>This visit is done</Tick>
				<button class="button"
					>Keep it<span class="sr-only"
						>: {displayDate(visit.date)}{visit.from ? `, ${visit.from}` : ''}</span
					></button
				>
			</div>
		</Form>
	{/each}
	<section class="panel grid gap-3 py-4 px-4.5">
		<h2>Photos</h2>
		<Files to="job" id={job.id} files={job.files} />
	</section>
	<section class="panel grid gap-3 py-4 px-4.5">
		<h2>Your time</h2>
		{#if job.times.length}<ul class="grid gap-1">
				{#each job.times as time (time.id)}<li class="flex justify-between gap-4">
						<span>{displayDate(time.date)}{time.note ? `: ${time.note}` : ''}</span><span
							class="numbers">{hours(time.minutes ?? 0)}</span
						>
					</li>{/each}
			</ul>{/if}
		{#if !over}<Form
				class="grid grid-cols-[7rem_minmax(0,1fr)_auto] items-end gap-2.5 phone:grid-cols-1"
				action="?/time"
				keyed
				reset
				done="The time is kept."
			>
				<Field label="Hours" name="hours" inputmode="decimal" placeholder="7.5 or 7:30" />
				<Field label="What was done" name="note" maxlength={200} />
				<button class="button">Add the time</button>
			</Form>{/if}
	</section>
	<section class="panel grid gap-3 py-4 px-4.5">
		<h2>Materials</h2>
		{#if job.materials.length}<ul class="grid gap-1">
				{#each job.materials as one (one.id)}<li class="flex justify-between gap-4">
						<span class="wrap-anywhere">{one.description}</span><span class="numbers"
							>{one.quantity} {one.unit}</span
						>
					</li>{/each}
			</ul>{/if}
		{#if !over}<Form
				class="grid grid-cols-[minmax(0,1fr)_6rem_6rem_auto] items-end gap-2.5 phone:grid-cols-2"
				action="?/cost"
				keyed
				reset
				done="The material is kept."
			>
				<Field look="phone:col-span-2" label="What was used" name="description" maxlength={300} />
				<Field label="How many" name="quantity" inputmode="decimal" />
				<Field label="Unit" name="unit" maxlength={30} />
				<button class="button phone:col-span-2">Add the material</button>
			</Form>{/if}
	</section>
	<Form action="?/sheet" keyed leaves
		><button class="button min-h-12!">Job sheet, to be signed</button></Form
	>
	{#if !over}<Form action="?/done" keyed
			><button class="button min-h-12!">The work here is finished</button></Form
		>{:else}<p class="quiet">This job is finished.</p>{/if}
</div>
