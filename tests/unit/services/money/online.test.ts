// What goes out to the processor and to people when money moves online, word for word; and what is refused on the way.
// Over 300 lines: what goes out, word for word.
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { FieldError, NotFoundError, RefusedError } from '../../../../src/lib/core/refusals';
import {
	allocations,
	bankImports,
	documents,
	journalEntries,
	mails,
	trail
} from '../../../../src/lib/server/db/schema';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { saveBusiness } from '../../../../src/lib/server/services/business/settings';
import { documentDetail } from '../../../../src/lib/server/services/desk/documents';
import { nextMoves } from '../../../../src/lib/server/services/desk/moves';
import { tryOut } from '../../../../src/lib/server/services/invoices/trial';
import { inHandOf } from '../../../../src/lib/server/services/ledger/inHand';
import { look, lookInto } from '../../../../src/lib/server/services/money/bank/bringIn';
import { bringIn } from '../../../support/bank';
import { matchLines } from '../../../../src/lib/server/services/money/bank/matching';
import { billCardFees } from '../../../../src/lib/server/services/money/cardFees';
import { openCheckout } from '../../../../src/lib/server/services/money/checkouts';
import {
	beginInvoice,
	loadDraft,
	saveDraft
} from '../../../../src/lib/server/services/invoices/drafts';
import { issueAndSend } from '../../../../src/lib/server/services/money/issueAndSend';
import { noteOpened } from '../../../../src/lib/server/services/money/payPage';
import { recordForPayer } from '../../../../src/lib/server/services/money/payerPayments';
import { refundCard } from '../../../../src/lib/server/services/money/refunds';
import { takePayment } from '../../../../src/lib/server/services/money/taking';
import {
	inHandForDraft,
	useAllInHand,
	useInHand
} from '../../../../src/lib/server/services/money/useInHand';
import { expectSoundBooks } from '../../../support/books';
import { another, FIRM, itemOf, oneLine, payByHand } from '../../../support/money';
import {
	BUSINESS,
	draftOf,
	issued,
	line,
	makeWorld,
	receive,
	settledEvent,
	type TestWorld
} from '../../../support/world';

let world: TestWorld;
let asked: Record<string, unknown>[];
beforeEach(() => {
	world = makeWorld({ passOnCardFees: true });
	asked = [];
	const { openCheckout: cards } = world.card;
	const { openTransfer: transfers } = world.bank;
	world.card.openCheckout = (request) => (asked.push({ ...request }), cards(request));
	world.bank.openTransfer = (request) => (asked.push({ ...request }), transfers(request));
});
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const firm = () => issued(world, FIRM, oneLine('1000'));
const tokenOf = (id: number) => documentDetail(world, id).link.split('/').at(-1)!;
const trailOf = (id: number) =>
	world.db
		.select({ who: trail.who, what: trail.what, detail: trail.detail })
		.from(trail)
		.where(eq(trail.documentId, id))
		.all();
const keysOf = () => world.db.select({ key: journalEntries.key }).from(journalEntries).all();

