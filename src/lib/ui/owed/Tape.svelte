<!-- The money rule itself: a tape in days, zero is the due day. -->
<script lang="ts">
	import { FROM, place, TO } from './scale';

	const LABELS: [number, string][] = [
		[-45, '45 days left'],
		[-30, '30'],
		[-15, '15'],
		[0, 'due'],
		[15, '15'],
		[30, '30'],
		[60, '60'],
		[90, '90 days late']
	];
	const ticks = Array.from({ length: (TO - FROM) / 5 + 1 }, (_, n) => FROM + n * 5);
</script>

<div class="tape" aria-hidden="true">
	{#each ticks as day (day)}<i class:long={day % 15 === 0} style:left="{place(day)}%"></i>{/each}
	{#each LABELS as [day, words] (day)}<b
			class:side={day === -45 || day === 90}
			class:few={day === -15 || day === 15}
			style:left="{place(day)}%"><span>{words}</span></b
		>{/each}
</div>

<style>
	.tape {
		position: relative;
		height: 40px;
		background: var(--tape);
		color: var(--on-tape);
		border: 1px solid var(--on-tape);
		border-radius: 2px 2px 0 0;
		overflow: hidden;
	}
	i {
		position: absolute;
		bottom: 0;
		width: 1.5px;
		height: 8px;
		background: currentColor;
	}
	i.long {
		height: 15px;
		width: 2px;
	}
	b {
		position: absolute;
		top: 3px;
		transform: translateX(-50%);
		font: 700 0.8rem var(--font-mono);
		white-space: nowrap;
	}
	@media (max-width: 760px) {
		.side,
		.few {
			display: none;
		}
	}
</style>
