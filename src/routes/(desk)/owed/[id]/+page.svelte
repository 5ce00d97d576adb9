<script lang="ts">
	import { BOOKS } from '$lib/core/money/currencies';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { pressKey } from '$lib/ui/parts/keys';
	import Form from '$lib/ui/parts/Form.svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { displayDate, displayMoment } from '$lib/core/calendar/conversion';
	import { markCap } from '$lib/core/settlement/owed';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import Field from '$lib/ui/parts/Field.svelte';
	import Money from '$lib/ui/parts/Money.svelte';
	import WayChoice from '$lib/ui/money/WayChoice.svelte';
	import OpenInvoice from '$lib/ui/owed/OpenInvoice.svelte';
	import PayerChasing from '$lib/ui/chasing/PayerChasing.svelte';
	import OwedRow from '$lib/ui/owed/OwedRow.svelte';
	import PayerPayment from '$lib/ui/owed/PayerPayment.svelte';
	import { daysInWords, habitInWords } from '$lib/ui/owed/scale';
	import Tape from '$lib/ui/owed/Tape.svelte';

	let { data } = $props();
	// Behind an address, so that it is reached from everywhere, and without scripts.
	let paying = $derived(['pay', '/pay'].some((name) => page.url.searchParams.has(name)));
	let givingBack = $state<number | null>(null);
	const depositKey = pressKey();
	let credit = $derived(data.credit.reduce((sum, one) => sum + one.amount, 0));
	let row = $derived({
		...data.summary,
		payer: data.payer.name,
		habit: data.habit,
		claim: data.open.reduce((sum, one) => sum + one.claim, 0n),
		items: data.open
			.filter((one) => one.toPay > 0)
			.map(({ toPay, toPaySterling, currency, ...one }) => ({
				...one,
				toPay: toPaySterling,
				...(currency === BOOKS ? {} : { own: { amount: toPay, currency } })
			}))
	});
	// One payment never settles across money: what is in another is recorded at its invoice.
	let inPounds = $derived(data.open.filter(({ currency }) => currency === BOOKS));
	let abroad = $derived(data.open.filter(({ currency }) => currency !== BOOKS));
	let cap = $derived(markCap(row.items.map((item) => item.toPay)));
</script>

