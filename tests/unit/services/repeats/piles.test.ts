// What was due while the machine was off: two at once are asked about, one alone goes out; each answer to the day.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../../src/lib/core/calendar/conversion';
import { documents, repeatOccurrences } from '../../../../src/lib/server/db/schema';
import { deliverDue } from '../../../../src/lib/server/clockwork/delivery';
import {
	addRepeat,
	setRepeatState,
	skipOccurrence
} from '../../../../src/lib/server/services/repeats/repeats';
import { answerPile, runRepeats } from '../../../../src/lib/server/services/repeats/making';
import { repeatPage } from '../../../../src/lib/server/services/repeats/page';
import { expectSoundBooks } from '../../../support/books';
import { HOUSEHOLD, issued, line, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const on = (day: string) => world.clock.set(londonMoment(`${day}T09:00`));
async function repeat(more: object = {}): Promise<number> {
	const first = await issued(world, HOUSEHOLD, { rows: [line('a', 'Care for {month}', '25.00')] });
	return addRepeat(world, 'press', first.id, {
		name: 'Care',
		start: '2026-12-01',
		every: 1,
		unit: 'month',
		action: 'send',
		...more
	});
}
const made = () =>
	world.db
		.select({ nominal: repeatOccurrences.nominal, state: repeatOccurrences.state })
		.from(repeatOccurrences)
		.orderBy(repeatOccurrences.nominal)
		.all();
const state = async (id: number) => (await repeatPage(world, id)).repeat.state;

describe('a pile', () => {
	it('of one is none for three days: it goes out, dated when it goes, with its period named', async () => {
		const id = await repeat();
		on('2026-12-04');
		await runRepeats(world);
		expect(await state(id)).to.equal('active');
		expect(made()).to.deep.equal([{ nominal: '2026-12-01', state: 'sent' }]);
		const { frozen } = world.db.select().from(documents).all().at(-1)!;
		expect(frozen).to.include({
			issueDate: '2026-12-04',
			dueDate: '2026-12-18',
			workFinished: '2026-12-01'
		});
		expect(JSON.stringify(frozen!.sheet.rows)).to.include('Care for December 2026');
	});

	it('of one is asked about on the fourth day, and goes out when told to', async () => {
		const id = await repeat();
		on('2026-12-05');
		await runRepeats(world);
		expect([await state(id), made()]).to.deep.equal(['asking', []]);
		await answerPile(world, id, 'latest');
		await runRepeats(world);
		expect(made()).to.deep.equal([{ nominal: '2026-12-01', state: 'sent' }]);
	});

	it('of exactly two is asked about, and nothing goes out meanwhile', async () => {
		const id = await repeat();
		on('2027-01-01');
		await runRepeats(world);
		expect(await state(id)).to.equal('asking');
		expect((await repeatPage(world, id)).pile).to.deep.equal({
			count: 2,
			from: '2026-12-01',
			to: '2027-01-01',
			all: true
		});
		await runRepeats(world);
		expect(made()).to.deep.equal([]);
	});

	it('of drafts is made without asking: nothing leaves the house by that', async () => {
		const id = await repeat({ action: 'draft' });
		on('2027-02-01');
		await runRepeats(world);
		expect(await state(id)).to.equal('active');
		expect(made().map((one) => one.state)).to.deep.equal(['drafted', 'drafted', 'drafted']);
	});

	it('of more than twelve drafts is looked at first; of thousands only the latest is made, or none', async () => {
		const id = await repeat({ action: 'draft', unit: 'day', start: '1950-01-01' });
		on('2026-12-01');
		await runRepeats(world);
		expect([await state(id), made()]).to.deep.equal(['asking', []]);
		// 1 January 1950 to 1 December 2026, both included.
		expect((await repeatPage(world, id)).pile).to.deep.equal({
			count: 28_094,
			from: '1950-01-01',
			to: '2026-12-01',
			all: false
		});
		const all = await answerPile(world, id, 'all').then(
			() => '',
			(error: Error) => error.message
		);
		expect(all).to.match(/These are 28094: at most 400/);
		await answerPile(world, id, 'latest');
		on('2026-12-02');
		await runRepeats(world);
		expect(made().map((one) => one.nominal)).to.deep.equal(['2026-12-01', '2026-12-02']);
	});

	for (const [answer, expected, skipped] of [
		['all', ['2026-12-01', '2027-01-01', '2027-02-01'], []],
		['latest', ['2027-02-01'], ['2026-12-01', '2027-01-01']],
		['none', [], ['2026-12-01', '2027-01-01', '2027-02-01']]
	] as const)
		it(`answered with ${answer} makes exactly that, and goes on with the next month`, async () => {
			const id = await repeat();
			on('2027-02-10');
			await runRepeats(world);
			await answerPile(world, id, answer);
			await runRepeats(world);
			await deliverDue(world);
			expect(made().map((one) => one.nominal)).to.deep.equal(expected);
			expect(made().every((one) => one.state === 'sent')).to.equal(true);
			expect(world.sent).to.have.length(expected.length);
			expect((await repeatPage(world, id)).repeat.skipped).to.deep.equal(skipped);
			on('2027-03-01');
			await runRepeats(world);
			expect(made().map((one) => one.nominal)).to.deep.equal([...expected, '2027-03-01']);
		});

	it('is answered once: a second answer, from another tab, changes nothing', async () => {
		const id = await repeat();
		on('2027-02-10');
		await runRepeats(world);
		await answerPile(world, id, 'none');
		await answerPile(world, id, 'all');
		await runRepeats(world);
		expect(made()).to.deep.equal([]);
	});

	it('leaves out what was skipped before, which may leave one alone', async () => {
		const id = await repeat();
		skipOccurrence(world, id, '2026-12-01', true);
		on('2027-01-03');
		await runRepeats(world);
		expect(await state(id)).to.equal('active');
		expect(made()).to.deep.equal([{ nominal: '2027-01-01', state: 'sent' }]);
	});

	it('of a paused repeat does not come: it goes on from the day it is taken up again', async () => {
		const id = await repeat();
		setRepeatState(world, id, 'paused');
		on('2027-02-10');
		await runRepeats(world);
		expect(await state(id)).to.equal('paused');
		expect(made()).to.deep.equal([]);
		setRepeatState(world, id, 'active');
		await runRepeats(world);
		expect(made()).to.deep.equal([]);
		on('2027-03-01');
		await runRepeats(world);
		expect(made().map((one) => one.nominal)).to.deep.equal(['2027-03-01']);
	});

	it('that holds the last occurrence ends with its answer', async () => {
		const id = await repeat({ ends: 'after', after: '2' });
		on('2027-05-01');
		await runRepeats(world);
		expect(await state(id)).to.equal('asking');
		await answerPile(world, id, 'latest');
		await runRepeats(world);
		expect(made().map((one) => one.nominal)).to.deep.equal(['2027-01-01']);
		expect(await state(id)).to.equal('ended');
	});
});
