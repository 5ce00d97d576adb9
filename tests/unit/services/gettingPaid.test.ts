// Payouts, fees, receipts, relief and charts. Over 300 lines: each needs an invoice that is paid, and says what it changed.
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../src/lib/core/calendar/conversion';
import {
	bankLines,
	documents,
	journalLines,
	mails,
	payments,
	payouts
} from '../../../src/lib/server/db/schema';
import type { PayoutEvent } from '../../../src/lib/server/gateways/card';
import { recordForPayer } from '../../../src/lib/server/services/money/payerPayments';
import { inHandForDraft } from '../../../src/lib/server/services/money/useInHand';
import { expectSoundBooks } from '../../support/books';
import { badDebts, settleRelief } from '../../../src/lib/server/services/tax/badDebts';
import { kept } from '../../../src/lib/server/services/money/bank/facts';
import { bankPage } from '../../../src/lib/server/services/money/bank/lines';
import {
	acceptLine,
	acceptReversal,
	acceptSure,
	reopenLine
} from '../../../src/lib/server/services/money/bank/accept';
import { bringIn } from '../../support/bank';
import { billCardFees } from '../../../src/lib/server/services/money/cardFees';
import { openCheckout } from '../../../src/lib/server/services/money/checkouts';
import { receiveBankEvent } from '../../../src/lib/server/services/money/cardEvents';
import { refundByHand } from '../../../src/lib/server/services/money/refunds';
import { behindBar, chartsPage } from '../../../src/lib/server/services/desk/charts';
import { saveBusiness } from '../../../src/lib/server/services/business/settings';
import {
	importDeductionStatements,
	previewDeductionFile
} from '../../../src/lib/server/services/tax/deductionImport';
import { deductionsByMonth } from '../../../src/lib/server/services/tax/deductions';
import { FieldError, NotFoundError, RefusedError } from '../../../src/lib/core/refusals';
import { matchLines } from '../../../src/lib/server/services/money/bank/matching';
import { payPage } from '../../../src/lib/server/services/money/payPage';
import { undoPayment } from '../../../src/lib/server/services/money/undo';
import { nextMoves } from '../../../src/lib/server/services/desk/moves';
import { openOddNews } from '../../../src/lib/server/services/money/oddNews';
import {
	decideOddNews,
	payoutPage,
	receivePayout
} from '../../../src/lib/server/services/money/payouts';
import { writeOff } from '../../../src/lib/server/services/money/writeOffs';
import { FIRM, itemOf, oneLine as rows, payByHand } from '../../support/money';
import {
	BUSINESS,
	CONTRACTOR,
	HOUSEHOLD,
	issued,
	makeWorld,
	receive,
	settledEvent,
	type TestWorld
} from '../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const item = (id: number) => itemOf(world, id);
const tokenOf = (id: number) =>
	world.db.select().from(documents).where(eq(documents.id, id)).get()!.token!;
const balance = (account: string) =>
	world.db
		.select()
		.from(journalLines)
		.all()
		.filter((one) => one.account === account)
		.reduce((sum, one) => sum + one.amount, 0);
const pay = (documentId: number, amount: string, more: object = {}) =>
	payByHand(world, documentId, amount, more);

describe('a payment from the payer’s own bank', () => {
	const event = (type: 'pending' | 'settled' | 'failed', id: string = type) => ({
		id,
		type: `transfer.${type}` as const,
		transfer: 'trf-1',
		amount: 120_00
	});
	const news = (type: 'pending' | 'settled' | 'failed', id?: string) =>
		receiveBankEvent(world, event(type, id), '{}');

	it('is recorded once, without a fee, with a receipt', async () => {
		const { id } = await issued(world, FIRM, rows('100'));
		await openCheckout(world, tokenOf(id), 'press', undefined, { way: 'bank' });
		news('pending');
		expect(payPage(world, tokenOf(id)).state).to.equal('pending');
		news('settled');
		news('settled');
		news('settled', 'told again');
		expect(item(id).state).to.equal('paid');
		const paid = world.db.select().from(payments).all();
		expect(paid.map((one) => [one.way, one.amount, one.fee])).to.deep.equal([['bank', 120_00, 0]]);
		expect(balance('bank')).to.equal(120_00);
		const told = world.db.select().from(mails).all();
		expect(told.map((mail) => mail.kind)).to.include.members(['receipt', 'paidNotice']);
	});

	it('that fails later leaves the invoice open, says so, and can be tried again', async () => {
		const { id } = await issued(world, FIRM, rows('100'));
		await openCheckout(world, tokenOf(id), 'press', undefined, { way: 'bank' });
		news('pending');
		news('failed');
		expect(payPage(world, tokenOf(id))).to.deep.include({
			state: 'open',
			last: { way: 'bank', state: 'declined', amount: 120_00 },
			toPay: 120_00
		});
		expect(item(id).state).to.equal('open');
		await openCheckout(world, tokenOf(id), 'again', undefined, { way: 'bank' });
		expect(payPage(world, tokenOf(id)).last).to.not.deep.include({ state: 'declined' });
	});

	it('of something unknown is told again later', () => {
		expect(() => news('settled')).to.throw(NotFoundError);
	});
});

