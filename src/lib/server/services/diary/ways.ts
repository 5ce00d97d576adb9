// How the diary is kept: its hours, its words, and the days that are one’s own.
import { must } from '../../actor';
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import type { Reader } from '../../db/connection';
import { diaryBlocks, diarySettings } from '../../db/schema';
import type { World } from '../../world';
import { day, parseForm, required, timeOfDay } from '../business/fields';
import { knownPerson } from './placing';

export interface DiaryWays {
	from: string;
	to: string;
	arrivalMinutes: number;
	travelMinutes: number;
	dayBefore: boolean;
}

export function diaryWays(db: Reader): DiaryWays {
	const row = db.select().from(diarySettings).get();
	return row
		? {
				from: row.from,
				to: row.to,
				arrivalMinutes: row.arrivalMinutes,
				travelMinutes: row.travelMinutes,
				dayBefore: row.dayBefore
			}
		: {
				from: '08:00',
				to: '17:00',
				arrivalMinutes: 120,
				travelMinutes: 15,
				dayBefore: false
			};
}

const waysForm = z
	.object({
		from: timeOfDay,
		to: timeOfDay,
		arrivalMinutes: z.coerce
			.number('How many minutes?')
			.int('Whole minutes.')
			.min(0, 'Not below zero.')
			.max(600, 'At most ten hours.'),
		travelMinutes: z.coerce
			.number('How many minutes?')
			.int('Whole minutes.')
			.min(0, 'Not below zero.')
			.max(300, 'At most five hours.')
			.default(15),
		dayBefore: z.boolean().default(false)
	})
	.refine(({ from, to }) => from !== '' && to > from, {
		message: 'Work ends after it begins.',
		path: ['to']
	});

/** @throws FieldError */
export function saveDiaryWays(world: World, typed: unknown): void {
	must('settings');
	const form = parseForm(waysForm, typed);
	world.db
		.insert(diarySettings)
		.values({ id: 1, ...form })
		.onConflictDoUpdate({ target: diarySettings.id, set: form })
		.run();
}

const blockForm = z
	.object({
		title: required(100, 'What for?'),
		from: day.refine((value) => value !== '', 'From which day?'),
		to: day,
		personId: z.coerce.number().int().nonnegative().catch(0)
	})
	.refine(({ from, to }) => to === '' || to >= from, {
		message: 'It would end before it begins.',
		path: ['to']
	});

/** @throws FieldError */
export function addBlock(world: World, typed: unknown): number {
	must('work');
	const { personId, ...form } = parseForm(blockForm, typed);
	return world.db
		.insert(diaryBlocks)
		.values({ ...form, to: form.to || form.from, personId: knownPerson(world.db, personId) })
		.returning({ id: diaryBlocks.id })
		.get().id;
}

export function removeBlock(world: World, id: number): void {
	must('work');
	world.db.delete(diaryBlocks).where(eq(diaryBlocks.id, id)).run();
}
