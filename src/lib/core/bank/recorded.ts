// Bank lines that show what the books know already: payments recorded by hand, transfers made through a link, payouts of
// the card processor, and payments the bank took back. Nothing is recorded twice.
import { daysBetween } from '../calendar/queries';
import type { PlainDate } from '../calendar/types';
import { displayPounds } from '../money/display';
import type { Minor } from '../money/types';
import { squeezed } from './names';
import type { Proposal, ToMatch } from './types';

export interface RecordedMoney {
	kind: 'payment' | 'payout';
	id: number;
	payerId: number;
	/** Who paid; the processor for a payout. */
	payer: string;
	date: PlainDate;
	amount: Minor;
	/** What stands in the bank's text if it is this: references, numbers of the invoices it pays. */
	marks: string[];
}

/** Further apart than this, the same amount is another payment. */
const DAYS = 7;

/** What was recorded already, by amount; made once, asked for each line. */
export class RecordedMatcher {
	readonly #byAmount = new Map<Minor, RecordedMoney[]>();

	constructor(recorded: readonly RecordedMoney[]) {
		for (const one of recorded)
			this.#byAmount.set(one.amount, [...(this.#byAmount.get(one.amount) ?? []), one]);
	}

	/** What a line may show that is recorded, the best first. */
	propose(line: ToMatch): Proposal[] {
		const text = squeezed(`${line.payer} ${line.text}`);
		return (this.#byAmount.get(line.amount) ?? [])
			.flatMap((one) => this.#proposal(line, one, text) ?? [])
			.sort((a, b) => b.score - a.score);
	}

	#proposal(line: ToMatch, one: RecordedMoney, text: string): Proposal | null {
		const apart = Math.abs(daysBetween(one.date, line.date));
		if (apart > DAYS) return null;
		const marked = one.marks.some(
			(mark) => squeezed(mark).length >= 4 && text.includes(squeezed(mark))
		);
		const named =
			one.kind === 'payment' &&
			one.payer
				.toLowerCase()
				.split(/[^a-z0-9]+/)
				.some((word) => word.length >= 5 && text.includes(word));
		const score = 55 + (marked ? 45 : 0) + (named ? 30 : 0) - apart;
		const what =
			one.kind === 'payout'
				? `the payout of ${displayPounds(one.amount)}`
				: `the ${displayPounds(one.amount)} recorded for ${one.payer}`;
		return {
			payerId: one.payerId,
			payer: one.payer,
			shares: [],
			over: 0n,
			score: Math.max(0, Math.min(100, score)),
			sure: score >= 80,
			reasons: [
				`${what} is in the books already`,
				...(marked ? ['its reference stands in it'] : []),
				...(named ? [`${one.payer} stands in it`] : []),
				apart === 0 ? 'on the same day' : `${apart} ${apart === 1 ? 'day' : 'days'} apart`
			],
			recorded: { kind: one.kind, id: one.id }
		};
	}
}

/** The proposals of both, the best first; one is sure only where nothing else comes near it. */
export function together(fresh: readonly Proposal[], recorded: readonly Proposal[]): Proposal[] {
	if (recorded.length === 0) return [...fresh];
	const all = [...recorded, ...fresh].sort((a, b) => b.score - a.score);
	const [best, second] = all;
	const clear = !second || best!.score - second.score >= 15;
	return all
		.slice(0, 4)
		.map((one, index) => ({ ...one, sure: index === 0 && one.score >= 80 && clear }));
}
