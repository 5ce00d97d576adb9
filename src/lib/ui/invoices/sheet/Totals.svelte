<!-- What it comes to. Every amount opens its workings. -->
<script lang="ts">
	import { formatDecimal } from '$lib/core/money/decimal';
	import { displayAmount } from '$lib/core/money/display';
	import type { InvoiceFigures } from '$lib/core/figures/types';

	interface Props {
		figures: InvoiceFigures;
		registered: boolean;
		figure: string;
		onpick: (figure: string) => void;
		credit?: boolean;
	}
	let { figures, registered, figure, onpick, credit = false }: Props = $props();

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
				label: `Reverse charge: customer accounts for £${displayAmount(group.vat)}`,
				value: group.vat,
				shown: false
			})),
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

<div class="totals" aria-live="off">
	{#each rows as row (row.figure)}
		<button
			class:on={figure === row.figure}
			class:aside={!row.shown}
			onclick={() => onpick(row.figure)}
			title="Workings"
		>
			<span class="label">{row.label}</span><span class="numbers"
				>{row.shown ? displayAmount(row.value) : ''}</span
			>
		</button>
	{/each}
	<button
		class="big"
		class:on={figure === 'payable'}
		onclick={() => onpick('payable')}
		title="Workings"
		data-testid="payable"
	>
		<span>{credit ? 'Credited' : 'They pay you'}</span><span class="numbers"
			>£{displayAmount(figures.payable)}</span
		>
	</button>
</div>

<style>
	.totals {
		width: 100%;
		max-width: 430px;
		margin: 10px 58px 0 auto;
	}
	button {
		display: flex;
		justify-content: space-between;
		gap: 18px;
		width: 100%;
		text-align: left;
		padding: 4px 6px;
		min-height: 30px;
		cursor: help;
	}
	.label {
		text-decoration: underline dotted var(--dotted);
		text-underline-offset: 4px;
	}
	.aside {
		color: var(--ink-2);
		font-size: 0.906rem;
	}
	.on {
		background: var(--tape-tint);
	}
	.big {
		font: 700 1.56rem var(--font-heading);
		border-top: 2px solid var(--ink);
		margin-top: 4px;
		padding-top: 7px;
	}
	.on .label,
	.aside.on {
		color: var(--ink);
	}
	@media (max-width: 760px) {
		.totals {
			margin-right: 0;
			max-width: none;
		}
		button {
			min-height: 40px;
			align-items: center;
		}
	}
</style>
