// What would be wrong in law, or very likely a slip: said in plain words, with the fix one press away.
import { displayDate } from '../../calendar/conversion';
import { addDays } from '../../calendar/manipulation';
import { daysBetween } from '../../calendar/queries';
import { ALLOWABLE_KINDS } from '../../figures/types';
import { formatDecimal } from '../../money/decimal';
import { displayPounds } from '../../money/display';
import { reasonById, reasonsOn } from './reasons';
import type { VatTreatment } from '../types';
import { rateOn } from './rates';
import type { Fix, Problem } from '../../sheet/types';
import { customerProblems, sellerProblems, standingProblems } from './standingLaw';
import { paperProblems } from './kindLaw';
import { type LawSubject } from './lawSubject';

export function lawProblems(subject: LawSubject): Problem[] {
	return [
		...customerProblems(subject),
		...sellerProblems(subject),
		...standingProblems(subject),
		...dateProblems(subject),
		...lineProblems(subject),
		...changeOfRate(subject),
		...wholeProblems(subject),
		...paperProblems(subject)
	];
}

function dateProblems({ dates, context, seller, sheet }: LawSubject): Problem[] {
	const { issueDate, workFinished, taxPoint } = dates;
	if (context.corrects) return [];
	const problems: Problem[] = [];
	if (taxPoint.because === 'work' && issueDate > taxPoint.lastDayInTime! && seller.vatRegistered) {
		problems.push({
			path: 'workFinished',
			level: 'note',
			message: `Issued more than 14 days after the work ended, so its VAT belongs to the period of ${displayDate(workFinished)}.`,
			reference: taxPoint.reference
		});
		if (issueDate > addDays(workFinished, 30)) {
			problems.push({
				path: 'issueDate',
				level: 'note',
				message: 'A VAT registered customer should have had this invoice within 30 days.',
				reference: 'VAT Regulations 1995 reg. 13(5)'
			});
		}
	}
	if (taxPoint.rule === 'work' && issueDate < workFinished) {
		problems.push({
			path: 'workFinished',
			level: 'warning',
			message: `The work is not finished until ${displayDate(workFinished)}. Invoicing now makes the VAT due now.`,
			fix: {
				label: 'It is finished on the invoice date',
				type: 'set',
				field: 'workFinished',
				value: ''
			},
			reference: taxPoint.reference
		});
	}
	if (dates.dueDate < context.today && issueDate <= context.today) {
		problems.push({
			path: 'dueDate',
			level: 'warning',
			message: `It would be late on the day it goes out: it is due on ${displayDate(dates.dueDate)}.`,
			fix: { label: 'Date it today', type: 'set', field: 'issueDate', value: '' }
		});
	}
	if (issueDate > context.today) {
		problems.push({
			path: 'issueDate',
			level: 'stop',
			message: 'An invoice cannot carry a date that has not come yet.',
			fix: { label: 'Date it on the day it is issued', type: 'set', field: 'issueDate', value: '' }
		});
	} else if (sheet.issueDate.trim() !== '' && daysBetween(issueDate, context.today) > 0) {
		problems.push({
			path: 'issueDate',
			level: 'warning',
			message: `This invoice is dated ${displayDate(issueDate)}, and today is ${displayDate(context.today)}.`,
			fix: { label: 'Date it today', type: 'set', field: 'issueDate', value: '' }
		});
	}
	return problems;
}

/** VATA 1994 s.88: what was finished before a change of rate may keep the rate of that day. */
const KEEP_RATE: Fix = {
	label: 'Keep the rate of the day the work was done',
	type: 'set',
	field: 'rateOfWork',
	value: true
};

/** A rate that changed between the end of the work and the tax point: the owner is asked which one it is. */
function changeOfRate({ sheet, dates, seller, lines }: LawSubject): Problem[] {
	const { workFinished, taxPoint } = dates;
	if (!seller.vatRegistered || taxPoint.rule !== 'work' || workFinished >= taxPoint.date) return [];
	const rate = (vat: VatTreatment, day: string) => {
		const found = rateOn(vat, day);
		return found ? formatDecimal(found.rate) : null;
	};
	const changed = [...new Set(lines.map((line) => line.vat))].find(
		(vat) => rate(vat, workFinished) !== rate(vat, taxPoint.date)
	);
	if (!changed) return [];
	const [then, now] = [rate(changed, workFinished), rate(changed, taxPoint.date)];
	return [
		{
			path: 'workFinished',
			level: sheet.rateOfWork ? 'note' : 'warning',
			message: sheet.rateOfWork
				? `The work was finished before the rate changed, and keeps ${then} %.`
				: `The rate was ${then} % when the work was finished, and is ${now} % on the tax point. Work done before may keep its rate.`,
			fix: sheet.rateOfWork
				? { label: `Charge ${now} %`, type: 'set', field: 'rateOfWork', value: false }
				: KEEP_RATE,
			reference: 'VATA 1994 s.88'
		}
	];
}

