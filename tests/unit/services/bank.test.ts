import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { bankLines, payments } from '../../../src/lib/server/db/schema';
import { inHandOf } from '../../../src/lib/server/services/ledger/inHand';
import { expectSoundBooks } from '../../support/books';
import { kept } from '../../../src/lib/server/services/money/bank/facts';
import { bankPage } from '../../../src/lib/server/services/money/bank/lines';
import {
	acceptLine,
	acceptSure,
	reopenLine,
	setNotBusiness
} from '../../../src/lib/server/services/money/bank/accept';
import {
	forgetColumns,
	leaveFile,
	look,
	lookInto,
	takeIn
} from '../../../src/lib/server/services/money/bank/bringIn';
import { forgetName, learnedNames } from '../../../src/lib/server/services/money/bank/learned';
import { bringIn } from '../../support/bank';
import { FieldError, NotFoundError, RefusedError } from '../../../src/lib/core/refusals';
import { matchLines } from '../../../src/lib/server/services/money/bank/matching';
import { recordPayment } from '../../../src/lib/server/services/money/payments';
import { FIRM, itemOf } from '../../support/money';
import { CONTRACTOR, issued, line, makeWorld, type TestWorld } from '../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const bytes = (text: string) => new TextEncoder().encode(text);
const csv = (...rows: string[]) => bytes(['Date,Description,Amount', ...rows].join('\n'));
const item = (id: number) => itemOf(world, id);
const lines = () => bankPage(world, 'open').lines;
const LAYOUT = { account: 'Business', date: '0', text: '1', amount: '2', dates: 'dmy' };

const bring = (...rows: string[]) => bringIn(world, 'bank.csv', csv(...rows), LAYOUT);

