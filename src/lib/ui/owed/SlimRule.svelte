<!-- The money rule, slim, for a row of a list: one mark on the days before and after due. -->
<script lang="ts">
	interface Props {
		/** Days after the due day; negative before it. */
		days: number;
		/** 0 to 1: how high the mark stands among its neighbours. */
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

<span
	class="drawn relative block h-6.5 [background:repeating-linear-gradient(90deg,var(--on-tape)_0_1px,transparent_1px_11.11%)_left_bottom_/_100%_3px_no-repeat,linear-gradient(var(--tape),var(--tape))_left_bottom_/_100%_6px_no-repeat]"
	role="img"
	aria-label={words}
	title={words}
>
	<span
		class="due absolute bottom-0 w-0.5 h-6 bg-(--ink) [transform:translateX(-50%)]"
		style:left="{place(0)}%"
	></span>
	<span
		class="absolute bottom-1.5 w-2.25 border-[1.5px] border-(--ink) border-b-0 bg-(--sheet) [transform:translateX(-50%)] [&.late]:border-(--oxide) [&.late]:[background:repeating-linear-gradient(_45deg,var(--oxide)_0_3px,color-mix(in_oklab,var(--oxide)_70%,white)_3px_5px_)]"
		class:late={days > 0}
		style:left="{place(days)}%"
		style:height="{6 + 14 * size}px"
	></span>
</span>
