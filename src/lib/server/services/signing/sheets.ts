// Job sheets: what was done, for the customer. Written from what the job holds, finished once, and then never changed.
import { and, asc, desc, eq, inArray } from 'drizzle-orm';
import sharp from 'sharp';
import { z } from 'zod';
import {
	jobSheetView,
	MOST_PHOTOS,
	onTheSheet,
	putForward,
	sheetFileName,
	type JobSheetSource,
	type JobSheetWritten,
	type SheetSignature
} from '../../../core/jobs/jobSheet';
import { STANDARD_LOOK } from '../../../core/letterheads/look';
import { sellerOn } from '../../../core/parties';
import { ConflictError, FieldError, NotFoundError } from '../../../core/refusals';
import { blankSheet } from '../../../core/sheet/blank';
import { must, seesPrices } from '../../actor';
import { writeAtOnce, type Reader } from '../../db/connection';
import { storedFile } from '../../db/fileStore';
import {
	customers,
	files,
	jobSheets,
	people,
	signatures,
	sites,
	visitPeople,
	visits
} from '../../db/schema';
import type { World } from '../../world';
import { parseForm, text } from '../business/fields';
import { newToken, sha256 } from '../business/keys';
import { sellerRecord } from '../business/settings';
import { drawnAddress } from '../files/drawn';
import { filesOf } from '../files/files';
import { loadJob } from '../jobs/jobs';
import { mustGoTo } from '../jobs/reach';
import { jobWork } from '../jobs/work';
import { dressOf, logoAddress } from '../letterheads/dress';
import { noteJob } from '../trail/jobs';

export type JobSheet = typeof jobSheets.$inferSelect;
export type Signature = typeof signatures.$inferSelect;

/** @throws NotFoundError; ForbiddenError where whoever asks does not go to its job */
export function loadSheet(db: Reader, id: number): JobSheet {
	const row = db.select().from(jobSheets).where(eq(jobSheets.id, id)).get();
	if (!row) throw new NotFoundError('This job sheet');
	mustGoTo(db, row.jobId);
	return row;
}

export const signatureOf = (db: Reader, sheetId: number): Signature | undefined =>
	db.select().from(signatures).where(eq(signatures.sheetId, sheetId)).get();

/** A signature as a paper and a page show it. */
export const asShown = ({ name, position, at, way, drawn }: Signature): SheetSignature => ({
	name,
	position,
	at,
	way,
	drawn: drawnAddress(drawn)
});

/** What the job holds of which a sheet can tell, as it stands today. */
export function sheetSource(world: World, jobId: number): JobSheetSource {
	const { db, clock } = world;
	const job = loadJob(db, jobId);
	const customer = db.select().from(customers).where(eq(customers.id, job.customerId)).get()!;
	const site =
		job.siteId === null ? undefined : db.select().from(sites).where(eq(sites.id, job.siteId)).get();
	const seller = sellerOn(sellerRecord(db), clock.today());
	const { look = STANDARD_LOOK } = dressOf(db, {
		...blankSheet(),
		customerId: job.customerId,
		...(job.workKindId ? { workKindId: job.workKindId } : {})
	});
	return {
		job: { number: job.number, title: job.title },
		seller,
		customer: { name: customer.name, address: customer.address },
		site: site ? { name: site.name, address: site.address } : null,
		includes: seller.vatRegistered && job.pricesIncludeVat,
		visits: visitsOf(db, jobId),
		work: jobWork(db, jobId),
		photos: filesOf(db, { to: 'job', id: jobId })
			.filter(({ type }) => type === 'image/jpeg')
			.map(({ id, name }) => ({ id, name }))
			.reverse(),
		look
	};
}