function lineProblems({
	sheet,
	lines,
	seller,
	input,
	figures,
	dates,
	customer
}: LawSubject): Problem[] {
	const problems: Problem[] = [];
	if (lines.length === 0) {
		problems.push({
			path: 'rows',
			level: 'stop',
			message: 'There is nothing on it yet: give at least one line.',
			fix: { label: 'Begin', type: 'focus', path: 'rows' },
			atIssue: true
		});
	}
	for (const [index, line] of lines.entries()) {
		const path = `rows.${line.id}`;
		if (line.description.trim() === '') {
			problems.push({
				path: `${path}.description`,
				level: 'stop',
				message: 'Say what this line is for.',
				fix: { label: 'Say it', type: 'focus', path: `${path}.description` },
				reference: 'VAT Regulations 1995 reg. 14(1)(h)',
				atIssue: true
			});
		}
		if (seller.vatRegistered && line.vat !== 'standard') {
			const reason = reasonById(line.vatReason);
			const current = reasonsOn(input?.date ?? dates.taxPoint.date);
			if (!reason || reason.treatment !== line.vat) {
				problems.push({
					path: `${path}.vat`,
					level: 'stop',
					message: 'A rate other than the standard one needs its reason, which is printed.',
					fix: { label: 'Choose the reason', type: 'focus', path: `${path}.vat` },
					reference: 'VAT Regulations 1995 reg. 14(1)'
				});
			} else if (!current.includes(reason)) {
				const then = !sheet.rateOfWork && reasonsOn(dates.workFinished).includes(reason);
				problems.push({
					path: `${path}.vat`,
					level: 'stop',
					message: `“${reason.label}” is not in force on ${displayDate(input?.date ?? dates.taxPoint.date)}.${then ? ' It was when the work was finished, and that rate may be kept.' : ''}`,
					fix: then
						? KEEP_RATE
						: {
								label: 'Charge the standard rate',
								type: 'setLine',
								rowId: line.id,
								field: 'vat',
								value: 'standard'
							},
					reference: then ? 'VATA 1994 s.88' : reason.reference
				});
			} else if (
				reason.finalCustomerOnly &&
				customer?.kind === 'contractor' &&
				!customer.standing.endUser
			) {
				problems.push({
					path: `${path}.vat`,
					level: 'stop',
					message: `“${reason.label}” holds for whom the certificate or declaration is made out. ${customer.name} is not the final customer, so a subcontractor charges the standard rate.`,
					fix: {
						label: 'Charge the standard rate',
						type: 'setLine',
						rowId: line.id,
						field: 'vat',
						value: 'standard'
					},
					reference: 'VAT Notice 708 para 17'
				});
			}
		}
		const inCis = figures?.cis && Number(figures.cis.rate) > 0;
		const noCost = input?.lines[index]?.cost === null && line.vat !== 'noSupply';
		if (inCis && noCost && line.cost.trim() === '' && ALLOWABLE_KINDS.has(line.kind)) {
			problems.push({
				path: `${path}.cost`,
				level: 'warning',
				message: `The law wants what this cost you. Its price is taken for now, so ${customer?.name ?? 'the contractor'} may deduct more.`,
				fix: { label: 'Give the cost', type: 'focus', path: `${path}.cost` },
				reference: 'FA 2004 s.61(1)(a)'
			});
		}
	}
	return problems;
}

function wholeProblems({ sheet, customer, figures }: LawSubject): Problem[] {
	const problems: Problem[] = [];
	if (sheet.retention.trim() !== '' && customer?.kind === 'household') {
		problems.push({
			path: 'retention',
			level: 'warning',
			message:
				'A retention on a household’s bill is unusual: nothing in law lets a household hold money back for later.',
			fix: { label: 'Hold nothing back', type: 'set', field: 'retention', value: '' }
		});
	}
	if (figures && figures.payable <= 0n) {
		problems.push({
			path: 'total',
			level: 'stop',
			message: `This comes to ${displayPounds(figures.payable)}. An invoice asks for money; to give some back, credit the invoice it was on.`,
			atIssue: true
		});
	}
	return problems;
}
