<script lang="ts">
	import Download from '@lucide/svelte/icons/download';
	import { page } from '$app/state';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import Paper from '$lib/ui/invoices/Paper.svelte';
	import BankDetails from '$lib/ui/money/BankDetails.svelte';
	import { publicPayment } from '$lib/ui/money/payment.svelte';

	let { data, form } = $props();
	let view = $derived(data.view);
	let error = $derived(form && 'message' in form ? form.message : '');
	let open = $derived(data.kind === 'invoice' && data.toPay > 0);
	const payment = publicPayment(
		() => data.from !== '',
		() => data.state === 'paid',
		300
	);
	/** Back from where it is paid: the word of it may come a moment later than the customer. */
	let confirming = $derived(
		data.from !== '' && data.state === 'open' && !data.failed && payment.waited < 20
	);
</script>

<svelte:head>
	<title>{view.title} {view.number} from {view.seller.name}</title>
	<meta name="robots" content="noindex" />
</svelte:head>
<main>
	{#if data.trial}<p class="trial">Test: nothing here counts, and nothing is owed</p>{/if}
	<section class="pay panel" aria-label="Payment">
		<div class="sum">
			<p>{view.seller.name}</p>
			{#if data.kind === 'creditNote'}
				<h1>Credit note of £{view.payable.amount}</h1>
			{:else if data.state === 'paid'}
				<h1>Paid. Thank you.</h1>
				<p class="quiet">
					{displayPounds(data.paid)} received{data.withheld
						? `, ${displayPounds(data.withheld)} deducted under CIS`
						: ''}
				</p>
			{:else if data.state === 'credited'}
				<h1>Nothing to pay</h1>
				<p class="quiet">This invoice has been credited.</p>
			{:else if data.state === 'pending'}
				<h1>Your payment is on its way</h1>
				<p class="quiet">It takes a little to settle. There is nothing more to do.</p>
			{:else}
				<h1>
					{displayPounds(data.toPay)} <small>to pay{view.due ? ` by ${view.due}` : ''}</small>
				</h1>
				{#if data.paid || data.credited}<p class="quiet">
						{displayPounds(data.paid + data.credited)} of it is paid or credited already.
					</p>{/if}
				{#if data.failed}<p class="wrong" role="alert">
						Your bank did not carry the transfer out. Nothing was taken.
					</p>{/if}
				{#if confirming}<p role="status">
						Waiting for the word of {data.from === 'bank' ? 'your bank' : 'the card processor'} …
					</p>{/if}
			{/if}
		</div>
		{#if open && data.state !== 'pending' && !confirming}
			<form method="post" action="{page.url.pathname}?/card" onsubmit={() => (payment.busy = true)}>
				<input type="hidden" name="key" value={payment.key} />
				{#if payment.part || (form && 'fields' in form && form.fields.amount)}
					<label class="field"
						><span class="name">How much, £</span><input
							class="box"
							name="amount"
							inputmode="decimal"
							value={form && 'values' in form
								? String(form.values.amount ?? '')
								: displayAmount(data.toPay).replaceAll(',', '')}
							aria-invalid={error ? 'true' : undefined}
						/></label
					>
				{/if}
				{#if error}<p class="wrong" role="alert">{error}</p>{/if}
				{#if data.keptCard === '' && !data.trial}<label class="check"
						><input type="checkbox" name="keepCard" /><span
							>Keep this card for agreed repeat invoices <span class="quiet"
								>only the processor’s token is kept; you can take it back here at any time</span
							></span
						></label
					>{/if}
				<button class="button filled" aria-busy={payment.busy}>Pay by card</button>
				<button class="button" formaction="{page.url.pathname}?/bank">Pay from your bank</button>
				{#if data.mayBearFee}<p class="quiet">
						A firm’s commercial card bears its own fee; you see it before you pay.
					</p>{/if}
				{#if !payment.part}<button
						type="button"
						class="button plain"
						onclick={() => (payment.part = true)}>Pay a part</button
					>{/if}
			</form>
		{/if}
		{#if data.keptCard}<form class="kept" method="post" action="{page.url.pathname}?/forgetCard">
				<p>A card ending {data.keptCard} is kept for agreed repeat invoices.</p>
				<button class="button">Do not keep it any longer</button>
			</form>{/if}
		{#if open && view.bank}
			<BankDetails bank={view.bank} amount={displayPounds(data.toPay)} />
		{/if}
		<a class="button" href="{page.url.pathname}/pdf"><Download size={18} aria-hidden="true" />PDF</a
		>
	</section>
	<Paper {view} />
</main>

<style>
	main {
		max-width: 900px;
		margin: 0 auto;
		padding: 24px 14px 60px;
		display: grid;
		gap: 16px;
	}
	.trial {
		background: var(--tape);
		color: var(--on-tape);
		font-weight: 650;
		text-align: center;
		padding: 8px;
		border: 1.5px solid var(--on-tape);
	}
	.pay {
		padding: 20px 24px;
		display: grid;
		grid-template-columns: minmax(0, 1fr) minmax(0, 330px);
		gap: 16px 30px;
		align-items: start;
		border-top: 8px solid var(--ink);
	}
	h1 {
		font-size: 2rem;
	}
	h1 small {
		font:
			500 1rem 'Atkinson Hyperlegible Next Variable',
			sans-serif;
		letter-spacing: 0;
	}
	form {
		display: grid;
		gap: 10px;
		min-width: 210px;
	}
	.pay > .button {
		align-self: end;
	}
	@media (max-width: 640px) {
		.pay {
			grid-template-columns: minmax(0, 1fr);
			padding: 18px 16px;
		}
		.pay .button {
			min-height: 50px;
		}
	}
</style>
