// Money that arrived finds its invoice: by number, amount, amount less the deduction, several together, or who paid before.
import { slipsBetween } from '../spelling';
import { displayPounds } from '../money/display';
import type { Minor } from '../money/types';
import { deletions, LEAST_LETTERS, learnedName, squeezed, wordsOf, wordsOfLine } from './names';
import { otherMoney } from './otherMoney';
import { amountReason, bestOf, proposal, sameShares } from './proposal';
import { findSubset } from './subset';
import type { OpenInvoice, Proposal, ToMatch } from './types';

/** From here on, and well ahead of the next best, a proposal is sure. */
const SURE = 80;
const AHEAD = 15;
const LEAST = 30;

/** A word of a name that more payers than this share says nothing. */
const MOST_PAYERS = 12;

/** The open invoices by everything they can be found by; made once, asked for each line. */
export class Matcher {
	readonly #byNumber = new Map<string, OpenInvoice[]>();
	readonly #bySlip = new Map<string, OpenInvoice[]>();
	readonly #inOtherMoney: OpenInvoice[] = [];
	readonly #byAmount = new Map<Minor, OpenInvoice[]>();
	readonly #byPayer = new Map<number, OpenInvoice[]>();
	readonly #byWord = new Map<string, Set<number>>();
	readonly #wordCount = new Map<number, number>();