describe('a payout of the card processor', () => {
	async function paidByCard(): Promise<number> {
		const { id } = await issued(world, FIRM, rows('100'));
		await openCheckout(world, tokenOf(id), 'press');
		receive(world, settledEvent('chk-1', 120_00));
		return id;
	}
	const payout = (more: Partial<PayoutEvent> = {}): PayoutEvent => ({
		id: 'evt-payout',
		type: 'payout.paid',
		payout: 'po-1',
		amount: 119_75,
		reference: 'CARDPAY 77',
		parts: [{ checkout: 'chk-1', type: 'payment', amount: 120_00, fee: 25 }],
		...more
	});

	it('moves what was collected less the fee to the bank, once, and says what is in it', async () => {
		const id = await paidByCard();
		expect(payoutPage(world).waiting).to.equal(119_75);
		receivePayout(world, payout(), '{}');
		receivePayout(world, payout(), '{}');
		receivePayout(world, payout({ id: 'told again' }), '{}');
		const { waiting, payouts: shown } = payoutPage(world);
		expect(waiting).to.equal(0);
		expect(shown).to.have.length(1);
		expect(shown[0]).to.include({ collected: 120_00, fees: 25, amount: 119_75, seenOn: null });
		expect(shown[0]!.parts[0]!.documents.map((one) => one.id)).to.deep.equal([id]);
		expect(balance('bank')).to.equal(119_75);
	});

	it('that does not fit is not booked, and asked about', async () => {
		await paidByCard();
		const [part] = payout().parts!;
		const odd: [Partial<PayoutEvent>, RegExp][] = [
			[{ parts: undefined }, /does not say which payments/],
			[{ amount: 120_00 }, /comes to £119.75, and £120.00 is said/],
			[{ amount: 239_50, parts: [part!, part!] }, /the same payment out twice/],
			[{ parts: [{ ...part!, checkout: 'chk-9' }] }, /not known here/]
		];
		for (const [n, [more]] of odd.entries()) {
			const news = payout({ id: `odd ${n}`, payout: `po-odd ${n}`, ...more });
			receivePayout(world, news, JSON.stringify(news));
			receivePayout(world, news, JSON.stringify(news));
		}
		const asked = openOddNews(world).reverse();
		expect(asked).to.have.length(4);
		for (const [n, [, why]] of odd.entries()) expect(asked[n]!.why).to.match(why);
		expect(balance('bank')).to.equal(0);
		expect(nextMoves(world).find(({ id }) => id === 'odd-news')).to.include({
			title: '4 messages of the card processor do not fit your books'
		});
		// It did come after all: booked once. Another is only put away.
		for (let press = 0; press < 2; press++) decideOddNews(world, asked[0]!.id, 'taken');
		decideOddNews(world, asked[1]!.id, 'dismissed');
		expect(balance('bank')).to.equal(119_75);
		expect(openOddNews(world)).to.have.length(2);
		// What was paid out is not paid out again.
		receivePayout(world, payout({ id: 'right', payout: 'po-right' }), '{}');
		const again = payout({ id: 'again', payout: 'po-again' });
		receivePayout(world, again, JSON.stringify(again));
		expect(openOddNews(world)[0]!.why).to.match(/earlier payout/);
	});

	it('a refund of more than was paid is not booked; told again under another id it is the same one', async () => {
		const id = await paidByCard();
		const refund = (event: string, name: string, amount: number) => {
			const news = {
				id: event,
				type: 'refund.settled' as const,
				checkout: 'chk-1',
				amount,
				fee: 0,
				refund: name
			};
			receive(world, news);
		};
		refund('a', 're-1', 99_999_00);
		expect(openOddNews(world)[0]!.why).to.match(/gives back £99,999.00 .* £120.00 is left/);
		expect(() => decideOddNews(world, openOddNews(world)[0]!.id, 'taken')).to.throw(RefusedError);
		refund('b', 're-2', 50_00);
		refund('c', 're-2', 50_00);
		expect(item(id).cash).to.equal(70_00);
		refund('d', 're-3', 70_01);
		expect(openOddNews(world)).to.have.length(2);
		refund('e', 're-4', 70_00);
		expect(item(id).cash).to.equal(0);
	});

	it('is found in the bank’s file, ticked off, and nothing is recorded for it', async () => {
		await paidByCard();
		receivePayout(world, payout(), '{}');
		const before = world.db.select().from(payments).all().length;
		bringIn(world, 'bank.ofx', ofx('20261126', '119.75', 'CARDPAY 77 FPI'));
		const [shown] = bankPage(world, 'open').lines;
		expect(shown!.proposals[0]).to.deep.include({ sure: true, shares: [] });
		await matchLines(world);
		expect(await acceptSure(world)).to.include({ accepted: 1 });
		expect(world.db.select().from(payments).all()).to.have.length(before);
		expect(world.db.select().from(payouts).get()!.seenOn).to.equal('2026-11-26');
		reopenLine(world, shown!.id);
		expect(world.db.select().from(payouts).get()!.seenOn).to.equal(null);
	});
});