function visitsOf(db: Reader, jobId: number): JobSheetSource['visits'] {
	const rows = db
		.select({ visit: visits, name: people.name })
		.from(visits)
		.leftJoin(people, eq(people.id, visits.personId))
		.where(eq(visits.jobId, jobId))
		.orderBy(asc(visits.date), asc(visits.from), asc(visits.id))
		.all();
	const along = db
		.select({ visitId: visitPeople.visitId, name: people.name })
		.from(visitPeople)
		.innerJoin(people, eq(people.id, visitPeople.personId))
		.innerJoin(visits, eq(visits.id, visitPeople.visitId))
		.where(eq(visits.jobId, jobId))
		.all();
	return rows.map(({ visit, name }) => ({
		id: visit.id,
		date: visit.date,
		endDate: visit.endDate,
		from: visit.from,
		to: visit.to,
		who: [
			name ?? visit.person,
			...along.filter(({ visitId }) => visitId === visit.id).map((one) => one.name)
		]
			.filter(Boolean)
			.join(' and '),
		note: visit.note,
		done: visit.done
	}));
}

/** Begins the sheet of a job with all that is new since the last; one that is being written is gone on with. */
export function beginSheet(world: World, jobId: number, key: string): number {
	must('site');
	mustGoTo(world.db, jobId);
	return writeAtOnce(world.db, (tx) => {
		loadJob(tx, jobId);
		const all = tx
			.select()
			.from(jobSheets)
			.where(eq(jobSheets.jobId, jobId))
			.orderBy(asc(jobSheets.n))
			.all();
		const there = all.find((one) => one.key === key || one.state === 'draft');
		if (there) return there.id;
		const now = world.clock.now();
		return tx
			.insert(jobSheets)
			.values({
				key,
				jobId,
				n: (all.at(-1)?.n ?? 0) + 1,
				token: newToken(),
				state: 'draft',
				written: putForward(
					sheetSource(world, jobId),
					all.map(({ written }) => written)
				),
				createdAt: now,
				updatedAt: now
			})
			.returning({ id: jobSheets.id })
			.get().id;
	});
}

const ids = z.array(z.number().int().positive()).max(2000).catch([]);
const writtenForm = z.object({
	done: text(5000),
	remains: text(2000),
	visits: ids,
	lines: ids,
	times: ids,
	costs: ids,
	photos: ids.refine((given) => given.length <= MOST_PHOTOS, `At most ${MOST_PHOTOS} photos.`),
	prices: z.boolean().catch(false)
});

/** Keeps what is written. @returns its version @throws ConflictError, FieldError; RefusedError once it is finished */
export function saveSheet(world: World, id: number, version: number, typed: unknown): number {
	must('site');
	const written: JobSheetWritten = parseForm(writtenForm, typed);
	return writeAtOnce(world.db, (tx) => {
		mustBeDraft(loadSheet(tx, id), version);
		tx.update(jobSheets)
			.set({
				written: { ...written, prices: written.prices && seesPrices() },
				version: version + 1,
				updatedAt: world.clock.now()
			})
			.where(eq(jobSheets.id, id))
			.run();
		return version + 1;
	});
}

function mustBeDraft(sheet: JobSheet, version: number): void {
	if (sheet.state === 'finished')
		throw new ConflictError('This job sheet is finished. Begin another one for what came after.');
	if (sheet.version !== version)
		throw new ConflictError('This job sheet was changed in another tab. Load it again.');
}

/** Throws one away that nobody has yet. @throws ConflictError once it is finished */
export function discardSheet(world: World, id: number): number {
	must('site');
	return writeAtOnce(world.db, (tx) => {
		const sheet = loadSheet(tx, id);
		if (sheet.state === 'finished')
			throw new ConflictError('It is finished, and stays with its job.');
		tx.delete(jobSheets).where(eq(jobSheets.id, id)).run();
		return sheet.jobId;
	});
}

const isEmpty = ({ done, visits: came, lines, times, costs, photos }: JobSheetWritten): boolean =>
	done === '' && [came, lines, times, costs, photos].every((one) => one.length === 0);

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
		const small = await sharp(content)
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

/** What a job's page says of its sheets, the newest first. */
export function sheetsOf(db: Reader, jobId: number) {
	return db
		.select({
			id: jobSheets.id,
			n: jobSheets.n,
			state: jobSheets.state,
			number: jobSheets.number,
			finishedOn: jobSheets.finishedOn,
			signedBy: signatures.name
		})
		.from(jobSheets)
		.leftJoin(signatures, eq(signatures.sheetId, jobSheets.id))
		.where(eq(jobSheets.jobId, jobId))
		.orderBy(desc(jobSheets.n))
		.all();
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
