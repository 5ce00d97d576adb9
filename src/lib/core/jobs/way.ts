// The way of everything from the first question to the bill: what each waits for, whose turn it is, and how long ago the last
// answer was.
import type { PlainDate } from '../calendar/types';

/** Whose turn it is: the owner's, the customer's, or nobody's until a day comes. */
export type Turn = 'you' | 'them' | 'time';

export const WAITS = {
	answer: { turn: 'you', words: 'your answer' },
	question: { turn: 'you', words: 'your answer to their question' },
	sending: { turn: 'you', words: 'you to send it' },
	day: { turn: 'you', words: 'a day in the diary' },
	bill: { turn: 'you', words: 'its bill' },
	reply: { turn: 'them', words: 'their reply' },
	yes: { turn: 'them', words: 'their yes or no' },
	deposit: { turn: 'them', words: 'their deposit' },
	look: { turn: 'time', words: 'the visit to look at it' },
	visit: { turn: 'time', words: 'the visit' },
	work: { turn: 'time', words: 'the work that goes on' }
} as const satisfies Record<string, { turn: Turn; words: string }>;
export type Waits = keyof typeof WAITS;

export interface Underway {
	/** `quote:12`: one row for each. */
	key: string;
	title: string;
	customer: string;
	href: string;
	waits: Waits;
	/** Pence as priced; null where nothing is priced yet. */
	sum: number | null;
	/** The most it can come to, where there is a choice. */
	most: number | null;
	/** The day of the last answer, of whichever side. */
	since: PlainDate;
	days: number;
	/** The day it waits for. */
	on: PlainDate | null;
}

export const TURNS: readonly { turn: Turn; title: string }[] = [
	{ turn: 'you', title: 'Waits for you' },
	{ turn: 'them', title: 'Waits for them' },
	{ turn: 'time', title: 'Waits for its day' }
];

/** What waits for whom, the longest first. */
export function byTurn(
	rows: readonly Underway[]
): { turn: Turn; title: string; rows: Underway[] }[] {
	return TURNS.map(({ turn, title }) => ({
		turn,
		title,
		rows: rows
			.filter(({ waits }) => WAITS[waits].turn === turn)
			.sort((a, b) => b.days - a.days || (b.sum ?? 0) - (a.sum ?? 0) || a.key.localeCompare(b.key))
	})).filter((group) => group.rows.length > 0);
}

/** So many days the tape shows; what is longer ago stands in the gutter at its end. */
export const LONGEST = 60;
export const GUTTER = 10;

/** Where so many days lie on the tape, in percent from its left: every day has its own place, the first ones more room. */
export const placeOf = (days: number): number =>
	days > LONGEST ? 100 - GUTTER / 2 : (100 - GUTTER) * Math.sqrt(Math.max(0, days) / LONGEST);

/** What became of quotes that went out: how many, and for how much. Pence. */
export interface Outcome {
	won: number;
	lost: number;
	out: number;
	wonSum: number;
	lostSum: number;
	outSum: number;
}

/** The share won of what is decided, in percent with one decimal; null where nothing is. */
export const shareWon = (won: number, lost: number): number | null =>
	won + lost === 0 ? null : Math.round((won * 1000) / (won + lost)) / 10;

/** What of that which is out is likely to come, in pence: by the share that was won by value before. Null without a past. */
export const likelyOf = ({ wonSum, lostSum, outSum }: Outcome): number | null =>
	wonSum + lostSum === 0
		? null
		: Number(
				(BigInt(outSum) * BigInt(wonSum) * 2n + BigInt(wonSum + lostSum)) /
					(2n * BigInt(wonSum + lostSum))
			);
