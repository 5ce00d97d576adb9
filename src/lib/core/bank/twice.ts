// A bank line for an invoice that is settled already: by card, by hand, or through its page. Somebody paid twice, perhaps.
import { displayDate } from '../calendar/conversion';
import { daysBetween } from '../calendar/queries';
import type { PlainDate } from '../calendar/types';
import type { Minor } from '../money/types';
import { isNamed, squeezed, wordsOfLine } from './names';
import type { Proposal, ToMatch } from './types';

export interface SettledInvoice {
	number: string;
	payerId: number;
	payer: string;
	/** What was to be sent for it. */
	payable: Minor;
	paidOn: PlainDate;
	/** `by card`, `by bank transfer`: how it was paid; empty where it was not all of it at once. */
	how: string;
}

/** Longer ago than this, the same amount is another payment. */
const DAYS = 60;
const BY_NUMBER = 72;
const BY_NAME = 48;

/** What was settled lately, by amount; made once, asked for each line. */
export class PaidAlready {
	readonly #byAmount = new Map<Minor, SettledInvoice[]>();

	constructor(settled: readonly SettledInvoice[]) {
		for (const one of settled)
			this.#byAmount.set(one.payable, [...(this.#byAmount.get(one.payable) ?? []), one]);
	}

	/** What a line may have paid a second time. Accepted, it is in hand, to be given back; never surely. */
	propose(line: ToMatch): Proposal[] {
		const text = squeezed(line.text);
		const words = wordsOfLine(line);
		return (this.#byAmount.get(line.amount) ?? []).flatMap((one): Proposal[] => {
			if (Math.abs(daysBetween(one.paidOn, line.date)) > DAYS) return [];
			const named = isNamed(one.payer, words);
			const number = text.includes(squeezed(one.number));
			if (!number && !named) return [];
			return [
				{
					payerId: one.payerId,
					payer: one.payer,
					shares: [],
					over: line.amount,
					score: number ? BY_NUMBER : BY_NAME,
					sure: false,
					reasons: [
						number ? `${one.number} stands in it` : `${one.payer} stands in it`,
						`${one.number} was paid ${[one.how, `on ${displayDate(one.paidOn)}`].filter(Boolean).join(' ')} already: perhaps they paid twice, and want it back`
					]
				}
			];
		});
	}
}
