// Large statements, which go to a thread of their own: the same comes of them, and what is refused is said as for small ones.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { FieldError, NotFoundError } from '../../../../../src/lib/core/refusals';
import { bankImports, bankLines, csvLayouts } from '../../../../../src/lib/server/db/schema';
import {
	columnsForgotten,
	fileIn,
	fileShown,
	fileTaken
} from '../../../../../src/lib/server/services/money/bank/incoming';
import { matchLines } from '../../../../../src/lib/server/services/money/bank/matching';
import { bringIn } from '../../../../support/bank';
import { FIRM, oneLine } from '../../../../support/money';
import { issued, makeWorld, type TestWorld } from '../../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => world.end());

const bytes = (text: string) => new TextEncoder().encode(text);
/** 1,500 lines of a pound in and one of twopence out each third; of 60 bytes, so that the file is large. */
const LINES = Array.from(
	{ length: 1500 },
	(_, n) => `24/11/2026,${`N${n} `.padEnd(50, 'x')},${n % 3 === 0 ? '-0.02' : '1.00'}`
);
const LARGE = ['Date,Description,Amount', ...LINES].join('\n');
const kept = () =>
	world.db
		.select({ key: bankLines.key, amount: bankLines.amount, text: bankLines.text })
		.from(bankLines)
		.orderBy(bankLines.key)
		.all();
const failure = (asked: Promise<unknown>) =>
	asked.then(
		() => expect.fail('it was taken'),
		(error: Error) => error
	);

describe('a large statement', () => {
	it('is looked at a hundred lines at a time, and taken in whole, once', async () => {
		expect(bytes(LARGE).length).to.be.above(60_000);
		const id = await fileIn(world, 'november.csv', bytes(LARGE));
		const page = await fileShown(world, id, null, 1450);
		expect(page).to.include({ count: 1500, from: 1450, to: 1500, problem: '', known: false });
		expect(page.fresh).to.deep.equal({ count: 1500, in: 100_000, out: 1000 });
		expect(page.lines.map(({ nth, amount, here }) => [nth, amount, here])[0]).to.deep.equal([
			1450,
			100,
			false
		]);
		await fileTaken(world, id, null);
		await fileTaken(world, id, null);
		const row = world.db.select().from(bankImports).get()!;
		expect([row.state, row.added, row.known, row.content]).to.deep.equal(['done', 1500, 0, null]);
		const large = kept();
		expect(large).to.have.length(1500);
		// What comes of it on the main thread is the same to the letter.
		expect(bringIn(world, 'again.csv', bytes(LARGE))).to.include({ added: 0, known: 1500 });
		expect(kept()).to.deep.equal(large);
	});

	it('leaves room for what others write meanwhile', async () => {
		const id = await fileIn(world, 'november.csv', bytes(LARGE));
		const taken = fileTaken(world, id, null);
		let written = 0;
		let over = false;
		const end = taken.then(() => (over = true));
		while (!over) {
			bringIn(world, 'x.csv', bytes(`Date,Description,Amount\n20/11/2026,OTHER ${++written},5.00`));
			await new Promise((resolve) => setTimeout(resolve, 5));
		}
		await end;
		expect(written).to.be.above(1);
		expect(kept()).to.have.length(1500 + written);
	});

	it('of a kind that cannot be read is refused at its box, and nothing of it stays', async () => {
		const qif = `!Type:Bank\n${'D24/11/2026\nT1.00\nPSomebody with a long name\n^\n'.repeat(1500)}`;
		const refused = (await failure(fileIn(world, 'a.qif', bytes(qif)))) as FieldError;
		expect(refused).to.be.instanceOf(FieldError);
		expect(refused.fields.file).to.match(/QIF/);
		expect(world.db.select().from(bankImports).all()).to.deep.equal([]);
		const missing = await failure(fileShown(world, 9, null, 0));
		expect(missing).to.be.instanceOf(NotFoundError);
		expect(missing.message).to.equal('This file is not here, or not any more.');
	});

	it('says what is wrong with chosen columns, and forgets those that were remembered', async () => {
		const id = await fileIn(world, 'november.csv', bytes(LARGE));
		const page = await fileShown(world, id, { date: '0', text: '1' }, 0);
		expect(page.problem).to.not.equal('');
		expect(page.csv!.layout.date).to.equal(0);
		bringIn(world, 'x.csv', bytes('Date,Description,Amount\n20/11/2026,OTHER,5.00'));
		expect((await fileShown(world, id, null, 0)).known).to.equal(true);
		await columnsForgotten(world, id);
		expect(world.db.select().from(csvLayouts).all()).to.deep.equal([]);
	});
});

describe('matching', () => {
	it('keeps nothing for a line that was decided while it ran', async () => {
		const { number } = await issued(world, FIRM, oneLine('100'));
		bringIn(
			world,
			'a.csv',
			bytes(
				`Date,Description,Amount\n20/11/2026,CORVANE ${number},120.00\n21/11/2026,CORVANE ${number} B,120.00`
			)
		);
		const running = matchLines(world);
		const [first] = world.db.select().from(bankLines).orderBy(bankLines.id).all();
		world.db.$client
			.prepare("update bank_lines set state = 'notBusiness' where id = ?")
			.run(first!.id);
		await running;
		const rows = world.db.select().from(bankLines).orderBy(bankLines.id).all();
		expect(rows.map((row) => [row.state, row.proposal !== null])).to.deep.equal([
			['notBusiness', false],
			['open', true]
		]);
	});
});
