// Lists walked through by key: every row once, forwards and back, and rows that come meanwhile move nothing.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { readCursor, type Page } from '../../../src/lib/core/paging';
import { bankImports, bankLines, priceItems } from '../../../src/lib/server/db/schema';
import { bankPage } from '../../../src/lib/server/services/money/bank/lines';
import { listPrices, PRICES_PER_PAGE } from '../../../src/lib/server/services/prices/search';
import { makeWorld, type TestWorld } from '../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => world.end());

type Places = Pick<Page<unknown>, 'before' | 'after'>;
const at = (way: 'before' | 'after', place: string) =>
	readCursor(new URLSearchParams({ [way]: place }));

/** Walks to the end and back again. */
function walk<Row extends { id: number }>(
	page: (cursor: ReturnType<typeof readCursor>) => Places & { rows: readonly Row[] }
): { there: number[][]; back: number[][] } {
	const there: number[][] = [];
	let shown = page(null);
	there.push(shown.rows.map((row) => row.id));
	expect(shown.before).to.equal(null);
	while (shown.after) {
		shown = page(at('after', shown.after));
		there.push(shown.rows.map((row) => row.id));
	}
	const back = [there.at(-1)!];
	while (shown.before) {
		shown = page(at('before', shown.before));
		back.unshift(shown.rows.map((row) => row.id));
	}
	return { there, back };
}

function addPrices(names: string[], category = 'Lime'): void {
	for (const name of names)
		world.db.insert(priceItems).values({ name, category, kind: 'materials', updatedAt: 1 }).run();
}

describe('the price list', () => {
	it('shows every entry once, by category and name, however many bear one name', () => {
		addPrices(Array.from({ length: 130 }, (_, n) => `Putty ${String(129 - n).padStart(3, '0')}`));
		addPrices(
			Array.from({ length: 120 }, () => 'Sand'),
			'Aggregates'
		);
		const { there, back } = walk((cursor) => listPrices(world, { cursor }));
		expect(there.map((page) => page.length)).to.deep.equal([PRICES_PER_PAGE, PRICES_PER_PAGE, 50]);
		expect(back).to.deep.equal(there);
		const all = there.flat();
		expect(new Set(all).size).to.equal(250);
		// Aggregates first, as they were added; then putty by its name.
		expect(all.slice(0, 120)).to.deep.equal(Array.from({ length: 120 }, (_, n) => 131 + n));
		expect(all.slice(120)).to.deep.equal(Array.from({ length: 130 }, (_, n) => 130 - n));
		expect(listPrices(world, {}).total).to.equal(250);
	});

	it('that fits on a page has no other', () => {
		addPrices(Array.from({ length: PRICES_PER_PAGE }, (_, n) => `A${n}`));
		const { before, after } = listPrices(world, {});
		expect([before, after]).to.deep.equal([null, null]);
	});

	it('goes on where it was when an entry comes in between', () => {
		addPrices(Array.from({ length: 150 }, (_, n) => `B${String(n).padStart(3, '0')}`));
		const first = listPrices(world, {});
		addPrices(['A first of all']);
		const second = listPrices(world, { cursor: at('after', first.after!) });
		expect(second.rows[0]!.name).to.equal('B100');
	});
});

describe('lines of the bank', () => {
	beforeEach(() => {
		world.db
			.insert(bankImports)
			.values({ name: 'x', format: 'csv', state: 'done', createdAt: 1 })
			.run();
	});
	function addLines(
		count: number,
		more: (n: number) => Partial<typeof bankLines.$inferInsert>
	): void {
		for (let n = 0; n < count; n++)
			world.db
				.insert(bankLines)
				.values({
					importId: 1,
					key: `k${n}-${Math.abs(count)}`,
					account: '',
					payer: '',
					date: '2026-11-20',
					amount: 100 + n,
					text: `line ${n}`,
					state: 'accepted',
					...more(n)
				})
				.run();
	}

	it('are walked through by day, the newest first, each once', () => {
		addLines(95, (n) => ({ date: `2026-11-${String(1 + (n % 7)).padStart(2, '0')}` }));
		const { there, back } = walk((cursor) => {
			const { lines, ...places } = bankPage(world, 'accepted', cursor);
			return { rows: lines, ...places };
		});
		expect(there.map((page) => page.length)).to.deep.equal([40, 40, 15]);
		expect(back).to.deep.equal(there);
		expect(new Set(there.flat()).size).to.equal(95);
		const first = bankPage(world, 'accepted').lines;
		expect(first[0]!.date).to.equal('2026-11-07');
		expect(first.every((one, n) => n === 0 || one.date <= first[n - 1]!.date)).to.equal(true);
	});

	it('that are open show the surest first', () => {
		addLines(50, (n) => ({
			state: 'open',
			proposal: { score: n % 10, sure: false } as never,
			date: `2026-10-${String(1 + (n % 28)).padStart(2, '0')}`
		}));
		const { there, back } = walk((cursor) => {
			const { lines, ...places } = bankPage(world, 'open', cursor);
			return { rows: lines, ...places };
		});
		expect(back).to.deep.equal(there);
		expect(new Set(there.flat()).size).to.equal(50);
		// Every tenth line has the score of nine: they lead, and no other.
		expect(there[0]!.slice(0, 5).map((id) => (id - 1) % 10)).to.deep.equal([9, 9, 9, 9, 9]);
		expect(there[1]!.map((id) => (id - 1) % 10).every((score) => score <= 1)).to.equal(true);
	});
});
