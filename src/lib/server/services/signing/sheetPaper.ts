// A job sheet as paper: drawn once it is finished, and again with its signature; its photos.
import { and, eq, inArray } from 'drizzle-orm';
import { picture } from '../../pictures';
import { type JobSheetSource, type JobSheetWritten, onTheSheet } from '../../../core/jobs/jobSheet';
import { jobSheetView, sheetFileName } from '../../../core/jobs/jobSheetView';
import { NotFoundError, FieldError } from '../../../core/refusals';
import { type Reader, writeAtOnce } from '../../db/connection';
import { storedFile } from '../../db/fileStore';
import { files, jobSheets } from '../../db/schema';
import type { World } from '../../world';
import { logoAddress } from '../letterheads/dress';
import { type JobSheet, signatureOf, loadSheet, sheetSource, mustBeDraft, isEmpty } from './sheets';
import { must } from '../../actor';
import { sha256 } from '../business/keys';
import { noteJob } from '../trail/jobs';

/**
 * Finishes it: frozen, drawn, with its number. Finished already it stays as it is.
 * @throws FieldError where nothing is on it, ConflictError where another tab wrote on
 */
export async function finishSheet(world: World, id: number, version: number): Promise<void> {
	must('site');
	const { db, clock } = world;
	const sheet = loadSheet(db, id);
	if (sheet.state === 'finished') return;
	mustBeDraft(sheet, version);
	const { written } = sheet;
	if (isEmpty(written)) throw new FieldError({ done: 'Write what was done, or tick something.' });
	const frozen = onTheSheet(sheetSource(world, sheet.jobId), written);
	const number = `${frozen.job.number}/${sheet.n}`;
	const on = clock.today();
	const pdf = await drawSheet(world, frozen, written, { number, on });
	writeAtOnce(db, (tx) => {
		const now = loadSheet(tx, id);
		if (now.state === 'finished') return;
		mustBeDraft(now, version);
		tx.update(jobSheets)
			.set({
				state: 'finished',
				number,
				frozen,
				finishedOn: on,
				pdf,
				sha256: sha256(pdf),
				updatedAt: clock.now()
			})
			.where(eq(jobSheets.id, id))
			.run();
		noteJob(tx, sheet.jobId, clock.now(), 'sheetFinished', number);
	});
}

/** Of a photo on paper, in pixels. */
const PAPER_PX = 1100;

export async function drawSheet(
	world: World,
	source: JobSheetSource,
	written: JobSheetWritten,
	paper: Parameters<typeof jobSheetView>[2]
): Promise<Buffer> {
	const photos: Record<number, string> = {};
	const wanted = source.photos.map(({ id }) => id);
	const rows = wanted.length
		? world.db
				.select({ id: files.id, stored: files.stored })
				.from(files)
				.where(inArray(files.id, wanted))
				.all()
		: [];
	for (const { id, stored } of rows) {
		const content = stored && storedFile(world.db, stored);
		if (!content) continue;
		const whole = await picture(content);
		const small = await whole
			.resize({ width: PAPER_PX, height: PAPER_PX, fit: 'inside', withoutEnlargement: true })
			.jpeg({ quality: 76 })
			.toBuffer();
		photos[id] = `data:image/jpeg;base64,${small.toString('base64')}`;
	}
	return world.press.document(jobSheetView(source, written, paper), {
		payUrl: null,
		madeAt: world.clock.now(),
		logo: logoAddress(world.db, source.look),
		photos
	});
}

/** The PDF that counts: with the signature once there is one. Null while it is written. */
export function sheetPaper(
	db: Reader,
	{ id, number, pdf }: JobSheet
): { name: string; content: Buffer } | null {
	if (!pdf || !number) return null;
	const content = signatureOf(db, id)?.record ?? pdf;
	return { name: sheetFileName(number), content };
}

/** A photo that stands on a sheet. @throws NotFoundError */
export function sheetPhoto({ db }: World, sheet: JobSheet, fileId: number): Buffer {
	const row = db
		.select({ stored: files.stored })
		.from(files)
		.where(and(eq(files.id, fileId), eq(files.jobId, sheet.jobId)))
		.get();
	const content =
		sheet.written.photos.includes(fileId) && row?.stored && storedFile(db, row.stored);
	if (!content) throw new NotFoundError('This photo');
	return content;
}