describe('what the processor is asked', () => {
	it('for an invoice: its number, what is left, where the answer goes, and the fee on top for a firm', async () => {
		const { id } = await firm();
		const token = tokenOf(id);
		await openCheckout(world, token, 'a');
		await openCheckout(world, token, 'b', 5_00, { keepCard: true });
		await openCheckout(world, token, 'c', 5_00, { way: 'bank' });
		const request = {
			description: 'Invoice INV-0007',
			returnUrl: `${world.origin}/p/${token}?from=card`,
			webhookUrl: `${world.origin}/webhooks/card`
		};
		expect(asked).to.deep.equal([
			{ ...request, key: 'a', amount: 1200_00, passOnFee: true },
			{ ...request, key: 'b', amount: 5_00, keepCard: true, passOnFee: true },
			{
				key: 'c',
				amount: 5_00,
				description: 'Invoice INV-0007',
				returnUrl: `${world.origin}/p/${token}?from=bank`,
				webhookUrl: `${world.origin}/webhooks/bank`,
				reference: 'INV-0007'
			}
		]);
	});

	it('for a test: nothing that could be taken for an invoice, and no card is kept', async () => {
		const draft = draftOf(world, FIRM, oneLine('1000'));
		const { link } = await tryOut(world, draft.id, 'try');
		const token = link.split('/').at(-1)!;
		await openCheckout(world, token, 'a', undefined, { keepCard: true });
		await openCheckout(world, token, 'b', 1_00, { way: 'bank' });
		expect(asked[0]).to.include({
			amount: 1200_00,
			description: 'Test: nothing is charged for real'
		});
		expect(asked[0]).to.not.have.any.keys('keepCard', 'passOnFee');
		expect(asked[1]).to.include({ reference: 'TEST' });
	});
});
describe('who is told of a payment', () => {
	it('the owner and the customer, once each, with where to look', async () => {
		const { id } = await firm();
		await openCheckout(world, tokenOf(id), 'a');
		const event = settledEvent(world.checkouts[0]!.id, 1200_00);
		receive(world, event);
		receive(world, event);
		const told = world.db.select().from(mails).all();
		expect(
			told.map(({ kind, to, key, text }) => [kind, to, key, /https?:\S+/.exec(text)?.[0]])
		).to.deep.equal([
			['receipt', FIRM.email, 'receipt:1', `${world.origin}/p/${tokenOf(id)}`],
			['paidNotice', BUSINESS.email, 'paid:1', `${world.origin}/billing/${id}`]
		]);
	});

	it('nobody but the customer where the owner has no address', async () => {
		saveBusiness(world, { ...BUSINESS, email: '' });
		const { id } = await firm();
		await openCheckout(world, tokenOf(id), 'a');
		receive(world, settledEvent(world.checkouts[0]!.id, 1200_00));
		expect(world.db.select({ kind: mails.kind }).from(mails).all()).to.deep.equal([
			{ kind: 'receipt' }
		]);
	});

	it('a visit is the customer’s, once in ten minutes; an address that is none leaves nothing', async () => {
		const { id } = await firm();
		const opened = () => trailOf(id).filter((one) => one.what === 'opened');
		noteOpened(world, tokenOf(id), 'opened');
		world.clock.set(world.clock.now() + 10 * 60_000 - 1);
		noteOpened(world, tokenOf(id), 'opened');
		expect(opened()).to.deep.equal([{ who: 'customer', what: 'opened', detail: '' }]);
		world.clock.set(world.clock.now() + 1);
		noteOpened(world, tokenOf(id), 'opened');
		expect(opened()).to.have.length(2);
		expect(() => noteOpened(world, 'nobody’s', 'opened')).not.to.throw();
	});

	it('the owner, of what was paid too much: a move to look at it', async () => {
		const { id, number } = await firm();
		payByHand(world, id, '1300');
		const move = nextMoves(world).find((one) => one.id === `overpaid:${id}`);
		expect(move).to.deep.equal({
			id: `overpaid:${id}`,
			amount: 100_00n,
			late: false,
			title: `${FIRM.name} has paid too much`,
			detail: `£100.00 over on ${number}`,
			action: 'See',
			href: `/billing/${id}`
		});
	});
});

describe('a card fee of a firm', () => {
	async function billed(rows: ReturnType<typeof line>[], feeOnTop = 12_10) {
		const { id } = await issued(world, FIRM, { rows });
		await openCheckout(world, tokenOf(id), 'a');
		const { amount } = asked[0] as { amount: number };
		receive(world, { ...settledEvent(world.checkouts[0]!.id, amount), feeOnTop });
		expect(await billCardFees(world)).to.equal(1);
		const fee = world.db.select().from(documents).where(eq(documents.origin, 'cardFee')).get()!;
		return fee.frozen!.sheet.rows.map((row) =>
			row.type === 'line' ? [row.unitPrice, row.vat, row.vatReason] : row.type
		);
	}
	it('has the rates of the work, in its proportion, with their reasons', async () => {
		// 120.00 at the standard rate and 210.00 at the reduced one: 12.10 is shared 4.40 and 7.70.
		expect(
			await billed([
				line('a', 'Render', '100'),
				line('b', 'Empty home', '200', { vat: 'reduced', vatReason: 'emptyHome' })
			])
		).to.deep.equal([
			['4.40', 'standard', ''],
			['7.70', 'reduced', 'emptyHome']
		]);
	});

	it('of a penny is one line: a share of nothing is none', async () => {
		const rows = [
			line('a', 'Render', '100'),
			line('b', 'Empty home', '200', { vat: 'reduced', vatReason: 'emptyHome' })
		];
		expect(await billed(rows, 1)).to.deep.equal([['0.01', 'reduced', 'emptyHome']]);
	});
});

