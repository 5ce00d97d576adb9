// What goes with a job sheet, in the owner's words.
import { sender, type Message } from '../documents/wording';
import type { SellerFacts } from '../documents/types';
import { fillWords } from '../wordings/fill';
import { greetingOf, wordsOf, type Voice } from '../wordings/kinds';

export interface SheetToTell {
	title: string;
	/** `J-0007/1`. */
	number: string;
	place: string;
	/** Who signed it; empty: nobody yet. */
	signed: string;
}

export const sheetMessage = (
	voice: Voice,
	customer: { name: string; household: boolean },
	seller: Pick<SellerFacts, 'tradingName' | 'ownerName' | 'phone'>,
	{ title, number, place, signed }: SheetToTell
): Message =>
	fillWords(wordsOf(voice, 'jobSheet'), {
		...sender(seller),
		greeting: greetingOf(voice, customer.household, customer.name),
		customer: customer.name,
		title,
		number,
		place,
		signed: signed ? `${signed} signed it.` : 'Please look at it and sign it on that page.'
	});