function ofx(day: string, amount: string, name: string, memo = '', account = '1'): Uint8Array {
	const line = `<STMTTRN><DTPOSTED>${day}<TRNAMT>${amount}<NAME>${name}${memo ? `<MEMO>${memo}` : ''}</STMTTRN>`;
	return new TextEncoder().encode(
		`<OFX><BANKMSGSRSV1><STMTTRNRS><STMTRS><BANKACCTFROM><ACCTID>${account}</BANKACCTFROM><BANKTRANLIST>${line}</BANKTRANLIST></STMTRS></STMTTRNRS></BANKMSGSRSV1></OFX>`
	);
}

describe('a bank line', () => {
	it('that shows a payment recorded by hand is ticked off, not recorded a second time', async () => {
		const a = await issued(world, FIRM, rows('100'));
		// Another open invoice of theirs has the very same amount.
		const b = await issued(world, { ...FIRM, name: 'Other Ltd' }, rows('100'));
		const paid = pay(a.id, '120');
		bringIn(world, 'bank.ofx', ofx('20261125', '120.00', 'CORVANE DAIRY', 'INV-0007'));
		const [shown] = bankPage(world, 'open').lines;
		expect(shown!.proposals[0]!.recorded).to.deep.equal({ kind: 'payment', id: paid });
		expect(shown!.proposals[0]!.reasons.join()).to.include('in the books already');
		acceptLine(world, shown!.id, kept(shown!.proposals[0]!));
		expect(world.db.select().from(payments).all()).to.have.length(1);
		expect(item(b.id).state).to.equal('open');
		// Taking that back leaves the payment as it is.
		reopenLine(world, shown!.id);
		expect(item(a.id).state).to.equal('paid');
		expect(() =>
			acceptLine(world, shown!.id, { payerId: 0, recorded: { kind: 'payment', id: 99 } })
		).to.throw(RefusedError);
		expect(() => acceptLine(world, shown!.id, { payerId: 0 })).to.throw(FieldError);
	});

	it('whose payment is undone elsewhere is to be looked at again', async () => {
		const { id } = await issued(world, FIRM, rows('100'));
		bringIn(world, 'bank.ofx', ofx('20261125', '120.00', 'CORVANE DAIRY', 'INV-0007'));
		const [shown] = bankPage(world, 'open').lines;
		const paid = acceptLine(world, shown!.id, kept(shown!.proposals[0]!));
		expect(item(id).state).to.equal('paid');
		undoPayment(world, paid, 'Somebody else');
		expect(item(id).state).to.equal('open');
		expect(bankPage(world, 'open').lines.map((one) => one.id)).to.deep.equal([shown!.id]);
		// Accepted again, it is a payment of its own.
		expect(acceptLine(world, shown!.id, kept(shown!.proposals[0]!))).not.to.equal(paid);
	});

	it('that takes a payment back undoes it with a trace, once', async () => {
		const { id } = await issued(world, FIRM, rows('100'));
		const paid = pay(id, '120');
		bringIn(world, 'bank.ofx', ofx('20261125', '-120.00', 'CORVANE DAIRY', 'REVERSAL INV-0007'));
		const [shown] = bankPage(world, 'out').lines;
		expect(shown!.takenBack.map((one) => one.id)).to.deep.equal([paid]);
		expect(() => acceptReversal(world, shown!.id, paid + 1)).to.throw(RefusedError);
		acceptReversal(world, shown!.id, paid);
		acceptReversal(world, shown!.id, paid);
		expect(item(id)).to.include({ state: 'open', cash: 0 });
		expect(world.db.select().from(bankLines).get()!.state).to.equal('accepted');
		expect(() => reopenLine(world, shown!.id)).to.throw(RefusedError);
	});
});

