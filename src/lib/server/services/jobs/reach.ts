// Which jobs whoever asks may work on: all of them in the office, on site those they have a visit to.
import { and, eq } from 'drizzle-orm';
import { ForbiddenError } from '../../../core/refusals';
import { actor, may, must } from '../../actor';
import type { Reader } from '../../db/connection';
import { visits } from '../../db/schema';

/** @throws ForbiddenError where whoever asks goes to this job by no visit of theirs */
export function mustGoTo(db: Reader, jobId: number): void {
	must('site');
	if (may('work')) return;
	const own = db
		.select({ id: visits.id })
		.from(visits)
		.where(and(eq(visits.jobId, jobId), eq(visits.personId, actor()!.id)))
		.limit(1)
		.get();
	if (!own) throw new ForbiddenError();
}
