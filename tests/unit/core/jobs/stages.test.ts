import { expect } from 'chai';
import fc from 'fast-check';
import { describe, it } from 'mocha';
import { parseDecimal } from '../../../../src/lib/core/money/decimal';
import {
	computeStage,
	contractPosition,
	StageError,
	type ContractLine,
	type StageBasis,
	plannedStage
} from '../../../../src/lib/core/jobs/stages';

const line = (id: number, net: bigint, more: Partial<ContractLine> = {}): ContractLine => ({
	id,
	net,
	cost: null,
	billed: 0n,
	costBilled: 0n,
	extra: false,
	...more
});
const percent = (text: string) => parseDecimal(text)!;

/** Bills a stage: what it took is added to the lines. */
function bill(lines: ContractLine[], basis: StageBasis): bigint {
	const stage = computeStage(lines, basis);
	for (const part of stage.parts) {
		const one = lines.find(({ id }) => id === part.lineId)!;
		one.billed += part.amount;
		one.costBilled += part.cost ?? 0n;
	}
	return stage.amount;
}

describe('stages of a contract', () => {
	it('10 % deposit, 45 % to date, the rest: they add up to the whole to the penny', () => {
		const lines = [line(1, 700_033n, { cost: 123_457n }), line(2, 534_534n)];
		const parts = [
			bill(lines, { type: 'percent', percent: percent('10') }),
			bill(lines, { type: 'toDate', percent: percent('45') }),
			bill(lines, { type: 'rest' })
		];
		expect(parts).to.deep.equal([123_457n, 432_098n, 679_012n]);
		expect(parts.reduce((a, b) => a + b)).to.equal(1_234_567n);
		expect(lines.map((one) => one.costBilled)).to.deep.equal([123_457n, 0n]);
	});

	it('whatever the stages, each line ends at its price and its cost, and none goes beyond', () => {
		fc.assert(
			fc.property(
				fc.array(fc.tuple(fc.bigInt(0n, 10_000_00n), fc.bigInt(0n, 5_000_00n)), {
					minLength: 1,
					maxLength: 12
				}),
				fc.array(fc.integer({ min: 0, max: 100 }), { maxLength: 8 }),
				(nets, percents) => {
					const lines = nets.map(([net, cost], id) => line(id, net, { cost }));
					for (const each of percents) {
						try {
							bill(lines, { type: 'percent', percent: percent(String(each)) });
						} catch (error) {
							expect(error).to.be.instanceOf(StageError);
						}
						for (const one of lines) expect(one.billed <= one.net).to.equal(true);
					}
					if (contractPosition(lines).left > 0n) bill(lines, { type: 'rest' });
					for (const one of lines) {
						expect(one.billed).to.equal(one.net);
						expect(one.net === 0n || one.costBilled === one.cost).to.equal(true);
					}
				}
			)
		);
	});

	it('a valuation line by line bills what was done less what was billed', () => {
		const lines = [line(1, 100_00n, { billed: 10_00n }), line(2, 200_00n)];
		const done = new Map([
			[1, percent('50')],
			[2, percent('12.5')]
		]);
		expect(computeStage(lines, { type: 'valuation', done }).parts).to.deep.equal([
			{ lineId: 1, amount: 40_00n, cost: null },
			{ lineId: 2, amount: 25_00n, cost: null }
		]);
	});

	it('only chosen lines', () => {
		const lines = [line(1, 100_00n), line(2, 300_00n)];
		const stage = computeStage(lines, { type: 'percent', percent: percent('50'), lineIds: [2] });
		expect(stage.parts).to.deep.equal([{ lineId: 2, amount: 150_00n, cost: null }]);
	});

	const refused: [string, StageBasis, string, RegExp][] = [
		['more than is left', { type: 'amount', amount: 91_00n }, 'amount', /£90\.00 of it is left/],
		['less to date than is billed', { type: 'toDate', percent: percent('5') }, 'percent', /credit/],
		['nothing', { type: 'percent', percent: percent('0') }, 'percent', /nothing/],
		['no line', { type: 'percent', percent: percent('5'), lineIds: [] }, 'lines', /at least one/]
	];
	for (const [name, basis, field, words] of refused)
		it(`refuses ${name}, at its field`, () => {
			const attempt = () => computeStage([line(1, 100_00n, { billed: 10_00n })], basis);
			expect(attempt).to.throw(StageError, words).with.property('field', field);
		});

	it('shows contract sum, extras, billed and left', () => {
		const lines = [line(1, 100_00n, { billed: 30_00n }), line(2, 20_00n, { extra: true })];
		expect(contractPosition(lines)).to.deep.equal({
			contractSum: 100_00n,
			extras: 20_00n,
			billed: 30_00n,
			left: 90_00n
		});
	});
});

describe('the plan of an accepted quote', () => {
	it('says what comes next: its amount, its share where prices are without VAT, and last all that is left', () => {
		const plan = [
			{ title: 'Deposit', amount: 810_00 },
			{ title: 'Halfway', amount: 1000_00 },
			{ title: 'At the end', amount: 1430_00 }
		];
		const next = (billed: number, exact: boolean) => {
			const step = plannedStage(plan, billed, exact);
			return step && [step.kind, step.by, step.value];
		};
		expect(next(0, true)).to.deep.equal(['deposit', 'amount', '810.00']);
		// 810 of 3,240 is a quarter; 1,000 of it is 30.8642 %, half up.
		expect(next(0, false)).to.deep.equal(['deposit', 'percent', '25']);
		expect(next(1, false)).to.deep.equal(['stage', 'percent', '30.8642']);
		expect(next(2, true)).to.deep.equal(['rest', 'rest', '']);
		expect(next(3, true)).to.equal(null);
	});
});
