<!-- A quote that is out: where it stands, what was said to it, and what is next.
	Over 300 lines: the parts of one page, each shown by where the quote stands. -->
<script lang="ts">
	import Link2 from '@lucide/svelte/icons/link-2';
	import { displayDate, displayMoment } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import type { QuoteDetail } from '$lib/core/quotes/detail';
	import Choice from '../parts/Choice.svelte';
	import DateField from '../parts/DateField.svelte';
	import Field from '../parts/Field.svelte';
	import Fold from '../parts/Fold.svelte';
	import LateFold from '../parts/LateFold.svelte';
	import Form from '../parts/Form.svelte';
	import Tick from '../parts/Tick.svelte';
	import { notices } from '../parts/notices.svelte';
	import CancelShare from './CancelShare.svelte';

	interface Props {
		quote: QuoteDetail;
		just: string;
	}
	let { quote, just }: Props = $props();
	let at = $derived(`/work/quotes/${quote.id}`);
	let open = $derived(quote.state === 'sent' || quote.state === 'expired');
	const STATES: Record<typeof quote.state, string> = {
		draft: 'Draft',
		sent: 'Out',
		expired: 'Expired',
		accepted: 'Accepted',
		declined: 'Declined',
		withdrawn: 'Withdrawn',
		cancelled: 'Cancelled by the customer',
		discarded: 'Thrown away'
	};
	const WHAT: Record<string, string> = {
		begun: 'Begun',
		sent: 'Sent',
		sentAgain: 'Sent again',
		handedOver: 'Given another way',
		opened: 'Opened by the customer',
		asked: 'The customer asked',
		answered: 'Answered',
		accepted: 'Accepted',
		declined: 'Declined',
		withdrawn: 'Withdrawn',
		prolonged: 'Prolonged',
		reminded: 'Reminded',
		reopened: 'Open again',
		cancelled: 'Cancelled by the customer',
		confirmed: 'Record sent to both',
		depositAsked: 'Deposit asked for',
		depositPaid: 'Deposit paid',
		tried: 'Test sent to yourself'
	};
	const said = (what: string, detail: string) =>
		what === 'prolonged' ? `until ${displayDate(detail)}` : detail;
	let waiting = $derived(quote.questions.filter(({ answeredAt }) => answeredAt === null));
	async function copy() {
		try {
			await navigator.clipboard.writeText(quote.link);
			notices.say('The link is copied.');
		} catch {
			notices.say('Copying is not allowed here. Mark the link and copy it by hand.');
		}
	}
</script>

