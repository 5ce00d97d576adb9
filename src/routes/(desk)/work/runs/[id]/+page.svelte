<script lang="ts">
	import Progress from '$lib/ui/parts/Progress.svelte';
	import { invalidateAll } from '$app/navigation';
	import { displayMoment } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import Tabs from '$lib/ui/parts/Places.svelte';
	import { WORK_PAGES } from '$lib/ui/jobs/tabs';

	let { data } = $props();
	let run = $derived(data.run);
	let progress = $state<{ done: number; of: number } | null>(null);
	let done = $derived(run.state === 'done' ? run.steps.length : (progress?.done ?? run.done));
	let skipped = $derived(run.steps.filter((step) => step.state === 'skipped'));
	let made = $derived(run.steps.filter((step) => step.state !== 'skipped'));
	let total = $derived(made.reduce((sum, step) => sum + step.total, 0));
	const STATES = {
		waiting: 'waiting',
		drafted: 'draft',
		issued: 'issued',
		sent: 'issued and sent',
		skipped: 'left out'
	};

	$effect(() => {
		if (run.state === 'done') return;
		const timer = setInterval(async () => {
			const response = await fetch(`/work/runs/${run.id}/api`).catch(() => null);
			if (!response?.ok) return;
			const answer = await response.json();
			progress = answer;
			if (answer.state === 'done') await invalidateAll();
		}, 400);
		return () => clearInterval(timer);
	});
</script>

<svelte:head><title>Bill run · Axiometer</title></svelte:head>
<div class="page">
	<h1>Bill run of {displayMoment(run.createdAt)}</h1>
	<Tabs label="Work" pages={WORK_PAGES} />
	<div class="panel py-3.5 px-4.5 mb-3 grid gap-2">
		{#if run.state === 'running'}
			<p role="status">
				{done} of {run.steps.length} done. You can leave this page: it goes on by itself.
			</p>
			<Progress value={done} max={run.steps.length} label="Progress of the run" />
		{:else}
			<p role="status">
				<b
					>{made.length}
					{made.length === 1 ? 'invoice' : 'invoices'} for {displayPounds(total)}</b
				>{skipped.length ? `; ${skipped.length} left out, see below` : '; nothing was left out'}.
			</p>
		{/if}
	</div>
	<ul class="panel">
		{#each run.steps as step (step.position)}
			<li
				class="grid grid-cols-[110px_minmax(0,1fr)_auto_110px] gap-y-1 gap-x-3.5 py-2.25 px-4 border-b border-b-(--hair) items-center phone:grid-cols-[1fr_auto]"
			>
				<span
					>{#if step.documentId}<a class="block" href="/billing/{step.documentId}"
							>{step.number ?? 'Draft'}</a
						>{:else}–{/if}</span
				>
				<span
					><b class="block">{step.customer}</b>{#if step.note}<span class="quiet block"
							>{step.note}</span
						>{/if}</span
				>
				<span class="quiet"
					>{step.jobIds.length}
					{step.jobIds.length === 1 ? 'job' : 'jobs'} · {STATES[step.state]}</span
				>
				<b class="numbers text-right">{displayPounds(step.total)}</b>
			</li>
		{/each}
	</ul>
</div>
