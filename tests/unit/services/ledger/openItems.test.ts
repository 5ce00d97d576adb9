// Where an invoice stands after each thing that can happen to it, and what its payer has in hand. Expected by hand.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../../src/lib/core/calendar/conversion';
import { creditInvoice } from '../../../../src/lib/server/services/invoices/creditNote';
import { inHandOf, unusedPayments } from '../../../../src/lib/server/services/ledger/inHand';
import { settledBy } from '../../../../src/lib/server/services/ledger/settlement';
import { writeOffs } from '../../../../src/lib/server/db/schema';
import { recordForPayer } from '../../../../src/lib/server/services/money/payerPayments';
import { writeOff } from '../../../../src/lib/server/services/money/writeOffs';
import { expectSoundBooks } from '../../../support/books';
import { FIRM, itemOf, oneLine, payByHand } from '../../../support/money';
import {
	CONTRACTOR,
	HOUSEHOLD,
	issued,
	line,
	makeWorld,
	type TestWorld
} from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const labour = { rows: [line('a', 'Render', '1000', { kind: 'labour' })] };

interface Happens {
	pays(amount: string, on?: string, withheld?: string): void;
	credits(): Promise<unknown>;
	givesUp(): void;
}

describe('an invoice stands', () => {
	/** 1,200.00 of a firm (1,000.00 and VAT); or 1,000.00 of a contractor that deducts 200.00. */
	const cases: [string, 'firm' | 'contractor', (it: Happens) => unknown, object][] = [
		[
			'open as it was issued',
			'firm',
			() => undefined,
			{ state: 'open', outstanding: 120_000, toPay: 120_000, deduction: null, settledOn: null }
		],
		[
			'part paid',
			'firm',
			({ pays }) => pays('500'),
			{ state: 'partPaid', cash: 50_000, outstanding: 70_000, toPay: 70_000, settledOn: null }
		],
		[
			'settled on the day of the last money, whichever was noted last',
			'firm',
			({ pays }) => {
				pays('700', '2026-11-25');
				pays('500', '2026-11-24');
			},
			{ state: 'paid', cash: 120_000, outstanding: 0, overpaid: 0, settledOn: '2026-11-25' }
		],
		[
			'overpaid',
			'firm',
			({ pays }) => pays('1200.01'),
			{ state: 'paid', cash: 120_001, outstanding: 0, toPay: 0, overpaid: 1 }
		],
		[
			'credited',
			'firm',
			({ credits }) => credits(),
			{ state: 'credited', credited: 120_000, cash: 0, outstanding: 0, overpaid: 0 }
		],
		[
			'credited after a part was paid: that part is in hand',
			'firm',
			async ({ pays, credits }) => {
				pays('500');
				await credits();
			},
			{ state: 'credited', credited: 120_000, cash: 50_000, outstanding: 0, overpaid: 50_000 }
		],
		[
			'written off',
			'firm',
			({ givesUp }) => givesUp(),
			{ state: 'writtenOff', writtenOff: 120_000, outstanding: 0, toPay: 0, overpaid: 0 }
		],
		[
			'written off for what was not paid',
			'firm',
			({ pays, givesUp }) => {
				pays('500');
				givesUp();
			},
			{ state: 'writtenOff', cash: 50_000, writtenOff: 70_000, outstanding: 0, overpaid: 0 }
		],
		[
			'open with a contractor, who sends 800.00',
			'contractor',
			() => undefined,
			{ state: 'open', outstanding: 100_000, toPay: 80_000, deduction: 20_000, withheld: 0 }
		],
		[
			'half paid by a contractor, half withheld',
			'contractor',
			({ pays }) => pays('400'),
			{ state: 'partPaid', outstanding: 50_000, toPay: 40_000, deduction: 20_000, withheld: 10_000 }
		],
		[
			'paid in full by a contractor who sends the net amount',
			'contractor',
			({ pays }) => pays('800'),
			{ state: 'paid', cash: 80_000, withheld: 20_000, outstanding: 0, toPay: 0, overpaid: 0 }
		],
		[
			'paid by a contractor who says what it withheld: less than expected, and the rest is open',
			'contractor',
			({ pays }) => pays('700', undefined, '100'),
			{ state: 'partPaid', cash: 70_000, withheld: 10_000, outstanding: 20_000, deduction: 20_000 }
		],
		[
			'paid by a contractor in two parts of one day, the first withholding nothing',
			'contractor',
			({ pays }) => {
				pays('400', undefined, '0');
				pays('300', undefined, '200');
			},
			{ state: 'partPaid', cash: 70_000, withheld: 20_000, outstanding: 10_000, toPay: 10_000 }
		],
		[
			'paid by a firm: nobody deducts, and nothing is said of a deduction',
			'firm',
			({ pays }) => pays('1200'),
			{ state: 'paid', withheld: 0, deduction: null, writtenOff: 0, settledOn: '2026-11-24' }
		],
		[
			'paid after all once it was given up: the loss is taken back as far as it is',
			'firm',
			({ givesUp, pays }) => {
				givesUp();
				pays('500', '2026-11-26');
			},
			{ state: 'writtenOff', cash: 50_000, writtenOff: 70_000, outstanding: 0, overpaid: 0 }
		],
		[
			'credited to a contractor: nothing is expected to be deducted any more',
			'contractor',
			({ credits }) => credits(),
			{ state: 'credited', credited: 100_000, deduction: 0, withheld: 0, outstanding: 0 }
		]
	];
	for (const [name, who, happens, expected] of cases) {
		it(name, async () => {
			const { id } = await issued(world, who === 'firm' ? FIRM : CONTRACTOR, labour);
			world.clock.set(londonMoment('2026-11-26T09:00'));
			await happens({
				pays: (amount, date = '2026-11-24', withheld = '') =>
					void payByHand(world, id, amount, { date, withheld }),
				credits: () => creditInvoice(world, id, 'Not done', 'c'),
				givesUp: () => writeOff(world, id, 'Gone', 'w')
			});
			expect(itemOf(world, id)).to.include(expected);
			// A loss is a row, never one of nothing.
			const losses = world.db.select({ amount: writeOffs.amount }).from(writeOffs).all();
			expect(losses.every(({ amount }) => amount !== 0)).to.equal(true);
		});
	}
});

