// The work as whoever goes there sees it: their own visits and those jobs, without margins and pay rates.
import { and, asc, eq, gte, lte, sql } from 'drizzle-orm';
import { z } from 'zod';
import { addDays } from '../../../core/calendar/manipulation';
import { NotFoundError } from '../../../core/refusals';
import { actor, must, seesPrices } from '../../actor';
import { writeAtOnce } from '../../db/connection';
import {
	contacts,
	customers,
	jobCosts,
	jobLines,
	jobs,
	sites,
	timeEntries,
	visits
} from '../../db/schema';
import type { World } from '../../world';
import { parseForm, required, text, typedNumber } from '../business/fields';
import { filesOf } from '../files/files';
import { saveCost } from './costs';
import { mustGoTo } from './reach';
import { loadJob } from './jobs';
import { moveJob } from './states';
import { saveTime } from './time';

/** So far ahead somebody sees what is coming. */
const AHEAD = 21;
const BEHIND = 3;

/** The visits of whoever asks, from a few days ago on, in the order they come. */
export function ownVisits(world: World) {
	must('site');
	const today = world.clock.today();
	return world.db
		.select({
			id: visits.id,
			date: visits.date,
			from: visits.from,
			to: visits.to,
			done: visits.done,
			jobId: jobs.id,
			title: jobs.title,
			customer: customers.name,
			site: sites.name,
			address: sql<string>`coalesce(nullif(${sites.address}, ''), ${customers.address})`
		})
		.from(visits)
		.innerJoin(jobs, eq(jobs.id, visits.jobId))
		.innerJoin(customers, eq(customers.id, jobs.customerId))
		.leftJoin(sites, eq(sites.id, jobs.siteId))
		.where(
			and(
				eq(visits.personId, actor()?.id ?? 1),
				gte(visits.date, addDays(today, -BEHIND)),
				lte(visits.date, addDays(today, AHEAD))
			)
		)
		.orderBy(asc(visits.date), asc(visits.from), asc(visits.id))
		.all();
}

/** A job as it is seen on site. Prices only for whom the owner lets. @throws ForbiddenError, NotFoundError */
export function siteJob(world: World, jobId: number) {
	const { db } = world;
	mustGoTo(db, jobId);
	const who = actor();
	const prices = seesPrices();
	const job = loadJob(db, jobId);
	const customer = db.select().from(customers).where(eq(customers.id, job.customerId)).get()!;
	const site =
		job.siteId === null ? undefined : db.select().from(sites).where(eq(sites.id, job.siteId)).get();
	const running = db
		.select({ id: timeEntries.id, jobId: timeEntries.jobId, startedAt: timeEntries.startedAt })
		.from(timeEntries)
		.where(and(sql`${timeEntries.minutes} is null`, eq(timeEntries.personId, who?.id ?? 1)))
		.get();
	return {
		id: job.id,
		number: job.number,
		title: job.title,
		description: job.description,
		state: job.state,
		customer: customer.name,
		site: site?.name ?? '',
		address: site?.address || customer.address,
		accessNotes: site?.accessNotes ?? '',
		phones: [
			...(site ? [{ name: site.contactName, phone: site.contactPhone }] : []),
			{ name: customer.name, phone: customer.phone },
			...db
				.select({ name: contacts.name, phone: contacts.phone })
				.from(contacts)
				.where(eq(contacts.customerId, customer.id))
				.all()
		].filter(({ phone }) => phone !== ''),
		lines: db
			.select({
				id: jobLines.id,
				description: jobLines.description,
				quantity: jobLines.quantity,
				unit: jobLines.unit,
				unitPrice: jobLines.unitPrice
			})
			.from(jobLines)
			.where(eq(jobLines.jobId, jobId))
			.orderBy(asc(jobLines.position))
			.all()
			.map(({ unitPrice, ...line }) => (prices ? { ...line, unitPrice } : line)),
		visits: db
			.select({
				id: visits.id,
				date: visits.date,
				from: visits.from,
				to: visits.to,
				note: visits.note,
				done: visits.done
			})
			.from(visits)
			.where(and(eq(visits.jobId, jobId), eq(visits.personId, who?.id ?? 1)))
			.orderBy(asc(visits.date))
			.all(),
		times: db
			.select({
				id: timeEntries.id,
				date: timeEntries.date,
				minutes: timeEntries.minutes,
				note: timeEntries.note
			})
			.from(timeEntries)
			.where(
				and(
					eq(timeEntries.jobId, jobId),
					eq(timeEntries.personId, who?.id ?? 1),
					sql`${timeEntries.minutes} is not null`
				)
			)
			.orderBy(asc(timeEntries.date))
			.all(),
		materials: db
			.select({
				id: jobCosts.id,
				description: jobCosts.description,
				quantity: jobCosts.quantity,
				unit: jobCosts.unit
			})
			.from(jobCosts)
			.where(eq(jobCosts.jobId, jobId))
			.orderBy(asc(jobCosts.id))
			.all(),
		files: filesOf(db, { to: 'job', id: jobId }),
		running: running ? { here: running.jobId === jobId, startedAt: running.startedAt! } : null
	};
}

/** Time worked, typed: at the job's own rate, which is not told. @throws FieldError, ForbiddenError, RefusedError */
export function addSiteTime(
	world: World,
	jobId: number,
	key: string,
	typed: { hours: string; note: string }
): void {
	mustGoTo(world.db, jobId);
	const job = loadJob(world.db, jobId);
	const who = actor();
	saveTime(world, jobId, key, null, {
		...typed,
		date: world.clock.today(),
		person: who?.name ?? '',
		rate: job.hourlyRate,
		hourlyCost: job.hourlyCost,
		chargeable: !job.fixedPrice
	});
}

const material = z.object({
	description: required(300, 'What was it?'),
	quantity: typedNumber('how many', { decimals: 4 }, true),
	unit: text(30)
});

/** Material used; what it cost is the office's to say. @throws FieldError, ForbiddenError */
export function addMaterial(world: World, jobId: number, key: string, typed: unknown): void {
	mustGoTo(world.db, jobId);
	const { fixedPrice } = loadJob(world.db, jobId);
	saveCost(world, jobId, key, null, {
		...parseForm(material, typed),
		date: world.clock.today(),
		kind: 'materials',
		unitCost: '0',
		markUp: '',
		unitPrice: '',
		vat: 'standard',
		vatReason: '',
		chargeable: !fixedPrice
	});
}

const note = z.object({ note: text(5000) });

/** What is to be known of a visit, and whether it is done. @throws FieldError, ForbiddenError, NotFoundError */
export function noteVisit(
	world: World,
	jobId: number,
	visitId: number,
	typed: unknown,
	done: boolean
): void {
	mustGoTo(world.db, jobId);
	const values = parseForm(note, typed);
	const who = actor();
	writeAtOnce(world.db, (tx) => {
		const { changes } = tx
			.update(visits)
			.set({ note: values.note, done })
			.where(
				and(
					eq(visits.id, visitId),
					eq(visits.jobId, jobId),
					who?.role === 'onSite' ? eq(visits.personId, who.id) : undefined
				)
			)
			.run();
		if (!changes) throw new NotFoundError('This visit');
	});
}

/** The work is done. @throws ForbiddenError, RefusedError */
export function finishFromSite(world: World, jobId: number): void {
	mustGoTo(world.db, jobId);
	moveJob(world, jobId, 'finished');
}
