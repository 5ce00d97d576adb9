// Whether and when reminders go out, for all and for one payer.
import { must } from '../../actor';
import { z } from 'zod';
import { type ChaseSettings } from '../../../core/chasing/types';
import { type Reader } from '../../db/connection';
import { chaseSettings } from '../../db/schema';
import type { World } from '../../world';
import { parseForm, timeOfDay } from '../business/fields';

export interface ChaseSwitch extends ChaseSettings {
	on: boolean;
}

export function loadChaseSettings(db: Reader): ChaseSwitch {
	const row = db.select().from(chaseSettings).get();
	return {
		on: row?.on ?? false,
		hours: { from: row?.hoursFrom ?? 540, to: row?.hoursTo ?? 1020 },
		quietHours: row?.quietHours ?? 24,
		gapDays: row?.gapDays ?? 4
	};
}

const settingsForm = z
	.object({
		on: z.boolean(),
		from: timeOfDay.refine((time) => time !== '', 'From which hour on?'),
		to: timeOfDay.refine((time) => time !== '', 'Until which hour?'),
		quietHours: z.coerce
			.number({ error: 'Whole hours, please.' })
			.int()
			.min(0)
			.max(240, 'At most 240 hours.'),
		gapDays: z.coerce
			.number({ error: 'Whole days, please.' })
			.int()
			.min(1, 'At least one day.')
			.max(60, 'At most 60 days.')
	})
	.refine((form) => form.from < form.to, {
		path: ['to'],
		message: 'It must be later than the first hour.'
	});

const minutesOf = (time: string) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3));

/** @throws FieldError */
export function saveChaseSettings(world: World, input: unknown): void {
	must('bill');
	const { on, from, to, quietHours, gapDays } = parseForm(settingsForm, input);
	const values = { on, hoursFrom: minutesOf(from), hoursTo: minutesOf(to), quietHours, gapDays };
	world.db
		.insert(chaseSettings)
		.values({ id: 1, ...values })
		.onConflictDoUpdate({ target: chaseSettings.id, set: values })
		.run();
}
