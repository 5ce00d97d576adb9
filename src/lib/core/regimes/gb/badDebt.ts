// VAT bad-debt relief (VATA 1994 s.36; VAT Regulations 1995 part XIX): from when, until when, and how much.
import { parseDate } from '@internationalized/date';
import type { PlainDate } from '../../calendar/types';
import { divideRounded } from '../../money/decimal';
import type { Minor } from '../../money/types';

export interface BadDebt {
	taxPoint: PlainDate;
	dueDate: PlainDate;
	/** With VAT. */
	total: Minor;
	/** VAT that was charged and accounted for; what the customer accounts for itself is no part of it. */
	vatCharged: Minor;
	/** Given up in the books, and not paid since. */
	writtenOff: Minor;
	/** Claimed back so far. */
	claimed: Minor;
}

export interface Relief {
	/** Six months past the later of due date and tax point. */
	from: PlainDate;
	/** Four years and six months past it: the last day. */
	until: PlainDate;
	/** `repay`: more was claimed than is lost now, because the customer paid after all. */
	state: 'none' | 'waiting' | 'claimable' | 'expired' | 'claimed' | 'repay';
	/** To be claimed, or repaid; or what will be once it can. Never below zero. */
	vat: Minor;
	/** The VAT within what is lost: written off × VAT ÷ total. */
	lost: Minor;
}

const WAIT_MONTHS = 6;
const LIMIT_MONTHS = 54;

/** What of a debt's VAT can be claimed back on a day. */
export function badDebtRelief(debt: BadDebt, today: PlainDate): Relief {
	const later = debt.taxPoint > debt.dueDate ? debt.taxPoint : debt.dueDate;
	const from = parseDate(later).add({ months: WAIT_MONTHS }).toString();
	const until = parseDate(later).add({ months: LIMIT_MONTHS }).toString();
	const lost = debt.total > 0n ? divideRounded(debt.writtenOff * debt.vatCharged, debt.total) : 0n;
	const left = lost - debt.claimed;
	const state =
		left < 0n
			? 'repay'
			: left === 0n
				? debt.claimed > 0n
					? 'claimed'
					: 'none'
				: today < from
					? 'waiting'
					: today > until
						? 'expired'
						: 'claimable';
	return { from, until, state, vat: left < 0n ? -left : left, lost };
}
