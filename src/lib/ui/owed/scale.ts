import type { Habit } from '$lib/core/settlement/owed';

/** The scale of the money rule on the page of what is owed: days before and after due. */
export const FROM = -60;
export const TO = 120;

/** Where a day lies on the rule, in percent; what lies beyond stands at its end. */
export function place(day: number): number {
	return (100 * (Math.min(Math.max(day, FROM), TO) - FROM)) / (TO - FROM);
}

export function daysInWords(days: number): string {
	if (days === 0) return 'due today';
	const count = Math.abs(days);
	return `${count} ${count === 1 ? 'day' : 'days'} ${days > 0 ? 'late' : 'left'}`;
}

function sideOfDue(days: number): string {
	if (days === 0) return 'on the due day';
	const count = Math.abs(days);
	return `${count} ${count === 1 ? 'day' : 'days'} ${days > 0 ? 'late' : 'early'}`;
}

/** `usually pays 9 days late, mostly between 4 and 12 days late`. */
export function habitInWords(habit: Habit | null): string {
	if (!habit) return 'has not settled an invoice yet';
	const usual = `usually pays ${sideOfDue(habit.median)}`;
	if (habit.of < 4 || habit.from === habit.to) return usual;
	return `${usual}, mostly between ${sideOfDue(habit.from)} and ${sideOfDue(habit.to)}`;
}
