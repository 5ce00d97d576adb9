// What has to be there before the work of a job can be done: expected on a day, and there.
import { must } from '../../actor';
import { and, asc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { NotFoundError } from '../../../core/refusals';
import { writeAtOnce, type Reader } from '../../db/connection';
import { jobLines, jobMaterials } from '../../db/schema';
import type { World } from '../../world';
import { day, parseForm, required } from '../business/fields';
import { loadJob } from './jobs';

/** What has come stands below what has not. */
export const materialsOf = (db: Reader, jobId: number) =>
	db
		.select({
			id: jobMaterials.id,
			what: jobMaterials.what,
			expectedOn: jobMaterials.expectedOn,
			hereOn: jobMaterials.hereOn
		})
		.from(jobMaterials)
		.where(eq(jobMaterials.jobId, jobId))
		.orderBy(asc(jobMaterials.hereOn), asc(jobMaterials.expectedOn), asc(jobMaterials.id))
		.all();

const form = z.object({
	key: z.string().min(1).max(100),
	what: required(200, 'What has to be there?'),
	expectedOn: day
});

/** The same key again changes nothing. @throws FieldError, NotFoundError */
export function addMaterial(world: World, jobId: number, typed: unknown): void {
	must('work');
	const { key, what, expectedOn } = parseForm(form, typed);
	writeAtOnce(world.db, (tx) => {
		loadJob(tx, jobId);
		tx.insert(jobMaterials)
			.values({ key: `${jobId}:${key}`, jobId, what, expectedOn: expectedOn || null })
			.onConflictDoNothing()
			.run();
	});
}

/** Puts down the materials that were agreed, each once. @throws NotFoundError */
export function materialsAsAgreed(world: World, jobId: number): void {
	must('work');
	writeAtOnce(world.db, (tx) => {
		loadJob(tx, jobId);
		const lines = tx
			.select()
			.from(jobLines)
			.where(and(eq(jobLines.jobId, jobId), eq(jobLines.kind, 'materials')))
			.orderBy(asc(jobLines.position))
			.all();
		for (const { id, description, quantity, unit } of lines) {
			const much = quantity === '1' ? '' : `${quantity}${unit ? ` ${unit}` : ' ×'} `;
			tx.insert(jobMaterials)
				.values({
					key: `${jobId}:line:${id}`,
					jobId,
					what: `${much}${description.split('\n')[0]}`.slice(0, 200)
				})
				.onConflictDoNothing()
				.run();
		}
	});
}

const changeForm = z.object({
	id: z.number().int().positive(),
	to: z.enum(['here', 'awaited', 'gone'])
});

/** It came, it did not after all, or it is not needed. @throws NotFoundError */
export function moveMaterial(world: World, jobId: number, typed: unknown): void {
	must('work');
	const { id, to } = parseForm(changeForm, typed);
	const which = and(eq(jobMaterials.id, id), eq(jobMaterials.jobId, jobId));
	const { changes } =
		to === 'gone'
			? world.db.delete(jobMaterials).where(which).run()
			: world.db
					.update(jobMaterials)
					.set({ hereOn: to === 'here' ? world.clock.today() : null })
					.where(which)
					.run();
	if (changes === 0) throw new NotFoundError('This');
}
