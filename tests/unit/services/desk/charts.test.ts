// Charts: every bar is the sum of what stands behind it, and agrees with the account it comes from.
import { expect } from 'chai';
import { sql } from 'drizzle-orm';
import { after, before, describe, it } from 'mocha';
import { londonMoment } from '../../../../src/lib/core/calendar/conversion';
import { AGES } from '../../../../src/lib/core/settlement/statement';
import { NotFoundError } from '../../../../src/lib/core/refusals';
import {
	behindBar,
	chartsPage,
	type Behind
} from '../../../../src/lib/server/services/desk/charts';
import { creditInvoice } from '../../../../src/lib/server/services/invoices/creditNote';
import { refundByHand } from '../../../../src/lib/server/services/money/refunds';
import { openCheckout } from '../../../../src/lib/server/services/money/checkouts';
import { undoPayment } from '../../../../src/lib/server/services/money/undo';
import { writeOff } from '../../../../src/lib/server/services/money/writeOffs';
import { another, FIRM, oneLine, payByHand } from '../../../support/money';
import {
	CONTRACTOR,
	issued,
	makeWorld,
	receive,
	settledEvent,
	type TestWorld
} from '../../../support/world';

let world: TestWorld;
let numbers: Record<string, number>;

/** A quarter of all sorts, from September on. */
before(async () => {
	world = makeWorld();
	world.clock.set(londonMoment('2026-09-07T09:00'));
	const early = await issued(world, FIRM, { ...oneLine('1000'), dueDate: '2026-09-21' });
	const firm = early.customerId;
	world.clock.set(londonMoment('2026-10-05T09:00'));
	payByHand(world, early.id, '1220.00', { date: '2026-10-05' });
	const part = await another(world, firm, '500', { dueDate: '2026-10-19' });
	const contract = await issued(world, CONTRACTOR, { ...oneLine('800'), dueDate: '2026-11-01' });
	world.clock.set(londonMoment('2026-11-02T09:00'));
	payByHand(world, part.id, '200.00', { date: '2026-10-20' });
	// Reverse charge, all labour: 160.00 of 800.00 is deducted.
	payByHand(world, contract.id, '640.00', { date: '2026-11-02', withheld: '160.00' });
	const wrong = await another(world, firm, '90', { dueDate: '2026-11-16' });
	await creditInvoice(world, wrong.id, 'Wrong customer', 'credit');
	const lost = await another(world, firm, '70', { dueDate: '2026-11-10' });
	writeOff(world, lost.id, 'Gone', 'lost');
	const byCard = await another(world, firm, '300', { dueDate: '2026-12-20' });
	world.clock.set(londonMoment('2026-11-24T09:00'));
	const token = world.db.get<{ token: string }>(
		sql`select token from documents where id = ${byCard.id}`
	)!.token;
	await openCheckout(world, token, 'card:1', 10_000);
	receive(world, settledEvent(world.checkouts.at(-1)!.id, 100_00));
	const mistaken = payByHand(world, part.id, '5.00');
	undoPayment(world, mistaken, 'Recorded by mistake');
	refundByHand(world, early.id, {
		key: 'back',
		date: '2026-11-23',
		amount: '20.00',
		way: 'bank',
		reference: ''
	});
	numbers = { firm, contractor: contract.customerId };
});
after(() => world.end());

const sum = (bar: Behind) => behindBar(world, bar).reduce((total, row) => total + row.amount, 0);

describe('the charts of money', () => {
	it('show by month what was billed, what came in, and what was withheld', () => {
		const months = chartsPage(world).months.slice(-3);
		expect(months).to.deep.equal([
			{ month: '2026-09', billed: 1200_00, received: 0, withheld: 0 },
			// 600.00 to the firm and 800.00 to the contractor; 1,220.00, 20.00 too much, and 200.00 came.
			{ month: '2026-10', billed: 1400_00, received: 1420_00, withheld: 0 },
			// 108.00 were billed and credited, 84.00 written off, 360.00 in part paid by card; 20.00 went back.
			{ month: '2026-11', billed: 444_00, received: 640_00 + 100_00 - 20_00, withheld: 160_00 }
		]);
	});

	it('open each month’s bar into what adds up to it', () => {
		for (const month of chartsPage(world).months) {
			expect(sum({ of: 'billed', month: month.month }), month.month).to.equal(month.billed);
			expect(sum({ of: 'received', month: month.month }), month.month).to.equal(month.received);
			expect(sum({ of: 'withheld', month: month.month }), month.month).to.equal(month.withheld);
		}
	});

	it('show what is owed at each month’s end, which the account of debtors agrees with', () => {
		const { ends, owed } = chartsPage(world);
		ends.forEach((on, index) => {
			const whole = AGES.reduce((total, age) => total + Number(owed[index]![age]), 0);
			const { balance } = world.db.get<{ balance: number }>(sql`
				select coalesce(sum(l.amount), 0) as balance from journal_lines l
				join journal_entries e on e.id = l.entry_id where l.account = 'receivable' and e.date <= ${on}`)!;
			// 20.00 too much were in hand until they were given back: nobody owes less for that.
			const inHand = on === '2026-10-31' ? 20_00 : 0;
			expect(whole, on).to.equal(balance + inHand);
			for (const age of AGES)
				expect(sum({ of: 'owed', on, age }), `${on} ${age}`).to.equal(Number(owed[index]![age]));
		});
	});

	it('put each open invoice into the week it is likely to come, and lose none', () => {
		const { likely, unsaid } = chartsPage(world);
		const weeks = likely.map((one) => one.week);
		expect(weeks).to.have.length(8);
		// Mondays, this week’s first.
		expect(weeks[0]).to.equal('2026-11-23');
		expect(weeks[1]).to.equal('2026-11-30');
		for (const { week, amount } of likely)
			expect(BigInt(sum({ of: 'likely', week })), week).to.equal(amount);
		const open = world.db.get<{ n: number }>(
			sql`select sum(to_pay) as n from open_items where state in ('open', 'partPaid')`
		)!.n;
		const within = Number(likely.reduce((total, one) => total + one.amount, 0n) + unsaid);
		expect(within).to.be.at.most(open);
		// 400.00 and 260.00 are open; both fall into these weeks or have no likely day.
		expect(open).to.equal(400_00 + 260_00);
	});

	it('say how late a payer usually is, by the invoices behind it', () => {
		const { payers } = chartsPage(world);
		const firm = payers.find((one) => one.id === numbers.firm);
		expect(firm).to.include({ median: 14 });
		expect(
			behindBar(world, { of: 'payer', payerId: numbers.firm! }).map((row) => row.amount)
		).to.deep.equal([14]);
		const contractor = payers.find((one) => one.id === numbers.contractor);
		expect(contractor).to.include({ median: 1 });
	});

	it('know no bar that is none', () => {
		expect(() =>
			behindBar(world, { of: 'owed', on: '2026-11-30', age: 'never' as never })
		).to.throw(NotFoundError);
	});
});
