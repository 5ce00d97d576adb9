// A discount for paying in time: worded on the paper, credited with its VAT when it is taken, and only then.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../../src/lib/core/calendar/conversion';
import { RefusedError } from '../../../../src/lib/core/refusals';
import { readPrompt } from '../../../../src/lib/core/sheet/prompt';
import { documentDetail } from '../../../../src/lib/server/services/desk/documents';
import { nextMoves } from '../../../../src/lib/server/services/desk/moves';
import { creditPrompt } from '../../../../src/lib/server/services/money/promptPayment';
import { refundByHand } from '../../../../src/lib/server/services/money/refunds';
import { expectSoundBooks } from '../../../support/books';
import { FIRM, itemOf, payByHand } from '../../../support/money';
import { CONTRACTOR, issued, line, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const offered = (customer: object, price: string) =>
	issued(world, customer, {
		prompt: { percent: '2', days: '7' },
		rows: [line('a', 'Render', price)]
	});
const moves = () => nextMoves(world).filter(({ id }) => id.startsWith('prompt:'));

describe('a discount for paying in time', () => {
	it('is worded with its rate, its day and what is then to pay', async () => {
		const { id } = await offered(FIRM, '1000');
		expect(documentDetail(world, id).view.statements).to.deep.equal([
			'A discount of 2 % of the full price applies if payment is made by 1 Dec 2026: £1,176.00 is then to pay. A credit note for £24.00, its VAT included, follows.'
		]);
	});

	it('taken on its last day, its credit note is one press and settles the invoice', async () => {
		const { id } = await offered(FIRM, '1000');
		world.clock.set(londonMoment('2026-12-02T09:00'));
		payByHand(world, id, '1176.00', { date: '2026-12-01' });
		expect(moves().map(({ amount }) => amount)).to.deep.equal([24_00n]);
		const note = await creditPrompt(world, id);
		expect(await creditPrompt(world, id)).to.deep.equal(note);
		const { figures, frozen } = documentDetail(world, note.id);
		expect([figures.net, figures.vatCharged]).to.deep.equal([20_00n, 4_00n]);
		expect(frozen.corrects!.reason).to.equal('Discount of 2 % for paying by 1 Dec 2026');
		expect(itemOf(world, id)).to.include({ state: 'paid', outstanding: 0, inHand: 0 });
		expect(moves()).to.deep.equal([]);
	});

	it('comes too late a day later, and with a penny less', async () => {
		for (const [amount, date] of [
			['1176.00', '2026-12-02'],
			['1175.99', '2026-12-01']
		] as const) {
			const { id } = await offered({ ...FIRM, name: `Firm ${date}` }, '1000');
			world.clock.set(londonMoment('2026-12-03T09:00'));
			payByHand(world, id, amount, { date });
			expect(await creditPrompt(world, id).catch((error: unknown) => error)).to.be.instanceOf(
				RefusedError
			);
			expect(itemOf(world, id).state).to.equal('partPaid');
			world.clock.set(londonMoment('2026-11-24T09:00'));
		}
		expect(moves()).to.deep.equal([]);
	});

	it('is not taken where some of it was given back in time, and is where that came later', async () => {
		const [early, late] = [
			await offered(FIRM, '1000'),
			await offered({ ...FIRM, name: 'Late' }, '1000')
		];
		world.clock.set(londonMoment('2026-12-03T09:00'));
		for (const [{ id }, date] of [
			[early, '2026-12-01'],
			[late, '2026-12-02']
		] as const) {
			payByHand(world, id, '1176.00', { date: '2026-11-30' });
			refundByHand(world, id, {
				key: `back-${id}`,
				date,
				amount: '0.01',
				way: 'bank',
				reference: ' X '
			});
		}
		expect(documentDetail(world, early.id).prompt).to.include({ taken: false });
		expect(documentDetail(world, late.id).prompt).to.include({ taken: true });
	});

	it('of a contractor takes its part of the deduction along', async () => {
		const { id } = await offered(CONTRACTOR, '1000');
		// 980 after the discount, of which 196 is deducted.
		expect(documentDetail(world, id).prompt).to.include({ payable: 784_00n, off: 20_00n });
		payByHand(world, id, '784.00');
		await creditPrompt(world, id);
		expect(itemOf(world, id)).to.include({
			state: 'paid',
			cash: 784_00,
			withheld: 196_00,
			inHand: 0,
			overpaid: 0
		});
	});

	it('is refused at its boxes where it is none', () => {
		const wrong = (percent: string, days: string) => {
			const paths: string[] = [];
			readPrompt({ prompt: { percent, days } }, (path) => paths.push(path));
			return paths;
		};
		expect(wrong('', '')).to.deep.equal([]);
		expect(wrong('2.5%', '14')).to.deep.equal([]);
		expect(wrong('0', '7')).to.deep.equal(['prompt.percent']);
		expect(wrong('100', '7')).to.deep.equal(['prompt.percent']);
		expect(wrong('2', '0')).to.deep.equal(['prompt.days']);
		expect(wrong('2', '366')).to.deep.equal(['prompt.days']);
		expect(wrong('two', '')).to.deep.equal(['prompt.percent', 'prompt.days']);
	});
});
