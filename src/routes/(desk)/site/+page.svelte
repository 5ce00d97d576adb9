<script lang="ts">
	import { displayDate } from '$lib/core/calendar/conversion';
	import { counted } from '$lib/core/words';

	let { data } = $props();
	let days = $derived([...new Set(data.visits.map(({ date }) => date))]);
	let today = $derived(data.visits.filter(({ date }) => date === data.today));
	const on = (day: string) => data.visits.filter(({ date }) => date === day);
	const weekday = new Intl.DateTimeFormat('en-GB', { weekday: 'long', timeZone: 'UTC' });
	const nameOf = (day: string) =>
		day === data.today
			? 'Today'
			: `${weekday.format(new Date(`${day}T00:00Z`))}, ${displayDate(day)}`;
</script>

<svelte:head><title>Your visits · Axiometer</title></svelte:head>
<div class="page max-w-215">
	<h1 class="mb-1">Your visits</h1>
	<p class="mb-4">
		{today.length
			? `${counted(today.filter(({ done }) => !done).length, 'visit')} left today.`
			: 'Nothing today.'}
	</p>
	{#each days as day (day)}
		<section class="mb-5" aria-labelledby="day-{day}">
			<h2 id="day-{day}" class="mb-2 {day < data.today ? 'text-(--ink-2)' : ''}">{nameOf(day)}</h2>
			<ul class="grid gap-2">
				{#each on(day) as visit (visit.id)}
					<li>
						<a
							class="panel grid grid-cols-[76px_minmax(0,1fr)] gap-x-3.5 py-3.5 px-4 no-underline hover:bg-(--tape-tint)"
							href="/site/{visit.jobId}"
						>
							<b class="numbers">{visit.from || 'all day'}{visit.to ? `–${visit.to}` : ''}</b>
							<span class="min-w-0">
								<b class="block wrap-anywhere [&.done]:line-through" class:done={visit.done}
									>{visit.site || visit.customer}</b
								>
								<span class="block wrap-anywhere">{visit.title}</span>
								<span class="quiet block">{visit.address.split('\n').slice(0, 2).join(', ')}</span>
								{#if visit.done}<span class="tag">done</span>{/if}
							</span>
						</a>
					</li>
				{/each}
			</ul>
		</section>
	{:else}
		<p class="panel py-5 px-5">No visit of yours is booked. They stand here as soon as one is.</p>
	{/each}
</div>
