// What a household may do with a contract it made away from the shop (Consumer Contracts (Information, Cancellation and
// Additional Charges) Regulations 2013, SI 2013/3134): whether it can cancel, until when, and what it must be told before.
import { addDays } from '../../calendar/manipulation';
import type { PlainDate } from '../../calendar/types';
import type { CustomerFacts } from '../../documents/types';
import { ALLOWABLE_KINDS, type LineKind } from '../../figures/types';
import { divideRounded } from '../../money/decimal';
import type { Minor } from '../../money/types';
import type { ContractPlace, QuoteTerms } from '../../sheet/types';

export const CANCEL_DAYS = 14;
/** Off premises up to here there is no right (reg. 27(3)). */
const SMALL = 42_00n;
/** The money is given back within so many days (reg. 34). */
export const GIVE_BACK_DAYS = 14;

export interface ContractFacts {
	/** Acts wholly or mainly outside trade (reg. 4). */
	consumer: boolean;
	place: ContractPlace;
	urgent: boolean;
	newBuilding: boolean;
	/** With VAT, as chosen. */
	total: Minor;
	/** Materials pass to the customer too: the contract is one of sale (reg. 5). */
	goods: boolean;
}

export interface CancelRight {
	may: boolean;
	/** Why there is one, or why not. */
	why: string;
	reference: string;
}

export function contractFacts(
	customer: Pick<CustomerFacts, 'kind' | 'inTrade'>,
	terms: Pick<QuoteTerms, 'place' | 'urgent' | 'newBuilding'>,
	total: Minor,
	kinds: readonly LineKind[]
): ContractFacts {
	const { place, urgent, newBuilding } = terms;
	return {
		consumer: customer.kind === 'household' && !customer.inTrade,
		place,
		urgent,
		newBuilding,
		total,
		goods: kinds.some((one) => ALLOWABLE_KINDS.has(one))
	};
}

/** Whether this contract can be cancelled. Where the law leaves it open, it can. */
export function rightToCancel(facts: ContractFacts): CancelRight {
	const none = (why: string, reference: string) => ({ may: false, why, reference });
	if (!facts.consumer) return none('It is agreed in the way of trade.', 'SI 2013/3134 reg. 4');
	if (facts.newBuilding)
		return none(
			'It is for a new building, or a conversion that amounts to one.',
			'SI 2013/3134 reg. 6(1)'
		);
	if (facts.place === 'onPremises')
		return none('It is agreed at the shop or office.', 'SI 2013/3134 reg. 5, 29');
	if (facts.urgent)
		return none(
			'You called for an urgent repair. Further work than that can be cancelled.',
			'SI 2013/3134 reg. 28(1)(e)'
		);
	if (facts.place === 'offPremises' && facts.total <= SMALL)
		return none('It comes to £42 or less.', 'SI 2013/3134 reg. 27(3)');
	return {
		may: true,
		why: `You can cancel within ${CANCEL_DAYS} days without giving a reason.`,
		reference: 'SI 2013/3134 reg. 29, 30'
	};
}

/**
 * The last day on which a notice may be sent: at its end, London time. Where materials pass to the customer too, from the day
 * the last of them came; null as long as that is not known (reg. 30(2), (3)).
 */
export function cancelUntil(
	agreedOn: PlainDate,
	goods: boolean,
	receivedOn: PlainDate | null
): PlainDate | null {
	if (!goods) return addDays(agreedOn, CANCEL_DAYS);
	if (receivedOn === null) return null;
	return addDays(receivedOn > agreedOn ? receivedOn : agreedOn, CANCEL_DAYS);
}

/** Whether a notice sent on this day comes in time. */
export const inTime = (sentOn: PlainDate, until: PlainDate | null): boolean =>
	until === null || sentOn <= until;

/** From when work may begin without an express request (reg. 36(1)): after the days that run from the contract. */
export const mayBeginFrom = (agreedOn: PlainDate): PlainDate => addDays(agreedOn, CANCEL_DAYS + 1);

/** From when the work of a contract may begin; null: at once, as it cannot be cancelled, or they asked for it in writing. */
export const beginsOn = (
	law: { may: boolean; begin: boolean },
	agreedOn: PlainDate
): PlainDate | null => (law.may && !law.begin ? mayBeginFrom(agreedOn) : null);

/** What a consumer is told about cancelling, before it is bound (Schedule 2(l) to (o); Schedule 3 A). */
export function cancelInformation(
	goods: boolean,
	seller: { name: string; address: string; phone: string; email: string }
): string[] {
	return [
		`You have the right to cancel this contract within ${CANCEL_DAYS} days without giving any reason. The period ends ${CANCEL_DAYS} days after the day the contract is made${goods ? ', or, as materials are supplied with the work, after the day on which the last of them came to you' : ''}.`,
		`To cancel, tell us (${[seller.name, seller.address.replaceAll('\n', ', '), seller.phone, seller.email].filter(Boolean).join(', ')}) clearly that you do: by letter, by e-mail, by phone, or with the button on the page of this contract. You may use the form below, but need not. It is in time when you send it before the period has ended.`,
		'If you cancel, we give back all that you paid, without undue delay and within 14 days, in the way you paid it. It costs you nothing.',
		'If you asked us to begin within that period, you pay for what was done until you told us, as a part of the agreed price. Once all of the work is done, the right to cancel has ended.'
	];
}

/** The model cancellation form (Schedule 3 B). */
export const cancelForm = (
	seller: { name: string; address: string; email: string },
	what: string
): string[] => [
	`To ${[seller.name, seller.address.replaceAll('\n', ', '), seller.email].filter(Boolean).join(', ')}:`,
	`I/We* hereby give notice that I/we* cancel my/our* contract for the supply of the following service and goods*: ${what}`,
	'Ordered on* / received on*:',
	'Name of consumer(s):',
	'Address of consumer(s):',
	'Signature of consumer(s) (only if this form is on paper):',
	'Date:',
	'* Delete as appropriate.'
];

/** What is asked for so that work begins within the period; never ticked beforehand (reg. 36(1), (2)). */
export const BEGIN_WORDS =
	'Please begin before my 14 days are over. If I cancel after that, I pay the share of the price for what was done by then.';
export const ACKNOWLEDGE_WORDS = 'I know that I can no longer cancel once all of the work is done.';
/** The button says that it binds to pay; otherwise the customer is not bound (reg. 14(3), (4)). */
export const ACCEPT_WORDS = 'Accept, with obligation to pay';

/** What of an agreed price is owed for a part of it that was done: percent, to its hundredths, rounded to the penny (reg. 36(5)). */
export const shareOf = (agreed: Minor, percentDone: number): Minor =>
	divideRounded(
		agreed * BigInt(Math.min(10_000, Math.max(0, Math.round(percentDone * 100)))),
		10_000n
	);

/** Clauses that are unfair to a consumer (Consumer Rights Act 2015 s.62, Schedule 2), seen by their words. */
export function unfairTerms(terms: string): string[] {
	const found: string[] = [];
	if (/non[- ]?refundable|deposit[^.]{0,40}(forfeit|lost|kept|not (be )?refunded)/i.test(terms))
		found.push(
			'A clause that keeps the whole deposit whatever happens is unfair to a household (Consumer Rights Act 2015 Sch. 2 para. 4, 6).'
		);
	if (/(no|not|without) (right|liab)[^.]{0,60}(defect|damage|cancel)|not liable/i.test(terms))
		found.push(
			'What excludes your liability for poor work does not hold against a household (Consumer Rights Act 2015 s.57).'
		);
	return found;
}
