// Two presses at the same moment, a payment on its way, a clock that goes back: the books are sound whoever comes first.
import { expect } from 'chai';
import { eq, sql } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../../src/lib/core/calendar/conversion';
import { FieldError, NotFoundError, RefusedError } from '../../../../src/lib/core/refusals';
import { documents, payments } from '../../../../src/lib/server/db/schema';
import { releaseRetention } from '../../../../src/lib/server/services/billing/retentions';
import { billStage } from '../../../../src/lib/server/services/billing/stages';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { creditInvoice, creditPart } from '../../../../src/lib/server/services/invoices/creditNote';
import { correctAsDraft } from '../../../../src/lib/server/services/invoices/corrections';
import { loadDraft, saveDraft } from '../../../../src/lib/server/services/invoices/drafts';
import { issueInvoice } from '../../../../src/lib/server/services/invoices/issue';
import { addJob } from '../../../../src/lib/server/services/jobs/jobs';
import { openCheckout } from '../../../../src/lib/server/services/money/checkouts';
import { issueAndSend } from '../../../../src/lib/server/services/money/issueAndSend';
import { recordForPayer } from '../../../../src/lib/server/services/money/payerPayments';
import { refundByHand, refundCard } from '../../../../src/lib/server/services/money/refunds';
import { CardUnavailableError } from '../../../../src/lib/server/gateways/card';
import { undoPayment } from '../../../../src/lib/server/services/money/undo';
import { useAllInHand, useInHand } from '../../../../src/lib/server/services/money/useInHand';
import { undoWriteOff, writeOff } from '../../../../src/lib/server/services/money/writeOffs';
import { badDebts, settleRelief } from '../../../../src/lib/server/services/tax/badDebts';
import { expectSoundBooks } from '../../../support/books';
import { another, FIRM, itemOf, oneLine, payByHand } from '../../../support/money';
import {
	CONTRACTOR,
	HOUSEHOLD,
	issued,
	makeWorld,
	receive,
	settledEvent,
	type TestWorld
} from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const outcome = <T>(work: Promise<T>) =>
	work.then(
		() => 'done',
		(error: unknown) => (error instanceof RefusedError ? 'refused' : Promise.reject(error as Error))
	);
const issue = (id: number) => issueInvoice(world, id, loadDraft(world.db, id).version);
const at = (day: string) => world.clock.set(londonMoment(`${day}T09:00`));

describe('at the same moment', () => {
	it('a whole credit and one of a part: never more than the invoice', async () => {
		const { id } = await issued(world, CONTRACTOR, oneLine('1000'));
		const part = {
			key: 'part',
			reason: 'x',
			again: true,
			wishes: () => [{ position: 0, amount: 400_00n }]
		};
		const both = await Promise.all([
			outcome(creditInvoice(world, id, 'x', 'whole')),
			outcome(creditPart(world, id, part))
		]);
		expect(both).to.deep.equal(['done', 'refused']);
		expect(itemOf(world, id).credited).to.equal(1000_00);
	});

	it('a credit and a correction of one invoice: one of them', async () => {
		const { id } = await issued(world, HOUSEHOLD, oneLine('1000'));
		const draft = correctAsDraft(world, id, 'k');
		const { sheet, version } = loadDraft(world.db, draft);
		saveDraft(world, draft, version, { ...sheet, about: { ...sheet.about!, reason: 'x' } });
		const wish = { sendTo: null, copyToSelf: false, useInHand: false };
		const both = await Promise.all([
			outcome(issueAndSend(world, draft, version + 1, wish)),
			outcome(creditInvoice(world, id, 'x', 'c'))
		]);
		expect(both).to.deep.equal(['done', 'refused']);
		expect(itemOf(world, id).credited).to.equal(itemOf(world, id).total);
	});

	it('a release and a credit of its stage: what was held is billed once, or not at all', async () => {
		for (const order of ['release', 'credit']) {
			const job = addJob(world, order, {
				title: order,
				customerId: addCustomer(world, { ...CONTRACTOR, name: order }),
				contract: 'construction',
				pricesIncludeVat: false,
				retention: '5',
				lines: [{ kind: 'labour', description: 'Render', quantity: '1', unitPrice: '1000' }]
			});
			const stage = await issue(
				billStage(world, job, `s-${order}`, {
					kind: 'stage',
					by: 'rest',
					percent: '',
					amount: '',
					done: {}
				})
			);
			const release = releaseRetention(world, job, `r-${order}`);
			const presses = [
				() => outcome(issue(release)),
				() => outcome(creditInvoice(world, stage.id, 'x', `c-${order}`))
			];
			if (order === 'credit') presses.reverse();
			const both = await Promise.all(presses.map((press) => press()));
			expect(both, order).to.deep.equal(['done', 'refused']);
		}
	});

	it('a credit while a card payment is on its way: what arrives is in hand, to be given back', async () => {
		const { id } = await issued(world, HOUSEHOLD, oneLine('100'));
		const { token } = world.db.select().from(documents).where(eq(documents.id, id)).get()!;
		await openCheckout(world, token!, 'k1');
		await creditInvoice(world, id, 'Wrong customer', 'c');
		receive(world, settledEvent(world.checkouts[0]!.id, 120_00));
		expect(itemOf(world, id)).to.include({ state: 'credited', inHand: 120_00, overpaid: 120_00 });
		receive(world, settledEvent(world.checkouts[0]!.id, 120_00));
		expect(itemOf(world, id).inHand).to.equal(120_00);
	});
});