<svelte:head><title>{quote.number} · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/lists/quotes">Quotes</a></p>
	<div class="mb-3.5 flex flex-wrap items-center gap-x-3.5 gap-y-2">
		<h1 class="wrap-anywhere">{quote.number}: {quote.title}</h1>
		<span class="tag" data-state={quote.state}>{STATES[quote.state]}</span>
		<span class="flex-1"></span>
		{#if quote.state === 'accepted' && quote.job}<a
				class="button filled"
				href="/work/{quote.job.id}">Go to {quote.job.number}</a
			>{/if}
		{#if open}<a class="button" href="{at}?write"
				>{quote.changed ? `Go on with version ${quote.sent + 1}` : 'Change it'}</a
			>
			<a class="button filled" href="{at}/sign">Accept it here, on this phone</a>{/if}
		<Form action="/work/quotes/new" leaves keyed hidden={{ copyOf: quote.id }}
			><button class="button">Copy it</button></Form
		>
	</div>
	{#if just === 'sent'}<p
			class="panel mb-3.5 border-l-6 border-l-(--verdigris) px-4.5 py-3"
			role="status"
		>
			{quote.number} is on its way.
		</p>{/if}
	{#if just === 'accepted'}<p
			class="panel mb-3.5 border-l-6 border-l-(--verdigris) px-4.5 py-3"
			role="status"
		>
			Accepted. The record goes to both of you.
		</p>{/if}
	{#if quote.changed && open}<p class="panel mb-3.5 border-l-6 border-l-(--tape) px-4.5 py-3">
			You wrote on since version {quote.sent} went out. They see that one until you send the next.
		</p>{/if}
	<div class="grid grid-cols-[minmax(0,1fr)_minmax(0,360px)] items-start gap-4 beside:grid-cols-1">
		<div class="grid gap-4">
			<section class="panel grid gap-3 px-5 py-4" aria-label="Where it stands">
				<p class="flex flex-wrap items-baseline gap-x-3">
					<b class="numbers text-[1.9rem] [font-family:var(--font-heading)]"
						>{displayPounds(quote.total)}</b
					>
					<span class="quiet"
						>{#if !quote.accepted && quote.lowest !== null && quote.highest !== null && quote.lowest !== quote.highest}as
							first chosen; {displayPounds(quote.lowest)} to {displayPounds(
								quote.highest
							)}{:else if quote.accepted}as agreed{/if}</span
					>
				</p>
				<p>
					For <a href="/customers/{quote.customer.id}">{quote.customer.name}</a>.
					{#if quote.accepted}{quote.accepted.name}{quote.accepted.position
							? `, ${quote.accepted.position},`
							: ''} accepted it on {displayDate(quote.accepted.on)}{quote.accepted.way === 'page'
							? ' on its page'
							: quote.accepted.way === 'spot'
								? ' on the spot'
								: ', as you wrote down'}.
					{:else if open}Sent {quote.sentAt ? displayMoment(quote.sentAt) : ''}, {quote.openedAt
							? `opened ${displayMoment(quote.openedAt)}`
							: 'not opened yet'}. It holds until {displayDate(quote.validUntil)}.{/if}
					{#if quote.reason}“{quote.reason}”{/if}
				</p>
				{#if quote.accepted?.signature}<img
						class="max-h-24 max-w-full justify-self-start border border-(--hair) bg-[#fff]"
						src={quote.accepted.signature}
						alt="The signature of {quote.accepted.name}"
					/>{/if}
				{#if quote.accepted && !quote.accepted.cancelledOn}
					{#if quote.accepted.cancel}<p>
							They can cancel until {quote.accepted.cancel === 'open'
								? '14 days after the last of the materials came'
								: `the end of ${displayDate(quote.accepted.cancel)}`}. {quote.accepted.begin
								? 'They asked in writing that work begins before.'
								: 'Work may not begin before 14 days have passed since it was agreed: they did not ask for it.'}
						</p>{/if}
				{/if}
				{#if quote.deposit}<p>
						Deposit {displayPounds(quote.deposit.amount)}{quote.deposit.deduction
							? `, of which they keep back ${displayPounds(quote.deposit.deduction)}`
							: ''}: {quote.deposit.state === 'asked'
							? 'asked for'
							: quote.deposit.state === 'paid'
								? 'paid, its invoice is being made'
								: quote.deposit.state === 'invoiced'
									? 'paid and invoiced'
									: 'not asked for any more'}{#if quote.deposit.documentId},
							<a href="/billing/{quote.deposit.documentId}">its invoice</a>{/if}.
					</p>{/if}
				{#if quote.plan.length}<ul class="grid max-w-120">
						{#each quote.plan as { title, amount }, index (index)}<li
								class="flex justify-between gap-4 border-b border-(--hair) py-1 last:border-b-0"
							>
								<span>{title}</span><span class="numbers">{displayPounds(amount)}</span>
							</li>{/each}
					</ul>{/if}
				<p class="flex flex-wrap gap-x-4 gap-y-1">
					{#each quote.versions as { n, total } (n)}<a href="{at}/pdf?v={n}"
							>{quote.versions.length > 1 ? `Version ${n}` : 'PDF'}<span class="quiet ml-1.5"
								>{displayPounds(total)}</span
							></a
						>{/each}
					{#if quote.accepted?.hasRecord}<a href="{at}/pdf?record">Record of what was accepted</a
						>{/if}
				</p>
			</section>
			{#each waiting as question (question.id)}
				<section
					class="panel grid gap-3 border-l-6 border-l-(--tape) px-5 py-4"
					aria-label="Question {question.id}"
				>
					<p class="whitespace-pre-line wrap-anywhere">
						<b class="font-semibold">They ask:</b>
						{question.question}
					</p>
					<Form
						action="{at}?/answer"
						hidden={{ question: question.id }}
						done="Answered, on the page and by e-mail."
						class="grid gap-3"
					>
						<Field label="Your answer" name="answer" rows={3} />
						<div><button class="button">Answer</button></div>
					</Form>
				</section>
			{/each}
			{#if quote.share}<CancelShare
					share={quote.share}
					customer={quote.customer}
					action="{at}?/settle"
					invoiced={quote.deposit?.documentId ?? null}
				/>{/if}
			<section class="panel px-5 py-4">
				<h2 class="mb-2">Trail</h2>
				<ol class="grid gap-1.5">
					{#each quote.trail as one (one.id)}<li
							class="grid grid-cols-[165px_minmax(0,1fr)] gap-3 phone:grid-cols-1 phone:gap-0"
						>
							<span class="quiet numbers">{displayMoment(one.at)}</span>
							<span class="wrap-anywhere"
								>{WHAT[one.what] ?? one.what}{one.detail
									? `: ${said(one.what, one.detail)}`
									: ''}{#if one.who}<span class="quiet">, {one.who}</span>{/if}</span
							>
						</li>{/each}
				</ol>
			</section>
		</div>
		<aside class="grid gap-4">
			{#if open}
				<section class="panel grid gap-3 px-5 py-4">
					<h2>Its page</h2>
					<p class="mono wrap-anywhere">{quote.link}</p>
					<div>
						<button class="button" type="button" onclick={copy}
							><Link2 size={18} aria-hidden="true" />Copy the link</button
						>
					</div>
					{#if quote.sending && !quote.changed}<LateFold label="Send it again">
							<Form action="{at}?/again" keyed done="Sent again." class="grid gap-3">
								<Field label="To" name="to" value={quote.sending.to} inputmode="email" />
								<Field label="Subject" name="subject" value={quote.sending.subject} />
								<Field
									label={'Message; {link} becomes the link'}
									name="text"
									rows={6}
									value={quote.sending.text}
								/>
								<div><button class="button">Send it with the PDF</button></div>
							</Form>
						</LateFold>{/if}
				</section>
				<section class="panel grid gap-1 px-5 py-4">
					<h2>What they said</h2>
					<LateFold label="They said yes">
						<Form
							action="{at}?/byHand"
							keyed
							hidden={{ n: quote.sent, total: quote.versions.at(-1)?.total ?? 0, picked: '' }}
							done="Written down. The record goes to both of you."
							class="grid gap-3"
						>
							<p class="quiet">
								As first chosen. Where they chose otherwise, use “Accept it here”.
							</p>
							<Field label="Who" name="name" value={quote.customer.name} />
							<DateField label="Agreed on" name="agreedOn" hint="empty: today" />
							{#if !quote.household}<Field label="Their order number" name="orderNumber" />{/if}
							{#if quote.household}
								<Choice
									label="How they got the information about cancelling"
									name="informed"
									value=""
								>
									<option value="">not yet</option>
									<option value="mail">by e-mail, with the quote</option>
									<option value="paper">on paper, with the quote</option>
								</Choice>
								{#if quote.right.may}<Tick name="inWriting"
										>They asked in writing that work begins within the 14 days, and know that the
										right ends when all is done</Tick
									>{/if}
							{/if}
							<div><button class="button">Write it down</button></div>
						</Form>
					</LateFold>
					<LateFold label="They said no">
						<Form action="{at}?/declined" class="grid gap-3" done="Written down.">
							<Field label="Why" name="reason" rows={2} />
							<div><button class="button">Write it down</button></div>
						</Form>
					</LateFold>
				</section>
				<section class="panel grid gap-1 px-5 py-4">
					<h2>More</h2>
					<Form
						action="{at}?/quiet"
						hidden={{ quiet: quote.quiet ? '' : 'yes' }}
						done={quote.quiet ? 'They are reminded again.' : 'They are not reminded of it.'}
						undo={{ action: `${at}?/quiet`, values: { quiet: quote.quiet ? 'yes' : '' } }}
						><button class="button plain"
							>{quote.quiet ? 'Remind them of it again' : 'Do not remind them of it'}</button
						></Form
					>
					<LateFold label="Let it hold longer">
						<Form action="{at}?/prolong" class="grid gap-3" done="It holds longer now.">
							<Field label="By how many days" name="days" value="14" inputmode="numeric" />
							<div><button class="button">Prolong it</button></div>
						</Form>
					</LateFold>
					<LateFold label="Withdraw it">
						<Form
							action="{at}?/withdraw"
							class="grid gap-3"
							done="Withdrawn: it can be accepted no more."
							undo={{ action: `${at}?/reopen`, values: {} }}
						>
							<Field label="Why, for yourself" name="reason" rows={2} />
							<div><button class="button">Withdraw it</button></div>
						</Form>
					</LateFold>
				</section>
			{:else if quote.state === 'declined' || quote.state === 'withdrawn'}
				<section class="panel px-5 py-4">
					<Form action="{at}?/reopen" done="It is open again."
						><button class="button">Open it again</button></Form
					>
				</section>
			{/if}
			{#if quote.deposit?.state === 'asked'}<section class="panel grid gap-3 px-5 py-4">
					<h2>The deposit came another way</h2>
					<Form
						action="{at}?/deposit"
						keyed
						done="Written down, and its invoice is issued."
						class="grid gap-3"
					>
						<Choice label="How" name="way" value="bank">
							<option value="bank">bank transfer</option>
							<option value="cash">cash</option>
							<option value="cheque">cheque</option>
						</Choice>
						<DateField label="On" name="date" hint="empty: today" />
						<div>
							<button class="button"
								>{displayPounds(quote.deposit.amount - quote.deposit.deduction)} came in</button
							>
						</div>
					</Form>
				</section>{/if}
			{#if quote.accepted?.cancel && !quote.accepted.cancelledOn}<section
					class="panel grid gap-1 px-5 py-4"
				>
					<Fold label="They cancelled">
						<Form
							action="{at}?/cancelled"
							class="grid gap-3"
							done="Written down; the job is stopped."
						>
							<p class="quiet">A clear word is enough. It counts on the day it was sent.</p>
							<DateField label="Sent on" name="sentOn" hint="empty: today" />
							<Field label="How" name="how" value="by phone" />
							<div><button class="button">Write it down</button></div>
						</Form>
					</Fold>
				</section>{/if}
		</aside>
	</div>
</div>
