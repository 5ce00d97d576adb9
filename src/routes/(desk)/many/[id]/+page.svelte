<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import { ACTIONS } from '$lib/core/lists/actions';
	import { counted } from '$lib/core/words';
	import { LISTS, pathOfList } from '$lib/core/lists/all';
	import { WAY_NAMES } from '$lib/core/words';
	import Choice from '$lib/ui/parts/Choice.svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import Progress from '$lib/ui/parts/Progress.svelte';

	let { data } = $props();
	let run = $derived(data.run);
	let actions = $derived(ACTIONS[run.list]);
	let action = $derived(actions.find((one) => one.id === data.action) ?? null);
	let progress = $state<{ done: number; of: number } | null>(null);
	let far = $derived(progress?.done ?? run.all - run.waiting);
	const several = (count: number) => counted(count, ...LISTS[run.list].words);
	let back = $derived(pathOfList(run.list));
	let left = $derived(data.leftOut.reduce((sum, one) => sum + one.count, 0));

	$effect(() => {
		if (run.state !== 'running') return;
		const timer = setInterval(async () => {
			const response = await fetch(`/many/${run.id}/api`).catch(() => null);
			if (!response?.ok) return;
			const answer = await response.json();
			progress = answer;
			if (answer.state !== 'running') await invalidateAll();
		}, 400);
		return () => clearInterval(timer);
	});
</script>

<svelte:head><title>{action?.label ?? 'Chosen'} · Axiometer</title></svelte:head>
<div class="page max-w-215">
	<p class="quiet">
		<a href="{back}{run.view ? `?${run.view}` : ''}">Back to the list</a>
	</p>
	{#if run.state === 'chosen'}
		<h1 class="mb-3">{action ? action.label : 'What now?'}: {several(run.all)} chosen</h1>
		{#if action && data.checked}
			<div class="panel grid gap-3 py-4.5 px-5">
				<p class="text-[1.1rem]">
					{#if data.checked.fits === run.all}<b>All of them</b> can be {action.done}.
					{:else}<b>{data.checked.fits.toLocaleString('en-GB')}</b> can be {action.done},
						<b>{left.toLocaleString('en-GB')}</b> will be left out.{/if}
				</p>
				{#if data.checked.joinedCount}<p>
						{several(data.checked.joinedCount)} came into this list since you looked and
						{data.checked.joinedCount === 1 ? 'is' : 'are'} not included:
						{#each data.checked.joined as id, index (id)}{index ? '; ' : ''}<a
								href={data.names[id]?.href}>{data.names[id]?.name}</a
							>{/each}{data.checked.joinedCount > data.checked.joined.length ? ' …' : ''}
					</p>{/if}
				<Form action="?/begin" hidden={{ action: action.id }} class="grid gap-3">
					{#if data.checked.fits && action.asks}<div class="flex flex-wrap items-end gap-3">
							{#each action.asks as asked (asked)}
								{#if asked === 'day'}<DateField
										label={action.id === 'pay' ? 'Paid on' : 'Due on'}
										name="day"
										value={action.id === 'pay' ? data.today : ''}
									/>
								{:else if asked === 'way'}<Choice label="How" name="way" value="bank">
										{#each Object.entries(WAY_NAMES) as [value, words] (value)}<option {value}
												>{words}</option
											>{/each}
									</Choice>
								{:else}<Field label="Label" name="label" maxlength={40} />{/if}
							{/each}
						</div>{/if}
					<div class="flex flex-wrap gap-2.5">
						{#if data.checked.fits}<button class="button filled"
								>{action.does(several(data.checked.fits))}</button
							>{/if}
						<a class="button" href={back}>Leave it</a>
					</div>
				</Form>
			</div>
		{:else}
			<div class="flex flex-wrap gap-2.5">
				{#each actions as one (one.id)}<a class="button" href="?do={one.id}">{one.label}</a>{/each}
				{#if run.list === 'invoices'}
					<a class="button" href="/many/{run.id}/pdf" target="_blank" rel="noopener">One PDF</a>
					<a class="button" href="/many/{run.id}/zip" download>ZIP of PDFs</a>
				{/if}
				<a class="button plain" href={back}>Leave it</a>
			</div>
		{/if}
	{:else if run.state === 'running'}
		<h1 class="mb-3">{action?.label}: {several(run.all)}</h1>
		<div class="panel grid gap-2 py-4 px-5">
			<p role="status">
				{far.toLocaleString('en-GB')} of {run.all.toLocaleString('en-GB')}. You can leave this page:
				it goes on by itself.
			</p>
			<Progress value={far} max={run.all} label="How far it is" />
			<Form action="?/stop"><button class="button">Stop</button></Form>
		</div>
	{:else}
		<h1 class="mb-3">{several(run.done)} {action?.done}</h1>
		<div class="panel grid gap-2 py-4 px-5">
			<p role="status">
				{#if run.state === 'stopped'}Stopped: {several(run.waiting)}
					{run.waiting === 1 ? 'was' : 'were'} not dealt with.
				{:else if run.leftOut}{several(run.leftOut)} left out, see below.
				{:else}Nothing was left out.{/if}
				{#if action?.undo && run.done}{action.undo}{/if}
			</p>
			{#if run.state === 'stopped' && run.waiting}
				<Form action="?/resume"><button class="button">Go on</button></Form>
			{/if}
		</div>
	{/if}
	{#if data.leftOut.length}
		<section class="panel mt-4 py-4 px-5" aria-labelledby="left">
			<h2 id="left">Left out</h2>
			<ul class="grid gap-2 mt-2">
				{#each data.leftOut as { why, count, ids } (why)}
					<li>
						<b>{count.toLocaleString('en-GB')}: {why}</b>
						<span class="quiet block">
							{#each ids as id, index (id)}{index ? '; ' : ''}<a href={data.names[id]?.href}
									>{data.names[id]?.name ?? id}</a
								>{/each}{count > ids.length ? ' …' : ''}
						</span>
					</li>
				{/each}
			</ul>
		</section>
	{/if}
</div>
