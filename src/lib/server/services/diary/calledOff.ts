// Visits called off, and the journey that is charged where it was too late for that.
import { must } from '../../actor';
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { displayDate } from '../../../core/calendar/conversion';
import { writeAtOnce } from '../../db/connection';
import { jobLines, visits } from '../../db/schema';
import type { World } from '../../world';
import { parseForm } from '../business/fields';
import { loadJob } from '../jobs/jobs';
import { workChanged } from '../jobs/takenParts';
import { loadVisit } from './placing';

/** Nobody was in, or it was called off: the visit is done, and a wasted journey is offered to bill. */
export function callOff(world: World, id: number, typed: unknown): void {
	must('work');
	const { why } = parseForm(z.object({ why: z.enum(['nobodyIn', 'weather']) }), typed);
	writeAtOnce(world.db, (tx) => {
		const row = loadVisit(tx, id);
		const words = why === 'nobodyIn' ? 'Nobody was in.' : 'Called off for weather.';
		tx.update(visits)
			.set({ done: true, note: [row.note, words].filter(Boolean).join('\n') })
			.where(eq(visits.id, id))
			.run();
	});
}

/**
 * Puts a journey for nothing on its job, to be billed: at the job's hourly rate until the owner says otherwise. The same visit
 * again changes nothing.
 * @returns the job @throws NotFoundError
 */
export function chargeJourney(world: World, id: number): number {
	must('work');
	return writeAtOnce(world.db, (tx) => {
		const visit = loadVisit(tx, id);
		const job = loadJob(tx, visit.jobId);
		const description = `A journey for nothing on ${displayDate(visit.date)}${visit.from ? `, ${visit.from}` : ''}`;
		const lines = tx.select().from(jobLines).where(eq(jobLines.jobId, job.id)).all();
		if (lines.some((line) => line.description === description)) return job.id;
		tx.insert(jobLines)
			.values({
				jobId: job.id,
				position: lines.length,
				kind: 'travel',
				description,
				quantity: '1',
				unitPrice: job.hourlyRate || '0.00',
				extra: true
			})
			.run();
		workChanged(tx, job.id, world.clock.now());
		return job.id;
	});
}