	constructor(
		invoices: readonly OpenInvoice[],
		/** A remembered name → the payer it belonged to. */
		readonly learned: ReadonlyMap<string, number>
	) {
		const put = <K>(map: Map<K, OpenInvoice[]>, key: K, invoice: OpenInvoice) => {
			const list = map.get(key);
			if (!list) map.set(key, [invoice]);
			else if (!list.includes(invoice)) list.push(invoice);
		};
		for (const invoice of invoices) {
			if (invoice.currency) this.#inOtherMoney.push(invoice);
			const number = squeezed(invoice.number);
			put(this.#byNumber, number, invoice);
			for (const reference of invoice.references)
				if (squeezed(reference).length >= LEAST_LETTERS)
					put(this.#byNumber, squeezed(reference), invoice);
			if (number.length >= 5) {
				put(this.#bySlip, number, invoice);
				for (const slip of deletions(number)) put(this.#bySlip, slip, invoice);
			}
			// The digits alone, where they are long enough to mean something.
			const digits = /\d{3,}$/.exec(number)?.[0];
			if (digits && digits !== number) put(this.#byNumber, digits, invoice);
			// Pounds say little of what is in other money: its number or its payer has to.
			if (invoice.currency) continue;
			put(this.#byAmount, invoice.toPay, invoice);
			if (invoice.outstanding !== invoice.toPay) put(this.#byAmount, invoice.outstanding, invoice);
			put(this.#byPayer, invoice.payerId, invoice);
		}
		for (const [payerId, [first]] of this.#byPayer) {
			for (const word of new Set(wordsOf(first!.payer))) {
				const known = this.#byWord.get(word) ?? new Set();
				known.add(payerId);
				this.#byWord.set(word, known);
			}
		}
		// A word that many payers share tells none of them apart.
		for (const [word, payers] of this.#byWord) {
			if (payers.size > MOST_PAYERS) this.#byWord.delete(word);
			else
				for (const payerId of payers)
					this.#wordCount.set(payerId, (this.#wordCount.get(payerId) ?? 0) + 1);
		}
	}

	/** What is proposed for a line, the best first. */
	propose(line: ToMatch): Proposal[] {
		const named = this.#payersNamed(line);
		const numbers = this.#numbersIn(line.text);
		const found: Proposal[] = [];
		const payers = new Set([
			...named.keys(),
			...[...numbers.keys()].flatMap((invoice) => (invoice.currency ? [] : [invoice.payerId]))
		]);
		for (const payerId of payers)
			found.push(...this.#ofPayer(line, payerId, named.get(payerId), numbers));
		const exact = (this.#byAmount.get(line.amount) ?? []).filter(
			(invoice) => !payers.has(invoice.payerId)
		);
		// An amount alone says little, and less where several invoices have it.
		for (const invoice of exact.slice(0, 4))
			found.push(
				proposal(line, [invoice], exact.length === 1 ? 45 : 32, [
					amountReason(line, invoice),
					exact.length === 1
						? 'no other open invoice has this amount'
						: `${exact.length} open invoices have this amount`
				])
			);
		found.push(...otherMoney(line, this.#inOtherMoney, numbers));
		const best = bestOf(found.filter((one) => one.score >= LEAST));
		const second = best.find((one) => !sameShares(one, best[0]!))?.score ?? 0;
		return best.slice(0, 4).map((one, index) => ({
			...one,
			// What pounds are worth in other money is for the owner to see.
			sure:
				index === 0 &&
				!one.shares.some(({ currency }) => currency) &&
				one.score >= SURE &&
				one.score - second >= AHEAD
		}));
	}

	/** Payers whose name stands in the line, or who paid under it before. */
	#payersNamed(line: ToMatch): Map<number, { score: number; reason: string }> {
		const named = new Map<number, { score: number; reason: string }>();
		const counts = new Map<number, number>();
		for (const word of wordsOfLine(line))
			for (const payerId of this.#byWord.get(word) ?? [])
				counts.set(payerId, (counts.get(payerId) ?? 0) + 1);
		for (const [payerId, count] of counts) {
			const share = count / Math.max(1, this.#wordCount.get(payerId) ?? 1);
			if (share < 0.5) continue;
			const name = this.#byPayer.get(payerId)![0]!.payer;
			named.set(payerId, { score: Math.round(20 + 15 * share), reason: `${name} stands in it` });
		}
		const remembered = this.learned.get(learnedName(line));
		if (remembered !== undefined && this.#byPayer.has(remembered))
			named.set(remembered, {
				score: 42,
				reason: `${this.#byPayer.get(remembered)![0]!.payer} paid under this name before`
			});
		return named;
	}

	/** Invoices whose number stands in a text, exactly or with one slip. */
	#numbersIn(text: string): Map<OpenInvoice, { score: number; reason: string }> {
		const found = new Map<OpenInvoice, { score: number; reason: string }>();
		const words = text.split(/[\s,;:+&]+/).map(squeezed);
		// "OLP 0274" is two words to a bank and one to us.
		const pairs = words.slice(1).map((word, index) => ({
			token: words[index]! + word,
			parts: [words[index]!, word]
		}));
		const tokens = [...words.map((token) => ({ token, parts: [token] })), ...pairs];
		const exact = new Set<string>();
		for (const { token } of tokens) {
			if (token.length < 3) continue;
			for (const invoice of this.#byNumber.get(token) ?? []) {
				exact.add(token);
				const whole = token === squeezed(invoice.number);
				const reference = !whole && invoice.references.some((one) => squeezed(one) === token);
				const score = whole ? 60 : reference ? 50 : 45;
				if ((found.get(invoice)?.score ?? 0) < score)
					found.set(invoice, {
						score,
						reason: whole
							? `${invoice.number} stands in it`
							: reference
								? `their reference for ${invoice.number} stands in it`
								: `the digits of ${invoice.number} stand in it`
					});
			}
		}
		for (const { token, parts } of tokens) {
			if (token.length < 5 || token.length > 20 || !/\d/.test(token)) continue;
			// Neighbouring numbers are one slip apart: what is a number as it stands is not taken for another.
			if (exact.has(token) || parts.some((part) => exact.has(part))) continue;
			for (const slip of [token, ...deletions(token)])
				for (const invoice of this.#bySlip.get(slip) ?? [])
					if (!found.has(invoice) && slipsBetween(token, squeezed(invoice.number), 1) <= 1)
						found.set(invoice, {
							score: 35,
							reason: `${invoice.number} stands in it with a slip (“${token}”)`
						});
		}
		return found;
	}

	#ofPayer(
		line: ToMatch,
		payerId: number,
		named: { score: number; reason: string } | undefined,
		numbers: Map<OpenInvoice, { score: number; reason: string }>
	): Proposal[] {
		const open = this.#byPayer.get(payerId) ?? [];
		const quoted = open.filter((invoice) => numbers.has(invoice));
		const nameScore = named?.score ?? 0;
		const nameReasons = named ? [named.reason] : [];
		const found: Proposal[] = [];
		if (quoted.length > 0) {
			const reasons = [...quoted.map((one) => numbers.get(one)!.reason), ...nameReasons];
			const base =
				Math.max(...quoted.map((one) => numbers.get(one)!.score)) + Math.min(nameScore, 15);
			const toPay = quoted.reduce((sum, one) => sum + one.toPay, 0n);
			const gross = quoted.reduce((sum, one) => sum + one.outstanding, 0n);
			if (toPay === line.amount || gross === line.amount)
				found.push(
					proposal(line, quoted, base + 35, [
						...reasons,
						quoted.length === 1
							? amountReason(line, quoted[0]!)
							: `together they come to ${displayPounds(line.amount)}`
					])
				);
			else if (line.amount < toPay)
				found.push(
					proposal(line, quoted, base, [
						...reasons,
						`${displayPounds(toPay - line.amount)} less than is to pay`
					])
				);
			else
				found.push(
					proposal(line, quoted, base, [
						...reasons,
						`${displayPounds(line.amount - toPay)} more than is to pay`
					])
				);
		}
		const exact = open.filter(
			(one) => one.toPay === line.amount || one.outstanding === line.amount
		);
		for (const invoice of exact.slice(0, 3))
			if (!quoted.includes(invoice))
				found.push(
					proposal(line, [invoice], nameScore + (exact.length === 1 ? 50 : 35), [
						...nameReasons,
						amountReason(line, invoice)
					])
				);
		if (exact.length === 0 && open.length > 1) {
			const subset = findSubset(
				open.map((one) => one.toPay),
				line.amount
			);
			if (subset && subset.length > 1)
				found.push(
					proposal(
						line,
						subset.map((index) => open[index]!),
						nameScore + 45,
						[
							...nameReasons,
							subset.length === open.length
								? `all ${open.length} of their open invoices come to it`
								: `${subset.length} of their open invoices come to it together`
						]
					)
				);
		}
		if (found.length === 0 && named)
			found.push(
				proposal(line, open, nameScore, [
					named.reason,
					'no open invoice has this amount: the one due first, first'
				])
			);
		return found;
	}
}
