<!-- One payment for any of a payer's invoices: the one due first, first, or as chosen. -->
<script lang="ts">
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import { parseMoney } from '$lib/core/money/decimal';
	import { readTypedNumber } from '$lib/core/money/typed';
	import { shareOldestFirst } from '$lib/core/settlement/sharing';
	import { WAYS_BY_HAND } from '../money/ways';
	import Field from '../parts/Field.svelte';
	import PanelForm from '../parts/PanelForm.svelte';

	interface Props {
		open: {
			documentId: number;
			number: string;
			dueDate: string;
			toPay: number;
			deducts: boolean;
			leftToDeduct: number;
		}[];
		today: string;
		/** Where a receipt would go; empty: nowhere. */
		mail: string;
		errors: Record<string, string>;
		message: string;
		onclose: () => void;
	}
	let { open, today, mail, errors, message, onclose }: Props = $props();
	let chosen = $state(false);
	let all = $derived(open.reduce((sum, one) => sum + one.toPay, 0));
	let amount = $state('');
	let typed = $state<Record<number, string>>({});
	let pence = $derived.by(() => {
		const read = readTypedNumber(amount, { decimals: 2, digits: 11 });
		return read.ok ? (parseMoney(read.text) ?? 0n) : 0n;
	});
	let shared = $derived(
		shareOldestFirst(
			pence,
			open.map((one) => ({ ...one, toPay: BigInt(one.toPay) }))
		)
	);
	let parts = $derived(new Map(shared.shares.map((one) => [one.documentId, one.amount])));

	function choose() {
		typed = Object.fromEntries(
			open.map((one) => [
				one.documentId,
				parts.has(one.documentId)
					? displayAmount(parts.get(one.documentId)!).replaceAll(',', '')
					: ''
			])
		);
		chosen = true;
	}
</script>

<section class="panel" aria-label="Record a payment">
	<PanelForm
		action="?/pay"
		submit="Record it"
		done="The payment is recorded."
		first="[name=&quot;amount&quot;]"
		{message}
		{onclose}
	>
		<div class="fields">
			<div class="field">
				<label class="name" for="pay-amount">What came in, £</label>
				<input
					id="pay-amount"
					class="box numbers"
					name="amount"
					inputmode="decimal"
					autocomplete="off"
					bind:value={amount}
					placeholder={displayAmount(all)}
					aria-invalid={errors.amount ? 'true' : undefined}
					aria-describedby={errors.amount ? 'pay-amount-wrong' : undefined}
				/>
				{#if errors.amount}<p class="wrong" id="pay-amount-wrong">{errors.amount}</p>{/if}
			</div>
			<DateField label="On" name="date" max={today} value={today} error={errors.date} />
			<label class="field">
				<span class="name">How</span>
				<select class="box" name="way"
					>{#each Object.entries(WAYS_BY_HAND) as [value, words] (value)}<option {value}
							>{words}</option
						>{/each}</select
				>
			</label>
			<Field label="Reference" name="reference" value="" error={errors.reference} />
		</div>
		{#if open.length > 0}
			<table>
				<thead
					><tr
						><th>For</th><th class="r">To pay, £</th><th class="r">Of this payment, £</th
						>{#if open.some((one) => one.deducts)}<th class="r">Withheld, £</th>{/if}</tr
					></thead
				>
				<tbody>
					{#each open as one (one.documentId)}
						{@const wrong = errors[`shares.${one.documentId}`]}
						<tr>
							<td
								><span class="mono">{one.number}</span>
								<span class="quiet">due {displayDate(one.dueDate)}</span></td
							>
							<td class="r numbers">{displayAmount(one.toPay)}</td>
							<td class="r numbers"
								>{#if chosen}<input
										class="box numbers"
										name="shares.{one.documentId}"
										inputmode="decimal"
										aria-label="For {one.number}"
										aria-invalid={wrong ? 'true' : undefined}
										bind:value={typed[one.documentId]}
									/>{#if wrong}<span class="wrong">{wrong}</span>{/if}{:else}<b
										>{parts.has(one.documentId)
											? displayAmount(parts.get(one.documentId)!)
											: '–'}</b
									>{/if}</td
							>
							{#if open.some((other) => other.deducts)}<td class="r"
									>{#if one.deducts}<input
											class="box numbers"
											name="withheld.{one.documentId}"
											inputmode="decimal"
											aria-label="Withheld from {one.number}"
											aria-invalid={errors[`withheld.${one.documentId}`] ? 'true' : undefined}
											placeholder="as expected"
										/>{#if errors[`withheld.${one.documentId}`]}<span class="wrong"
												>{errors[`withheld.${one.documentId}`]}</span
											>{/if}{/if}</td
								>{/if}
						</tr>
					{/each}
				</tbody>
			</table>
		{/if}
		{#if !chosen && shared.over > 0n}
			<p class="quiet">
				{displayPounds(shared.over)} is more than they owe: it stays as credit on the account.
			</p>
		{/if}
		{#if chosen}<input type="hidden" name="chosen" value="1" />{/if}
		{#if mail}<label class="check"
				><input type="checkbox" name="receipt" /> Send a receipt to {mail}</label
			>{/if}
		{#snippet more()}
			{#if open.length > 1}
				{#if chosen}<button type="button" class="button plain" onclick={() => (chosen = false)}
						>The one due first, first</button
					>{:else}<button type="button" class="button plain" onclick={choose}
						>Choose what it is for</button
					>{/if}
			{/if}
		{/snippet}
	</PanelForm>
</section>

<style>
	section {
		padding: 18px 20px;
		margin-bottom: 14px;
	}
	.fields {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(160px, 1fr));
		gap: 10px 16px;
		align-items: start;
	}
	table {
		border-collapse: collapse;
		width: 100%;
	}
	th,
	td {
		text-align: left;
		padding: 6px 10px 6px 0;
		border-bottom: 1px solid var(--hair);
	}
	thead th {
		font-weight: 400;
		font-size: 0.875rem;
		color: var(--ink-2);
	}
	th.r,
	td.r {
		text-align: right;
	}
	td .box {
		width: 120px;
		text-align: right;
	}
	td .wrong {
		display: block;
	}
	@media (max-width: 760px) {
		td .box {
			width: 86px;
		}
		td .quiet {
			display: block;
		}
	}
</style>
