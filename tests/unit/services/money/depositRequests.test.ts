// The deposit of a quote: asked for online, paid by any way, invoiced on the day it came, once.
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../../src/lib/core/calendar/conversion';
import { FieldError, NotFoundError, RefusedError } from '../../../../src/lib/core/refusals';
import {
	documents,
	journalEntries,
	journalLines,
	openItems,
	payments,
	quoteTrail
} from '../../../../src/lib/server/db/schema';
import { inHandOf } from '../../../../src/lib/server/services/ledger/inHand';
import {
	receiveBankEvent,
	receiveCardEvent
} from '../../../../src/lib/server/services/money/cardEvents';
import {
	invoiceDeposits,
	lastDepositTry,
	openDepositCheckout,
	recordDeposit
} from '../../../../src/lib/server/services/money/depositRequests';
import { cancelByCustomer } from '../../../../src/lib/server/services/quotes/cancel';
import { quotePage } from '../../../../src/lib/server/services/quotes/page';
import { loadQuote } from '../../../../src/lib/server/services/quotes/quotes';
import { expectSoundBooks } from '../../../support/books';
import { NONE, quoteAccepted, type QuoteGiven, quoteSent } from '../../../support/quotes';
import { CONTRACTOR, line, makeWorld, settledEvent, type TestWorld } from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});
const sent = (...given: QuoteGiven) => quoteSent(world, ...given);
const accept = (id: number, more: Record<string, unknown> = {}) => quoteAccepted(world, id, more);
const token = (id: number) => loadQuote(world.db, id).token;
/** 2,320.00 with VAT, a quarter of it asked for: 580.00. */
async function asked() {
	const id = await sent({ deposit: '25%' });
	accept(id);
	return id;
}
const refusedWith = (work: Promise<unknown>) =>
	work.then(
		() => expect.fail('it was not refused'),
		(problem: unknown) => problem
	);

describe('the deposit', () => {
	it('is paid online, invoiced on that day to the penny, once, and the rest stays to bill', async () => {
		const id = await sent({ deposit: '25%' });
		accept(id);
		const first = await openDepositCheckout(world, token(id), 'card:1', 'card');
		expect(await openDepositCheckout(world, token(id), 'card:1', 'card')).to.equal(first);
		world.clock.set(londonMoment('2026-11-25T10:00'));
		const event = settledEvent('chk-1', 580_00, 'e1');
		receiveCardEvent(world, event, '{}');
		receiveCardEvent(world, event, '{}');
		await invoiceDeposits(world);
		await invoiceDeposits(world);
		const issued = world.db
			.select()
			.from(documents)
			.all()
			.filter(({ state }) => state === 'issued');
		expect(issued).to.have.length(1);
		expect(issued[0]).to.include({ total: 580_00, taxPoint: '2026-11-25' });
		expect(world.db.select().from(openItems).get()).to.include({ outstanding: 0, state: 'paid' });
		expect(quotePage(world, token(id)).deposit).to.deep.equal({
			amount: 580_00,
			deduction: 0,
			state: 'invoiced'
		});
		await openDepositCheckout(world, token(id), 'card:2', 'card').then(
			() => expect.fail('it was paid'),
			(error: Error) => expect(error.message).to.match(/No deposit/)
		);
	});
});

describe('the deposit of a contractor', () => {
	it('is asked for without what it deducts, and its invoice is settled by exactly that', async () => {
		const id = await sent(
			{ deposit: '50%' },
			{
				pricesIncludeVat: false,
				contract: 'construction',
				rows: [
					line('a', 'Lime render', '800'),
					line('b', 'Lime and sand', '200', { kind: 'materials', cost: '200' })
				]
			},
			CONTRACTOR
		);
		accept(id, { total: 1000_00, picked: JSON.stringify(NONE), name: 'A. Beacon' });
		// Half of 1,000 under the reverse charge; of it 400 labour, of which 20 % go to the tax office.
		expect(quotePage(world, token(id)).deposit).to.deep.equal({
			amount: 500_00,
			deduction: 80_00,
			state: 'asked'
		});
		await openDepositCheckout(world, token(id), 'card:1', 'card');
		expect(world.checkouts.at(-1)!.amount).to.equal(420_00);
		receiveCardEvent(world, settledEvent('chk-1', 420_00, 'e1'), '{}');
		await invoiceDeposits(world);
		const item = world.db.select().from(openItems).get()!;
		expect(item).to.include({ outstanding: 0, toPay: 0, state: 'paid', overpaid: 0 });
	});
});

