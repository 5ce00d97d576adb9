<!-- What came in for this invoice; a mistake is undone with a trace, a card is given back. -->
<script lang="ts">
	import { enhance } from '$app/forms';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import type { DocumentDetail } from '$lib/core/documents/detail';
	import Field from '../forms/Field.svelte';
	import { pressKey } from '../forms/keys';
	import { notices } from '../shell/notices.svelte';
	import { fieldsOf, typedOf, type FormAnswer } from './answers';

	let {
		payments,
		refunded,
		form
	}: { payments: DocumentDetail['payments']; refunded: number; form: FormAnswer } = $props();
	const WAYS = { bank: 'bank transfer', cash: 'cash', cheque: 'cheque', card: 'card' };
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
					><b class="numbers">{displayPounds(payment.amount)}</b> by {WAYS[payment.way]}, {displayDate(
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
