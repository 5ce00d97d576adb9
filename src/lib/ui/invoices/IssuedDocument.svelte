<!-- An issued document: where it stands, what can be done about it, what it says, and its paper trail. -->
<script lang="ts">
	import { leftToDeduct as leftToDeductOn } from '$lib/core/settlement/position';
	import { onMount } from 'svelte';
	import { enhance } from '$app/forms';
	import { page } from '$app/state';
	import { displayDate, londonDate } from '$lib/core/calendar/conversion';
	import { statementDeadline } from '$lib/core/calendar/manipulation';
	import { daysBetween } from '$lib/core/calendar/queries';
	import { displayPounds } from '$lib/core/money/display';
	import type { DocumentDetail } from '$lib/core/documents/detail';
	import { pressKey } from '../parts/keys';
	import MoneyRule from '../owed/MoneyRule.svelte';
	import SettlementBar from '../money/SettlementBar.svelte';
	import Totals from './sheet/Totals.svelte';
	import WorkingsPanel from './WorkingsPanel.svelte';
	import CreditForm from './CreditForm.svelte';
	import LateCharge from '../owed/LateCharge.svelte';
	import Messages from './Messages.svelte';
	import Paper from './Paper.svelte';
	import UseAgain from './UseAgain.svelte';
	import PaperTrail from './PaperTrail.svelte';
	import PaymentForm from '../money/PaymentForm.svelte';
	import Payments from '../money/Payments.svelte';
	import SendForm from './SendForm.svelte';
	import type { FormAnswer } from './answers';
	import { isBlank } from '$lib/core/sheet/blank';
	import type { SheetLine } from '$lib/core/sheet/types';

	interface Props {
		document: DocumentDetail;
		sending: { to: string; subject: string; text: string; copyToSelf: boolean; ownAddress: string };
		form: FormAnswer;
	}
	let { document, sending, form }: Props = $props();
	type Doing = 'send' | 'pay' | 'credit' | null;
	let doing = $state<Doing>(null);
	let figure = $state<string | null>(null);
	const copyKey = pressKey();
	onMount(() => {
		if (page.url.searchParams.has('send')) doing = 'send';
	});

	let item = $derived(document.item);
	let credit = $derived(document.kind === 'creditNote');
	let days = $derived(daysBetween(document.dueDate, document.today));
	let late = $derived(document.toPay > 0 && days > 0);
	let lines = $derived(
		document.frozen.sheet.rows.filter(
			(row): row is SheetLine => row.type === 'line' && !isBlank(row)
		)
	);
	let leftToDeduct = $derived(item ? leftToDeductOn(item) : 0);
	let standing = $derived.by(() => {
		if (!item) return 'Credit note';
		if (item.state === 'credited') return 'Credited';
		if (item.state === 'writtenOff') return `Written off: ${displayPounds(item.writtenOff)}`;
		if (item.state === 'paid')
			return item.withheld
				? `Paid in full, ${displayPounds(item.withheld)} of it withheld`
				: 'Paid in full';
		const words = late
			? `${displayPounds(document.toPay)} is ${days} ${days === 1 ? 'day' : 'days'} late`
			: days === 0
				? `${displayPounds(document.toPay)} is due today`
				: `${displayPounds(document.toPay)} is due ${displayDate(document.dueDate)}`;
		return item.state === 'partPaid' ? `Part paid: ${words}` : words;
	});
	let marks = $derived.by(() => {
		const seen = document.trail.findLast((entry) => entry.what === 'opened');
		const sent = document.trail.find(
			(entry) =>
				entry.what === 'delivered' || entry.what === 'handedOver' || entry.what === 'linkCopied'
		);
		return [
			{ date: document.issueDate, label: 'issued', kind: 'event' as const },
			...(sent && londonDate(sent.at) !== document.issueDate
				? [{ date: londonDate(sent.at), label: 'sent', kind: 'event' as const }]
				: []),
			...(seen ? [{ date: londonDate(seen.at), label: 'seen', kind: 'event' as const }] : []),
			...document.payments.map((payment) => ({
				date: payment.date,
				label: 'paid',
				kind: 'paid' as const
			})),
			...(document.toPay > 0
				? [{ date: document.today, label: 'today', kind: 'today' as const }]
				: [])
		];
	});
	let statementBy = $derived(
		item && item.withheld && document.payments.length
			? statementDeadline(document.payments.at(-1)!.date)
			: null
	);

	function toggle(what: Doing) {
		doing = doing === what ? null : what;
	}
