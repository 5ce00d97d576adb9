// Photos and files of a job. What a file is, is told by its content, never by its name.
import { and, desc, eq } from 'drizzle-orm';
import { writeAtOnce } from '../../db/connection';
import { storeFile, storedFile } from '../../db/fileStore';
import { jobFiles } from '../../db/schema';
import type { World } from '../../world';
import { NotFoundError } from '../../../core/refusals';
import { loadJob } from './jobs';
import { sha256 } from '../business/keys';
import { prepareFile } from '../business/files';

/** Adds a photo or file. The same one again changes nothing. @throws FieldError, NotFoundError */
export async function addJobFile(
	world: World,
	jobId: number,
	name: string,
	bytes: Buffer
): Promise<void> {
	loadJob(world.db, jobId);
	const { content, ...prepared } = await prepareFile(bytes);
	const stored = storeFile(world.db, content);
	writeAtOnce(world.db, (tx) => {
		loadJob(tx, jobId);
		tx.insert(jobFiles)
			.values({
				...prepared,
				stored,
				jobId,
				name: name.slice(0, 200) || 'file',
				sha256: sha256(bytes),
				addedAt: world.clock.now()
			})
			.onConflictDoNothing()
			.run();
	});
}

export function filesOf(world: World, jobId: number) {
	return world.db
		.select({
			id: jobFiles.id,
			name: jobFiles.name,
			type: jobFiles.type,
			addedAt: jobFiles.addedAt
		})
		.from(jobFiles)
		.where(eq(jobFiles.jobId, jobId))
		.orderBy(desc(jobFiles.id))
		.all();
}

/** @throws NotFoundError */
export function jobFile(
	world: World,
	jobId: number,
	id: number,
	small: boolean
): { name: string; type: string; content: Buffer } {
	const row = world.db
		.select()
		.from(jobFiles)
		.where(and(eq(jobFiles.id, id), eq(jobFiles.jobId, jobId)))
		.get();
	const content = (small && row?.thumbnail) || (row?.stored && storedFile(world.db, row.stored));
	if (!row || !content) throw new NotFoundError('This file');
	return { name: row.name, type: row.type, content };
}

export function removeJobFile(world: World, jobId: number, id: number): void {
	world.db
		.delete(jobFiles)
		.where(and(eq(jobFiles.id, id), eq(jobFiles.jobId, jobId)))
		.run();
}
