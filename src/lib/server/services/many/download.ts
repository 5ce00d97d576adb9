// The documents that were chosen, in one archive: each read when its turn comes.
import { and, asc, eq } from 'drizzle-orm';
import { PDFDocument } from 'pdf-lib';
import { RefusedError } from '../../../core/refusals';
import { archiveBody } from '../../archive';
import { documentFiles, documents, manyRows } from '../../db/schema';
import type { World } from '../../world';
import { turn } from '../../turn';

/** PDFs of all that is issued among the chosen, as a stream. Drafts have none yet. */
export function pdfsOf(world: World, runId: number): ReadableStream<Uint8Array> {
	return archiveBody(world.clock.now(), (archive) => {
		const rows = filesOf(world, runId);
		for (const { id, name } of rows) archive.bytes(name, () => contentOf(world, id));
		if (rows.length === 0)
			archive.text('Nothing was chosen that is issued.txt', () => ['Drafts have no PDF yet.']);
	});
}

/** The PDFs of what is issued among the chosen, in order of issue. */
const filesOf = (world: World, runId: number) =>
	world.db
		.select({ id: documents.id, name: documentFiles.name })
		.from(manyRows)
		.innerJoin(documents, eq(documents.id, manyRows.rowId))
		.innerJoin(documentFiles, eq(documentFiles.documentId, documents.id))
		.where(and(eq(manyRows.runId, runId), eq(documents.state, 'issued')))
		.orderBy(asc(documents.id))
		.all();

const contentOf = (world: World, id: number) =>
	world.db
		.select({ content: documentFiles.content })
		.from(documentFiles)
		.where(eq(documentFiles.documentId, id))
		.get()?.content;

/** More pages than this are read by nobody in one piece, and would not fit into memory with others beside them. */
const MOST_IN_ONE = 500;

/**
 * All of them one after the other in a single PDF, for printing. Others get their turn between two documents.
 * @throws RefusedError where nothing of it is issued, or it is too much for one file
 */
export async function onePdf(world: World, runId: number): Promise<Uint8Array<ArrayBuffer>> {
	const rows = filesOf(world, runId);
	if (rows.length === 0) throw new RefusedError('Nothing of it is issued yet: drafts have no PDF.');
	if (rows.length > MOST_IN_ONE)
		throw new RefusedError(
			`One PDF holds at most ${MOST_IN_ONE} documents; these are ${rows.length.toLocaleString('en-GB')}. Take the ZIP, or choose fewer.`
		);
	const whole = await PDFDocument.create();
	whole.setCreationDate(new Date(world.clock.now()));
	whole.setModificationDate(new Date(world.clock.now()));
	whole.setCreator('Axiometer');
	for (const { id } of rows) {
		const one = await PDFDocument.load(contentOf(world, id)!, { updateMetadata: false });
		for (const page of await whole.copyPages(one, one.getPageIndices())) whole.addPage(page);
		await turn();
	}
	return new Uint8Array(await whole.save({ objectsPerTick: 40 }));
}
