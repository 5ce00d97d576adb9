// The states of a job, and what takes it from one to another.
import { displayDate } from '../../../core/calendar/conversion';
import { eq, sql } from 'drizzle-orm';
import type { JobState } from '../../../core/jobs/types';
import { writeAtOnce } from '../../db/connection';
import { jobs } from '../../db/schema';
import type { World } from '../../world';
import { mustGoTo } from './reach';
import { workChanged } from './takenParts';
import { FieldError, RefusedError } from '../../../core/refusals';
import { noteJob } from '../trail/jobs';
import { hasBeenBilled } from './lines';
import { loadJob } from './jobs';

const MOVES: Record<JobState, readonly JobState[]> = {
	enquiry: ['booked', 'dropped'],
	booked: ['underWay', 'finished', 'dropped', 'enquiry'],
	underWay: ['finished', 'booked', 'dropped'],
	finished: ['underWay', 'dropped'],
	billed: ['underWay'],
	dropped: ['booked', 'enquiry']
};
const MOVE_EVENTS = {
	booked: 'booked',
	underWay: 'started',
	finished: 'finished',
	dropped: 'dropped',
	enquiry: 'reopened',
	billed: 'billed'
} as const;

/** Takes a job to another state; the same state again changes nothing. @throws RefusedError */
export function moveJob(world: World, id: number, to: JobState, on?: string): void {
	mustGoTo(world.db, id);
	const today = world.clock.today();
	const date = on || today;
	if (date > today) throw new FieldError({ finishedOn: 'That day has not come yet.' });
	writeAtOnce(world.db, (tx) => {
		const job = loadJob(tx, id);
		if (job.state === to) return;
		if (!MOVES[job.state].includes(to))
			throw new RefusedError('This job is not in a state from which that can be done.');
		if (to === 'dropped' && hasBeenBilled(tx, id))
			throw new RefusedError('Something of it is billed. Credit that first.');
		const running = tx.get(
			sql`select 1 from time_entries where job_id = ${id} and minutes is null limit 1`
		);
		if (to === 'finished' && running)
			throw new RefusedError('The clock is still running on this job. Stop it first.');
		tx.update(jobs)
			.set({
				state: to,
				finishedOn: to === 'finished' ? date : to === 'dropped' ? job.finishedOn : null,
				version: job.version + 1,
				updatedAt: world.clock.now()
			})
			.where(eq(jobs.id, id))
			.run();
		const event = to === 'underWay' && job.state === 'finished' ? 'reopened' : MOVE_EVENTS[to];
		noteJob(tx, id, world.clock.now(), event, to === 'finished' ? displayDate(date) : '');
		workChanged(tx, id, world.clock.now());
	});
}
