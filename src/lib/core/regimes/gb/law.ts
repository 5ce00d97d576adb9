// What would be wrong in law, or very likely a slip: said in plain words, with the fix one press away.
import { displayDate } from '../../calendar/conversion';
import { addDays } from '../../calendar/manipulation';
import { daysBetween } from '../../calendar/queries';
import { ALLOWABLE_KINDS } from '../../figures/types';
import { displayPounds } from '../../money/display';
import { reasonById, reasonsOn } from './reasons';
import type { Problem } from '../../sheet/types';
import { customerProblems, standingProblems } from './standingLaw';
import { paperProblems } from './kindLaw';
import { type LawSubject } from './lawSubject';

export function lawProblems(subject: LawSubject): Problem[] {
	return [
		...customerProblems(subject),
		...standingProblems(subject),
		...dateProblems(subject),
		...lineProblems(subject),
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

function lineProblems({ lines, seller, input, figures, dates, customer }: LawSubject): Problem[] {
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
			const current = reasonsOn(dates.taxPoint.date);
			if (!reason || reason.treatment !== line.vat) {
				problems.push({
					path: `${path}.vat`,
					level: 'stop',
					message: 'A rate other than the standard one needs its reason, which is printed.',
					fix: { label: 'Choose the reason', type: 'focus', path: `${path}.vat` },
					reference: 'VAT Regulations 1995 reg. 14(1)'
				});
			} else if (!current.includes(reason)) {
				problems.push({
					path: `${path}.vat`,
					level: 'stop',
					message: `“${reason.label}” is not in force on ${displayDate(dates.taxPoint.date)}.`,
					fix: {
						label: 'Charge the standard rate',
						type: 'setLine',
						rowId: line.id,
						field: 'vat',
						value: 'standard'
					},
					reference: reason.reference
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
