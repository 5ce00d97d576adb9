<!-- What came in for this invoice; a mistake is undone with a trace, a card is given back. -->
<script lang="ts">
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { WAY_NAMES } from '$lib/core/words';
	import { enhance } from '$app/forms';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import type { DocumentDetail } from '$lib/core/documents/detail';
	import Field from '../parts/Field.svelte';
	import { pressKey } from '../parts/keys';
	import { notices } from '../parts/notices.svelte';
	import { WAYS_BY_HAND } from './ways';
	import { fieldsOf, typedOf, type FormAnswer } from '../invoices/answers';

	let {
		payments,
		refunded,
		cash,
		overpaid,
		today,
		form
	}: {
		payments: DocumentDetail['payments'];
		refunded: number;
		/** What came in less what went back. */
		cash: number;
		overpaid: number;
		today: string;
		form: FormAnswer;
	} = $props();
	let giving = $state(false);
	let refunding = $state<number | null>(null);
	let key = $state(pressKey());
	const done =
		(words: string) =>
		() =>
		async ({
			result,
			update
		}: {
			result: { type: string };
			update: (options?: { reset?: boolean }) => Promise<void>;
		}) => {
			await update({ reset: false });
			if (result.type !== 'success') return;
			refunding = null;
			giving = false;
			key = pressKey();
			notices.say(words);
		};
</script>

<section class="panel">
	<h2>Payments</h2>
	<ul>
		{#each payments as payment (payment.id)}
			<li>
				<span
					><b class="numbers">{displayPounds(payment.amount)}</b> by {WAY_NAMES[payment.way]}, {displayDate(
						payment.date
					)}</span
				>
				{#if payment.fee}<span class="quiet">card fee {displayPounds(payment.fee)}</span>{/if}
				{#if payment.reference && payment.way !== 'card'}<span class="quiet"
						>{payment.reference}</span
					>{/if}
				{#if payment.byProcessor}
					{#if refunding === payment.id}
						<form
							method="post"
							action="?/refund"
							use:enhance={done(
								'The refund is on its way; it shows here when the processor confirms it.'
							)}
						>
							<input type="hidden" name="payment" value={payment.id} /><input
								type="hidden"
								name="key"
								value={key}
							/>
							<Field
								label="Give back, £"
								name="amount"
								inputmode="decimal"
								value={typedOf(form, 'amount') ?? displayAmount(payment.amount).replaceAll(',', '')}
								error={fieldsOf(form).amount ??
									(form?.message && !form.done ? form.message : undefined)}
							/>
							<button class="button danger">Give it back</button>
						</form>
					{:else}<button class="undo" onclick={() => (refunding = payment.id)}
							>Give money back …</button
						>{/if}
				{:else}
					<form
						method="post"
						action="?/undo"
						use:enhance={done('The payment is undone. The trail keeps both.')}
					>
						<input type="hidden" name="payment" value={payment.id} /><button class="undo"
							>Recorded by mistake: undo</button
						>
					</form>
				{/if}
			</li>
		{/each}
	</ul>
	{#if cash > 0}
		{#if giving}
			<form method="post" action="?/giveBack" use:enhance={done('It is recorded as given back.')}>
				<input type="hidden" name="key" value={key} />
				<Field
					label="Gave back, £"
					name="amount"
					inputmode="decimal"
					value={typedOf(form, 'amount') ??
						(overpaid ? displayAmount(overpaid).replaceAll(',', '') : '')}
					error={fieldsOf(form).amount}
				/>
				<DateField
					label="On"
					name="date"
					max={today}
					value={typedOf(form, 'date') ?? today}
					error={fieldsOf(form).date}
				/>
				<label class="field"
					><span class="name">How</span><select class="box" name="way"
						>{#each Object.entries(WAYS_BY_HAND) as [value, words] (value)}<option {value}
								>{words}</option
							>{/each}</select
					></label
				>
				<Field label="Reference" name="reference" value="" error={fieldsOf(form).reference} />
				<button class="button">Record it</button>
			</form>
		{:else}<button class="undo" onclick={() => (giving = true)}
				>{overpaid
					? `${displayPounds(overpaid)} too much: you gave it back?`
					: 'You gave money back by hand?'}</button
			>{/if}
	{/if}
	{#if refunded}<p class="numbers">{displayPounds(refunded)} given back</p>{/if}
</section>

<style>
	section {
		padding: 14px 16px;
	}
	li {
		display: grid;
		padding: 8px 0;
		border-bottom: 1px solid var(--hair);
		justify-items: start;
	}
	form {
		display: grid;
		gap: 8px;
		justify-items: start;
		margin-top: 4px;
	}
	.undo {
		text-decoration: underline;
		text-underline-offset: 3px;
		min-height: 28px;
		font-size: 0.94rem;
		cursor: pointer;
	}
</style>
