// Pounds that pay an invoice in other money: told by its number, or by who paid and about how much it was.
import { absolute, divideRounded, formatDecimal } from '../money/decimal';
import { CURRENCY_NAMES } from '../money/currencies';
import { displayMoney } from '../money/display';
import type { Minor } from '../money/types';
import { isNamed, wordsOfLine } from './names';
import type { OpenInvoice, Proposal, ToMatch } from './types';

/** Rates move, and banks keep something: so many percent off is still about the same. */
const ABOUT = 6n;
/** As far off as this it is another sum. */
const FAR = 25n;

const within = (amount: Minor, of: Minor, percent: bigint): boolean =>
	absolute(amount - of) * 100n <= of * percent;

/** What is proposed, each for one invoice that the whole line stands against; never sure. */
export function otherMoney(
	line: ToMatch,
	invoices: readonly OpenInvoice[],
	numbers: ReadonlyMap<OpenInvoice, { score: number; reason: string }>
): Proposal[] {
	const words = wordsOfLine(line);
	return invoices.flatMap((invoice): Proposal[] => {
		const { currency, toPaySterling = 0n } = invoice;
		if (!currency || invoice.toPay <= 0n || toPaySterling <= 0n) return [];
		const named = isNamed(invoice.payer, words);
		const number = numbers.get(invoice);
		const about = within(line.amount, toPaySterling, ABOUT);
		if (!within(line.amount, toPaySterling, FAR) || (!number && !(named && about))) return [];
		const rate = {
			units: divideRounded(line.amount * 10_000n, invoice.toPay),
			scale: 4
		};
		return [
			{
				payerId: invoice.payerId,
				payer: invoice.payer,
				shares: [
					{
						documentId: invoice.documentId,
						number: invoice.number,
						amount: invoice.toPay,
						currency,
						withheld: null
					}
				],
				over: 0n,
				score: Math.min(75, (number?.score ?? 0) + (named ? 30 : 0) + (about ? 15 : 0)),
				sure: false,
				reasons: [
					...(number ? [number.reason] : []),
					...(named ? [`${invoice.payer} stands in it`] : []),
					`${displayMoney(invoice.toPay, currency)} is to pay: the bank would have given ${formatDecimal(rate)} pounds for one ${CURRENCY_NAMES[currency].one}`
				]
			}
		];
	});
}
