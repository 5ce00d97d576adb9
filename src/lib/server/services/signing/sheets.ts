// Job sheets: what was done, for the customer. Written from what the job holds, finished once, and then never changed.
import { asc, desc, eq } from 'drizzle-orm';
import { z } from 'zod';
import {
	MOST_PHOTOS,
	putForward,
	type JobSheetSource,
	type JobSheetWritten,
	type SheetSignature
} from '../../../core/jobs/jobSheet';
import { STANDARD_LOOK } from '../../../core/letterheads/look';
import { sellerOn } from '../../../core/parties';
import { ConflictError, NotFoundError } from '../../../core/refusals';
import { blankSheet } from '../../../core/sheet/blank';
import { must, seesPrices } from '../../actor';
import { writeAtOnce, type Reader } from '../../db/connection';
import {
	customers,
	jobSheets,
	people,
	signatures,
	sites,
	visitPeople,
	visits
} from '../../db/schema';
import type { World } from '../../world';
import { parseForm, text } from '../business/fields';
import { newToken } from '../business/keys';
import { sellerRecord } from '../business/settings';
import { drawnAddress } from '../files/drawn';
import { filesOf } from '../files/files';
import { loadJob } from '../jobs/jobs';
import { mustGoTo } from '../jobs/reach';
import { jobWork } from '../jobs/work';
import { dressOf } from '../letterheads/dress';

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

export function mustBeDraft(sheet: JobSheet, version: number): void {
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

export const isEmpty = ({
	done,
	visits: came,
	lines,
	times,
	costs,
	photos
}: JobSheetWritten): boolean =>
	done === '' && [came, lines, times, costs, photos].every((one) => one.length === 0);

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
