<!-- How an invoice was settled: paid, withheld, credited, written off, open; each with its own fill and words. -->
<script lang="ts">
	import { displayPounds } from '$lib/core/money/display';

	interface Props {
		total: number;
		cash: number;
		withheld: number;
		credited: number;
		writtenOff?: number;
		outstanding: number;
	}
	let { total, cash, withheld, credited, writtenOff = 0, outstanding }: Props = $props();

	let parts = $derived(
		[
			{ kind: 'paid', words: 'paid', amount: Math.max(cash, 0) },
			{ kind: 'withheld', words: 'withheld', amount: withheld },
			{ kind: 'credited', words: 'credited', amount: credited },
			{ kind: 'written', words: 'written off', amount: writtenOff },
			{ kind: 'open', words: 'open', amount: outstanding }
		].filter((part) => part.amount > 0)
	);
	let whole = $derived(
		Math.max(
			parts.reduce((sum, part) => sum + part.amount, 0),
			1
		)
	);
	let words = $derived(
		parts.map((part) => `${displayPounds(part.amount)} ${part.words}`).join(', ') ||
			`${displayPounds(total)} in all`
	);
</script>

<span class="bar" role="img" aria-label={words} title={words}>
	{#each parts as part (part.kind)}
		<i
			class={part.kind}
			style:width="{(100 * part.amount) / whole}%"
			title="{displayPounds(part.amount)} {part.words}"
		></i>
	{/each}
</span>

<style>
	.bar {
		height: 12px;
		display: flex;
		border: 1px solid var(--ink);
		background: var(--sheet);
		border-radius: 1px;
		overflow: hidden;
		color: var(--ink);
	}
	i {
		display: block;
		min-width: 2px;
	}
	.paid {
		background: var(--ink);
	}
	.withheld {
		background: var(--hatch);
	}
	.credited {
		background: radial-gradient(currentColor 1.2px, transparent 1.4px) 0 0 / 5px 5px;
	}
	.written {
		background: repeating-linear-gradient(90deg, currentColor 0 1px, transparent 1px 4px);
	}
</style>
