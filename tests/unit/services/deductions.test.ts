import { expect } from 'chai';
import { bringBack } from '../../../src/lib/server/services/business/bin';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../src/lib/core/calendar/conversion';
import {
	statementDeadline,
	taxMonthEnd,
	taxYearEnd
} from '../../../src/lib/core/calendar/manipulation';
import { deductionMonths } from '../../../src/lib/core/settlement/deductions';
import { expectSoundBooks } from '../../support/books';
import {
	deductionsByMonth,
	deductionsPage,
	missingStatements,
	removeDeductionStatement,
	saveDeductionStatement
} from '../../../src/lib/server/services/tax/deductions';
import { FieldError, NotFoundError } from '../../../src/lib/core/refusals';
import { nextMoves } from '../../../src/lib/server/services/desk/moves';
import { recordPayment } from '../../../src/lib/server/services/money/payments';
import { CONTRACTOR, issued, makeWorld, type TestWorld } from '../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});
const on = (day: string) => world.clock.set(londonMoment(`${day}T09:00`));

describe('tax months and years', () => {
	for (const [day, month, year] of [
		['2026-11-05', '2026-11-05', '2027-04-05'],
		['2026-11-06', '2026-12-05', '2027-04-05'],
		['2026-12-31', '2027-01-05', '2027-04-05'],
		['2027-04-05', '2027-04-05', '2027-04-05'],
		['2027-04-06', '2027-05-05', '2028-04-05']
	] as const)
		it(day, () => {
			expect([taxMonthEnd(day), taxYearEnd(day)]).to.deep.equal([month, year]);
			expect(statementDeadline(day)).to.equal(`${month.slice(0, 8)}19`);
		});
});

describe('what contractors withheld', () => {
	/** A contractor's invoice, paid on a day, with a deduction worked out or stated. */
	async function paid(day: string, withheld = '') {
		const invoice = await issued(world, CONTRACTOR);
		on(day);
		const { outstanding, deduction } = world.db.$client
			.prepare('select outstanding, deduction from open_items where document_id = ?')
			.get(invoice.id) as { outstanding: number; deduction: number };
		const kept = withheld === '' ? deduction : Number(withheld) * 100;
		recordPayment(world, invoice.id, {
			key: `p-${invoice.id}`,
			date: day,
			amount: ((outstanding - kept) / 100).toFixed(2),
			withheld,
			way: 'bank',
			reference: '',
			allowOverpaid: true
		});
		return { contractor: invoice.customerId, deduction };
	}
	const statement = (contractor: number, month: string, deduction: string) =>
		saveDeductionStatement(world, {
			contractor,
			month,
			gross: '2000',
			materials: '720',
			deduction,
			reference: ''
		});

	it('stands by tax month of the payment, and is missed after the 19th', async () => {
		const { contractor, deduction } = await paid('2026-12-05');
		expect(deductionsByMonth(world)).to.deep.include.members([
			{
				contractorId: contractor,
				monthEnd: '2026-12-05',
				deadline: '2026-12-19',
				gross: 2300_00n,
				expected: BigInt(deduction),
				withheld: BigInt(deduction),
				stated: null,
				state: 'waiting',
				documentIds: [1]
			}
		]);
		on('2026-12-19');
		expect(missingStatements(world)).to.deep.equal([]);
		on('2026-12-20');
		expect(missingStatements(world)).to.have.length(1);
		expect(nextMoves(world).some((move) => /deduction statement/.test(move.title))).to.equal(true);
		statement(contractor, '2026-11-06', (deduction / 100).toFixed(2));
		expect(missingStatements(world)).to.deep.equal([]);
		expect(deductionsPage(world)).to.include({
			withheld: BigInt(deduction),
			stated: BigInt(deduction)
		});
	});

	it('differs by a pound or more; whole pounds are no difference; what was stated is not what was expected', async () => {
		const { contractor, deduction } = await paid('2026-12-01', '300');
		const [month] = deductionsByMonth(world);
		expect([month!.expected, month!.withheld]).to.deep.equal([BigInt(deduction), 300_00n]);
		for (const [stated, state] of [
			['300.99', 'agrees'],
			['301', 'differs'],
			['299.01', 'agrees']
		] as const) {
			statement(contractor, '2026-12-05', stated);
			expect(deductionsByMonth(world)[0]!.state, stated).to.equal(state);
		}
		bringBack(world, removeDeductionStatement(world, contractor, '2026-12-05'));
		removeDeductionStatement(world, contractor, '2026-12-05');
		expect(() => removeDeductionStatement(world, contractor, '2026-12-05')).to.throw(NotFoundError);
	});

	it('a statement of a month without payments is shown, and said to be unexpected', () => {
		const [month] = deductionMonths(
			[],
			[{ contractorId: 1, monthEnd: '2026-12-05', deduction: 10_00n }],
			'2026-12-24'
		);
		expect(month!.state).to.equal('unexpected');
	});

	for (const [what, more, field] of [
		['nobody', { contractor: 0 }, 'contractor'],
		['no month', { month: 'December' }, 'month'],
		['more deducted than paid', { deduction: '2000.01' }, 'deduction'],
		['no amount', { gross: 'lots' }, 'gross']
	] as const)
		it(`refuses ${what} at its field`, async () => {
			const { contractor } = await paid('2026-12-01');
			const form = {
				contractor,
				month: '2026-12-05',
				gross: '2000',
				materials: '',
				deduction: '100',
				reference: '',
				...more
			};
			expect(() => saveDeductionStatement(world, form))
				.to.throw(FieldError)
				.with.nested.property(`fields.${field}`);
		});
});
