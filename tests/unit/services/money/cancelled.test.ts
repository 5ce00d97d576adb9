// What is left of a contract that was cancelled in time: its deposit credited, the share of what was done invoiced, once.
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { FieldError, NotFoundError, RefusedError } from '../../../../src/lib/core/refusals';
import { documents, openItems } from '../../../../src/lib/server/db/schema';
import { loadDraft } from '../../../../src/lib/server/services/invoices/drafts';
import { issueInvoice } from '../../../../src/lib/server/services/invoices/issue';
import { jobWork } from '../../../../src/lib/server/services/jobs/work';
import { inHandOf } from '../../../../src/lib/server/services/ledger/inHand';
import { settleCancelled } from '../../../../src/lib/server/services/money/cancelled';
import { receiveCardEvent } from '../../../../src/lib/server/services/money/cardEvents';
import {
	invoiceDeposits,
	openDepositCheckout
} from '../../../../src/lib/server/services/money/depositRequests';
import { cancelByCustomer } from '../../../../src/lib/server/services/quotes/cancel';
import { loadQuote } from '../../../../src/lib/server/services/quotes/quotes';
import { expectSoundBooks } from '../../../support/books';
import { NONE, quoteAccepted, type QuoteGiven, quoteSent } from '../../../support/quotes';
import { line, makeWorld, settledEvent, type TestWorld } from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});
const sent = (...given: QuoteGiven) => quoteSent(world, ...given);
const accept = (id: number, more: Record<string, unknown> = {}) => quoteAccepted(world, id, more);
const token = (id: number) => loadQuote(world.db, id).token;
const expectRefused = (
	work: Promise<unknown>,
	as: new (...given: never[]) => Error = RefusedError
) =>
	work.then(
		() => expect.fail('it was not refused'),
		(problem: unknown) => expect(problem).to.be.instanceOf(as)
	);

describe('what was cancelled is settled', () => {
	it('the deposit’s invoice is credited, the share invoiced with the VAT of its lines, once; the rest stands in hand', async () => {
		const id = await sent({ deposit: '25%' }, { rows: [line('a', 'Labour', '1000')] });
		accept(id, {
			total: 1000_00,
			picked: JSON.stringify(NONE),
			begin: true,
			acknowledged: true
		});
		await expectRefused(settleCancelled(world, id, { done: '{}' }));
		await openDepositCheckout(world, token(id), 'card:1', 'card');
		receiveCardEvent(world, settledEvent('chk-1', 250_00, 'e1'), '{}');
		await invoiceDeposits(world);
		cancelByCustomer(world, id);
		const lineId = jobWork(world.db, loadQuote(world.db, id).jobId!).lines[0]!.id;
		for (const done of [
			'nonsense',
			`{"${lineId}":101}`,
			`{"${lineId}":-1}`,
			'{"x":1}',
			'{"1234567890123":1}'
		])
			await settleCancelled(world, id, { done }).then(
				() => expect.fail(done),
				(problem) =>
					expect((problem as FieldError).fields).to.deep.equal({
						done: 'How much was done, from 0 to 100 %?'
					})
			);
		// A line of no such contract counts for nothing, whatever its number.
		const settle = () => settleCancelled(world, id, { done: `{"${lineId}":20,"123456789012":50}` });
		const draft = (await settle())!;
		expect(await settle()).to.equal(draft);
		const all = world.db.select().from(documents).all();
		expect(all.map(({ kind, state, total }) => [kind, state, total])).to.deep.equal([
			['invoice', 'issued', 250_00],
			['creditNote', 'issued', 250_00],
			// A fifth of 1,000.00, its VAT within.
			['invoice', 'draft', 200_00]
		]);
		await issueInvoice(world, draft, loadDraft(world.db, draft).version);
		const bill = world.db.select().from(documents).where(eq(documents.id, draft)).get()!;
		expect([bill.net, bill.vatCharged]).to.deep.equal([166_67, 33_33]);
		const { payerId } = world.db.select().from(openItems).get()!;
		expect(inHandOf(world.db, payerId).reduce((sum, { amount }) => sum + amount, 0)).to.equal(
			250_00
		);
	});

	it('nothing is owed where they did not ask for an early begin', async () => {
		const id = await sent({ deposit: '' }, { rows: [line('a', 'Labour', '1000')] });
		accept(id, { total: 1000_00, picked: JSON.stringify(NONE) });
		cancelByCustomer(world, id);
		expect(await settleCancelled(world, id, { done: '{"1":50}' })).to.equal(null);
		expect(world.db.select().from(documents).all()).to.deep.equal([]);
	});

	it('of several lines, those of which nothing was done are left out; each keeps its rate and reason', async () => {
		const id = await sent(
			{ deposit: '' },
			{
				rows: [
					line('a', 'Labour', '1000'),
					line('b', 'Empty home', '400', { vat: 'reduced', vatReason: 'emptyHome' }),
					line('c', 'Sand', '60', { kind: 'materials' })
				]
			}
		);
		accept(id, { total: 1460_00, picked: JSON.stringify(NONE), begin: true, acknowledged: true });
		cancelByCustomer(world, id);
		const [a, b] = jobWork(world.db, loadQuote(world.db, id).jobId!).lines;
		const done = JSON.stringify({ [a!.id]: 33.5, [b!.id]: 50 });
		const { sheet } = loadDraft(world.db, (await settleCancelled(world, id, { done }))!);
		expect(sheet).to.include({ pricesIncludeVat: true, workFinished: '24 Nov 2026' });
		expect(sheet.rows.map((row) => row.type === 'line' && [row.income, row.centre])).to.deep.equal([
			['', ''],
			['', '']
		]);
		expect(
			sheet.rows.map((row) => row.type === 'line' && [row.unitPrice, row.vat, row.vatReason])
		).to.deep.equal([
			['335.00', 'standard', ''],
			['200.00', 'reduced', 'emptyHome']
		]);
		expect((sheet.rows[0] as { description: string }).description).to.equal(
			'Labour: 33.5 % of it, supplied at your request before your notice of 24 Nov 2026'
		);
	});

	it('of no contract, or of one that stands, is refused; nothing is typed for nothing', async () => {
		await expectRefused(settleCancelled(world, 99, { done: '' }), NotFoundError);
		const id = await sent({ deposit: '' }, { rows: [line('a', 'Labour', '1000')] });
		await expectRefused(settleCancelled(world, id, { done: '' }), NotFoundError);
		accept(id, { total: 1000_00, picked: JSON.stringify(NONE), begin: true, acknowledged: true });
		await expectRefused(settleCancelled(world, id, { done: '' }));
		cancelByCustomer(world, id);
		// Nothing done of what was asked for early is nothing owed.
		expect(await settleCancelled(world, id, { done: '' })).to.equal(null);
	});
});
