// How a repeat is said, for every shape of its rule.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { ruleWords } from '../../../src/lib/core/calendar/ruleWords';
import type { RepeatRule } from '../../../src/lib/core/calendar/recurrence';

const RULE: RepeatRule = {
	start: '2026-12-01',
	every: 1,
	unit: 'month',
	end: { never: true },
	weekend: 'asIs'
};

describe('a rule in words', () => {
	for (const [change, words] of [
		[{}, 'Every month from 1 Dec 2026.'],
		[{ every: 2, unit: 'week' }, 'Every 2 weeks from 1 Dec 2026.'],
		[{ end: { after: 1 } }, 'Every month from 1 Dec 2026, once in all.'],
		[{ end: { after: 4 } }, 'Every month from 1 Dec 2026, 4 times in all.'],
		[{ end: { on: '2027-06-30' } }, 'Every month from 1 Dec 2026 until 30 Jun 2027.'],
		[
			{ weekend: 'previousWorkingDay' },
			'Every month from 1 Dec 2026; the working day before where that is a weekend or bank holiday.'
		],
		[
			{ every: 3, end: { after: 2 }, weekend: 'nextWorkingDay' },
			'Every 3 months from 1 Dec 2026, 2 times in all; the next working day where that is a weekend or bank holiday.'
		]
	] as [Partial<RepeatRule>, string][])
		it(words, () => expect(ruleWords({ ...RULE, ...change })).to.equal(words));
});
