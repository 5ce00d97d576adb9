<!-- An issued document: where it stands, what can be done about it, what it says, and its paper trail.
	Over 300 lines: the parts of one page, each shown by where the document stands. -->
<script lang="ts">
	import Form from '../parts/Form.svelte';
	import Menu from '../parts/Menu.svelte';
	import { formatDecimal, min } from '$lib/core/money/decimal';
	import { leftToDeduct as leftToDeductOn } from '$lib/core/settlement/position';
	import type { ComponentProps } from 'svelte';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { displayDate, displayMoment, londonDate } from '$lib/core/calendar/conversion';
	import { statementDeadline } from '$lib/core/calendar/manipulation';
	import { daysBetween } from '$lib/core/calendar/queries';
	import { displayAmount, displayMoney } from '$lib/core/money/display';
	import { WAY_NAMES, withinSentence } from '$lib/core/words';
	import type { Minor } from '$lib/core/money/types';
	import type { DocumentDetail } from '$lib/core/documents/detail';
	import { pressKey } from '../parts/keys';
	import MoneyRule from '../owed/MoneyRule.svelte';
	import SettlementBar from '../money/SettlementBar.svelte';
	import Totals from '../lines/Totals.svelte';
	import WorkingsPanel from './WorkingsPanel.svelte';
	import LateCharge from '../owed/LateCharge.svelte';
	import Messages from './Messages.svelte';
	import Files from '../files/Files.svelte';
	import SheetsBeside from '../signing/SheetsBeside.svelte';
	import { SIGNED_WORDS } from '$lib/core/jobs/signed';
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
	// What is being done stands in the address: it is reached from everywhere, and without scripts.
	const DOING = ['send', 'pay', 'credit'] as const;
	let doing = $derived(
		DOING.find((one) => page.url.searchParams.has(one) || page.url.searchParams.has(`/${one}`))
	);
	const close = () => goto(page.url.pathname, { noScroll: true, keepFocus: true });
	let figure = $state<string | null>(null);
	const copyKey = pressKey();
	/** What has just been done, said once more where the page begins anew. */
	let just = $derived(page.url.searchParams.get('just'));
	let sentTo = $derived(document.mails.findLast((mail) => mail.kind === document.kind)?.to ?? '');

	let twice = $derived(document.twice);
	let currency = $derived(document.frozen.sheet.currency);
	const money = (amount: Minor) => displayMoney(amount, currency);
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
		if (item.state === 'writtenOff') return `Written off: ${money(item.writtenOff)}`;
		if (item.state === 'paid')
			return item.withheld
				? `Paid in full, ${money(item.withheld)} of it withheld`
				: 'Paid in full';
		const words = late
			? `${money(document.toPay)} is ${days} ${days === 1 ? 'day' : 'days'} late`
			: days === 0
				? `${money(document.toPay)} is due today`
				: `${money(document.toPay)} is due ${displayDate(document.dueDate)}`;
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

	let creditable = $derived(item !== null && item.credited < document.total);
	let correctable = $derived(creditable && !document.frozen.sheet.charge && !theirs);
	// What comes next is one press away, and so is what may follow; the rest is behind More.
	const PAY = { label: 'Record a payment', href: '?pay' };
	const SEND = { label: 'Send', href: '?send' };
	const CREDIT = { label: 'Credit it', href: '?credit' };
	let reached = $derived(
		document.trail.some(({ what }) => what === 'delivered' || what === 'sent')
	);
	let presses = $derived([
		...(theirs || reached ? [] : [SEND]),
		...(item && document.toPay > 0 ? [PAY] : []),
		...(creditable ? [CREDIT] : []),
		...(!theirs && reached ? [SEND] : [])
	]);
	let first = $derived(presses[0]);
	let second = $derived(presses[1]);
	let more = $derived([
		...presses.slice(2),
		...(item && document.toPay > 0 && !theirs && !currency
			? [{ label: 'Take a card', href: document.link, leaves: true }]
			: []),
		...(document.maySign && !document.signed
			? [{ label: 'Have it signed', href: `/billing/${document.id}/sign` }]
			: []),
		{ label: 'PDF', href: `/billing/${document.id}/pdf?download`, leaves: true },
		{ label: 'A copy, marked so', href: `/billing/${document.id}/pdf?copy`, leaves: true },
		...(correctable ? [{ label: 'Correct it', href: '?/correct', post: { key: copyKey } }] : [])
	]);
</script>

