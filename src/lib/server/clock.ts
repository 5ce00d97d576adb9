// The only place that reads the machine's time. Everything else is handed a clock.
import { londonDate } from '../core/calendar/conversion';
import type { PlainDate } from '../core/calendar/types';

export interface Clock {
	/** Milliseconds since 1970. */
	now(): number;
	/** The calendar day in London. */
	today(): PlainDate;
}

export function systemClock(): Clock {
	return clockFrom(() => Date.now());
}

/** A clock that stood at `start` when it was made and has gone on since. */
export function clockStartingAt(start: number): Clock {
	const offset = start - Date.now();
	return clockFrom(() => Date.now() + offset);
}

/** A clock that goes where it is put: for tests and for laying out the demo. */
export function settableClock(start: number): Clock & { set(moment: number): void } {
	let moment = start;
	return {
		...clockFrom(() => moment),
		set(next) {
			moment = next;
		}
	};
}

function clockFrom(now: () => number): Clock {
	return { now, today: () => londonDate(now()) };
}
