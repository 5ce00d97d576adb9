// What tests of quotes begin with: one with a choice and two extras, sent, and accepted by its customer.
import { blankQuote } from '../../src/lib/core/quotes/terms';
import type { QuoteTerms, Sheet, SheetLine } from '../../src/lib/core/sheet/types';
import { addCustomer } from '../../src/lib/server/services/customers/customers';
import { acceptQuote } from '../../src/lib/server/services/quotes/accept';
import { beginQuote, loadQuote, saveQuote } from '../../src/lib/server/services/quotes/quotes';
import { prepareQuote, sendQuote } from '../../src/lib/server/services/quotes/send';
import type { World } from '../../src/lib/server/world';
import { HOUSEHOLD, line } from './world';

export const ceiling = (id: string, option: string, price: string, more: Partial<SheetLine> = {}) =>
	line(id, `Ceiling in ${option}`, price, { choice: { group: 'Ceiling', option }, ...more });

/** In laths it comes to 2,320.00 without the extras. */
export const ROWS = [
	line('base', 'Take the old ceiling down', '480'),
	ceiling('boards', 'boards', '1200', { kind: 'materials', cost: '700' }),
	ceiling('laths', 'laths and lime', '1840'),
	line('rose', 'Repair the rose', '200', { extra: true }),
	line('sockets', 'A socket moved', '40', { extra: true, most: '6', quantity: '1' })
];
export const FROM = { address: '192.0.2.7', agent: 'A phone' };
/** Nothing is chosen: of a quote that offers no choice. */
export const NONE = { options: {}, extras: {} };

export type QuoteGiven = [terms?: Partial<QuoteTerms>, sheet?: Partial<Sheet>, customer?: object];

export function quoteWritten(
	world: World,
	...[terms = {}, sheet = {}, customer = HOUSEHOLD]: QuoteGiven
): number {
	const customerId = addCustomer(world, customer);
	const id = beginQuote(world, `q${customerId}`, { customerId });
	saveQuote(world, id, 1, {
		...blankQuote(),
		customerId,
		pricesIncludeVat: true,
		rows: ROWS,
		...sheet,
		quote: { ...blankQuote().quote, title: 'Front room ceiling', deposit: '25%', ...terms }
	});
	return id;
}

export async function quoteSent(world: World, ...given: QuoteGiven): Promise<number> {
	const id = quoteWritten(world, ...given);
	await sendQuote(world, id, loadQuote(world.db, id).version, {
		key: 'a',
		...prepareQuote(world, id)
	});
	return id;
}

export const quoteAccepted = (
	world: World,
	id: number,
	more: Record<string, unknown> = {},
	way: 'page' | 'spot' = 'page'
) =>
	acceptQuote(
		world,
		id,
		{
			key: 'k1',
			n: loadQuote(world.db, id).sent,
			total: 2320_00,
			picked: JSON.stringify({ options: { Ceiling: 'laths and lime' }, extras: {} }),
			name: 'Odile Brancaster',
			...more
		},
		{ way, informed: 'page', from: FROM }
	);