describe('a payment that is undone although its money was used', () => {
	it('on three invoices takes it back from all of them', async () => {
		const first = await issued(world, FIRM, oneLine('100'));
		const others = [];
		for (const price of ['101', '102'])
			others.push((await another(world, first.customerId, price)).id);
		const payment = recordForPayer(world, first.customerId, {
			key: 'p',
			date: '2026-11-24',
			amount: '300',
			way: 'bank',
			reference: '',
			shares: {}
		});
		useAllInHand(world, first.customerId, 'u');
		expect([first.id, ...others].map((id) => itemOf(world, id).cash)).to.deep.equal([
			120_00, 121_20, 58_80
		]);
		undoPayment(world, payment, 'Not ours');
		for (const id of [first.id, ...others])
			expect(itemOf(world, id)).to.include({ cash: 0, state: 'open' });
	});
});

describe('a debt given up, its relief, a payment and money given back', () => {
	const permutations = <T>(of: T[]): T[][] =>
		of.length < 2
			? [of]
			: of.flatMap((one, at) => permutations(of.toSpliced(at, 1)).map((rest) => [one, ...rest]));

	it('in every order keep the books, and end in nothing when all is credited and given back', async () => {
		const steps = ['lose', 'claim', 'pay', 'giveBack'] as const;
		for (const [n, order] of permutations([...steps]).entries()) {
			at('2026-11-24');
			const { id } = await issued(world, { ...FIRM, name: `Firm ${n}` }, oneLine('1000'));
			at('2027-07-01');
			const back = (amount: string, key: string) =>
				refundByHand(world, id, { key, date: '2027-07-01', amount, way: 'bank', reference: '' });
			const press = {
				lose: () => writeOff(world, id, 'Gone', `w${n}`),
				claim: () => settleRelief(world, id, `r${n}`),
				pay: () => payByHand(world, id, '500.00', { date: '2027-07-01' }),
				giveBack: () => back('200.00', `b${n}`)
			};
			for (const step of order) {
				try {
					press[step]();
				} catch (error) {
					// What has nothing to be about yet is refused in words.
					const said = [RefusedError, NotFoundError, FieldError];
					if (!said.some((kind) => error instanceof kind)) throw error;
				}
				expectSoundBooks(world.db, `${order.join()} after ${step}`);
			}
			await creditInvoice(world, id, 'All', `c${n}`);
			const { inHand } = itemOf(world, id);
			if (inHand > 0) back((inHand / 100).toFixed(2), `e${n}`);
			if (badDebts(world).some((one) => one.documentId === id)) settleRelief(world, id, `f${n}`);
			const left = world.db.all<{ account: string; sum: number }>(
				sql`select account, sum(amount) as sum from journal_lines where document_id in
					(select id from documents where id = ${id} or corrects_id = ${id})
					and account not in ('bank') group by account having sum(amount) <> 0`
			);
			expect(left, order.join()).to.deep.equal([]);
		}
	});
});

describe('a clock that goes back a day', () => {
	it('dates nothing before what it is about', async () => {
		const wrong = await issued(world, CONTRACTOR, oneLine('1000'));
		const other = await another(world, wrong.customerId, '900', { contract: 'construction' });
		payByHand(world, wrong.id, '800.00');
		at('2026-11-23');
		const note = await creditInvoice(world, wrong.id, 'A slip', 'c');
		expect(
			world.db.select().from(documents).where(eq(documents.id, note.id)).get()!.issueDate
		).to.equal('2026-11-24');
		useInHand(world, other.id, 'u');
		expect(itemOf(world, other.id)).to.include({ cash: 720_00, withheld: 180_00, state: 'paid' });
		at('2026-11-25');
		refundByHand(world, wrong.id, {
			key: 'r',
			date: '2026-11-24',
			amount: '80.00',
			way: 'bank',
			reference: ''
		});
		expect(() => undoPayment(world, world.db.select().from(payments).get()!.id, 'x')).to.throw(
			RefusedError
		);
	});

	it('gives up and takes up again, uses what is in hand, and corrects', async () => {
		const lost = await issued(world, FIRM, oneLine('100'));
		const open = await another(world, lost.customerId, '200');
		recordForPayer(world, lost.customerId, {
			key: 'p',
			date: '2026-11-24',
			amount: '50',
			way: 'bank',
			reference: '',
			shares: {}
		});
		at('2026-11-23');
		writeOff(world, lost.id, 'Gone', 'w');
		useInHand(world, open.id, 'u');
		expect(itemOf(world, open.id).cash).to.equal(50_00);
		undoWriteOff(world, lost.id, 't');
		const draft = correctAsDraft(world, open.id, 'k');
		const { sheet, version } = loadDraft(world.db, draft);
		saveDraft(world, draft, version, { ...sheet, about: { ...sheet.about!, reason: 'x' } });
		const right = await issueAndSend(world, draft, version + 1, {
			sendTo: null,
			copyToSelf: false,
			useInHand: false
		});
		expect(itemOf(world, right.id).cash).to.equal(50_00);
	});
});

describe('a card processor that cannot be reached', () => {
	it('gives nothing back, and says so in words of its own', async () => {
		const { id } = await issued(world, HOUSEHOLD, oneLine('100'));
		const { token } = world.db.select().from(documents).where(eq(documents.id, id)).get()!;
		await openCheckout(world, token!, 'k1');
		receive(world, settledEvent(world.checkouts[0]!.id, 120_00));
		const payment = world.db.select().from(payments).get()!;
		world.card.refund = () => Promise.reject(new CardUnavailableError('down'));
		const refused = await refundCard(world, payment.id, 50_00, 'r').catch(
			(error: unknown) => error
		);
		expect(refused).to.be.instanceOf(RefusedError);
		expect(String(refused)).to.match(/Nothing was given back/);
		expect(itemOf(world, id)).to.include({ cash: 120_00, state: 'paid' });
	});
});
