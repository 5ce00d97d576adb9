<!-- An issued document: where it stands, what can be done about it, what it says, and its paper trail.
	Over 300 lines: the parts of one page, each shown by where the document stands. -->
<script lang="ts">
	import Form from '../parts/Form.svelte';
	import { formatDecimal, min } from '$lib/core/money/decimal';
	import { leftToDeduct as leftToDeductOn } from '$lib/core/settlement/position';
	import { onMount, type ComponentProps } from 'svelte';
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
	import LateCharge from '../owed/LateCharge.svelte';
	import Messages from './Messages.svelte';
	import Paper from './Paper.svelte';
	import UseAgain from './UseAgain.svelte';
	import PaperTrail from './PaperTrail.svelte';
	import PaymentForm from '../money/PaymentForm.svelte';
	import Payments from '../money/Payments.svelte';
	import SendForm from './SendForm.svelte';
	import { sheetLines } from '$lib/core/sheet/blank';

	interface Props {
		document: DocumentDetail;
		sending: ComponentProps<typeof SendForm>['sending'];
	}
	let { document, sending }: Props = $props();
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
	let lines = $derived(sheetLines(document.frozen.sheet));
	/** A contractor wrote it in our name. */
	let theirs = $derived(document.frozen.sheet.selfBilled !== undefined);
	let leftToDeduct = $derived(item ? leftToDeductOn(item) : 0n);
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
	<div class="flex gap-y-2 gap-x-2.5 items-end flex-wrap mb-3.5">
		<div>
			<p class="quiet">
				<span class="mono">{document.number}</span> · {document.view.title} to
				<a href="/customers/{document.customerId}">{document.customerName}</a>
			</p>
			<h1 class="text-[1.75rem] mt-0.75 [&.late]:font-[650]" class:late>{standing}</h1>
		</div>
		<span class="flex-1 phone:basis-[100%] phone:h-0"></span>
		{#if item && document.toPay > 0}<button
				class="button"
				class:filled={doing === null}
				aria-expanded={doing === 'pay'}
				onclick={() => toggle('pay')}>Record a payment</button
			>{/if}
		{#if !theirs}<button
				class="button"
				aria-expanded={doing === 'send'}
				onclick={() => toggle('send')}>Send</button
			>{/if}
		{#if item && document.toPay > 0 && !theirs}<a
				class="button"
				href={document.link}
				target="_blank">Take a card</a
			>{/if}
		<a class="button" href="/billing/{document.id}/pdf?download">PDF</a>
		{#if item && item.credited < document.total && !document.frozen.sheet.charge && !theirs}
			<form method="post" action="?/correct">
				<input type="hidden" name="key" value={copyKey} /><button class="button">Correct it</button>
			</form>
		{/if}
		{#if item && item.credited < document.total}<button
				class="button"
				aria-expanded={doing === 'credit'}
				onclick={() => toggle('credit')}>Credit it</button
			>{/if}
	</div>

	{#if document.creditedBy.length}<p class="panel py-2.5 px-3.5 mb-3">
			Credited by {#each document.creditedBy as note, index (note.id)}{index ? ', ' : ''}<a
					href="/billing/{note.id}">{note.number}</a
				>{/each}{item && item.credited < document.total
				? `: ${displayPounds(item.credited)} of ${displayPounds(document.total)}`
				: ''}.
		</p>{/if}
	{#if document.corrects}<p class="panel py-2.5 px-3.5 mb-3">
			Corrects <a href="/billing/{document.corrects.id}">{document.corrects.number}</a>: {document
				.frozen.corrects?.reason}
		</p>{/if}
	{#if item?.inHand}<p class="panel py-2.5 px-3.5 mb-3">
			{document.customerName} has paid {displayPounds(item.inHand)} too much. Give it back, or keep it
			as agreed with them.{item.overpaid > item.inHand
				? ` The ${displayPounds(item.overpaid - item.inHand)} they deducted with it goes along.`
				: ''}
		</p>
	{:else if item?.overpaid}<p class="panel py-2.5 px-3.5 mb-3">
			{document.customerName} has deducted {displayPounds(item.overpaid)} more than is due. It is theirs
			to correct with HMRC.
		</p>{/if}
	{#if statementBy && item}<p class="panel py-2.5 px-3.5 mb-3">
			{displayPounds(item.withheld)} was withheld. It is not lost: it counts toward your Income Tax and
			National Insurance. Their payment and deduction statement is due by {displayDate(
				statementBy
			)}.
		</p>{/if}

	{#if doing === 'send'}<SendForm
			{sending}
			link={document.link}
			id={document.id}
			onclose={() => (doing = null)}
		/>{/if}
	{#if doing === 'pay'}<PaymentForm {document} {leftToDeduct} onclose={() => (doing = null)} />{/if}
	{#if doing === 'credit'}{#await import('./CreditForm.svelte') then { default: CreditForm }}<CreditForm
				{document}
				mail={sending.to}
				onclose={() => (doing = null)}
			/>{/await}{/if}

	{#if item}
		<section class="panel standing pt-3 pb-3.5 px-4.5 mb-3.5 phone:px-3">
			<MoneyRule due={document.dueDate} {marks} {late} />
			<div
				class="settled grid grid-cols-[minmax(120px,1fr)_auto] gap-6 items-center mt-3.5 phone:grid-cols-[1fr] phone:gap-3"
			>
				<SettlementBar
					total={document.total}
					cash={item.cash}
					withheld={item.withheld}
					credited={item.credited}
					writtenOff={item.writtenOff}
					outstanding={item.outstanding}
				/>
				<dl class="numbers flex gap-y-2 gap-x-6.5 flex-wrap">
					<div>
						<dt class="text-(--ink-2) text-[0.875rem]">Total</dt>
						<dd class="font-[550]">{displayPounds(document.total)}</dd>
					</div>
					<div>
						<dt class="text-(--ink-2) text-[0.875rem]">Paid</dt>
						<dd class="font-[550]">{displayPounds(item.cash)}</dd>
					</div>
					{#if item.deduction !== null}<div>
							<dt class="text-(--ink-2) text-[0.875rem]">Withheld</dt>
							<dd class="font-[550]">{displayPounds(item.withheld)}</dd>
						</div>{/if}
					{#if item.credited}<div>
							<dt class="text-(--ink-2) text-[0.875rem]">Credited</dt>
							<dd class="font-[550]">{displayPounds(item.credited)}</dd>
						</div>{/if}
					{#if leftToDeduct && item.outstanding}<div>
							<dt class="text-(--ink-2) text-[0.875rem]">To be deducted</dt>
							<dd class="font-[550]">{displayPounds(leftToDeduct)}</dd>
						</div>{/if}
					<div class="open">
						<dt class="text-(--ink-2) text-[0.875rem]">Still to pay</dt>
						<dd class="[font:650_1.2rem_var(--font-heading)]">{displayPounds(document.toPay)}</dd>
					</div>
				</dl>
			</div>
		</section>
	{/if}

	{#if document.inHand > 0}
		<Form
			class="panel flex flex-wrap gap-y-2 gap-x-4.5 justify-between items-center py-2.5 px-4.5 mb-3.5 border-l-5 border-l-(--tape)"
			action="?/useCredit"
			keyed
		>
			<p>
				They have <b class="numbers">{displayPounds(document.inHand)}</b> in hand that is used for no
				invoice yet.
			</p>
			<button class="button"
				>Use {displayPounds(min(document.inHand, document.toPay))} for this</button
			>
		</Form>
	{/if}
	{#if document.prompt?.taken}
		<Form
			class="panel flex flex-wrap gap-y-2 gap-x-4.5 justify-between items-center py-2.5 px-4.5 mb-3.5 border-l-5 border-l-(--tape)"
			action="?/prompt"
			done="The credit note is issued and on its way."
		>
			<p>
				They paid in time and took {formatDecimal(document.prompt.percent)} % off. The credit note for
				<b class="numbers">{displayPounds(document.prompt.off)}</b> puts the VAT right.
			</p>
			<button class="button">Issue it and send it</button>
		</Form>
	{:else if document.prompt && document.prompt.until >= document.today}<p
			class="panel py-2.5 px-3.5 mb-3"
		>
			Paid by {displayDate(document.prompt.until)}, {displayPounds(document.prompt.payable)} is enough:
			{formatDecimal(document.prompt.percent)} % off.
		</p>{/if}
	{#if document.claim}<LateCharge number={document.number} claim={document.claim} />{/if}

	<Messages mails={document.mails} texts={document.texts} />

	<div
		class="columns grid grid-cols-[minmax(0,1fr)_372px] gap-y-4.5 gap-x-5.5 items-start max-[1050px]:grid-cols-1"
	>
		<div>
			<Paper view={document.view} />
			{#if document.kind === 'invoice'}<UseAgain
					id={document.id}
					suggestion={document.view.sections[0]?.rows[0]?.description.split('\n')[0] ?? ''}
				>
					<form method="post" action="/billing/new">
						<input type="hidden" name="copyOf" value={document.id} />
						<input type="hidden" name="key" value={copyKey} />
						<button class="button plain">Copy as new</button>
					</form>
					{#if item && item.credited < document.total && !document.frozen.sheet.charge && !theirs}
						<form method="post" action="?/raise">
							<input type="hidden" name="key" value={copyKey} />
							<button class="button plain">Raise its price</button>
						</form>
					{/if}
				</UseAgain>{/if}
		</div>
		<aside class="grid gap-3.5">
			<section class="panel py-3.5 px-4 [&_.totals]:mr-0">
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
				<section class="panel py-3.5 px-4 border-l-6 border-l-(--tape) [&_.totals]:mr-0">
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
					cash={document.item?.cash ?? 0n}
					inHand={document.item?.inHand ?? 0n}
					today={document.today}
				/>{/if}
			<PaperTrail trail={document.trail} />
		</aside>
	</div>
</div>
