<!-- As the customer could choose: what each way makes of the total, and what is left of it for the owner. -->
<script lang="ts">
	import { displayPounds } from '$lib/core/money/display';
	import { formatDecimal } from '$lib/core/money/decimal';
	import { readQuote, type Margin } from '$lib/core/quotes/read';
	import { addsOf } from '$lib/core/quotes/chosen';
	import type { Draft } from '../lines/draft.svelte';
	import RangeTape from './RangeTape.svelte';

	let { draft }: { draft: Draft } = $props();
	let reading = $derived(draft.quote);
	let quote = $derived(reading?.quote ?? null);
	let adds = $derived(reading?.asked && quote ? addsOf(reading.asked, quote) : null);
	let lines = $derived(reading?.lines ?? []);
	let many = $derived(adds !== null && (adds.options.length > 0 || adds.extras.length > 0));
	const signed = (amount: bigint | null) =>
		amount === null
			? ''
			: amount < 0n
				? `− ${displayPounds(-amount)}`
				: `+ ${displayPounds(amount)}`;
	const percent = ({ margin, net }: Margin) =>
		net > 0n ? `${formatDecimal({ units: (margin * 100n) / net, scale: 0 })} %` : '';

	function take(group: string, option: string) {
		draft.picked = { ...draft.picked, options: { ...draft.picked.options, [group]: option } };
	}
	function add(index: number, isIn: boolean) {
		const { id, quantity } = lines[index]!;
		const { [id]: _gone, ...others } = draft.picked.extras;
		draft.picked = {
			...draft.picked,
			extras: isIn ? { ...others, [id]: quantity.trim() || '1' } : others
		};
	}
	/** What would be left with another way of one group. */
	const marginWith = (group: string, option: string): Margin | null =>
		readQuote(
			draft.plain,
			{ seller: draft.seller, customer: draft.customer, today: draft.today },
			{ ...draft.picked, options: { ...draft.picked.options, [group]: option } }
		).margin;
</script>

{#if quote}
	<div class="grid gap-3">
		<p>
			<b class="numbers text-[1.6rem] [font-family:var(--font-heading)]"
				>{displayPounds(quote.figures.total)}</b
			>
			<span class="quiet">{draft.registered ? 'with VAT' : ''}{many ? ', as tried below' : ''}</span
			>
		</p>
		{#if many && quote.lowest !== null && quote.highest !== null && quote.lowest < quote.highest}<RangeTape
				lowest={quote.lowest}
				highest={quote.highest}
				now={quote.figures.total}
			/>{/if}
		{#if reading?.margin}<p>
				You keep <b class="numbers" class:text-(--oxide)={reading.margin.margin < 0n}
					>{displayPounds(reading.margin.margin)}</b
				>
				<span class="quiet"
					>{percent(reading.margin)} of {displayPounds(reading.margin.net)} without VAT, after {displayPounds(
						reading.margin.cost
					)} of costs</span
				>
			</p>{:else}<p class="quiet">Give lines their cost, and what you keep stands here.</p>{/if}
		{#each adds?.options ?? [] as { group, taken, options } (group)}
			<fieldset class="grid">
				<legend class="name">{group || '…'}</legend>
				{#each options as { option, adds: more } (option)}
					{@const margin = marginWith(group, option)}
					<label
						class="flex items-start gap-2 border-t border-(--hair) py-1.5"
						class:bg-(--tape-tint)={option === taken}
					>
						<input
							class="mt-1"
							type="radio"
							name="try-{group}"
							checked={option === taken}
							onchange={() => take(group, option)}
						/>
						<span class="flex-1 wrap-anywhere"
							>{option || '…'}{#if margin}<span class="quiet block"
									>you keep {displayPounds(margin.margin)}, {percent(margin)}</span
								>{/if}</span
						>
						<span class="numbers">{option === taken ? '' : signed(more)}</span>
					</label>
				{/each}
			</fieldset>
		{/each}
		{#if adds?.extras.length}
			<fieldset class="grid">
				<legend class="name">Optional</legend>
				{#each adds.extras as { index, isIn, adds: more } (index)}
					<label
						class="flex items-start gap-2 border-t border-(--hair) py-1.5"
						class:bg-(--tape-tint)={isIn}
					>
						<input
							class="mt-1"
							type="checkbox"
							checked={isIn}
							onchange={(event) => add(index, event.currentTarget.checked)}
						/>
						<span class="flex-1 wrap-anywhere">{lines[index]?.description || '…'}</span>
						<span class="numbers">{signed(more)}</span>
					</label>
				{/each}
			</fieldset>
		{/if}
	</div>
{/if}
