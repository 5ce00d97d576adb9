<!-- What it comes to. Every amount opens its workings. -->
<script lang="ts">
	import { formatDecimal } from '$lib/core/money/decimal';
	import type { Currency } from '$lib/core/money/currencies';
	import { displayAmount, displayMoney, displayPounds } from '$lib/core/money/display';
	import type { InvoiceFigures } from '$lib/core/figures/types';

	interface Props {
		figures: InvoiceFigures;
		registered: boolean;
		figure: string;
		onpick: (figure: string) => void;
		credit?: boolean;
		/** The name of the last sum, where nobody pays it yet. */
		last?: string;
		/** What it is in; absent: pounds. */
		currency?: Currency | undefined;
	}
	let { figures, registered, figure, onpick, credit = false, last, currency }: Props = $props();

	let rows = $derived([
		...(figures.discount || figures.retention
			? [
					{
						figure: 'linesTotal',
						label: 'Sum of the lines',
						value: figures.linesTotal,
						shown: true
					}
				]
			: []),
		...(figures.discount
			? [{ figure: 'discount', label: 'Discount', value: -figures.discount, shown: true }]
			: []),
		...(figures.retention
			? [
					{
						figure: 'retention',
						label: 'Held back until later',
						value: -figures.retention,
						shown: true
					}
				]
			: []),
		{ figure: 'net', label: registered ? 'Net' : 'Sum', value: figures.net, shown: true },
		...(registered
			? figures.vat
					.filter((group) => group.rate && !group.reverseCharge)
					.map((group) => ({
						figure: `vat.${group.treatment}.vat`,
						label: `VAT, ${formatDecimal(group.rate!)} % of ${displayAmount(group.net)}`,
						value: group.vat,
						shown: true
					}))
			: []),
		...(registered && figures.vat.every((group) => group.reverseCharge || !group.rate)
			? [{ figure: 'vatCharged', label: 'VAT charged', value: figures.vatCharged, shown: true }]
			: []),
		...figures.vat
			.filter((group) => group.reverseCharge)
			.map((group) => ({
				figure: `vat.${group.treatment}.vat`,
				label: `Reverse charge: customer accounts for ${displayMoney(group.vat, currency)}`,
				value: group.vat,
				shown: false
			})),
		...(figures.sterling
			? [
					{
						figure: 'sterling.net',
						label: `In pounds at ${formatDecimal(figures.sterling.rate)}: ${displayPounds(figures.sterling.net)}${registered ? ` and VAT of ${displayPounds(figures.sterling.vatCharged)}` : ''}`,
						value: 0n,
						shown: false
					}
				]
			: []),
		...(figures.cis
			? [
					{ figure: 'total', label: 'Total', value: figures.total, shown: true },
					{
						figure: 'cis.deduction',
						label: `CIS deduction, ${figures.cis.rate} % of ${displayAmount(figures.cis.base)}`,
						value: -figures.cis.deduction,
						shown: true
					}
				]
			: [])
	]);
</script>

<div
	class="totals w-full max-w-107.5 mt-2.5 mb-0 mr-14.5 ml-auto phone:mr-0 phone:max-w-none"
	aria-live="off"
>
	{#each rows as row (row.figure)}
		<button
			type="button"
			class="flex justify-between gap-4.5 w-full text-left py-1 px-1.5 min-h-7.5 [cursor:help] phone:min-h-10 phone:items-center [&.on]:bg-(--tape-tint) [&.aside]:text-(--ink-2) [&.aside]:text-[0.906rem] [&.aside.on]:text-(--ink)"
			class:on={figure === row.figure}
			class:aside={!row.shown}
			onclick={() => onpick(row.figure)}
			title="Workings"
		>
			<span
				class="label [text-decoration:underline_dotted_var(--dotted)] underline-offset-4 in-[.on]:text-(--ink)"
				>{row.label}</span
			><span class="numbers">{row.shown ? displayAmount(row.value) : ''}</span>
		</button>
	{/each}
	<button
		type="button"
		class="flex justify-between gap-4.5 w-full text-left py-1 px-1.5 min-h-7.5 [cursor:help] [font:700_1.56rem_var(--font-heading)] border-t-2 border-t-(--ink) mt-1 pt-1.75 phone:min-h-10 phone:items-center [&.on]:bg-(--tape-tint)"
		class:on={figure === 'payable'}
		onclick={() => onpick('payable')}
		title="Workings"
		data-testid="payable"
	>
		<span>{last ?? (credit ? 'Credited' : 'They pay you')}</span><span class="numbers"
			>{displayMoney(figures.payable, currency)}</span
		>
	</button>
</div>
