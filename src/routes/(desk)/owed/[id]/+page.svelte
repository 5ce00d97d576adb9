<script lang="ts">
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { enhance } from '$app/forms';
	import { displayDate, displayMoment } from '$lib/core/calendar/conversion';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import { pressKey } from '$lib/ui/parts/keys';
	import OpenInvoice from '$lib/ui/owed/OpenInvoice.svelte';
	import PayerChasing from '$lib/ui/chasing/PayerChasing.svelte';
	import OwedRow from '$lib/ui/owed/OwedRow.svelte';
	import PayerPayment from '$lib/ui/owed/PayerPayment.svelte';
	import { daysInWords, habitInWords } from '$lib/ui/owed/scale';
	import Tape from '$lib/ui/owed/Tape.svelte';

	let { data, form } = $props();
	let paying = $state(false);
	let givingBack = $state<number | null>(null);
	let key = $state(pressKey());
	let errors = $derived<Record<string, string>>((form && 'fields' in form && form.fields) || {});
	let wrongForm = $derived(form && 'values' in form ? String(form.values?.form ?? '') : '');
	let message = $derived(
		form && 'message' in form && Object.keys(errors).length === 0 ? form.message : ''
	);
	let credit = $derived(data.credit.reduce((sum, one) => sum + one.amount, 0));
	let row = $derived({
		...data.summary,
		payer: data.payer.name,
		habit: data.habit,
		claim: data.open.reduce((sum, one) => sum + one.claim, 0),
		items: data.open.filter((one) => one.toPay > 0)
	});
	let largest = $derived(Math.max(1, ...row.items.map((item) => item.toPay)));
	const fresh =
		() =>
		async ({ update }: { update: () => Promise<void> }) => {
			await update();
			key = pressKey();
		};
</script>

