// The documents that were chosen, in one archive: each read when its turn comes.
import { PassThrough, Readable } from 'node:stream';
import { and, asc, eq } from 'drizzle-orm';
import { archiveTo } from '../../archive';
import { documentFiles, documents, manyRows } from '../../db/schema';
import type { World } from '../../world';

/** PDFs of all that is issued among the chosen, as a stream. Drafts have none yet. */
export function pdfsOf(world: World, runId: number): ReadableStream<Uint8Array> {
	const out = new PassThrough();
	const archive = archiveTo(out, world.clock.now());
	const rows = world.db
		.select({ id: documents.id, name: documentFiles.name })
		.from(manyRows)
		.innerJoin(documents, eq(documents.id, manyRows.rowId))
		.innerJoin(documentFiles, eq(documentFiles.documentId, documents.id))
		.where(and(eq(manyRows.runId, runId), eq(documents.state, 'issued')))
		.orderBy(asc(documents.id))
		.all();
	for (const { id, name } of rows)
		archive.bytes(
			name,
			() =>
				world.db
					.select({ content: documentFiles.content })
					.from(documentFiles)
					.where(eq(documentFiles.documentId, id))
					.get()?.content
		);
	if (rows.length === 0)
		archive.text('Nothing was chosen that is issued.txt', () => ['Drafts have no PDF yet.']);
	archive.end().catch((error: Error) => out.destroy(error));
	return Readable.toWeb(out) as ReadableStream<Uint8Array>;
}