</script>

<svelte:head><title>{document.number} · Axiometer</title></svelte:head>
<div class="page">
	<div class="top">
		<div>
			<p class="quiet">
				<span class="mono">{document.number}</span> · {document.view.title} to
				<a href="/customers/{document.customerId}">{document.customerName}</a>
			</p>
			<h1 class:late>{standing}</h1>
		</div>
		<span class="gap"></span>
		{#if item && document.toPay > 0}<button
				class="button"
				class:filled={doing === null}
				aria-expanded={doing === 'pay'}
				onclick={() => toggle('pay')}>Record a payment</button
			>{/if}
		<button class="button" aria-expanded={doing === 'send'} onclick={() => toggle('send')}
			>Send</button
		>
		{#if item && document.toPay > 0}<a class="button" href={document.link} target="_blank"
				>Take a card</a
			>{/if}
		<a class="button" href="/billing/{document.id}/pdf?download">PDF</a>
		<form method="post" action="/billing/new">
			<input type="hidden" name="copyOf" value={document.id} /><input
				type="hidden"
				name="key"
				value={copyKey}
			/><button class="button">Copy as new</button>
		</form>
		{#if item && document.creditedBy.length === 0}<button
				class="button"
				aria-expanded={doing === 'credit'}
				onclick={() => toggle('credit')}>Credit it</button
			>{/if}
	</div>

	{#if document.creditedBy.length}<p class="panel hint">
			Credited by {#each document.creditedBy as note (note.id)}<a href="/billing/{note.id}"
					>{note.number}</a
				>{/each}.
		</p>{/if}
	{#if document.corrects}<p class="panel hint">
			Corrects <a href="/billing/{document.corrects.id}">{document.corrects.number}</a>: {document
				.frozen.corrects?.reason}
		</p>{/if}
	{#if item?.overpaid}<p class="panel hint">
			{document.customerName} has paid {displayPounds(item.overpaid)} too much. Give it back, or keep
			it as agreed with them.
		</p>{/if}
	{#if statementBy && item}<p class="panel hint">
			{displayPounds(item.withheld)} was withheld. It is not lost: it counts toward your Income Tax and
			National Insurance. Their payment and deduction statement is due by {displayDate(
				statementBy
			)}.
		</p>{/if}

	{#if doing === 'send'}<SendForm
			{sending}
			link={document.link}
			id={document.id}
			{form}
			onclose={() => (doing = null)}
		/>{/if}
	{#if doing === 'pay'}<PaymentForm
			{document}
			{leftToDeduct}
			{form}
			onclose={() => (doing = null)}
		/>{/if}
	{#if doing === 'credit'}<CreditForm {document} {form} onclose={() => (doing = null)} />{/if}

	{#if item}
		<section class="panel standing">
			<MoneyRule due={document.dueDate} {marks} {late} />
			<div class="settled">
				<SettlementBar
					total={document.total}
					cash={item.cash}
					withheld={item.withheld}
					credited={item.credited}
					writtenOff={item.writtenOff}
					outstanding={item.outstanding}
				/>
				<dl class="numbers">
					<div>
						<dt>Total</dt>
						<dd>{displayPounds(document.total)}</dd>
					</div>
					<div>
						<dt>Paid</dt>
						<dd>{displayPounds(item.cash)}</dd>
					</div>
					{#if item.deduction !== null}<div>
							<dt>Withheld</dt>
							<dd>{displayPounds(item.withheld)}</dd>
						</div>{/if}
					{#if item.credited}<div>
							<dt>Credited</dt>
							<dd>{displayPounds(item.credited)}</dd>
						</div>{/if}
					{#if leftToDeduct && item.outstanding}<div>
							<dt>To be deducted</dt>
							<dd>{displayPounds(leftToDeduct)}</dd>
						</div>{/if}
					<div class="open">
						<dt>Still to pay</dt>
						<dd>{displayPounds(document.toPay)}</dd>
					</div>
				</dl>
			</div>
		</section>
	{/if}

	{#if document.inHand > 0}
		<form class="panel hand" method="post" action="?/useCredit" use:enhance>
			<input type="hidden" name="key" value={copyKey} />
			<p>
				They have <b class="numbers">{displayPounds(document.inHand)}</b> in hand that is used for no
				invoice yet.
			</p>
			<button class="button"
				>Use {displayPounds(Math.min(document.inHand, document.toPay))} for this</button
			>
		</form>
	{/if}
	{#if document.claim}<LateCharge number={document.number} claim={document.claim} {form} />{/if}

	<Messages mails={document.mails} />

	<div class="columns">
		<div>
			<Paper view={document.view} />
			{#if document.kind === 'invoice'}<UseAgain
					id={document.id}
					suggestion={document.view.sections[0]?.rows[0]?.description.split('\n')[0] ?? ''}
				/>{/if}
		</div>
		<aside>
			<section class="panel box-in">
				<h2>Its figures</h2>
				<Totals
					figures={document.figures}
					registered={document.frozen.seller.vatRegistered}
					figure={figure ?? ''}
					onpick={(picked) => (figure = figure === picked ? null : picked)}
					{credit}
				/>
			</section>
			{#if figure}
				<section class="panel box-in tape">
					<WorkingsPanel
						figures={document.figures}
						{lines}
						{figure}
						onpick={(picked) => (figure = picked)}
					/>
				</section>
			{/if}
			{#if document.payments.length || document.refunded}<Payments
					payments={document.payments}
					refunded={document.refunded}
					cash={document.item?.cash ?? 0}
					overpaid={document.item?.overpaid ?? 0}
					today={document.today}
					{form}
				/>{/if}
			<PaperTrail trail={document.trail} />
		</aside>
	</div>
</div>

<style>
	.hand {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 18px;
		justify-content: space-between;
		align-items: center;
		padding: 10px 18px;
		margin-bottom: 14px;
		border-left: 5px solid var(--tape);
	}
	.top {
		display: flex;
		gap: 8px 10px;
		align-items: flex-end;
		flex-wrap: wrap;
		margin-bottom: 14px;
	}
	h1 {
		font-size: 1.75rem;
		margin-top: 3px;
	}
	h1.late {
		font-weight: 650;
	}
	.gap {
		flex: 1;
	}
	.hint {
		padding: 10px 14px;
		margin-bottom: 12px;
	}
	.standing {
		padding: 12px 18px 14px;
		margin-bottom: 14px;
	}
	.settled {
		display: grid;
		grid-template-columns: minmax(120px, 1fr) auto;
		gap: 24px;
		align-items: center;
		margin-top: 14px;
	}
	dl {
		display: flex;
		gap: 8px 26px;
		flex-wrap: wrap;
	}
	dt {
		color: var(--ink-2);
		font-size: 0.875rem;
	}
	dd {
		font-weight: 550;
	}
	.open dd {
		font: 650 1.2rem var(--font-heading);
	}
	.columns {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 372px;
		gap: 18px 22px;
		align-items: start;
	}
	aside {
		display: grid;
		gap: 14px;
	}
	.box-in {
		padding: 14px 16px;
	}
	.box-in :global(.totals) {
		margin-right: 0;
	}
	.tape {
		border-left: 6px solid var(--tape);
	}
	@media (max-width: 1050px) {
		.columns {
			grid-template-columns: minmax(0, 1fr);
		}
	}
	@media (max-width: 760px) {
		.settled {
			grid-template-columns: 1fr;
			gap: 12px;
		}
		.gap {
			flex-basis: 100%;
			height: 0;
		}
		.standing {
			padding-inline: 12px;
		}
	}
</style>