describe('a deposit that is asked for', () => {
	it('is asked of the processor and of the bank with what it is for, and where the answer goes', async () => {
		const id = await asked();
		const requests: Record<string, unknown>[] = [];
		const { openCheckout } = world.card;
		const { openTransfer } = world.bank;
		world.card.openCheckout = (request) => (requests.push({ ...request }), openCheckout(request));
		world.bank.openTransfer = (request) => (requests.push({ ...request }), openTransfer(request));
		expect(lastDepositTry(world.db, id)).to.equal(null);
		await openDepositCheckout(world, token(id), 'c', 'card');
		expect(lastDepositTry(world.db, id)).to.deep.equal({
			way: 'card',
			state: 'open',
			amount: 580_00
		});
		await openDepositCheckout(world, token(id), 'b', 'bank');
		expect(lastDepositTry(world.db, id)).to.deep.include({ way: 'bank' });
		const same = { amount: 580_00, description: 'Deposit, Q-0001' };
		expect(requests[0]).to.include({
			...same,
			key: 'c',
			webhookUrl: `${world.origin}/webhooks/card`
		});
		expect(requests[1]).to.include({
			...same,
			key: 'b',
			reference: 'Q-0001',
			webhookUrl: `${world.origin}/webhooks/bank`
		});
		for (const [index, way] of ['card', 'bank'].entries())
			expect(requests[index]!.returnUrl)
				.to.match(new RegExp(`^${world.origin}/q/[\\w-]{20,}\\?from=${way}$`))
				.and.contain(token(id));
	});

	it('is none before the quote is accepted, nor where none was wanted', async () => {
		const id = await sent({ deposit: '25%' });
		expect(await refusedWith(openDepositCheckout(world, token(id), 'c', 'card'))).to.be.instanceOf(
			RefusedError
		);
		expect(() => recordDeposit(world, id, { key: 'a', date: '', way: 'cash' })).to.throw(
			NotFoundError
		);
	});

	it('that came by transfer from the bank is told on the quote, and invoiced', async () => {
		const id = await asked();
		await openDepositCheckout(world, token(id), 'b', 'bank');
		receiveBankEvent(
			world,
			{ id: 'e', type: 'transfer.settled', transfer: 'trf-1', amount: 580_00 },
			'{}'
		);
		expect(quotePage(world, token(id)).deposit!.state).to.equal('paid');
		await invoiceDeposits(world);
		expect(world.db.select().from(openItems).get()).to.include({ state: 'paid', cash: 580_00 });
	});
});

describe('a deposit written down by hand', () => {
	const by = (id: number, more: object = {}) =>
		recordDeposit(world, id, { key: 'k', date: '2026-11-24', way: 'cheque', ...more });

	for (const [way, account] of [
		['bank', 'bank'],
		['cheque', 'bank'],
		['cash', 'cash']
	] as const)
		it(`by ${way} comes into its account, is told on the quote, and is invoiced on its day`, async () => {
			const id = await asked();
			world.clock.set(londonMoment('2026-11-26T09:00'));
			by(id, { way, date: '2026-11-25' });
			by(id, { way, date: '2026-11-25' });
			const paid = world.db.select().from(payments).all();
			expect(paid).to.have.length(1);
			expect(paid[0]).to.include({
				way,
				source: 'hand',
				date: '2026-11-25',
				amount: 580_00,
				reference: 'Deposit',
				fee: 0
			});
			const posted = world.db
				.select({ account: journalLines.account, amount: journalLines.amount })
				.from(journalLines)
				.innerJoin(journalEntries, eq(journalEntries.id, journalLines.entryId))
				.all();
			expect(posted).to.deep.equal([
				{ account, amount: 580_00 },
				{ account: 'customerCredit', amount: -580_00 }
			]);
			const told = world.db
				.select({ what: quoteTrail.what, detail: quoteTrail.detail })
				.from(quoteTrail)
				.where(eq(quoteTrail.quoteId, id))
				.all()
				.filter(({ what }) => what === 'depositPaid');
			expect(told).to.deep.equal([{ what: 'depositPaid', detail: '£580.00' }]);
			await invoiceDeposits(world);
			const [invoice] = world.db.select().from(documents).all();
			expect(invoice).to.include({ state: 'issued', total: 580_00, taxPoint: '2026-11-25' });
			expect(quotePage(world, token(id)).deposit!.state).to.equal('invoiced');
		});

	it('is of no day to come, by a way there is, and once: another press is refused', async () => {
		const id = await asked();
		const wrong = (more: object) => {
			try {
				by(id, more);
			} catch (problem) {
				return (problem as FieldError).fields;
			}
			return null;
		};
		expect(wrong({ date: '2026-11-25' })).to.deep.equal({ date: 'That day has not come yet.' });
		expect(Object.keys(wrong({ way: 'card' })!)).to.deep.equal(['way']);
		expect(world.db.select().from(payments).all()).to.deep.equal([]);
		expect(wrong({ date: '' })).to.equal(null);
		// Without a day it is today's.
		expect(world.db.select().from(payments).get()!.date).to.equal('2026-11-24');
		expect(() => by(id, { key: 'another' })).to.throw(RefusedError, 'paid already');
		expect(world.db.select().from(payments).all()).to.have.length(1);
	});

	it('of a contract that was cancelled before it was invoiced stays in hand', async () => {
		const id = await asked();
		by(id);
		cancelByCustomer(world, id);
		await invoiceDeposits(world);
		expect(world.db.select().from(documents).all()).to.deep.equal([]);
		const { payerId } = world.db.select().from(payments).get()!;
		expect(inHandOf(world.db, payerId!).map(({ amount }) => amount)).to.deep.equal([580_00]);
	});
});