describe('what is refused', () => {
	it('a payment for no invoice', () => {
		expect(() =>
			world.db.transaction((tx) =>
				takePayment(tx, world, {
					key: 'x',
					documentId: 99,
					date: '2026-11-24',
					amount: 1,
					withheld: null,
					way: 'bank',
					source: 'hand',
					reference: '',
					fee: 0,
					who: 'you'
				})
			)
		).to.throw(NotFoundError);
	});

	it('to give back nothing, or more than is left of a card; a penny is enough', async () => {
		const { id } = await firm();
		await openCheckout(world, tokenOf(id), 'a');
		receive(world, settledEvent(world.checkouts[0]!.id, 1200_00));
		const payment = world.db.select().from(allocations).get()!.paymentId;
		const back: unknown[] = [];
		world.card.refund = async (request) => (back.push(request), { id: 'r' });
		const refused = (amount: number) =>
			refundCard(world, payment, amount, `k${amount}`).then(
				() => null,
				(problem: unknown) => (problem instanceof FieldError ? problem.fields.amount : problem)
			);
		expect(await refused(0)).to.equal('Give an amount above zero.');
		expect(await refused(1200_01)).to.equal('At most £1,200.00 of it is left to give back.');
		expect(await refused(1)).to.equal(null);
		expect(back).to.deep.equal([{ key: 'k1', checkoutId: 'chk-1', amount: 1 }]);
	});
});

