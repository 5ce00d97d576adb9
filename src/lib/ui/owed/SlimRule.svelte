<!-- The money rule, slim, for a row of a list: one mark on the days before and after due. -->
<script lang="ts">
	interface Props {
		/** Days after the due day; negative before it. */
		days: number;
		/** 0 to 1: how large the amount is among its neighbours. */
		size: number;
	}
	let { days, size }: Props = $props();
	const FROM = -45;
	const TO = 90;
	const place = (day: number) => (100 * (Math.min(Math.max(day, FROM), TO) - FROM)) / (TO - FROM);
	let words = $derived(
		days > 0
			? `${days} ${days === 1 ? 'day' : 'days'} late`
			: days === 0
				? 'due today'
				: `${-days} ${days === -1 ? 'day' : 'days'} left`
	);
</script>

<span class="slim" role="img" aria-label={words} title={words}>
	<span class="due" style:left="{place(0)}%"></span>
	<span
		class="peg"
		class:late={days > 0}
		style:left="{place(days)}%"
		style:height="{6 + 14 * size}px"
	></span>
</span>

<style>
	.slim {
		position: relative;
		display: block;
		height: 26px;
		background:
			repeating-linear-gradient(90deg, var(--on-tape) 0 1px, transparent 1px 11.11%) left bottom /
				100% 3px no-repeat,
			linear-gradient(var(--tape), var(--tape)) left bottom / 100% 6px no-repeat;
	}
	.due {
		position: absolute;
		bottom: 0;
		width: 2px;
		height: 24px;
		background: var(--ink);
		transform: translateX(-50%);
	}
	.peg {
		position: absolute;
		bottom: 6px;
		width: 9px;
		border: 1.5px solid var(--ink);
		border-bottom: 0;
		background: var(--sheet);
		transform: translateX(-50%);
	}
	.peg.late {
		border-color: var(--oxide);
		background: repeating-linear-gradient(
			45deg,
			var(--oxide) 0 3px,
			color-mix(in oklab, var(--oxide) 70%, white) 3px 5px
		);
	}
</style>
