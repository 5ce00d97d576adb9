<!-- How an invoice was settled: paid, withheld, credited, written off, open; each with its own fill and words. -->
<script lang="ts">
	import { max } from '$lib/core/money/decimal';
	import type { Currency } from '$lib/core/money/currencies';
	import { displayMoney } from '$lib/core/money/display';
	import type { Minor } from '$lib/core/money/types';

	interface Props {
		total: Minor;
		cash: Minor;
		withheld: Minor;
		credited: Minor;
		writtenOff: Minor;
		outstanding: Minor;
		currency?: Currency | undefined;
	}
	let { total, cash, withheld, credited, writtenOff, outstanding, currency }: Props = $props();
	const money = (amount: Minor) => displayMoney(amount, currency);

	// Told apart by their fill, not by colour alone.
	const FILLS = {
		paid: 'bg-(--ink)',
		withheld: '[background:var(--hatch)]',
		credited: '[background:radial-gradient(currentColor_1.2px,transparent_1.4px)_0_0_/_5px_5px]',
		written: '[background:repeating-linear-gradient(90deg,currentColor_0_1px,transparent_1px_4px)]',
		open: ''
	};
	let parts = $derived(
		[
			{ kind: 'paid' as const, words: 'paid', amount: cash },
			{ kind: 'withheld' as const, words: 'withheld', amount: withheld },
			{ kind: 'credited' as const, words: 'credited', amount: credited },
			{ kind: 'written' as const, words: 'written off', amount: writtenOff },
			{ kind: 'open' as const, words: 'open', amount: outstanding }
		].filter((part) => part.amount > 0)
	);
	let whole = $derived(
		max(
			parts.reduce((sum, part) => sum + part.amount, 0n),
			1n
		)
	);
	let words = $derived(
		parts.map((part) => `${money(part.amount)} ${part.words}`).join(', ') ||
			`${money(total)} in all`
	);
</script>

<span
	class="drawn h-3 flex border border-(--ink) bg-(--sheet) rounded-[1px] overflow-hidden text-(--ink)"
	role="img"
	aria-label={words}
	title={words}
>
	{#each parts as part (part.kind)}
		<i
			class={['block min-w-0.5', FILLS[part.kind]]}
			style:width="{Number((10_000n * part.amount) / whole) / 100}%"
			title="{money(part.amount)} {part.words}"
		></i>
	{/each}
</span>
