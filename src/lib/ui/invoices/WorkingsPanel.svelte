<!-- The workings of one figure: how it came about, step by step, each step a figure of its own. -->
<script lang="ts">
	import { formatDecimal } from '$lib/core/money/decimal';
	import { displayAmount } from '$lib/core/money/display';
	import { GB } from '$lib/core/regimes/gb';
	import {
		ALLOWABLE_KINDS,
		type InvoiceFigures,
		type Working,
		type Operand
	} from '$lib/core/figures/types';
	import { reasonById } from '$lib/core/regimes/gb/reasons';
	import type { Decision, VatTreatment } from '$lib/core/regimes/types';
	import type { fromList } from '$lib/core/sheet/priceBasis';
	import type { SheetLine } from '$lib/core/sheet/types';

	interface Props {
		figures: InvoiceFigures;
		lines: SheetLine[];
		figure: string;
		onpick: (figure: string) => void;
		/** Workings of sums that are the sheet's own, such as those under a heading. */
		more?: Map<string, Working>;
		/** How a line's price came from the price list, where it was converted. */
		/** The customer may deduct: why it does, or does not, is said at the sum. */
		contractor?: boolean;
		listed?: (line: SheetLine) => ReturnType<typeof fromList>;
	}
	let { figures, lines, figure, onpick, more, listed, contractor = false }: Props = $props();
	let converted = $derived.by(() => {
		const index = /^lines\.(\d+)\./.exec(figure)?.[1];
		const line = index === undefined ? undefined : lines[Number(index)];
		const from = line && listed?.(line);
		if (!from) return null;
		const percent = formatDecimal(from.rate);
		return {
			...from,
			became: line.unitPrice,
			step: from.withVat
				? `÷ ${formatDecimal({ units: 100n + from.rate.units, scale: 2 })}`
				: `+ ${percent} %`
		};
	});

	let working = $derived(
		more?.get(figure) ?? figures.workings.get(figure) ?? figures.workings.get('payable')!
	);
	let rule = $derived(GB.rules[working.rule]);
	/** The decisions the figure rests on. */
	let decided = $derived.by((): Decision[] => {
		const { deduction, reverseCharge, rates } = figures.decisions;
		// Whom no deduction can concern hears nothing of it, unless asked for by name.
		if (figure === 'payable' && !figures.cis && !contractor) return [];
		if (/^cis|^payable$/.test(figure)) return [deduction];
		if (!/^vat/.test(figure)) return [];
		const treatment = /^vat\.(\w+)/.exec(figure)?.[1] as VatTreatment | undefined;
		const rate = treatment && rates[treatment];
		return rate ? [rate, reverseCharge] : [reverseCharge];
	});
	/** Why the lines of this rate are not taxed at the standard one, as it is printed. */
	let grounds = $derived.by(() => {
		const treatment = /^vat\.(\w+)/.exec(figure)?.[1];
		const used = new Set(
			lines.filter((line) => line.vat === treatment).map((line) => line.vatReason)
		);
		return [...used].flatMap((id) => reasonById(id) ?? []);
	});
	/** What is in the base although one might think it comes off. */
	let markUp = $derived.by(() => {
		if (figure !== 'cis.deduction' && figure !== 'cis.base' && figure !== 'cis.materials')
			return 0n;
		return lines.reduce((sum, line, index) => {
			const taxed = figures.lines[index];
			const working = figures.workings.get('cis.materials');
			if (!taxed || !ALLOWABLE_KINDS.has(line.kind)) return sum;
			const cost = working?.operands.find((operand) =>
				operand.label.startsWith(`Line ${index + 1},`)
			);
			return cost?.as === 'money' && taxed.withoutVat > cost.value
				? sum + taxed.withoutVat - cost.value
				: sum;
		}, 0n);
	});

	/** "Line 3" becomes what that line says. */
	function say(label: string): string {
		return label.replace(/\b[Ll]ine (\d+)/, (match, number) => {
			const description = lines[Number(number) - 1]?.description.trim().split('\n')[0];
			return description ? description.slice(0, 48) : match;
		});
	}
	function value(operand: Operand): string {
		if (operand.as === 'money') return displayAmount(operand.value * BigInt(operand.sign));
		if (operand.as === 'percent') return `× ${formatDecimal(operand.value)} %`;
		return formatDecimal(operand.value);
	}
	const SIGNS: Record<string, string> = { product: '×', share: 'of' };
