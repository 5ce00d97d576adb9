// Tax points of a document, by themselves: they are all of it, each rate where its lines are, what was paid first first.
import { expect } from 'chai';
import fc from 'fast-check';
import { describe, it } from 'mocha';
import { taxPointRecords, type Advance } from '../../../../src/lib/core/documents/taxPoints';
import type { Frozen } from '../../../../src/lib/core/documents/types';
import type { Sheet, SheetLine } from '../../../../src/lib/core/sheet/types';
import { blankSheet } from '../../../../src/lib/core/sheet/blank';
import { customerOf, FULL, lineOf, readWith } from '../../../support/sheets';

const ISSUED = '2026-11-24';
function records(
	rows: SheetLine[],
	{
		who = customerOf('business'),
		advances = [],
		finished = ISSUED,
		registered = () => true,
		sheet = {}
	}: {
		who?: ReturnType<typeof customerOf>;
		advances?: Advance[];
		finished?: string;
		registered?: (day: string) => boolean;
		sheet?: Partial<Sheet>;
	} = {}
) {
	const { figures } = readWith(who, { rows, ...sheet });
	const frozen = {
		sheet: { ...blankSheet(), ...sheet, rows },
		issueDate: ISSUED,
		taxPoint: ISSUED,
		workFinished: finished
	} as unknown as Frozen;
	return {
		figures: figures!,
		found: taxPointRecords(
			frozen,
			figures!,
			{ rule: 'work', because: 'invoice' },
			registered,
			advances
		)
	};
}
const short = ({ found }: ReturnType<typeof records>) =>
	found.map(({ date, because, net, vatCharged, vatReverseCharged }) => [
		date,
		because,
		net,
		vatCharged,
		vatReverseCharged
	]);
const advance = (date: string, pounds: bigint): Advance => ({ date, amount: pounds * 100n });

describe('tax points as records', () => {
	it('are one for each day of its lines, and say whether the seller was registered then', () => {
		const one = records(
			[
				lineOf({ workDone: '2026-10-01' }),
				lineOf({ id: 'b', workDone: '2026-09-01' }),
				lineOf({ id: 'c' }),
				lineOf({ id: 'd', workDone: '2026-09-01' })
			],
			{ registered: (day) => day > '2026-09-30' }
		);
		expect(short(one)).to.deep.equal([
			['2026-09-01', 'work', 200_00, 40_00, 0],
			['2026-10-01', 'work', 100_00, 20_00, 0],
			[ISSUED, 'invoice', 100_00, 20_00, 0]
		]);
		expect(one.found.map(({ vat }) => vat)).to.deep.equal([false, true, true]);
	});

	it('of an old line within 14 days of the invoice are those of the invoice', () => {
		expect(short(records([lineOf({ workDone: '2026-11-10' })]))).to.deep.equal([
			[ISSUED, 'work', 100_00, 20_00, 0]
		]);
		expect(short(records([lineOf({ workDone: '2026-11-09' })]))).to.deep.equal([
			['2026-11-09', 'work', 100_00, 20_00, 0]
		]);
	});

	it('share what was paid before over every rate, also where it is more than all', () => {
		const rows = [
			lineOf({ unitPrice: '500' }),
			lineOf({ id: 'b', unitPrice: '400', vat: 'zero', vatReason: 'newDwelling' })
		];
		// 900 and 100 of VAT; a quarter of it was paid.
		expect(short(records(rows, { advances: [advance('2026-11-01', 250n)] }))).to.deep.equal([
			['2026-11-01', 'payment', 225_00, 25_00, 0],
			[ISSUED, 'invoice', 675_00, 75_00, 0]
		]);
		expect(
			short(records(rows, { advances: [advance('2026-11-01', 600n), advance('2026-11-02', 600n)] }))
		).to.deep.equal([
			['2026-11-01', 'payment', 540_00, 60_00, 0],
			['2026-11-02', 'payment', 360_00, 40_00, 0]
		]);
		// What came on the day of the invoice, or after the work was done, is no earlier.
		expect(short(records(rows, { advances: [advance(ISSUED, 250n)] }))).to.have.length(1);
		expect(
			short(records(rows, { finished: '2026-11-01', advances: [advance('2026-11-01', 250n)] }))
		).to.have.length(1);
		// Lines with days of their own are not paid before.
		expect(
			short(
				records([...rows, lineOf({ id: 'c', workDone: '2026-10-01' })], {
					advances: [advance('2026-11-01', 250n)]
				})
			).map(([date]) => date)
		).to.deep.equal(['2026-10-01', ISSUED]);
	});

	it('count what a contractor withheld with its money', () => {
		const who = customerOf('contractor', FULL);
		const found = short(
			records([lineOf({ unitPrice: '1000' })], { who, advances: [advance('2026-11-01', 200n)] })
		);
		expect(found).to.deep.equal([
			['2026-11-01', 'payment', 250_00, 0, 50_00],
			[ISSUED, 'invoice', 750_00, 0, 150_00]
		]);
		// All of it was paid: nothing is left for the invoice, nor a record of nothing.
		expect(
			short(
				records([lineOf({ unitPrice: '1000' })], { who, advances: [advance('2026-11-01', 800n)] })
			)
		).to.deep.equal([['2026-11-01', 'payment', 1000_00, 0, 200_00]]);
	});

	it('are all of a document, whatever is on it', () => {
		const day = fc.constantFrom(undefined, '2026-10-01', '2026-10-02', '2026-11-20');
		const row = fc.record({
			unitPrice: fc.integer({ min: 0, max: 99_999 }).map((pence) => (pence / 100).toFixed(2)),
			quantity: fc.constantFrom('1', '3', '-1', '0.37'),
			workDone: day,
			rate: fc.constantFrom(
				['standard', ''] as const,
				['zero', 'newDwelling'] as const,
				['reduced', 'emptyHome'] as const
			)
		});
		const paid = fc.record({
			date: fc.constantFrom('2026-09-01', '2026-11-01', '2026-11-23'),
			pounds: fc.bigInt(1n, 900n)
		});
		fc.assert(
			fc.property(
				fc.array(row, { minLength: 1, maxLength: 6 }),
				fc.array(paid, { maxLength: 3 }),
				fc.boolean(),
				(rows, payments, contractor) => {
					const lines = rows.map(({ rate, workDone, ...more }, index) =>
						lineOf({
							...more,
							id: `r${index}`,
							vat: rate[0],
							vatReason: rate[1],
							...(workDone ? { workDone } : {})
						})
					);
					const { figures, found } = records(lines, {
						...(contractor ? { who: customerOf('contractor', FULL) } : {}),
						advances: payments.map(({ date, pounds }) => advance(date, pounds))
					});
					if (figures.total <= 0n) return;
					const sum = (read: (one: (typeof found)[number]) => number) =>
						BigInt(found.reduce((total, one) => total + read(one), 0));
					expect(sum((one) => one.net)).to.equal(figures.net);
					expect(sum((one) => one.vatCharged)).to.equal(figures.vatCharged);
					expect(sum((one) => one.vatReverseCharged)).to.equal(figures.vatReverseCharged);
					const days = found.map(({ date }) => date);
					expect(days).to.deep.equal([...new Set(days)].sort());
				}
			),
			{ seed: 5, numRuns: 300 }
		);
	});
});