describe('a card fee on top', () => {
	beforeEach(() => saveBusiness(world, { ...BUSINESS, passOnCardFees: true }));

	it('is billed by a document of its own, with the VAT of the work, and paid by what came in', async () => {
		const { id } = await issued(world, FIRM, rows('100'));
		expect(payPage(world, tokenOf(id)).mayBearFee).to.equal(true);
		await openCheckout(world, tokenOf(id), 'press');
		receive(world, { ...settledEvent('chk-1', 120_00), fee: 188, feeOnTop: 188 });
		expect(await billCardFees(world)).to.equal(1);
		expect(await billCardFees(world)).to.equal(0);
		const all = world.db.select().from(documents).all();
		expect(all).to.have.length(2);
		const fee = all.find((row) => row.key.startsWith('cardfee:'))!;
		expect([fee.state, fee.total, fee.vatCharged]).to.deep.equal(['issued', 188, 31]);
		expect(item(fee.id).state).to.equal('paid');
		// The processor kept what the customer bore: the whole invoice reaches the bank.
		expect(balance('cardClearing')).to.equal(120_00);
		expect(balance('customerCredit')).to.equal(0);
	});

	it('is never passed on to a household or a contractor, nor where the owner does not want it', async () => {
		const household = await issued(world, HOUSEHOLD, rows('100'));
		const contractor = await issued(world, CONTRACTOR, rows('100'));
		expect(payPage(world, tokenOf(household.id)).mayBearFee).to.equal(false);
		expect(payPage(world, tokenOf(contractor.id)).mayBearFee).to.equal(false);
		saveBusiness(world, { ...BUSINESS, invoiceNext: 9 });
		const firm = await issued(world, FIRM, rows('100'));
		expect(payPage(world, tokenOf(firm.id)).mayBearFee).to.equal(false);
	});
});

describe('VAT of a bad debt', () => {
	it('is claimed when its time has come, once, and repaid when they pay after all', async () => {
		const { id } = await issued(world, FIRM, rows('100'));
		pay(id, '60');
		writeOff(world, id, 'Gone away', 'off');
		expect(badDebts(world)[0]).to.include({ state: 'waiting', from: '2027-06-08', vat: 10_00 });
		expect(() => settleRelief(world, id, 'early')).to.throw(RefusedError);
		world.clock.set(londonMoment('2027-06-08T09:00'));
		expect(badDebts(world)[0]).to.include({ state: 'claimable', until: '2031-06-08' });
		settleRelief(world, id, 'press');
		settleRelief(world, id, 'press');
		expect(badDebts(world)[0]).to.include({ state: 'claimed', claimed: 10_00 });
		expect(balance('vatRelief')).to.equal(10_00);
		pay(id, '60', { key: 'late money', date: '2027-06-08' });
		expect(badDebts(world)[0]).to.include({ state: 'repay', vat: 10_00 });
		settleRelief(world, id, 'back');
		expect(badDebts(world)).to.deep.equal([]);
		expect(balance('vatRelief')).to.equal(0);
	});

	it('is nothing under the reverse charge', async () => {
		const { id } = await issued(world, CONTRACTOR, rows('100'));
		writeOff(world, id, 'Gone away', 'off');
		expect(badDebts(world)).to.deep.equal([]);
	});
});

