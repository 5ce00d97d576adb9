<script lang="ts">
	import { untrack } from 'svelte';
	import Download from '@lucide/svelte/icons/download';
	import { page } from '$app/state';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import BankDetails from '$lib/ui/money/BankDetails.svelte';
	import { publicPayment } from '$lib/ui/money/payment.svelte';

	let { data, form } = $props();
	let view = $derived(data.view);
	let error = $derived(form && 'message' in form ? form.message : '');
	let left = $state<Record<number, boolean>>({});
	let chosen = $derived(data.open.filter((item) => !left[item.documentId]));
	let sum = $derived(chosen.reduce((total, item) => total + item.toPay, 0));
	const payment = publicPayment(
		() => data.from !== '',
		() => data.toPay === 0,
		120
	);
	const before = untrack(() => data.toPay);
	let confirming = $derived(
		data.from !== '' &&
			!data.pending &&
			!data.failed &&
			data.toPay === before &&
			data.toPay > 0 &&
			payment.waited < 12
	);
</script>

<svelte:head>
	<title>Statement from {view.seller.name}</title>
	<meta name="robots" content="noindex" />
</svelte:head>
<main>
	<section class="pay panel" aria-label="Payment">
		<div class="sum">
			<p>{view.seller.name}</p>
			<h1>
				{data.toPay > 0
					? `${displayPounds(data.toPay)} to pay`
					: data.from
						? 'Paid. Thank you.'
						: 'Nothing to pay'}
			</h1>
			{#if data.pending}<p role="status">
					Your payment is on its way. It takes a little to settle.
				</p>{/if}
			{#if data.failed}<p class="wrong" role="alert">
					Your bank did not carry the transfer out. Nothing was taken.
				</p>{/if}
			{#if confirming}<p role="status">
					Waiting for the word of {data.from === 'bank' ? 'your bank' : 'the card processor'} …
				</p>{/if}
			{#if data.credit > 0}<p class="quiet">
					{displayPounds(data.credit)} is in your favour and not used yet.
				</p>{/if}
		</div>
		{#if data.toPay > 0 && !data.pending}
			<form method="post" action="{page.url.pathname}?/card" onsubmit={() => (payment.busy = true)}>
				<input type="hidden" name="key" value={payment.key} />
				<ul>
					{#each data.open as item (item.documentId)}
						<li>
							<label class="check"
								><input
									type="checkbox"
									name="invoice"
									value={item.documentId}
									checked={!left[item.documentId]}
									onchange={(event) => (left[item.documentId] = !event.currentTarget.checked)}
								/><span
									>{item.number}
									<span class="quiet">due {displayDate(item.dueDate)}</span></span
								></label
							>
							<span class="numbers">{displayAmount(item.toPay)}</span>
						</li>
					{/each}
				</ul>
				{#if payment.part || (form && 'fields' in form && form.fields.amount)}
					<label class="field"
						><span class="name">How much, £</span><input
							class="box"
							name="amount"
							inputmode="decimal"
							value={form && 'values' in form
								? String(form.values.amount ?? '')
								: displayAmount(sum).replaceAll(',', '')}
							aria-invalid={error ? 'true' : undefined}
						/></label
					>
				{/if}
				{#if error}<p class="wrong" role="alert">{error}</p>{/if}
				<button class="button filled" aria-busy={payment.busy}
					>{payment.part ? 'Pay by card' : `Pay ${displayPounds(sum)} by card`}</button
				>
				<button class="button" formaction="{page.url.pathname}?/bank">Pay from your bank</button>
				{#if !payment.part}<button
						type="button"
						class="button plain"
						onclick={() => (payment.part = true)}>Pay another amount</button
					>{/if}
			</form>
		{/if}
		{#if data.toPay > 0 && view.bank}
			<BankDetails bank={view.bank} />
		{/if}
		<a class="button" href="{page.url.pathname}/pdf"><Download size={18} aria-hidden="true" />PDF</a
		>
	</section>
	<article class="panel paper">
		<header>
			<div>
				<h2>{view.seller.name}</h2>
				{#each view.seller.lines as line, index (index)}<p class="quiet">{line}</p>{/each}
			</div>
			<h2 class="title">{view.title}</h2>
		</header>
		<div class="parties">
			<div>
				{#each view.payer as line, index (index)}<p class:strong={index === 0}>{line}</p>{/each}
			</div>
			<dl>
				{#each view.facts as fact (fact.label)}<div>
						<dt>{fact.label}</dt>
						<dd class="numbers">{fact.value}</dd>
					</div>{/each}
			</dl>
		</div>
		<table>
			<thead
				><tr
					><th>Date</th><th>What</th><th class="r">{view.columns[0]}</th><th class="r"
						>{view.columns[1]}</th
					></tr
				></thead
			>
			<tbody>
				{#if view.opening !== null}<tr
						><td></td><td>Balance before</td><td></td><td class="r numbers">{view.opening}</td></tr
					>{/if}
				{#each view.rows as row, index (index)}
					<tr>
						<td>{row.date}</td>
						<td
							>{row.what}{#if row.due}<span class="quiet"> due {row.due}</span>{/if}
							{#each row.details as line, n (n)}<span class="detail">{line}</span>{/each}</td
						>
						<td class="r numbers">{row.amount}</td>
						<td class="r numbers">{row.left}</td>
					</tr>
				{/each}
				<tr class="total"
					><td></td><td>Balance</td><td></td><td class="r numbers">{view.balance}</td></tr
				>
			</tbody>
		</table>
		<dl class="ages numbers">
			{#each view.ages as age (age.label)}<div>
					<dt>{age.label}</dt>
					<dd>{age.amount}</dd>
				</div>{/each}
		</dl>
		{#each view.notes as note, index (index)}<p>{note}</p>{/each}
	</article>
</main>

<style>
	main {
		max-width: 900px;
		margin: 0 auto;
		padding: 24px 14px 60px;
		display: grid;
		gap: 16px;
	}
	.pay {
		padding: 20px 24px;
		display: grid;
		grid-template-columns: minmax(0, 1fr) minmax(280px, auto);
		gap: 16px 30px;
		align-items: start;
		border-top: 8px solid var(--ink);
	}
	h1 {
		font-size: 2rem;
	}
	form {
		display: grid;
		gap: 10px;
	}
	form li {
		display: flex;
		justify-content: space-between;
		gap: 14px;
		align-items: center;
		padding: 4px 0;
		border-bottom: 1px solid var(--hair);
	}
	.parties dl > div {
		display: grid;
		grid-template-columns: 100px 1fr;
	}
	dt {
		color: var(--ink-2);
	}
	.pay > .button {
		align-self: end;
	}
	.paper {
		padding: 26px 28px;
		display: grid;
		gap: 18px;
	}
	header,
	.parties {
		display: flex;
		flex-wrap: wrap;
		gap: 10px 24px;
		justify-content: space-between;
	}
	.title {
		color: var(--verdigris);
		font-size: 1.4rem;
	}
	.strong {
		font-weight: 650;
	}
	table {
		width: 100%;
		border-collapse: collapse;
	}
	th,
	td {
		text-align: left;
		padding: 7px 8px 7px 0;
		border-bottom: 1px solid var(--hair);
		vertical-align: top;
	}
	th {
		font-weight: 400;
		color: var(--ink-2);
		border-bottom: 1.5px solid var(--ink);
	}
	.r {
		text-align: right;
	}
	td.r {
		white-space: nowrap;
	}
	.total td {
		font-weight: 650;
	}
	.detail {
		display: block;
		color: var(--ink-2);
		font-size: 0.875rem;
	}
	.ages {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 24px;
	}
	@media (max-width: 640px) {
		.pay {
			grid-template-columns: minmax(0, 1fr);
			padding: 18px 16px;
		}
		.pay .button {
			min-height: 50px;
		}
		.paper {
			padding: 18px 16px;
		}
	}
</style>