<svelte:head><title>{data.payer.name} · Owed · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet">
		<a href="/owed">Owed</a> · <a href="/customers/{data.payer.id}">about {data.payer.name}</a>
	</p>
	<div class="top">
		<div>
			<h1>
				{data.summary.owed
					? `${data.payer.name} owes you ${displayPounds(data.summary.owed)}`
					: `${data.payer.name} owes you nothing`}
			</h1>
			<p class="quiet">
				{#if data.summary.late}<span class="late"
						>{displayPounds(data.summary.late)} of it is late, the oldest by {daysInWords(
							data.summary.daysLate
						).replace(' late', '')}</span
					> ·
				{/if}
				{habitInWords(data.habit)}
				{#if data.payer.phone}· <a href="tel:{data.payer.phone}">{data.payer.phone}</a>{/if}
			</p>
		</div>
		<span class="gap"></span>
		<button class="button filled" aria-expanded={paying} onclick={() => (paying = !paying)}
			>Record a payment</button
		>
		{#if data.summary.owed}<a class="button" href="/owed/chasing/{data.payer.id}">Remind</a>{/if}
		<a class="button" href="/owed/statements?payer={data.payer.id}">Statement</a>
	</div>
	{#if data.payer.privateNote}<p class="panel note">
			<b>Private:</b>
			{data.payer.privateNote}
		</p>{/if}
	{#if message}<p class="wrong" role="alert">{message}</p>{/if}
	{#if paying}
		<PayerPayment
			open={data.open}
			today={data.today}
			mail={data.payer.email}
			errors={wrongForm === 'pay' ? errors : {}}
			message=""
			onclose={() => (paying = false)}
		/>
	{/if}
	{#if row.items.length}
		<div class="rule">
			<div class="head"><span></span><Tape /><span></span></div>
			<ul><OwedRow {row} today={data.today} {largest} worst={false} /></ul>
		</div>
	{/if}
	<div class="columns">
		<div class="main">
			{#if credit > 0}
				<section class="panel part">
					<h2>{displayPounds(credit)} in hand</h2>
					<p class="quiet">Paid or credited, and used for no invoice yet.</p>
					<ul>
						{#each data.credit as one, index (index)}
							<li class="line">
								<span>{one.what} <span class="quiet">{displayDate(one.date)}</span></span>
								<b class="numbers">{displayAmount(one.amount)}</b>
								{#if 'paymentId' in one.source}
									{@const paymentId = one.source.paymentId}
									<button
										class="button plain"
										type="button"
										onclick={() => (givingBack = givingBack === paymentId ? null : paymentId)}
										>Give it back</button
									>
									{#if givingBack === paymentId}
										<form class="say" method="post" action="?/giveBack" use:enhance={fresh}>
											<input type="hidden" name="payment" value={paymentId} />
											<input type="hidden" name="key" value={key} />
											<label class="field"
												><span class="name">Amount, £</span><input
													class="box numbers"
													name="amount"
													inputmode="decimal"
													value={displayAmount(one.amount).replaceAll(',', '')}
												/>{#if wrongForm === 'giveBack' && errors.amount}<span class="wrong"
														>{errors.amount}</span
													>{/if}</label
											>
											<DateField label="On" name="date" max={data.today} value={data.today} />
											<label class="field"
												><span class="name">How</span><select class="box" name="way"
													><option value="bank">Bank transfer</option><option value="cash"
														>Cash</option
													><option value="cheque">Cheque</option></select
												></label
											>
											<button class="button">Record it</button>
										</form>
									{/if}
								{:else}<a class="quiet" href="/billing/{one.source.documentId}">its invoice</a>{/if}
							</li>
						{/each}
					</ul>
				</section>
			{/if}
			<section class="panel part">
				<h2>{data.open.length ? 'Open invoices' : 'Nothing is open'}</h2>
				<ul>
					{#each data.open as item (item.documentId)}
						<OpenInvoice
							{item}
							payer={data.payer.name}
							today={data.today}
							hasCredit={credit > 0}
							{errors}
							{wrongForm}
						/>
					{/each}
				</ul>
			</section>
		</div>
		<aside>
			<section class="panel part">
				<h2>Calls</h2>
				<form method="post" action="?/call" use:enhance={fresh}>
					<input type="hidden" name="key" value={key} />
					<label class="field"
						><span class="name">What was said</span><textarea
							class="box"
							name="text"
							rows="2"
							aria-invalid={wrongForm === 'call' && errors.text ? 'true' : undefined}
						></textarea>{#if wrongForm === 'call' && errors.text}<span class="wrong"
								>{errors.text}</span
							>{/if}</label
					>
					<button class="button">Keep the note</button>
				</form>
				<ul>
					{#each data.calls as call (call.id)}
						<li class="call">
							<span class="quiet">{displayMoment(call.at)}</span><span>{call.text}</span>
						</li>
					{:else}<li class="quiet">No call was noted yet.</li>{/each}
				</ul>
			</section>
			<PayerChasing
				payerId={data.payer.id}
				chasing={data.chasing}
				plans={data.plans}
				reminders={data.reminders}
				terms={data.terms}
				errors={wrongForm === 'chasing' || wrongForm === 'terms' ? errors : {}}
			/>
			<section class="panel part">
				<h2>Their payments</h2>
				<ul>
					{#each data.payments as payment (payment.id)}
						<li class="line">
							<span
								>{displayDate(payment.date)}
								<span class="quiet"
									>{payment.way}{payment.reference ? ` · ${payment.reference}` : ''}</span
								></span
							>
							<b class="numbers">{displayAmount(payment.amount)}</b>
							{#if payment.way !== 'card'}
								<form method="post" action="?/undo" use:enhance={fresh}>
									<input type="hidden" name="payment" value={payment.id} />
									<button class="button plain"
										>Undo<span class="sr-only">
											the payment of {displayPounds(payment.amount)}</span
										></button
									>
								</form>
							{/if}
						</li>
					{:else}<li class="quiet">None yet.</li>{/each}
				</ul>
			</section>
		</aside>
	</div>
</div>

<style>
	.page {
		--owed-columns: 270px minmax(0, 1fr) 128px;
	}
	.top {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 12px;
		align-items: end;
		margin-bottom: 14px;
	}
	.top > div {
		flex: 1 1 420px;
	}
	.gap {
		display: none;
	}
	.note {
		padding: 10px 14px;
		background: var(--tape-tint);
		margin-bottom: 12px;
	}
	.rule {
		margin-bottom: 16px;
	}
	.rule ul {
		border: 1px solid var(--hair);
		border-top: 0;
	}
	.head {
		display: grid;
		grid-template-columns: var(--owed-columns);
	}
	.columns {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 380px;
		gap: 16px 22px;
		align-items: start;
	}
	.main,
	aside {
		display: grid;
		gap: 14px;
	}
	.part {
		padding: 16px 18px;
	}
	.line {
		display: grid;
		grid-template-columns: minmax(0, 1fr) auto auto;
		gap: 4px 10px;
		align-items: center;
		padding: 6px 0;
		border-bottom: 1px solid var(--hair);
	}
	.say {
		grid-column: 1 / -1;
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		align-items: end;
	}
	aside form {
		display: grid;
		gap: 6px;
		justify-items: start;
	}
	aside form .field {
		width: 100%;
	}
	.call {
		padding: 8px 0;
		border-bottom: 1px solid var(--hair);
		white-space: pre-line;
	}
	.call span {
		display: block;
	}
	@media (max-width: 1000px) {
		.columns {
			grid-template-columns: minmax(0, 1fr);
		}
	}
	@media (max-width: 760px) {
		.head {
			grid-template-columns: minmax(0, 1fr);
		}
		.head span {
			display: none;
		}
	}
</style>
