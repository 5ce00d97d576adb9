// What messages about a quote say.
import { displayDate } from '../calendar/conversion';
import type { PlainDate } from '../calendar/types';
import { nameOf, sender, type Message } from '../documents/wording';
import type { Frozen } from '../documents/types';
import { displayPounds } from '../money/display';
import { fillWords, type Values } from '../wordings/fill';
import { greetingOf, wordsOf, type Voice, type WordingKind } from '../wordings/kinds';
import type { QuoteFigures } from './figures';
import { quoteName } from './terms';

export interface QuoteToTell {
	number: string;
	validUntil: PlainDate;
	quote: Pick<QuoteFigures, 'figures' | 'lowest' | 'highest'>;
	/** What was accepted, and what is asked for because of it. */
	accepted?: { total: bigint; deposit: bigint; cancel: string };
}

/** `£2,400.00 to £3,612.00` where there is a choice, or what it comes to. */
export function rangeWords({ figures, lowest, highest }: QuoteToTell['quote']): string {
	return lowest !== null && highest !== null && lowest !== highest
		? `${displayPounds(lowest)} to ${displayPounds(highest)}`
		: displayPounds(figures.total);
}

/** What the fields of a message about a quote become. */
export function quoteValues(
	frozen: Frozen,
	{ number, validUntil, quote, accepted }: QuoteToTell,
	voice: Voice
): Values {
	const { seller, customer, sheet } = frozen;
	const terms = sheet.quote!;
	const site = customer.sites.find(({ id }) => id === sheet.siteId)?.name ?? '';
	return {
		...sender(seller),
		greeting: greetingOf(voice, customer.kind === 'household' && !customer.billTo, customer.name),
		customer: customer.name,
		document: quoteName(terms).toLowerCase(),
		number,
		title: terms.title.trim(),
		site,
		until: displayDate(validUntil),
		amount: accepted ? displayPounds(accepted.total) : rangeWords(quote),
		binds: terms.binding ? '' : 'It is an estimate: our best guess, which does not bind.',
		deposit: accepted && accepted.deposit > 0n ? displayPounds(accepted.deposit) : '',
		cancel: accepted?.cancel ?? ''
	};
}

export const quoteMessage = (
	frozen: Frozen,
	tell: QuoteToTell,
	voice: Voice,
	kind: Extract<
		WordingKind,
		'quote' | 'quoteReminder' | 'quoteExpires' | 'accepted' | 'depositRequest'
	> = 'quote'
): Message => fillWords(wordsOf(voice, kind), quoteValues(frozen, tell, voice));

export { nameOf };
