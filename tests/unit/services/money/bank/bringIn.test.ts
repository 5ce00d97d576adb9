// A bank's file brought in: what is written about each line, which are the same, with which columns, and what was learned.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { bankLines, payerNames } from '../../../../../src/lib/server/db/schema';
import { addCustomer } from '../../../../../src/lib/server/services/customers/customers';
import { acceptLine } from '../../../../../src/lib/server/services/money/bank/accept';
import { look, lookInto, takeIn } from '../../../../../src/lib/server/services/money/bank/bringIn';
import { learnedNames } from '../../../../../src/lib/server/services/money/bank/learned';
import { bankPage, LINES_PER_PAGE } from '../../../../../src/lib/server/services/money/bank/lines';
import { bringIn } from '../../../../support/bank';
import { expectSoundBooks } from '../../../../support/books';
import { FIRM, oneLine } from '../../../../support/money';
import { issued, makeWorld, type TestWorld } from '../../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const bytes = (text: string) => new TextEncoder().encode(text);
const LAYOUT = { account: 'Business', date: '0', text: '1', amount: '2', dates: 'dmy' };
const bring = (rows: string[], head = 'Date,Description,Amount', layout: object = LAYOUT) =>
	bringIn(world, 'bank.csv', bytes([head, ...rows].join('\n')), layout);
const texts = () =>
	world.db
		.select()
		.from(bankLines)
		.orderBy(bankLines.id)
		.all()
		.map(({ text }) => text);

describe('the lines of a file', () => {
	it('have their reference in what is written about them, once', () => {
		bring(
			[
				'24/11/2026,CORVANE inv-7 LTD,1.00,INV-7',
				'24/11/2026,BEACON,2.00,INV-8',
				'24/11/2026,ORME,3.00,'
			],
			'Date,Description,Amount,Reference',
			{ ...LAYOUT, reference: '3' }
		);
		expect(texts()).to.deep.equal(['CORVANE inv-7 LTD', 'BEACON INV-8', 'ORME']);
	});

	it('that are the same to the letter are two, and a file that overlaps brings in the third alone', () => {
		const same = '24/11/2026,CORVANE,1.00';
		expect(bring([same, same])).to.include({ added: 2, known: 0 });
		expect(bring([same, same, same])).to.include({ added: 1, known: 2 });
		expect(bring([same])).to.include({ added: 0, known: 1 });
		expect(texts()).to.have.length(3);
		// Of another account it is another.
		expect(bring([same], undefined, { ...LAYOUT, account: 'Savings' })).to.include({ added: 1 });
	});

	it('are read with the columns that were chosen for such a file before', () => {
		const head = 'Day,One,Two,Sum';
		const rows = ['24/11/2026,a long text of a bank,short,1.00'];
		const before = look(world, lookInto(world, 'a.csv', bytes([head, ...rows].join('\n'))));
		expect([before.known, before.file.csv!.layout.text]).to.deep.equal([false, 1]);
		bring(rows, head, { ...LAYOUT, text: '2', amount: '3' });
		const file = bytes([head, '25/11/2026,another long text,brief,2.00'].join('\n'));
		const id = lookInto(world, 'b.csv', file);
		const seen = look(world, id);
		expect([seen.known, seen.account, seen.file.csv!.layout.text]).to.deep.equal([
			true,
			'Business',
			2
		]);
		takeIn(world, id, null);
		expect(texts()).to.deep.equal(['short', 'brief']);
	});
});

describe('lines as a page', () => {
	it('have proposals while they are open, the surest first, and none afterwards', async () => {
		const { id, customerId } = await issued(world, FIRM, oneLine('100'));
		bring(['20/11/2026,CORVANE,120.00', '24/11/2026,NOBODY,7.00']);
		const open = bankPage(world, 'open').lines;
		expect(
			open.map(({ text, proposals }) => [text, proposals.map((one) => one.shares[0]!.documentId)])
		).to.deep.equal([
			['NOBODY', []],
			['CORVANE', [id]]
		]);
		acceptLine(world, open[1]!.id, { payerId: customerId });
		expect(bankPage(world, 'open').lines.map(({ text }) => text)).to.deep.equal(['NOBODY']);
		const [accepted] = bankPage(world, 'accepted').lines;
		expect([accepted!.text, accepted!.proposals, accepted!.state]).to.deep.equal([
			'CORVANE',
			[],
			'accepted'
		]);
		expect(bankPage(world, 'open').counts).to.include({
			open: 1,
			accepted: 1,
			out: 0,
			notBusiness: 0
		});
	});

	it('are shown forty at a time, there and back', () => {
		const day = (n: number) => `${String((n % 28) + 1).padStart(2, '0')}/10/2026`;
		bring(Array.from({ length: 90 }, (_, n) => `${day(n)},Row ${n},${n + 1}.00`));
		const all: number[] = [];
		let page = bankPage(world, 'open');
		expect(page.before).to.equal(null);
		for (;;) {
			all.push(...page.lines.map(({ id }) => id));
			if (!page.after) break;
			page = bankPage(world, 'open', { way: 'after', key: '', id: page.lines.at(-1)!.id });
		}
		expect(all).to.have.length(90);
		expect(new Set(all).size).to.equal(90);
		const dates = new Map(
			world.db
				.select()
				.from(bankLines)
				.all()
				.map((one) => [one.id, one.date])
		);
		const sorted = all.toSorted((a, b) => dates.get(b)!.localeCompare(dates.get(a)!) || b - a);
		expect(all).to.deep.equal(sorted);
		const back = bankPage(world, 'open', { way: 'before', key: '', id: all[80]! });
		expect(back.lines.map(({ id }) => id)).to.deep.equal(all.slice(80 - LINES_PER_PAGE, 80));
	});
});

describe('what was learned', () => {
	it('is found by the name of the payer or what stood on the line, whatever is typed around it', () => {
		const [firm, orme] = [
			addCustomer(world, FIRM),
			addCustomer(world, { ...FIRM, name: 'Orme & Daughter' })
		];
		bring(['24/11/2026,CD ACCOUNTS PAYABLE,1.00', '24/11/2026,O AND D,2.00']);
		const open = bankPage(world, 'open').lines;
		acceptLine(world, open.find(({ text }) => text.startsWith('CD'))!.id, { payerId: firm });
		acceptLine(world, open.find(({ text }) => text.startsWith('O'))!.id, { payerId: orme });
		const found = (typed: string) =>
			learnedNames(world, typed).rows.map(({ name, payer }) => [name, payer]);
		const both = [
			['cdaccountspayable', 'Corvane Dairy Ltd'],
			['oandd', 'Orme & Daughter']
		];
		expect(found('')).to.deep.equal(both);
		expect(found('  ')).to.deep.equal(both);
		expect(found(' accounts PAYABLE ')).to.deep.equal([both[0]]);
		expect(found(' corvane ')).to.deep.equal([both[0]]);
		expect(found('& Daughter')).to.deep.equal([both[1]]);
		expect(found('beacon')).to.deep.equal([]);
		const name = (n: number) => ({ name: `name${n}`, payerId: firm, learnedAt: 0 });
		world.db
			.insert(payerNames)
			.values(Array.from({ length: 198 }, (_, n) => name(n)))
			.run();
		expect(learnedNames(world, '')).to.include({ more: false });
		world.db.insert(payerNames).values(name(198)).run();
		expect(learnedNames(world, '')).to.include({ more: true });
		expect(learnedNames(world, '').rows).to.have.length(200);
	});
});