</script>

<section class="workings" aria-label="Workings">
	<h2 class="text-[1.2rem] mb-0.75 wrap-anywhere">
		{say(working.label)}: {displayAmount(working.value)}
	</h2>
	<p class="quiet">Workings</p>
	{#if working.operation === 'given' && working.operands.length === 0}
		<p class="mt-2">
			{working.value === 0n ? 'Nothing: there is none on this document.' : 'As you typed it.'}
		</p>
	{/if}
	<ol class="mt-2 [&_span:first-child]:wrap-anywhere">
		{#each working.operands as operand, index (index)}
			<li class="grid grid-cols-[1fr_auto] gap-2 border-b border-b-(--hair) py-1.5 px-0">
				{#if operand.as === 'money' && operand.figure && figures.workings.has(operand.figure)}
					{@const target = operand.figure}
					<button
						type="button"
						class="wrap-anywhere text-left [text-decoration:underline_dotted] underline-offset-4 cursor-pointer min-h-6"
						onclick={() => onpick(target)}>{say(operand.label)}</button
					>
				{:else}<span>{say(operand.label)}</span>{/if}
				<span class="numbers"
					>{index > 0 && SIGNS[working.operation] ? `${SIGNS[working.operation]} ` : ''}{value(
						operand
					)}</span
				>
			</li>
		{/each}
		<li class="grid grid-cols-[1fr_auto] gap-2 py-1.5 px-0 border-b-2 border-b-(--ink) font-[650]">
			<span>{say(working.label)}</span><span class="numbers">{displayAmount(working.value)}</span>
		</li>
	</ol>
	{#if converted}
		<div class="rule bg-(--quiet-fill) py-2.5 px-3 mt-3 text-[0.925rem]">
			<b
				>On the price list: £{converted.price}
				{converted.withVat ? 'with' : 'without'} VAT.</b
			><br />
			<span class="numbers">{converted.price} {converted.step} = {converted.became}</span>
			{converted.withVat ? 'without' : 'with'} VAT, as the prices of this document are.
		</div>
	{/if}
	{#if markUp > 0n}
		<div class="rule bg-(--quiet-fill) py-2.5 px-3 mt-3 text-[0.925rem]">
			<b>Your £{displayAmount(markUp)} mark-up on materials stays in.</b> Only what you paid others comes
			off.
		</div>
	{/if}
	{#if rule}<div class="rule bg-(--quiet-fill) py-2.5 px-3 mt-3 text-[0.925rem]">
			<b>{rule.title}.</b><br /><span class="quiet">{rule.reference}</span>
		</div>{/if}
	{#each grounds as reason (reason.id)}
		<div class="rule bg-(--quiet-fill) py-2.5 px-3 mt-3 text-[0.925rem]">
			<b>{reason.sentence}</b><br /><span class="quiet">Keep as evidence: {reason.evidence}.</span>
		</div>
	{/each}
	{#each decided as decision (decision.question)}
		<div class="rule bg-(--quiet-fill) py-2.5 px-3 mt-3 text-[0.925rem]">
			<b>{decision.conclusion}</b>
			<ul class="my-1.5 mx-0">
				{#each decision.reasons as reason (reason.text)}
					<li class="flex gap-2">
						<span aria-hidden="true">{reason.holds ? '✓' : '✗'}</span>
						<span><span class="sr-only">{reason.holds ? 'Yes:' : 'No:'}</span> {reason.text}</span>
					</li>
				{/each}
			</ul>
			{#if decision.wouldChange.length}<span class="quiet"
					>It would be different {decision.wouldChange.join(', or ')}.</span
				>{/if}
			<div class="quiet">{GB.rules[decision.rule]?.reference}</div>
		</div>
	{/each}
</section>