<svelte:head><title>{document.number}, {document.customerName} · Axiometer</title></svelte:head>
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
		{#if first && !doing}<a class="button filled" href={first.href} data-sveltekit-noscroll
				>{first.label}</a
			>{/if}
		{#if second && !doing}<a class="button" href={second.href} data-sveltekit-noscroll
				>{second.label}</a
			>{/if}
		<Menu entries={more} />
	</div>
	{#if just}
		<div
			class="panel flex flex-wrap gap-x-4 gap-y-2 items-center py-3 px-4.5 mb-3.5 border-l-6 border-l-(--tape)"
			role="status"
		>
			<p class="flex-[1_1_320px]">
				{#if just === 'sent'}<b>{document.number} is issued and sent to {sentTo}.</b> You see here when
					they open it, and Today tells you should it not arrive.
				{:else if just === 'issued'}<b>{document.number} is issued.</b> It has not been sent yet.
				{:else}<b>{document.number} is recorded.</b> They wrote it, so it is sent to nobody.{/if}
			</p>
			<form method="post" action="/billing/new"><button class="button">Write another</button></form>
			<a class="button plain" href="/">Today</a>
		</div>
	{/if}

	{#if document.creditedBy.length}<p class="panel py-2.5 px-3.5 mb-3">
			Credited by {#each document.creditedBy as note, index (note.id)}{index ? ', ' : ''}<a
					href="/billing/{note.id}">{note.number}</a
				>{/each}{item && item.credited < document.total
				? `: ${money(item.credited)} of ${money(document.total)}`
				: ''}.
		</p>{/if}
	{#if document.corrects}<p class="panel py-2.5 px-3.5 mb-3">
			Corrects <a href="/billing/{document.corrects.id}">{document.corrects.number}</a>: {document
				.frozen.corrects?.reason}
		</p>{/if}
	{#each document.cardDisputes as one (one.id)}
		<div
			class="panel flex flex-wrap gap-y-2 gap-x-4.5 justify-between items-center py-2.5 px-4.5 mb-3.5 border-l-5 border-l-(--tape)"
			id="dispute"
		>
			<p class="flex-[1_1_320px]">
				{#if one.state === 'won'}The dispute about {money(BigInt(one.amount))} paid by card ended for
					you.
				{:else if one.state === 'lost'}The dispute about {money(BigInt(one.amount))} paid by card ended
					for the customer: the processor took it back.
				{:else}<b>{money(BigInt(one.amount))} paid by card is disputed</b>{one.reason
						? `: “${one.reason}”`
						: ''}.
					{one.state === 'answered'
						? 'The evidence is handed in.'
						: `Evidence is taken until ${displayDate(one.respondBy)}.`}{/if}
			</p>
			{#if one.state === 'open' || one.state === 'answered'}
				<a class="button" href="/billing/{document.id}/evidence/{one.id}">The evidence, one file</a>
			{/if}
			{#if one.state === 'open'}<Form
					action="?/answered"
					hidden={{ dispute: one.id }}
					done="It is noted."><button class="button plain">I have handed it in</button></Form
				>{/if}
		</div>
	{/each}
	{#if twice && item}
		{@const card = twice.find(({ byProcessor }) => byProcessor)}
		<div
			class="panel flex flex-wrap gap-y-2 gap-x-4.5 justify-between items-center py-2.5 px-4.5 mb-3.5 border-l-5 border-l-(--tape)"
		>
			<p>
				<b>Paid twice:</b>
				{#each twice as one, index (one.id)}{index ? ', and again ' : ''}{money(one.amount)} by {withinSentence(
						WAY_NAMES[one.way]
					)} on {displayDate(one.date)}{/each}.
			</p>
			{#if card}<Form
					action="?/refund"
					keyed
					hidden={{
						payment: card.id,
						amount: displayAmount(item.inHand).replaceAll(',', '')
					}}
					done="The refund is on its way; it shows here when the processor confirms it."
				>
					<button class="button">Give {money(item.inHand)} back to the card</button>
				</Form>
			{:else}<span class="quiet">Give it back, and record that below its payments.</span>{/if}
		</div>
	{:else if item?.inHand}<p class="panel py-2.5 px-3.5 mb-3">
			{document.customerName} has paid {money(item.inHand)} too much. Give it back, or keep it as agreed
			with them.{item.overpaid > item.inHand
				? ` The ${money(item.overpaid - item.inHand)} they deducted with it goes along.`
				: ''}
		</p>
	{:else if item?.overpaid}<p class="panel py-2.5 px-3.5 mb-3">
			{document.customerName} has deducted {money(item.overpaid)} more than is due. It is theirs to correct
			with HMRC.
		</p>{/if}
	{#if statementBy && item}<p class="panel py-2.5 px-3.5 mb-3">
			{money(item.withheld)} was withheld. It is not lost: it counts toward your Income Tax and National
			Insurance. Their payment and deduction statement is due by {displayDate(statementBy)}.
		</p>{/if}

	{#if doing === 'send'}<SendForm
			{sending}
			link={document.link}
			id={document.id}
			onclose={close}
		/>{/if}
	{#if doing === 'pay'}<PaymentForm {document} {leftToDeduct} onclose={close} />{/if}
	{#if doing === 'credit'}{#await import('./CreditForm.svelte') then { default: CreditForm }}<CreditForm
				{document}
				mail={sending.to}
				onclose={close}
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
					{currency}
				/>
				<dl class="numbers flex gap-y-2 gap-x-6.5 flex-wrap">
					<div>
						<dt class="text-(--ink-2) text-[0.875rem]">Total</dt>
						<dd class="font-[550]">{money(document.total)}</dd>
					</div>
					<div>
						<dt class="text-(--ink-2) text-[0.875rem]">Paid</dt>
						<dd class="font-[550]">{money(item.cash)}</dd>
					</div>
					{#if item.deduction !== null}<div>
							<dt class="text-(--ink-2) text-[0.875rem]">Withheld</dt>
							<dd class="font-[550]">{money(item.withheld)}</dd>
						</div>{/if}
					{#if item.credited}<div>
							<dt class="text-(--ink-2) text-[0.875rem]">Credited</dt>
							<dd class="font-[550]">{money(item.credited)}</dd>
						</div>{/if}
					{#if leftToDeduct && item.outstanding}<div>
							<dt class="text-(--ink-2) text-[0.875rem]">To be deducted</dt>
							<dd class="font-[550]">{money(leftToDeduct)}</dd>
						</div>{/if}
					<div class="open">
						<dt class="text-(--ink-2) text-[0.875rem]">Still to pay</dt>
						<dd class="[font:650_1.2rem_var(--font-heading)]">{money(document.toPay)}</dd>
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
				They have <b class="numbers">{money(document.inHand)}</b> in hand that is used for no invoice
				yet.
			</p>
			<button class="button">Use {money(min(document.inHand, document.toPay))} for this</button>
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
				<b class="numbers">{money(document.prompt.off)}</b> puts the VAT right.
			</p>
			<button class="button">Issue it and send it</button>
		</Form>
	{:else if document.prompt && document.prompt.until >= document.today}<p
			class="panel py-2.5 px-3.5 mb-3"
		>
			Paid by {displayDate(document.prompt.until)}, {money(document.prompt.payable)} is enough:
			{formatDecimal(document.prompt.percent)} % off.
		</p>{/if}
	{#if document.claim}<LateCharge number={document.number} claim={document.claim} />{/if}

	<Messages mails={document.mails} texts={document.texts} />

	<div
		class="columns grid grid-cols-[minmax(0,1fr)_372px] gap-y-4.5 gap-x-5.5 items-start max-[1050px]:grid-cols-1"
	>
		<div>
			<Paper
				view={document.view}
				logo={document.view.look.logo && `/settings/letterheads/logo/${document.view.look.logo}`}
			/>
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
					{currency}
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
					{currency}
				/>{/if}
			<section class="panel grid gap-2 py-4 px-4.5">
				<h2>Photos and files</h2>
				<SheetsBeside id={document.id} sheets={document.sheets} />
				<Files to="document" id={document.id} files={document.files} mayGoOut />
			</section>
			{#if document.signed}<section class="panel grid gap-2 py-4 px-4.5">
					<h2>Signed</h2>
					<p>
						{[document.signed.name, document.signed.position].filter(Boolean).join(', ')}, {displayMoment(
							document.signed.at
						)}: “{SIGNED_WORDS[document.signed.what as keyof typeof SIGNED_WORDS]}”
					</p>
					{#if document.signed.drawn}<img
							class="max-h-24 max-w-full justify-self-start border border-(--hair) bg-[#fff]"
							src={document.signed.drawn}
							alt="The signature of {document.signed.name}"
						/>{/if}
					<p><a href="/billing/{document.id}/pdf?signed">The copy with the signature</a></p>
				</section>{/if}
			<PaperTrail trail={document.trail} />
		</aside>
	</div>
</div>