describe('bank lines', () => {
	it('are in the books once somebody has looked at them; the columns of a file are known then', () => {
		const id = lookInto(world, 'a.csv', csv('24/11/2026,a,1.00', '25/11/2026,b,-3.00', 'soon,c,4'));
		const first = look(world, id);
		expect(first).to.deep.include({
			known: false,
			account: '',
			here: [false, false],
			fresh: { count: 2, in: 1_00, out: 3_00 }
		});
		expect(first.file.leftOut.map((one) => one.row)).to.deep.equal([4]);
		expect(lines()).to.deep.equal([]);
		// Other columns are looked at, and kept with the account.
		expect(look(world, id, { ...LAYOUT, text: '' }).file.lines[0]!.text).to.equal('');
		expect(() => look(world, id, { amount: '2' })).to.throw(FieldError);
		expect(() => takeIn(world, id, { ...LAYOUT, date: '1' })).to.throw(FieldError);
		const taken = { added: 2, known: 0, unread: 1 };
		expect(takeIn(world, id, LAYOUT)).to.deep.equal(taken);
		expect(takeIn(world, id, null), 'pressed again').to.deep.equal(taken);
		expect(() => look(world, id)).to.throw(NotFoundError);
		const next = lookInto(world, 'b.csv', csv('24/11/2026,a,1.00', '26/11/2026,d,2.00'));
		expect(look(world, next)).to.deep.include({
			known: true,
			account: 'Business',
			here: [true, false],
			fresh: { count: 1, in: 2_00, out: 0 }
		});
		forgetColumns(world, next);
		expect(look(world, next)).to.include({ known: false, account: '' });
		leaveFile(world, next);
		expect(() => look(world, next)).to.throw(NotFoundError);
	});

	it('that are not booked yet come with a later file; a file nobody took in goes', () => {
		const pending =
			'Date,Text,Amount,Status\n24/11/2026,a,1.00,Pending\n23/11/2026,b,2.00,Completed\n';
		const id = lookInto(world, 'a.csv', bytes(pending));
		expect(look(world, id).fresh.count).to.equal(1);
		expect(takeIn(world, id, null)).to.deep.equal({ added: 1, known: 0, unread: 1 });
		const left = lookInto(world, 'left.csv', csv('24/11/2026,a,1.00'));
		world.clock.set(world.clock.now() + 15 * 24 * 60 * 60 * 1000);
		lookInto(world, 'c.csv', csv('24/11/2026,a,1.00'));
		expect(() => look(world, left)).to.throw(NotFoundError);
	});

	it('teach under which name a payer pays, never the owner’s own; what is wrong is forgotten', async () => {
		const a = await issued(world, FIRM, { rows: [line('a', 'Render', '100')] });
		const own =
			'Date,Name,Text,Amount\n24/11/2026,Orrell Lime & Plaster,x,1.00\n24/11/2026,CORVANE DY,y,2.00\n';
		bringIn(world, 'a.csv', bytes(own));
		for (const one of lines()) acceptLine(world, one.id, { payerId: a.customerId });
		expect(learnedNames(world, '').rows.map(({ name }) => name)).to.deep.equal(['corvanedy']);
		expect(learnedNames(world, 'VANE d').rows).to.have.length(1);
		// By what stands at the bank, and by who it is.
		expect(learnedNames(world, 'Vane-DY').rows).to.have.length(1);
		expect(learnedNames(world, ' dairy ').rows).to.have.length(1);
		expect(learnedNames(world, 'beacon').rows).to.deep.equal([]);
		forgetName(world, 'corvanedy');
		expect(learnedNames(world, '').rows).to.deep.equal([]);
	});

	it('come once, from the same file again or from one that overlaps; twins in one file are two', () => {
		const twins = ['23/11/2026,Twin,5.00', '23/11/2026,Twin,5.00'];
		expect(bring('22/11/2026,Old,1.00', ...twins)).to.include({ added: 3, known: 0 });
		expect(bring('22/11/2026,Old,1.00', ...twins)).to.include({ added: 0, known: 3 });
		expect(bring(...twins, '24/11/2026,New,7.00')).to.include({ added: 1, known: 2 });
	});

	it('that cannot be read are refused in words', () => {
		expect(() => lookInto(world, 'x', bytes('<?xml version="1.0"?><a/>'))).to.throw(FieldError);
		expect(() => lookInto(world, 'x', bytes(''))).to.throw(FieldError);
	});

	it('post nothing until they are accepted; undone, the line is open again', async () => {
		const a = await issued(world, FIRM, { rows: [line('a', 'Render', '100')] });
		bring(`24/11/2026,${a.number} thanks,120.00`);
		await matchLines(world);
		expect(item(a.id).state).to.equal('open');
		const [first] = lines();
		expect(first!.proposals[0]).to.include({ sure: true });
		const payment = acceptLine(world, first!.id, kept(first!.proposals[0]!));
		expect(acceptLine(world, first!.id, kept(first!.proposals[0]!))).to.equal(payment);
		expect(item(a.id)).to.include({ state: 'paid', settledOn: '2026-11-24' });
		reopenLine(world, first!.id);
		expect(item(a.id).state).to.equal('open');
		const again = lines()[0]!;
		acceptLine(world, again.id, kept(again.proposals[0]!));
		expect(item(a.id).state).to.equal('paid');
		expect(world.db.select().from(payments).all()).to.have.length(2);
	});

	it('of a contractor that deducted settle in full; the sure ones go in one press', async () => {
		const a = await issued(world, CONTRACTOR);
		const b = await issued(world, FIRM, { rows: [line('a', 'Render', '100')] });
		const net = (item(a.id).total - item(a.id).deduction!) / 100;
		bring(
			`24/11/2026,BEACON AND LATHE ${a.number},${net.toFixed(2)}`,
			`24/11/2026,${b.number},120.00`,
			'24/11/2026,Cashback,3.00',
			'24/11/2026,Rent,-500.00'
		);
		await matchLines(world);
		expect(bankPage(world, 'open').counts).to.include({ open: 3, out: 1, sure: 2 });
		expect(await acceptSure(world)).to.deep.equal({
			accepted: 2,
			amount: Math.round(net * 100) + 120_00,
			left: 0
		});
		expect([item(a.id).state, item(b.id).state]).to.deep.equal(['paid', 'paid']);
		expect(item(a.id).withheld).to.equal(item(a.id).deduction);
		expect(lines()[0]!.proposals).to.deep.equal([]);
		setNotBusiness(world, lines()[0]!.id);
		expect(lines()).to.deep.equal([]);
	});

	it('a sure one that another settled in the meantime is left to look at', async () => {
		const a = await issued(world, FIRM, { rows: [line('a', 'Render', '100')] });
		bring(`23/11/2026,${a.number},120.00`);
		await matchLines(world);
		recordPayment(world, a.id, {
			key: 'by hand',
			date: '2026-11-24',
			amount: '120',
			withheld: '',
			way: 'bank',
			reference: '',
			allowOverpaid: false
		});
		expect(await acceptSure(world)).to.include({ accepted: 0, left: 1 });
		const [left] = lines();
		expect(() =>
			acceptLine(world, left!.id, {
				payerId: a.customerId,
				shares: [{ documentId: a.id, amount: 120_00, withheld: null }]
			})
		).to.throw(RefusedError);
		acceptLine(world, left!.id, { payerId: a.customerId });
		expect(inHandOf(world.db, a.customerId)[0]!.amount).to.equal(120_00);
	});

	it('teach the names payers pay under', async () => {
		const a = await issued(world, FIRM, { rows: [line('a', 'Render', '100')] });
		bring('20/11/2026,CD ACCOUNTS DEPT,55.00');
		acceptLine(world, lines()[0]!.id, { payerId: a.customerId });
		bring('24/11/2026,CD ACCOUNTS DEPT,65.00');
		const [next] = lines();
		expect(next!.proposals[0]!.reasons.join()).to.match(/paid under this name before/);
		expect(next!.proposals[0]!.sure).to.equal(true);
	});

	for (const [what, input] of [
		['nobody', { payerId: 0 }],
		['shares that are none', { payerId: 1, shares: 'all' }],
		['half a penny', { payerId: 1, shares: [{ documentId: 1, amount: 0.5, withheld: null }] }]
	] as const)
		it(`refuse ${what}`, () => {
			bring('24/11/2026,x,1.00');
			const { id } = world.db.select().from(bankLines).get()!;
			expect(() => acceptLine(world, id, input)).to.throw(FieldError);
		});
});
