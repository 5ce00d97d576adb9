// What the law still misses on a document, by the kind of document it is: each kind has a check of its own.
import { displayDate } from '../../calendar/conversion';
import { displayPounds } from '../../money/display';
import type { Problem, Sheet } from '../../sheet/types';
import type { LawSubject } from './lawSubject';

export const PAPERS = [
	'invoice',
	'creditNote',
	'debitNote',
	'lateCharge',
	'selfBilled',
	'release',
	'deposit',
	'stage',
	'application'
] as const;
/** The kind of document, as the law looks at it. An application for payment is asked about by itself: it is no invoice. */
export type Paper = (typeof PAPERS)[number];

export function paperOf(sheet: Sheet, correcting: boolean): Exclude<Paper, 'application'> {
	if (correcting) return 'creditNote';
	if (sheet.charge === 'late') return 'lateCharge';
	if (sheet.selfBilled) return 'selfBilled';
	if (sheet.about?.as === 'debit') return 'debitNote';
	if (sheet.releases?.length) return 'release';
	if (sheet.deposit) return 'deposit';
	return sheet.stageId === undefined ? 'invoice' : 'stage';
}

const CHECKS: Record<Exclude<Paper, 'application'>, (subject: LawSubject) => Problem[]> = {
	invoice: aboutProblems,
	stage: aboutProblems,
	release: ({ lines, seller, context, sheet }) =>
		// What was held back is taxed as the invoice that held it (VAT Regulations 1995 reg. 89).
		seller.vatRegistered && context.follows?.reverseCharge === undefined && !sheet.about
			? [
					{
						path: 'rows',
						level: 'stop',
						message:
							'The invoices that held this back are not here any more, so how it is taxed is not known.',
						reference: 'VAT Regulations 1995 reg. 89'
					}
				]
			: lines.some((line) => line.vat === 'noSupply')
				? [
						{
							path: 'rows',
							level: 'stop',
							message: 'What was held back is part of a supply. Give each line its rate.',
							reference: 'VAT Regulations 1995 reg. 89'
						}
					]
				: aboutProblems({ sheet, context }),
	deposit: (subject) => [
		...(subject.figures?.vatCharged
			? [
					{
						path: 'rows',
						level: 'note' as const,
						message: `A deposit is an early tax point of the work: its VAT belongs to the period of ${displayDate(subject.dates.taxPoint.date)}, although the work comes later.`,
						reference: 'VATA 1994 s.6(4)'
					}
				]
			: []),
		...aboutProblems(subject)
	],
	debitNote: aboutProblems,
	lateCharge: ({ lines, figures }) => [
		...lines
			.filter((line) => line.vat !== 'noSupply')
			.map((line): Problem => ({
				path: `rows.${line.id}.vat`,
				level: 'stop',
				message:
					'Interest and compensation for late payment are no supply: no VAT is charged on them.',
				fix: {
					label: 'Take the VAT off',
					type: 'setLine',
					rowId: line.id,
					field: 'vat',
					value: 'noSupply'
				},
				reference: 'VATA 1994 s.5(2); Late Payment of Commercial Debts (Interest) Act 1998'
			})),
		...(figures?.cis && figures.cis.deduction > 0n
			? [
					{
						path: 'total',
						level: 'stop' as const,
						message: `Nothing is deducted from a charge for lateness, and here ${displayPounds(figures.cis.deduction)} would be.`,
						reference: 'FA 2004 s.61'
					}
				]
			: [])
	],
	selfBilled: selfBilledProblems,
	creditNote: () => []
};

export function paperProblems(subject: LawSubject): Problem[] {
	return CHECKS[paperOf(subject.sheet, subject.context.corrects !== undefined)](subject);
}

/** It is theirs: its number is kept, no second VAT invoice may be issued, and there is an agreement. */
function selfBilledProblems({ sheet, customer, seller }: LawSubject): Problem[] {
	const reference = 'VAT Regulations 1995 reg. 13(3)';
	const problems: Problem[] = [];
	if (!sheet.selfBilled?.number.trim())
		problems.push({
			path: 'selfBilled.number',
			level: 'stop',
			message: 'Write the number that stands on their document.',
			fix: { label: 'Write it', type: 'focus', path: 'selfBilled.number' },
			reference,
			atIssue: true
		});
	if (customer?.kind === 'household')
		problems.push({
			path: 'customer',
			level: 'stop',
			message: 'A household does not bill itself. Only a firm can, by an agreement with you.',
			reference
		});
	if (seller.vatRegistered && !sheet.selfBilled?.agreedOn.trim())
		problems.push({
			path: 'selfBilled.agreedOn',
			level: 'warning',
			message:
				'Self-billing needs an agreement in writing. Note its day; it is looked at anew each year.',
			fix: { label: 'Give the day', type: 'focus', path: 'selfBilled.agreedOn' },
			reference: 'VAT Regulations 1995 reg. 13(3A)'
		});
	return problems;
}

/** A correction names its invoice and says why (VAT Regulations 1995 reg. 15C(3)). */
function aboutProblems({ sheet, context }: Pick<LawSubject, 'sheet' | 'context'>): Problem[] {
	const { about } = sheet;
	if (!about) return [];
	const reference = 'VAT Regulations 1995 reg. 15C';
	if (!context.follows?.of)
		return [
			{
				path: 'about.reason',
				level: 'stop',
				message: 'The invoice this corrects is not here any more.',
				reference
			}
		];
	if (about.reason.trim() !== '') return [];
	return [
		{
			path: 'about.reason',
			level: 'stop',
			message:
				about.as === 'debit'
					? `Say why the price of ${context.follows.of.number} goes up: it is printed.`
					: `Say what was wrong with ${context.follows.of.number}: it is printed on the credit note.`,
			fix: { label: 'Say why', type: 'focus', path: 'about.reason' },
			reference,
			atIssue: true
		}
	];
}

/** What an application for payment says so that it counts (HGCRA 1996 s.110A, s.110B). Empty: nothing is missing. */
export function applicationMisses(application: {
	sum: bigint;
	basis: string;
	due: string;
	finalDate: string;
}): string[] {
	return [
		...(application.sum > 0n ? [] : ['the sum that is due']),
		...(application.basis.trim() ? [] : ['the basis on which it was worked out']),
		...(application.due ? [] : ['the day on which it is due']),
		...(application.finalDate && application.finalDate >= application.due
			? []
			: ['the final date for payment'])
	];
}