<svelte:head><title>{data.payer.name} · Owed · Axiometer</title></svelte:head>
<div class="page [--owed-columns:270px_minmax(0,1fr)_128px]">
	<p class="quiet">
		<a href="/owed">Owed</a> · <a href="/customers/{data.payer.id}">about {data.payer.name}</a>
	</p>
	<div class="flex flex-wrap gap-y-2 gap-x-3 items-end mb-3.5">
		<div class="flex-[1_1_420px]">
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
		{#if !paying}<a class="button filled" href="?pay" data-sveltekit-noscroll>Record a payment</a
			>{/if}
		{#if data.summary.owed}<a class="button" href="/owed/chasing/{data.payer.id}">Remind</a>{/if}
		<a class="button" href="/owed/statements?payer={data.payer.id}">Statement</a>
		{#if data.summary.late}<a class="button" href="/owed/chasing/claim/{data.payer.id}"
				>Letter of claim</a
			>{/if}
	</div>
	{#if data.payer.privateNote}<p class="panel note py-2.5 px-3.5 bg-(--tape-tint) mb-3">
			<b>Private:</b>
			{data.payer.privateNote}
		</p>{/if}
	{#if paying}
		{#if abroad.length}<p class="panel py-2.5 px-3.5 mb-3">
				What they pay in other money is recorded at its invoice, with what reached your bank:
				{#each abroad as one, index (one.documentId)}{index ? ', ' : ' '}<a
						class="mono"
						href="/billing/{one.documentId}?pay">{one.number}</a
					>{/each}.
			</p>{/if}
		<PayerPayment
			open={inPounds}
			today={data.today}
			mail={data.payer.email}
			onclose={() => goto(page.url.pathname, { noScroll: true })}
		/>
	{/if}
	{#if row.items.length}
		<div class="rule mb-4">
			<div class="grid grid-cols-(--owed-columns) phone:grid-cols-1">
				<span class="phone:hidden"></span><Tape /><span class="phone:hidden"></span>
			</div>
			<ul class="border border-(--hair) border-t-0">
				<OwedRow {row} today={data.today} {cap} worst={false} />
			</ul>
		</div>
	{/if}
	<div
		class="columns grid grid-cols-[minmax(0,1fr)_380px] gap-y-4 gap-x-5.5 items-start narrow:grid-cols-1"
	>
		<div class="grid gap-3.5 min-w-0">
			{#if credit > 0}
				<section class="panel part py-4 px-4.5">
					<h2>{displayPounds(credit)} in hand</h2>
					<p class="quiet">Paid or credited, and used for no invoice yet.</p>
					<ul>
						{#each data.credit as one, index (index)}
							<li
								class="line grid grid-cols-[minmax(0,1fr)_auto_auto] gap-y-1 gap-x-2.5 items-center py-1.5 px-0 border-b border-b-(--hair)"
							>
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
									{#if data.taxed.includes(paymentId)}
										<form
											class="col-span-full flex flex-wrap gap-x-3 gap-y-1 items-center bg-(--tape-tint) px-2.5 py-1.5"
											method="post"
											action="?/deposit"
										>
											<input type="hidden" name="payment" value={paymentId} />
											<input type="hidden" name="key" value={depositKey} />
											<span class="flex-1 min-w-[16rem]"
												>If this is for work you have not finished, VAT on it is due now: it belongs
												to
												{displayDate(one.date)}.</span
											>
											<button class="button">Write the deposit invoice</button>
										</form>
									{/if}
									{#if givingBack === paymentId}
										<Form
											class="col-span-full flex flex-wrap gap-2 items-end"
											action="?/giveBack"
											keyed
											hidden={{ payment: paymentId }}
											ondone={() => (givingBack = null)}
										>
											<Money
												label="Amount"
												name="amount"
												value={displayAmount(one.amount).replaceAll(',', '')}
											/>
											<DateField label="On" name="date" max={data.today} value={data.today} />
											<WayChoice />
											<button class="button">Record it</button>
										</Form>
									{/if}
								{:else}<a class="quiet" href="/billing/{one.source.documentId}">its invoice</a>{/if}
							</li>
						{/each}
					</ul>
				</section>
			{/if}
			<section class="panel part py-4 px-4.5">
				<h2>{data.open.length ? 'Open invoices' : 'Nothing is open'}</h2>
				<ul>
					{#each data.open as item (item.documentId)}
						<OpenInvoice {item} payer={data.payer.name} today={data.today} hasCredit={credit > 0} />
					{/each}
				</ul>
			</section>
		</div>
		<aside class="grid gap-3.5">
			<section class="panel part py-4 px-4.5">
				<h2>Calls</h2>
				<Form class="grid gap-1.5 justify-items-start" action="?/call" keyed reset>
					<Field label="What was said" name="text" rows={2} look="w-full" />
					<button class="button">Save the note</button>
				</Form>
				<ul>
					{#each data.calls as call (call.id)}
						<li class="py-2 px-0 border-b border-b-(--hair) whitespace-pre-line">
							<span class="quiet block">{displayMoment(call.at)}</span><span class="block"
								>{call.text}</span
							>
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
				breathing={data.breathing}
				today={data.today}
			/>
			<section class="panel part py-4 px-4.5">
				<h2>Their payments</h2>
				<ul>
					{#each data.payments as payment (payment.id)}
						<li
							class="line grid grid-cols-[minmax(0,1fr)_auto_auto] gap-y-1 gap-x-2.5 items-center py-1.5 px-0 border-b border-b-(--hair)"
						>
							<span
								>{displayDate(payment.date)}
								<span class="quiet"
									>{payment.way}{payment.reference ? ` · ${payment.reference}` : ''}</span
								></span
							>
							<b class="numbers">{displayAmount(payment.amount)}</b>
							{#if payment.way !== 'card'}
								<Form
									class="grid gap-1.5 justify-items-start"
									action="?/undo"
									hidden={{ payment: payment.id }}
								>
									<button class="button plain"
										>Undo <span class="sr-only">the payment of {displayPounds(payment.amount)}</span
										></button
									>
								</Form>
							{/if}
						</li>
					{:else}<li class="quiet">None yet.</li>{/each}
				</ul>
			</section>
		</aside>
	</div>
</div>
