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
	<div class="panel head">
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
			<li>
				<span
					>{#if step.documentId}<a href="/billing/{step.documentId}">{step.number ?? 'Draft'}</a
						>{:else}–{/if}</span
				>
				<span
					><b>{step.customer}</b>{#if step.note}<span class="quiet">{step.note}</span>{/if}</span
				>
				<span class="quiet"
					>{step.jobIds.length}
					{step.jobIds.length === 1 ? 'job' : 'jobs'} · {STATES[step.state]}</span
				>
				<b class="numbers">{displayPounds(step.total)}</b>
			</li>
		{/each}
	</ul>
</div>

<style>
	.head {
		padding: 14px 18px;
		margin-bottom: 12px;
		display: grid;
		gap: 8px;
	}
	li {
		display: grid;
		grid-template-columns: 110px minmax(0, 1fr) auto 110px;
		gap: 4px 14px;
		padding: 9px 16px;
		border-bottom: 1px solid var(--hair);
		align-items: center;
	}
	li > span > * {
		display: block;
	}
	li .numbers {
		text-align: right;
	}
	@media (max-width: 760px) {
		li {
			grid-template-columns: 1fr auto;
		}
	}
</style>
