<!-- What came in for this invoice; a mistake is undone with a trace, a card is given back. -->
<script lang="ts">
	import Form from '../parts/Form.svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { WAY_NAMES } from '$lib/core/words';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { BOOKS, type Currency } from '$lib/core/money/currencies';
	import { displayAmount, displayMoney } from '$lib/core/money/display';
	import type { Minor } from '$lib/core/money/types';
	import type { DocumentDetail } from '$lib/core/documents/detail';
	import Field from '../parts/Field.svelte';
	import WayChoice from './WayChoice.svelte';
	import Money from '../parts/Money.svelte';

	let {
		payments,
		refunded,
		cash,
		inHand,
		today,
		currency = BOOKS
	}: {
		payments: DocumentDetail['payments'];
		refunded: Minor;
		/** What came in less what went back. */
		cash: Minor;
		inHand: Minor;
		today: string;
		currency?: Currency | undefined;
	} = $props();
	let abroad = $derived(currency !== BOOKS);
	let giving = $state(false);
	let refunding = $state<number | null>(null);
</script>

<section class="panel py-3.5 px-4">
	<h2>Payments</h2>
	<ul>
		{#each payments as payment (payment.id)}
			<li class="grid py-2 px-0 border-b border-b-(--hair) justify-items-start">
				<span
					><b class="numbers">{displayMoney(payment.amount, currency)}</b> by {WAY_NAMES[
						payment.way
					]}, {displayDate(payment.date)}</span
				>
				{#if abroad}<span class="quiet">{displayMoney(payment.sterling)} at your bank</span>{/if}
				{#if payment.fee}<span class="quiet">card fee {displayMoney(payment.fee)}</span>{/if}
				{#if payment.reference && payment.way !== 'card'}<span class="quiet"
						>{payment.reference}</span
					>{/if}
				{#if payment.byProcessor}
					{#if refunding === payment.id}
						<Form
							class="grid gap-2 justify-items-start mt-1"
							action="?/refund"
							keyed
							hidden={{ payment: payment.id }}
							ondone={() => (refunding = null)}
							done="The refund is on its way; it shows here when the processor confirms it."
						>
							<Money
								label="Give back"
								name="amount"
								value={displayAmount(
									inHand > 0n && inHand < payment.amount ? inHand : payment.amount
								).replaceAll(',', '')}
							/>
							<button class="button danger">Give it back</button>
						</Form>
					{:else}<button
							class="underline underline-offset-[3px] min-h-7 text-[0.94rem] cursor-pointer"
							onclick={() => (refunding = payment.id)}>Give money back …</button
						>{/if}
				{:else}
					<Form
						class="grid gap-2 justify-items-start mt-1"
						action="?/undo"
						hidden={{ payment: payment.id }}
						done="The payment is undone. The trail keeps both."
					>
						<button class="underline underline-offset-[3px] min-h-7 text-[0.94rem] cursor-pointer"
							>Recorded by mistake: undo</button
						>
					</Form>
				{/if}
			</li>
		{/each}
	</ul>
	{#if cash > 0}
		{#if giving}
			<Form
				class="grid gap-2 justify-items-start mt-1"
				action="?/giveBack"
				keyed
				ondone={() => (giving = false)}
				done="It is recorded as given back."
			>
				<Money
					label="Gave back"
					name="amount"
					{currency}
					value={inHand ? displayAmount(inHand).replaceAll(',', '') : ''}
				/>
				{#if abroad}<Money label="What left your bank" name="reached" />{/if}
				<DateField label="On" name="date" max={today} value={today} />
				<WayChoice />
				<Field label="Reference" name="reference" value="" />
				<button class="button">Record it</button>
			</Form>
		{:else}<button
				class="underline underline-offset-[3px] min-h-7 text-[0.94rem] cursor-pointer"
				onclick={() => (giving = true)}
				>{inHand
					? `${displayMoney(inHand, currency)} too much: you gave it back?`
					: 'You gave money back by hand?'}</button
			>{/if}
	{/if}
	{#if refunded}<p class="numbers">{displayMoney(refunded, currency)} given back</p>{/if}
</section>
