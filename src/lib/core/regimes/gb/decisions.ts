// Whether the reverse charge and the construction deduction apply, with the grounds for it.
import type { PlainDate } from '../../calendar/types';
import { displayDate } from '../../calendar/conversion';
import { formatDecimal } from '../../money/decimal';
import type { Decision, Parties, Reason, VatTreatment } from '../types';
import { rateOn } from './rates';

/** The day the domestic reverse charge for construction began (SI 2019/892, as amended). */
const REVERSE_CHARGE_FROM: PlainDate = '2021-03-01';

/**
 * VATA 1994 s.55A and SI 2019/892: the customer accounts for the VAT where both sides are registered,
 * the contract is within CIS, and the customer passes the work on.
 */
export function decideReverseCharge(parties: Parties): Decision {
	const question = 'Does the customer account for the VAT?';
	if (!parties.sellerVatRegistered) {
		return {
			question,
			answer: false,
			conclusion: 'No reverse charge, because you are not registered for VAT.',
			reasons: [{ holds: false, text: 'You are registered for VAT' }],
			wouldChange: ['if you were registered for VAT'],
			rule: 'notRegistered'
		};
	}
	if (parties.reverseCharge !== null) {
		return {
			question,
			answer: parties.reverseCharge,
			conclusion: parties.reverseCharge
				? 'Reverse charge, as on the document this one corrects.'
				: 'No reverse charge, as on the document this one corrects.',
			reasons: [{ holds: parties.reverseCharge, text: 'The corrected document was under it' }],
			wouldChange: [],
			rule: 'reverseCharge'
		};
	}
	const { customer } = parties;
	const conditions: (Reason & { otherwise: string; change: string })[] = [
		{
			holds: parties.date >= REVERSE_CHARGE_FROM,
			text: 'The tax point is on or after 1 March 2021',
			otherwise: 'the tax point is before 1 March 2021',
			change: 'if the tax point were on or after 1 March 2021'
		},
		{
			holds: customer.kind === 'contractor',
			text: 'The customer makes CIS payments for this work',
			otherwise: 'this customer makes no CIS payments',
			change: 'if the customer had to operate CIS on this payment'
		},
		{
			holds: parties.contract === 'construction',
			text: 'Construction work is more than 5 % of the contract',
			otherwise:
				parties.contract === 'minor'
					? 'construction work is at most 5 % of the contract and is disregarded'
					: 'the contract contains no construction work',
			change: 'if construction work were more than 5 % of the contract'
		},
		{
			holds: customer.vatRegistered,
			text: 'The customer is registered for VAT',
			otherwise: 'the customer is not registered for VAT',
			change: 'if the customer were registered for VAT'
		},
		{
			holds: customer.cisRegistered,
			text: 'The customer is registered for CIS',
			otherwise: 'the customer is not registered for CIS',
			change: 'if the customer were registered for CIS'
		},
		{
			holds: !customer.endUser,
			text: 'The customer has not said in writing that it is an end user',
			otherwise: 'the customer has said in writing that it is an end user',
			change: 'if the customer took back its end-user statement'
		}
	];
	const failed = conditions.filter((condition) => !condition.holds);
	const answer = failed.length === 0;
	return {
		question,
		answer,
		conclusion: answer
			? 'Reverse charge: the customer accounts for the VAT, you charge none.'
			: `No reverse charge, because ${failed[0]!.otherwise}.`,
		reasons: conditions.map(({ holds, text }) => ({ holds, text })),
		wouldChange: answer
			? [
					'if the customer said in writing that it is an end user',
					'if the customer were not registered for VAT'
				]
			: failed.map((condition) => condition.change),
		rule: 'reverseCharge'
	};
}

/** FA 2004 s.61: a contractor deducts from what it pays for construction operations. */
export function decideDeduction(parties: Parties): Decision {
	const contractor = parties.customer.kind === 'contractor';
	const inside = parties.contract !== 'none';
	const known = parties.cisRate !== null;
	const answer = contractor && inside && known;
	const conditions = [
		{
			holds: contractor,
			text: 'The customer makes CIS payments for this work',
			change: 'if the customer made CIS payments for this work'
		},
		{
			holds: inside,
			text: 'The contract contains construction work',
			change: 'if the contract contained construction work'
		},
		{
			holds: known,
			text: 'The rate the customer must deduct is known',
			change: 'if the rate were known'
		}
	];
	return {
		question: 'Will the customer deduct CIS?',
		answer,
		conclusion: answer
			? parties.cisRate === '0'
				? 'Within CIS, but nothing is deducted: you have gross payment status with this customer.'
				: `The customer deducts ${parties.cisRate} % of the labour and pays it to HMRC for you.`
			: !contractor
				? 'No deduction, because this customer makes no CIS payments.'
				: !inside
					? 'No deduction, because the contract contains no construction work.'
					: 'A deduction is likely, but the rate is not known yet.',
		reasons: conditions.map(({ holds, text }) => ({ holds, text })),
		wouldChange: answer
			? [
					'if the contractor gave another rate',
					'if there were no construction work in the contract'
				]
			: conditions.filter(({ holds }) => !holds).map(({ change }) => change),
		rule: 'cis'
	};
}

const TREATMENT_WORDS: Record<VatTreatment, string> = {
	standard: 'standard-rated: nothing says otherwise',
	reduced: 'at the reduced rate, for the reason given',
	zero: 'zero-rated, for the reason given',
	exempt: 'exempt',
	outside: 'supplied outside the UK',
	noSupply: 'no supply at all'
};

/** VATA 1994 s.2, s.29A, s.30: the rate is the one in force on the tax point. */
export function decideRate(treatment: VatTreatment, date: PlainDate): Decision {
	const dated = rateOn(treatment, date);
	const rate = dated ? `${formatDecimal(dated.rate)} %` : 'no rate';
	return {
		question: 'Why this rate?',
		answer: dated !== undefined,
		conclusion: dated
			? `${rate} is the rate in force on the tax point, ${displayDate(date)}.`
			: 'No rate applies, so no VAT arises.',
		reasons: [
			{ holds: true, text: `The work is ${TREATMENT_WORDS[treatment]}` },
			...(dated
				? [
						{
							holds: true,
							text: `${rate} holds from ${displayDate(dated.from)}${dated.until ? ` until ${displayDate(dated.until)}` : ''}`
						}
					]
				: [])
		],
		wouldChange: [
			'if another reason were chosen on the line',
			...(dated ? ['if another rate were in force on the tax point'] : [])
		],
		rule: dated ? 'vatRate' : 'noVatRate'
	};
}
