// The way from the first question to the bill: where things stand on the tape, in which order, and what is likely of quotes.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import {
	byTurn,
	likelyOf,
	placeOf,
	shareWon,
	type Underway
} from '../../../../src/lib/core/jobs/way';

const row = (
	key: string,
	waits: Underway['waits'],
	days: number,
	sum: number | null
): Underway => ({
	key,
	title: key,
	customer: '',
	href: '',
	waits,
	sum,
	most: null,
	since: '2026-11-01',
	days,
	on: null
});

describe('the way to the bill', () => {
	it('has its place on the tape: the first days more room, what is long ago all in the gutter', () => {
		// Nine tenths are for sixty days, by their root: 15 days are at half of it, 60 at its end.
		expect([0, 15, 60, 61, 400].map(placeOf)).to.deep.equal([0, 45, 90, 95, 95]);
		for (let day = 1; day <= 60; day++) expect(placeOf(day)).to.be.above(placeOf(day - 1));
	});
	it('shows whose turn it is, yours first, what waits longest before what waits less', () => {
		const groups = byTurn([
			row('a', 'visit', 9, 1),
			row('b', 'yes', 2, 5),
			row('c', 'bill', 3, 100),
			row('d', 'answer', 3, null),
			row('e', 'sending', 8, 2)
		]);
		expect(groups.map(({ turn, rows }) => [turn, rows.map(({ key }) => key)])).to.deep.equal([
			['you', ['e', 'c', 'd']],
			['them', ['b']],
			['time', ['a']]
		]);
	});
	it('says what share was won, and what is likely of what is out, half up', () => {
		expect([shareWon(1, 2), shareWon(0, 0), shareWon(3, 0)]).to.deep.equal([33.3, null, 100]);
		const past = { won: 1, lost: 1, out: 1, wonSum: 1, lostSum: 2, outSum: 100 };
		// A third of 100 pence; half of 101.
		expect(likelyOf(past)).to.equal(33);
		expect(likelyOf({ ...past, lostSum: 1, outSum: 101 })).to.equal(51);
		expect(likelyOf({ ...past, wonSum: 0, lostSum: 0 })).to.equal(null);
	});
});
