// What stands in the way of a visit, to the minute and the day.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import {
	arrivalOf,
	awaitedWords,
	conflictsOf,
	takesDay,
	travelTo
} from '../../../../src/lib/core/diary/conflicts';

type Visit = Parameters<typeof conflictsOf>[0][number];
const DAY = { from: '08:00', to: '17:00' };
/** Tuesday, 24 November 2026. */
const visit = (id: number, more: Partial<Visit> = {}): Visit => ({
	id,
	title: `Job ${id}`,
	date: '2026-11-24',
	endDate: more.date ?? '2026-11-24',
	weekend: false,
	from: '09:00',
	to: '11:00',
	people: [1],
	needs: 1,
	mayBegin: null,
	lookAt: false,
	done: false,
	address: `${id} Kiln Lane`,
	travel: 0,
	awaited: [],
	...more
});
const said = (visits: Visit[], blocks: Parameters<typeof conflictsOf>[1] = []) =>
	Object.fromEntries(conflictsOf(visits, blocks, DAY, '2026-11-20'));
const alone = (more: Partial<Visit>) => said([visit(1, more)])[1] ?? [];

describe('a visit in the diary', () => {
	it('meets another of the same person where they share a minute, and no other', () => {
		const both = { 1: ['at the same time as “Job 2”'], 2: ['at the same time as “Job 1”'] };
		expect(said([visit(1), visit(2, { from: '10:59', to: '12:00' })])).to.deep.equal(both);
		expect(said([visit(1), visit(2, { from: '11:00', to: '12:00' })])).to.deep.equal({});
		expect(said([visit(1), visit(2, { people: [2] })])).to.deep.equal({});
		expect(said([visit(1, { people: [0] }), visit(2, { people: [0] })])).to.deep.equal({});
		expect(said([visit(1), visit(2, { done: true })])).to.deep.equal({});
		expect(said([visit(1), visit(2, { date: '2026-11-25' })])).to.deep.equal({});
		// Without an end it takes an hour; without a time it meets only another without one.
		expect(said([visit(1, { to: '' }), visit(2, { from: '09:59' })])).to.deep.equal(both);
		expect(said([visit(1, { to: '' }), visit(2, { from: '10:00' })])).to.deep.equal({});
		expect(said([visit(1, { from: '', to: '' }), visit(2)])).to.deep.equal({});
		const whole = { from: '', to: '' };
		expect(said([visit(1, whole), visit(2, whole)])).to.deep.equal(both);
		expect(said([visit(1, whole), visit(2, { ...whole, people: [2, 1] })])).to.deep.equal(both);
	});

	it('within the hours of the day, to the minute', () => {
		expect(alone({ from: '08:00', to: '17:00' })).to.deep.equal([]);
		expect(alone({ from: '07:59' })).to.deep.equal(['outside 08:00 to 17:00']);
		expect(alone({ to: '17:01' })).to.deep.equal(['outside 08:00 to 17:00']);
		expect(alone({ from: '', to: '' })).to.deep.equal([]);
		expect(alone({ date: '2026-11-28' })).to.deep.equal(['not a working day']);
		expect(alone({ date: '2026-12-25' })).to.deep.equal(['not a working day']);
	});

	it('knows no conflict between visits of different days, whatever their times', () => {
		const on = (first: object, second: object) => said([visit(1, first), visit(2, second)]);
		const day = { date: '2026-11-24', endDate: '2026-11-24', from: '09:00', to: '17:00' };
		expect(on(day, { ...day, date: '2026-11-25', endDate: '2026-11-25' })).to.deep.equal({});
		expect(on({ ...day, date: '2026-11-26', endDate: '2026-11-26' }, day)).to.deep.equal({});
		// Of several days each has its time.
		const several = { ...day, date: '2026-11-23', endDate: '2026-11-25' };
		expect(Object.keys(on(several, day))).to.deep.equal(['1', '2']);
		expect(on({ ...several, from: '08:00', to: '09:00' }, day)).to.deep.equal({});
	});

	it('asks for the minutes to get there, from another place alone', () => {
		const second = (more: Partial<Visit>) =>
			said([visit(1), visit(2, { from: '11:20', to: '12:00', travel: 30, ...more })])[2] ?? [];
		expect(second({})).to.deep.equal(['20 minutes after “Job 1”, 30 needed to get there']);
		expect(second({ from: '11:01' })).to.deep.equal([
			'1 minute after “Job 1”, 30 needed to get there'
		]);
		expect(second({ from: '11:30' })).to.deep.equal([]);
		expect(second({ address: '1 Kiln Lane' })).to.deep.equal([]);
		expect(second({ travel: 0 })).to.deep.equal([]);
		expect(second({ people: [2] })).to.deep.equal([]);
		const [one, two, three] = [
			visit(1),
			visit(2, { from: '12:00' }),
			visit(3, { from: '14:00', travel: 5 })
		];
		expect(travelTo(three, [one, two, three])).to.deep.equal({ from: two, minutes: 5 });
		expect(travelTo({ ...three, done: true }, [one, two])).to.equal(undefined);
		expect(travelTo(visit(1, { travel: 5 }), [two, three])).to.equal(undefined);
	});

	it('names the days that are one’s own, the people that lack, and what they did not ask for', () => {
		const block = (more: object = {}) => [
			{ id: 1, personId: 1, from: '2026-11-24', to: '2026-11-25', title: 'Holiday', ...more }
		];
		expect(said([visit(1)], block())).to.deep.equal({ 1: ['Holiday on that day'] });
		expect(said([visit(1)], block({ personId: null }))).to.deep.equal({
			1: ['Holiday on that day']
		});
		expect(said([visit(1)], block({ personId: 2 }))).to.deep.equal({});
		expect(said([visit(1)], block({ from: '2026-11-25' }))).to.deep.equal({});
		expect(said([visit(1)], block({ from: '2026-11-20', to: '2026-11-23' }))).to.deep.equal({});
		// Over a weekend that it leaves out.
		const long = { date: '2026-11-27', endDate: '2026-11-30' };
		const weekend = block({ from: '2026-11-28', to: '2026-11-29' });
		expect(said([visit(1, long)], weekend)).to.deep.equal({});
		expect(said([visit(1, { ...long, weekend: true })], weekend)[1]).to.include(
			'Holiday on that day'
		);
		expect(
			[27, 28, 29, 30].map((day) => takesDay({ ...long, weekend: false }, `2026-11-${day}`))
		).to.deep.equal([true, false, false, true]);
		expect(alone({ needs: 2 })).to.deep.equal(['alone, 2 needed']);
		expect(alone({ needs: 3, people: [1, 2] })).to.deep.equal(['2 people, 3 needed']);
		expect(alone({ needs: 2, people: [0] })).to.deep.equal([]);
		expect(alone({ mayBegin: '2026-11-24' })).to.deep.equal([]);
		expect(alone({ mayBegin: '2026-11-25' })).to.deep.equal([
			'before 25 Nov 2026: they did not ask in writing for an earlier begin'
		]);
		expect(alone({ mayBegin: '2026-11-25', lookAt: true })).to.deep.equal([]);
		expect(alone({ done: true, needs: 2 })).to.deep.equal([]);
	});

	it('says what will not be there', () => {
		const lime = (expectedOn: string | null, what = 'Lime') => ({ what, expectedOn });
		const words = (...awaited: ReturnType<typeof lime>[]) =>
			awaitedWords(awaited, '2026-11-24', '2026-11-20');
		expect(words(lime('2026-11-24'))).to.equal('');
		expect(words(lime('2026-11-20'))).to.equal('');
		expect(words(lime(null))).to.equal('not there yet: Lime');
		expect(words(lime('2026-11-25'))).to.equal('not there yet: Lime (to come 25 Nov 2026)');
		expect(words(lime('2026-11-19'))).to.equal('not there yet: Lime (was to come 19 Nov 2026)');
		const many = ['A', 'B', 'C', 'D', 'E'].map((what) => lime(null, what));
		expect(words(...many.slice(0, 3))).to.equal('not there yet: A, B, C');
		expect(words(...many)).to.equal('not there yet: A, B, C and 2 more');
		expect(alone({ awaited: many.slice(0, 1) })).to.deep.equal(['not there yet: A']);
	});

	it('is announced at its time, or between two', () => {
		const none = { from: '', to: '' };
		expect(arrivalOf('13:05', 120, none)).to.equal('between 13:05 and 15:05');
		expect(arrivalOf('13:30', 0, none)).to.equal('at 13:30');
		expect(arrivalOf('', 120, none)).to.equal('');
		expect(arrivalOf('23:00', 120, none)).to.equal('between 23:00 and 23:59');
		expect(arrivalOf('13:00', 120, { from: '08:00', to: '10:00' })).to.equal(
			'between 08:00 and 10:00'
		);
	});
});
