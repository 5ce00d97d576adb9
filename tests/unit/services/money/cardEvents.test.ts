// Every state of a card payment against every event of the processor: what is recorded, and in which state it ends.
import { expect } from 'chai';
import { eq, sql } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { checkouts } from '../../../../src/lib/server/db/schema';
import type { CardEvent } from '../../../../src/lib/server/gateways/card';
import { openCheckout } from '../../../../src/lib/server/services/money/checkouts';
import { expectSoundBooks } from '../../../support/books';
import { FIRM, itemOf, oneLine } from '../../../support/money';
import { issued, makeWorld, receive, type TestWorld } from '../../../support/world';

let world: TestWorld;
let invoice: number;
let count = 0;
beforeEach(async () => {
	world = makeWorld();
	invoice = (await issued(world, FIRM, oneLine('100'))).id;
	const { token } = world.db.get<{ token: string }>(
		sql`select token from documents where id = ${invoice}`
	)!;
	await openCheckout(world, token, 'k');
});
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

type Name = 'pending' | 'declined' | 'settled' | 'refund';
const event = (name: Name, amount = 120_00): CardEvent => ({
	id: `e-${count++}`,
	type: name === 'refund' ? 'refund.settled' : `payment.${name}`,
	checkout: 'chk-1',
	amount,
	fee: name === 'settled' ? 25 : 0,
	...(name === 'refund' ? { refund: `ref-${count}` } : {})
});
const state = () =>
	world.db.select().from(checkouts).where(eq(checkouts.processorId, 'chk-1')).get()!.state;

describe('card events', () => {
	/** What came before, what comes, the state after it, and the cash on the invoice in pence. */
	const table: [before: Name[], comes: Name, state: string, cash: number][] = [
		[[], 'pending', 'pending', 0],
		[[], 'declined', 'declined', 0],
		[[], 'settled', 'settled', 120_00],
		[['pending'], 'pending', 'pending', 0],
		[['pending'], 'declined', 'declined', 0],
		[['pending'], 'settled', 'settled', 120_00],
		// Declined, the customer may try again on the same page.
		[['declined'], 'pending', 'declined', 0],
		[['declined'], 'settled', 'settled', 120_00],
		[['declined'], 'declined', 'declined', 0],
		// Settled is the end: what arrives after it is late news.
		[['settled'], 'pending', 'settled', 120_00],
		[['settled'], 'declined', 'settled', 120_00],
		[['settled'], 'settled', 'settled', 120_00],
		[['settled'], 'refund', 'settled', 0]
	];
	for (const [before, comes, after, cash] of table)
		it(`${[...before, comes].join(', then ')}: ${after}, ${cash / 100} paid`, () => {
			for (const name of before) receive(world, event(name));
			receive(world, event(comes));
			expect([state(), itemOf(world, invoice).cash]).to.deep.equal([after, cash]);
		});

	it('the same event twice changes nothing the second time', () => {
		const once = event('settled');
		receive(world, once);
		receive(world, once);
		const refund = event('refund', 20_00);
		receive(world, refund);
		receive(world, refund);
		expect(itemOf(world, invoice)).to.include({ cash: 100_00, outstanding: 20_00 });
	});

	it('a part settles a part, and a refund of a part opens that part', () => {
		receive(world, event('settled', 50_00));
		expect(itemOf(world, invoice)).to.include({ cash: 50_00, toPay: 70_00, state: 'partPaid' });
		receive(world, event('refund', 30_00));
		expect(itemOf(world, invoice)).to.include({ cash: 20_00, toPay: 100_00, state: 'partPaid' });
	});
});