describe('what a payer has in hand', () => {
	const inHand = (customerId: number, amounts: string[]) =>
		amounts.forEach((amount, index) =>
			recordForPayer(world, customerId, {
				key: `h${index}`,
				date: '2026-11-24',
				amount,
				way: 'bank',
				reference: '',
				shares: {}
			})
		);
	const left = (customerId: number) =>
		inHandOf(world.db, customerId).reduce((sum, one) => sum + one.amount, 0);

	it('is used from the first of it until the invoice is paid, and no further', async () => {
		const { id, customerId } = await firm();
		inHand(customerId, ['700', '400', '300', '5']);
		expect(useInHand(world, id, 'u')).to.equal(1200_00);
		expect(left(customerId)).to.equal(205_00);
		expect(itemOf(world, id)).to.include({ state: 'paid', overpaid: 0 });
		// The third was not touched, not even by nothing.
		const used = world.db.select({ amount: allocations.amount }).from(allocations).all();
		expect(used).to.deep.equal([{ amount: 700_00 }, { amount: 400_00 }, { amount: 100_00 }]);
		expect(useInHand(world, id, 'u')).to.equal(0);
		expect(trailOf(id).filter((one) => one.what === 'creditApplied')).to.deep.equal([
			{ who: 'you', what: 'creditApplied', detail: '£1,200.00' }
		]);
	});

	it('is used for one invoice after the other', async () => {
		const { id, customerId } = await firm();
		const next = await another(world, customerId, '50');
		inHand(customerId, ['1230']);
		expect(useAllInHand(world, customerId, 'all')).to.equal(1230_00);
		expect([itemOf(world, id).state, itemOf(world, next.id).outstanding]).to.deep.equal([
			'paid',
			30_00
		]);
	});

	it('goes onto the invoice that is being issued, where there is any, under the key of that press', async () => {
		const wish = { sendTo: FIRM.email, copyToSelf: false, useInHand: true };
		const first = draftOf(world, FIRM, oneLine('100'));
		expect(inHandForDraft(world, first.id)).to.equal(0);
		const plain = await issueAndSend(world, first.id, first.version, wish);
		expect(itemOf(world, plain.id).state).to.equal('open');
		inHand(first.customerId, ['500']);
		const second = beginInvoice(world, 'second', first.customerId);
		saveDraft(world, second, 1, { ...loadDraft(world.db, second).sheet, ...oneLine('10') });
		expect(inHandForDraft(world, second)).to.equal(500_00);
		const paid = await issueAndSend(world, second, 2, wish);
		expect(itemOf(world, paid.id).state).to.equal('paid');
		expect(keysOf().map(({ key }) => key)).to.include(`apply:issue:${paid.id}:0`);
		expect(trailOf(paid.id).filter((one) => one.what === 'sent')).to.have.length(1);
		expect(trailOf(paid.id).every((one) => one.who === 'you')).to.equal(true);
		const nobody = draftOf(world, FIRM, { ...oneLine('1'), customerId: null });
		expect(inHandForDraft(world, nobody.id)).to.equal(0);
	});

	it('is issued with words that have the number it really got', async () => {
		const draft = draftOf(world, FIRM, oneLine('100'));
		await issued(world, FIRM, oneLine('5'));
		const words = { subject: 'INV-0007 for you', text: 'See INV-0007.\n{link}' };
		const send = (message: object | undefined, sendTo: string | null) =>
			issueAndSend(world, draft.id, draft.version, {
				sendTo,
				copyToSelf: false,
				useInHand: false,
				...(message ? { message: message as never } : {})
			});
		expect(
			await send({ ...words, subject: '' }, FIRM.email).catch((one: unknown) => one)
		).to.be.instanceOf(FieldError);
		const { number } = await send({ ...words, number: 'INV-0007' }, FIRM.email);
		expect(number).to.equal('INV-0008');
		const mail = world.db.select().from(mails).all().at(-1)!;
		expect(mail.subject).to.equal('INV-0008 for you');
		expect(mail.text).to.contain('See INV-0008.').and.not.to.contain('INV-0007');
	});

	it('comes with a receipt that leads to no page where it was for no invoice', () => {
		const customerId = addCustomer(world, FIRM);
		const form = { key: 'r', date: '2026-11-24', amount: '50', way: 'cash', reference: '' };
		recordForPayer(world, customerId, { ...form, shares: {}, receipt: true });
		const mail = world.db.select().from(mails).get()!;
		expect(mail).to.include({ kind: 'receipt', to: FIRM.email, documentId: null });
		expect(mail.text)
			.to.contain('£50.00')
			.and.not.to.match(/http|\{link\}/);
	});

	it('refuses where nothing is in hand, or nothing is open', async () => {
		const { id, customerId } = await firm();
		expect(() => useInHand(world, id, 'a')).to.throw(RefusedError, /no credit/);
		expect(() => useInHand(world, 99, 'a')).to.throw(NotFoundError);
		payByHand(world, id, '1200');
		expect(() => useAllInHand(world, customerId, 'a')).to.throw(RefusedError, /Nothing is open/);
	});
});

describe('a bank file', () => {
	const bytes = (text: string) => new TextEncoder().encode(text);
	it('is asked about once for headings that differ in case and spaces alone', () => {
		const chosen = { date: '0', text: '1', amount: '2' };
		bringIn(world, 'a.csv', bytes('When,What,Worth\n24/11/2026,Thanks,5.00\n'), chosen);
		const known = (file: string) => look(world, lookInto(world, 'b.csv', bytes(file))).known;
		expect(known('WHEN , what, WORTH\n25/11/2026,Thanks,6.00\n')).to.equal(true);
		expect(known('When,Why,Worth\n25/11/2026,Thanks,6.00\n')).to.equal(false);
		expect(world.db.select({ name: bankImports.name }).from(bankImports).all()).to.have.length(3);
	});

	it('is matched once however many ask for it at the same time', async () => {
		bringIn(world, 'a.csv', bytes('Date,Text,Amount\n24/11/2026,INV-0007,5.00\n'));
		const running = matchLines(world);
		expect(matchLines(world)).to.equal(running);
		await running;
	});
});
