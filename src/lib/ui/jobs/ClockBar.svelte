<!-- The clock on a job: it runs on the server, so closing the page or losing the phone stops nothing. -->
<script lang="ts">
	import { enhance } from '$app/forms';
	import { londonTime } from '$lib/core/calendar/conversion';
	import { pressKey } from '../parts/keys';

	interface Props {
		jobId: number;
		clock: { jobId: number; startedAt: number | null; title: string } | null;
		/** The server's time when the page was made: the device's own clock is not trusted. */
		now: number;
		canStart: boolean;
	}
	let { jobId, clock, now, canStart }: Props = $props();
	let elapsed = $state(0);
	let key = $state(pressKey());
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
	<form class="panel clock" method="post" action="?/stop" use:enhance>
		<b class="numbers">{shown}</b>
		<span class="quiet">since {londonTime(clock!.startedAt!)}</span>
		<button class="button filled">Stop</button>
	</form>
{:else if canStart}
	<form
		class="panel clock"
		method="post"
		action="?/start"
		use:enhance={() =>
			async ({ update }) => {
				key = pressKey();
				await update();
			}}
	>
		<input type="hidden" name="key" value={key} />
		<b class="numbers">0:00</b>
		<span class="quiet"
			>{clock ? `stops the clock on ${clock.title}` : 'the clock is not running'}</span
		>
		<button class="button">Start</button>
	</form>
{/if}

<style>
	.clock {
		display: flex;
		align-items: center;
		gap: 14px;
		padding: 12px 16px;
	}
	b {
		font: 650 1.6rem var(--font-heading);
		min-width: 3.4ch;
	}
	.button {
		margin-left: auto;
		min-width: 92px;
	}
</style>