describe('money in hand', () => {
	it('is offered for the next invoice, and what came in too much is given back by hand', async () => {
		const { id } = await issued(world, FIRM, rows('100'));
		pay(id, '150');
		expect(item(id).overpaid).to.equal(30_00);
		expect(inHandForDraft(world, id)).to.equal(30_00);
		const form = { key: 'back', date: '2026-11-24', amount: '30', way: 'bank', reference: '' };
		expect(() => refundByHand(world, id, { ...form, amount: '150.01' })).to.throw(FieldError);
		expect(() => refundByHand(world, id, { ...form, way: 'card' })).to.throw(FieldError);
		refundByHand(world, id, form);
		refundByHand(world, id, form);
		expect(item(id)).to.include({ overpaid: 0, state: 'paid', cash: 120_00 });
		expect(inHandForDraft(world, id)).to.equal(0);
	});

	it('brings a receipt where the owner wants one, for one invoice or for several', async () => {
		const { id, customerId } = await issued(world, FIRM, rows('100'));
		pay(id, '20');
		expect(world.db.select().from(mails).all()).to.have.length(0);
		pay(id, '30', { receipt: true });
		recordForPayer(world, customerId, {
			key: 'whole',
			date: '2026-11-24',
			amount: '100',
			way: 'cash',
			reference: '',
			receipt: true
		});
		const receipts = world.db.select().from(mails).all();
		expect(receipts.map((mail) => [mail.kind, mail.subject])).to.deep.equal([
			['receipt', 'Receipt: £30.00 for invoice INV-0007'],
			['receipt', 'Receipt: £100.00 for invoice INV-0007']
		]);
	});
});

describe('deduction statements from a file', () => {
	it('are shown against the books first, kept when told to, and change nothing again', async () => {
		const { id } = await issued(world, CONTRACTOR);
		pay(id, '1988');
		const [month] = deductionsByMonth(world);
		const file = new TextEncoder().encode(
			[
				'Contractor;Tax month;Gross amount paid;Cost of materials;Amount deducted;Reference',
				`BEACON & LATHE CONSTRUCTION LIMITED;05/12/2026;2300,00;720,00;${(Number(month!.withheld) / 100).toFixed(2)};V1234567890`,
				'Nobody Ltd;05/12/2026;100;0;20;',
				'Beacon & Lathe Construction Ltd;never;100;0;20;'
			].join('\n')
		);
		const preview = previewDeductionFile(world, file);
		expect(preview.rows).to.have.length(1);
		expect(preview.rows[0]).to.include({ withheld: month!.withheld, gross: 2300_00, known: false });
		expect(preview.problems.map((one) => one.line)).to.deep.equal([3, 4]);
		expect(deductionsByMonth(world)[0]!.stated).to.equal(null);
		importDeductionStatements(world, preview.rows);
		importDeductionStatements(world, preview.rows);
		expect(deductionsByMonth(world)[0]).to.include({ stated: month!.withheld, state: 'agrees' });
		expect(previewDeductionFile(world, file).rows[0]!.known).to.equal(true);
		expect(() => importDeductionStatements(world, [{ nonsense: 1 }])).to.throw(FieldError);
	});
});

describe('the charts', () => {
	it('have bars that the documents behind them add up to', async () => {
		const a = await issued(world, FIRM, rows('100'));
		const b = await issued(world, CONTRACTOR);
		await issued(world, HOUSEHOLD, rows('50'));
		pay(a.id, '70');
		pay(b.id, '1988');
		world.clock.set(londonMoment('2027-01-20T09:00'));
		const page = chartsPage(world);
		for (const [index, on] of page.ends.entries())
			for (const age of ['notDue', '1-30', '31-60', '61-90', 'over90'] as const) {
				const behind = behindBar(world, { of: 'owed', on, age });
				expect(behind.reduce((sum, row) => sum + BigInt(row.amount), 0n)).to.equal(
					page.owed[index]![age]
				);
			}
		for (const { month, ...sums } of page.months)
			for (const of of ['billed', 'received', 'withheld'] as const) {
				const behind = behindBar(world, { of, month });
				expect(behind.reduce((sum, row) => sum + row.amount, 0)).to.equal(sums[of]);
			}
		const november = page.months.find((one) => one.month === '2026-11')!;
		expect(november.received).to.equal(70_00 + 1988_00);
		expect(page.owed.at(-1)!['31-60']).to.equal(110_00n);
	});
});
