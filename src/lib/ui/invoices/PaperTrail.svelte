<!-- Who did what to this document, when. -->
<script lang="ts">
	import { displayMoment } from '$lib/core/calendar/conversion';
	import type { DocumentDetail } from '$lib/core/documents/detail';

	let { trail }: { trail: DocumentDetail['trail'] } = $props();
	const WORDS: Record<string, string> = {
		begun: 'You began it',
		issued: 'You issued it',
		broughtIn: 'You brought it in from other books',
		sent: 'You e-mailed it',
		texted: 'You sent the link by text to',
		delivered: 'It is on its way',
		notDelivered: 'It did not arrive',
		linkCopied: 'You copied the link',
		linkRenewed: 'You renewed the link: the earlier one opens nothing any more',
		downloaded: 'You downloaded the PDF',
		handedOver: 'You handed it over',
		opened: 'The customer opened it',
		pdfOpened: 'The customer opened the PDF',
		cardBegun: 'The customer went to pay by card',
		cardDeclined: 'The card was declined',
		cardPending: 'The card payment is on its way',
		bankBegun: 'The customer went to pay from their bank',
		bankPending: 'The transfer is on its way',
		bankFailed: 'The transfer did not come about',
		cardKept: 'The card is kept for repeat invoices, ending',
		cardRevoked: 'The card is not kept any longer',
		cardCharged: 'The kept card is charged',
		chargeFailed: 'The card could not be charged',
		repeated: 'Made by the repeat',
		paid: 'Paid',
		paymentUndone: 'You undid a payment',
		creditApplied: 'Money in hand was used',
		writtenOff: 'You wrote off what was open',
		creditTakenBack: 'Money moved here went back, because its payment was undone',
		takenUpAgain: 'What was written off is owed again',
		promised: 'Payment promised',
		disputed: 'Disputed',
		holdEnded: 'No longer held',
		reminded: 'Reminded',
		reminderOpened: 'The customer opened the reminder',
		reminderWithdrawn: 'A reminder was taken back before it went',
		reminderSkipped: 'You left a reminder out',
		claimWritten: 'You wrote a letter of claim,',
		disputeOpened: 'The card payment is disputed,',
		disputeAnswered: 'You handed the evidence in',
		disputeWon: 'The dispute ended for you:',
		disputeLost: 'The dispute ended for the customer:',
		letterPosted: 'You posted the letter to',
		claimed: 'A charge for lateness was drafted',
		onStatement: 'On a statement',
		refunded: 'You gave money back',
		credited: 'You credited it',
		corrects: 'You issued it to correct',
		theirs: 'They wrote it themselves',
		replaces: 'It stands in place of',
		replacedBy: 'You issued in its place',
		raises: 'You issued it to raise',
		signed: 'Signed',
		raisedBy: 'You raised its price by',
		tried: 'You sent yourself a test'
	};
	/** Told of another: “Joss Amadi e-mailed it”. */
	const told = (words: string, by: string): string =>
		by === '' ? words : words.startsWith('You ') ? `${by} ${words.slice(4)}` : `${words} (${by})`;
	function detail(what: string, text: string): string {
		if (what !== 'delivered') return text;
		const [kind, ...rest] = text.split(':');
		return `${{ receipt: 'receipt', paidNotice: 'notice', invoice: 'invoice', creditNote: 'credit note', reminder: 'reminder', text: 'text' }[kind ?? ''] ?? kind} to ${rest.join(':')}`;
	}
</script>

<section class="panel py-3.5 px-4">
	<h2>Paper trail</h2>
	<ol class="mt-2.5">
		{#each trail as entry (entry.id)}
			<li class="py-1.75 pr-0 pl-3.5 border-l-3 border-l-(--tape) grid">
				<span class="quiet numbers">{displayMoment(entry.at)}</span>
				<span
					><b class="font-semibold">{told(WORDS[entry.what] ?? entry.what, entry.by)}</b
					>{#if entry.detail}<span class="detail ml-[0.3em] wrap-anywhere"
							>{detail(entry.what, entry.detail)}</span
						>{/if}</span
				>
			</li>
		{/each}
	</ol>
</section>
