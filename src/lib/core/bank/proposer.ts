// Everything that may be proposed for a bank line, the best first: what is open, what is in the books, what was paid before.
import { Matcher } from './match';
import { RecordedMatcher, together, type RecordedMoney } from './recorded';
import { PaidAlready, type SettledInvoice } from './twice';
import type { OpenInvoice, Proposal, ToMatch } from './types';

export interface Known {
	invoices: readonly OpenInvoice[];
	/** Names payers paid under before, and whose they are. */
	learned: readonly (readonly [string, number])[];
	recorded: readonly RecordedMoney[];
	settled: readonly SettledInvoice[];
}

/** Made once, asked for each line. */
export class Proposer {
	readonly #open: Matcher;
	readonly #recorded: RecordedMatcher;
	readonly #settled: PaidAlready;

	constructor({ invoices, learned, recorded, settled }: Known) {
		this.#open = new Matcher(invoices, new Map(learned));
		this.#recorded = new RecordedMatcher(recorded);
		this.#settled = new PaidAlready(settled);
	}

	propose(line: ToMatch): Proposal[] {
		const open = this.#open.propose(line);
		const twice = this.#settled.propose(line);
		return together(twice.length ? ranked(open, twice) : open, this.#recorded.propose(line));
	}
}

/** What pays something open comes first, unless the other is far more likely. */
function ranked(open: readonly Proposal[], twice: readonly Proposal[]): Proposal[] {
	const all = [...open, ...twice].sort((a, b) => b.score - a.score);
	const clear = all[0]!.score - twice[0]!.score >= 15;
	return all.map((one) => ({ ...one, sure: one.sure && clear }));
}