describe('what settled many invoices', () => {
	it('is read in pieces, each once', async () => {
		const first = await issued(world, FIRM, oneLine('10'));
		const last = await issued(world, HOUSEHOLD, oneLine('20'));
		payByHand(world, first.id, '5');
		payByHand(world, last.id, '7');
		const missing = Array.from({ length: 998 }, (_, index) => 10_000 + index);
		const found = settledBy(world.db, [first.id, ...missing, last.id]);
		expect(found.size).to.equal(1000);
		expect(found.get(first.id)!.map(({ amount }) => amount)).to.deep.equal([500n]);
		expect(found.get(last.id)!.map(({ amount }) => amount)).to.deep.equal([700n]);
	});
});

describe('in hand is', () => {
	const loose = (payerId: number, amount: string, date: string, reference = '') =>
		recordForPayer(world, payerId, {
			key: `loose-${amount}`,
			date,
			amount,
			way: 'bank',
			reference,
			shares: {}
		});

	it('what no invoice used and what an invoice got too much, the earliest first, of this payer alone', async () => {
		const { id, customerId, number } = await issued(world, FIRM, oneLine('100'));
		const other = await issued(world, HOUSEHOLD, oneLine('100'));
		world.clock.set(londonMoment('2026-11-28T09:00'));
		loose(customerId, '30', '2026-11-27', 'deposit');
		payByHand(world, id, '150', { date: '2026-11-26' });
		loose(customerId, '20', '2026-11-25');
		loose(other.customerId, '5', '2026-11-24');
		expect(
			inHandOf(world.db, customerId).map(({ date, amount, what }) => [date, amount, what])
		).to.deep.equal([
			['2026-11-25', 2_000, 'Payment'],
			['2026-11-26', 3_000, `More than ${number} comes to`],
			['2026-11-27', 3_000, 'Payment “deposit”']
		]);
		expect(unusedPayments(world.db, customerId).map(({ left }) => left)).to.deep.equal([
			2_000, 3_000
		]);
		expect(unusedPayments(world.db).map(({ left }) => left)).to.deep.equal([500, 2_000, 3_000]);
	});
});
