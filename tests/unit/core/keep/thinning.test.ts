import { expect } from 'chai';
import fc from 'fast-check';
import { describe, it } from 'mocha';
import { backupName, listName, readBackupName } from '../../../../src/lib/core/keep/names';
import { thinned } from '../../../../src/lib/core/keep/thinning';
import { londonMoment } from '../../../../src/lib/core/calendar/conversion';

type Why = 'night' | 'hand' | 'update';
const at = (text: string, why: Why = 'night') =>
	readBackupName(backupName(londonMoment(text), why, false))!;
const nights = (from: string, count: number) =>
	Array.from({ length: count }, (_, index) =>
		at(new Date(Date.parse(`${from}T02:10:00Z`) - index * 86_400_000).toISOString().slice(0, 16))
	);
const kept = (all: ReturnType<typeof nights>) => {
	const gone = new Set(thinned(all));
	return all.filter((one) => !gone.has(one)).map(({ day }) => day);
};

describe('names of backups', () => {
	it('say moment, reason and seal, and are read back', () => {
		const name = backupName(Date.UTC(2026, 10, 27, 2, 10, 5), 'night', true);
		expect(name).to.equal('axiometer-20261127T021005Z-night.sqlite.sealed');
		expect(readBackupName(name)).to.include({ why: 'night', sealed: true, day: '2026-11-27' });
		expect(listName(name)).to.equal('axiometer-20261127T021005Z-night.sqlite.files');
		// Half past midnight in London's summer is still the day before in universal time.
		expect(readBackupName('axiometer-20260701T233000Z-hand.sqlite')!.day).to.equal('2026-07-02');
	});

	for (const other of [
		'axiometer.sqlite',
		'axiometer-20261327T021005Z-night.sqlite',
		'axiometer-20261127T021005Z-night.sqlite.part',
		'x'
	])
		it(`leave “${other}” alone`, () => expect(readBackupName(other)).to.equal(null));
});

describe('thinning', () => {
	it('keeps seven days, five weeks and twelve months of two years of nights', () => {
		// Friday 27 November 2026: this week’s Monday is the 23rd.
		expect(kept(nights('2026-11-27', 730))).to.deep.equal([
			'2026-11-27',
			'2026-11-26',
			'2026-11-25',
			'2026-11-24',
			'2026-11-23',
			'2026-11-22',
			'2026-11-21',
			'2026-11-15',
			'2026-11-08',
			'2026-11-01',
			'2026-10-31',
			'2026-09-30',
			'2026-08-31',
			'2026-07-31',
			'2026-06-30',
			'2026-05-31',
			'2026-04-30',
			'2026-03-31',
			'2026-02-28',
			'2026-01-31',
			'2025-12-31'
		]);
	});

	it('keeps the newest of a day, and all of a machine that is seldom on', () => {
		const two = [at('2026-11-27T02:10'), at('2026-11-27T18:00', 'hand')];
		expect(thinned(two)).to.deep.equal([two[0]]);
		const seldom = ['2026-11-01', '2026-06-03', '2025-01-01', '2024-01-01'].map((day) =>
			at(`${day}T12:00`)
		);
		expect(thinned(seldom)).to.deep.equal([]);
	});

	it('keeps the last one before an update, however old', () => {
		const all = [
			...nights('2026-11-27', 400),
			at('2025-11-03T09:00', 'update'),
			at('2025-11-02T09:00', 'update')
		];
		const gone = thinned(all);
		expect(gone).to.not.include(all[400]);
		expect(gone).to.include(all[401]);
	});

	it('never lets the newest go, keeps at most 25, and goes no further a second time', () => {
		const moment = fc.integer({ min: Date.UTC(2020, 0, 1), max: Date.UTC(2027, 0, 1) });
		fc.assert(
			fc.property(fc.uniqueArray(moment, { minLength: 1, maxLength: 200 }), (moments) => {
				const all = moments.map((one) => ({
					madeAt: one,
					day: new Date(one).toISOString().slice(0, 10),
					why: 'night' as const
				}));
				const gone = new Set(thinned(all));
				const left = all.filter((one) => !gone.has(one));
				const newest = all.reduce((a, b) => (a.madeAt > b.madeAt ? a : b));
				return left.includes(newest) && left.length <= 25 && thinned(left).length === 0;
			}),
			{ numRuns: 200 }
		);
	});
});
