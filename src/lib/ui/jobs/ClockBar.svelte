<!-- The clock on a job: it runs on the server, so closing the page or losing the phone stops nothing. -->
<script lang="ts">
	import Form from '../parts/Form.svelte';
	import { londonTime } from '$lib/core/calendar/conversion';

	interface Props {
		jobId: number;
		clock: { jobId: number; startedAt: number | null; title: string } | null;
		/** The server's time when the page was made: the device's own clock is not trusted. */
		now: number;
		canStart: boolean;
	}
	let { jobId, clock, now, canStart }: Props = $props();
	let elapsed = $state(0);
	$effect(() => {
		const began = performance.now();
		const at = now;
		elapsed = at - now;
		const timer = setInterval(() => (elapsed = performance.now() - began), 1000);
		return () => clearInterval(timer);
	});
	let here = $derived(clock?.jobId === jobId);
	let minutes = $derived(
		clock?.startedAt ? Math.max(0, Math.floor((now + elapsed - clock.startedAt) / 60_000)) : 0
	);
	let shown = $derived(`${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}`);
</script>

{#if here}
	<Form class="panel clock print:hidden flex items-center gap-3.5 py-3 px-4" action="?/stop">
		<b class="numbers [font:650_1.6rem_var(--font-heading)] min-w-[3.4ch]">{shown}</b>
		<span class="quiet">since {londonTime(clock!.startedAt!)}</span>
		<button class="button filled ml-auto min-w-23">Stop</button>
	</Form>
{:else if canStart}
	<Form class="panel clock print:hidden flex items-center gap-3.5 py-3 px-4" action="?/start" keyed>
		<b class="numbers [font:650_1.6rem_var(--font-heading)] min-w-[3.4ch]">0:00</b>
		<span class="quiet"
			>{clock ? `stops the clock on ${clock.title}` : 'the clock is not running'}</span
		>
		<button class="button ml-auto min-w-23">Start</button>
	</Form>
{/if}
