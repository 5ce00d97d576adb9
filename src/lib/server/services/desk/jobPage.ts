// Everything a job's page shows, each thing from its own place.
import { and, asc, desc, eq, isNull, ne } from 'drizzle-orm';
import { isRegistered } from '../business/settings';
import { billablesOf } from '../../../core/jobs/billing';
import { contractPosition } from '../../../core/jobs/stages';
import { beginsOn } from '../../../core/regimes/gb/consumer';
import {
	acceptances,
	billedParts,
	contacts,
	customers,
	documents,
	jobs,
	jobTrail,
	quotes,
	sites,
	stagePlans,
	visits
} from '../../db/schema';
import type { World } from '../../world';
import { billedWhole, contractLines } from '../jobs/stageBooks';
import { contractOf, loadJob } from '../jobs/jobs';
import { materialsOf } from '../jobs/materials';
import { runningClock } from '../jobs/time';
import { filesOf } from '../files/files';
import { standing } from '../jobs/standing';
import { jobWork } from '../jobs/work';
import { JOB_EVENT_WORDS, type JobEvent } from '../trail/jobs';
import { marginsOf } from '../jobs/margins';
import { cancelLimit, mayCancel } from '../quotes/cancel';
import { sheetsOf } from '../signing/sheets';
import { stagesOf } from '../billing/stages';
import { retentionsOf } from '../billing/retentions';

export function jobPage(world: World, id: number) {
	const { db } = world;
	const job = loadJob(db, id);
	const work = jobWork(db, id);
	const customer = db.select().from(customers).where(eq(customers.id, job.customerId)).get()!;
	const billed = db
		.select({
			type: billedParts.type,
			partId: billedParts.partId,
			documentId: billedParts.documentId,
			number: documents.number,
			state: documents.state
		})
		.from(billedParts)
		.innerJoin(documents, eq(documents.id, billedParts.documentId))
		.where(eq(billedParts.jobId, id))
		.all();
	const taken = new Set(billed.map((part) => `${part.type}:${part.partId}`));
	const stages = stagesOf(db, id);
	const staged = stages.some((stage) => stage.state !== 'dropped');
	const open = billablesOf(work).filter(
		({ part }) => !taken.has(`${part.type}:${part.id}`) && !(staged && part.type === 'line')
	);
	const lines = contractLines(db, id);
	const places = db
		.select()
		.from(sites)
		.where(eq(sites.customerId, job.customerId))
		.orderBy(asc(sites.name))
		.all();
	const site = places.find((one) => one.id === job.siteId);
	return {
		registered: isRegistered(world),
		job,
		standing: db.select({ standing }).from(jobs).where(eq(jobs.id, id)).get()!.standing,
		work,
		customer: {
			id: customer.id,
			name: customer.name,
			kind: customer.kind,
			phone: customer.phone,
			email: customer.email,
			address: customer.address
		},
		people: [
			...(site?.contactName || site?.contactPhone
				? [{ name: site.contactName, phone: site.contactPhone, email: site.contactEmail }]
				: []),
			{ name: customer.name, phone: customer.phone, email: customer.email },
			...db
				.select({ name: contacts.name, phone: contacts.phone, email: contacts.email })
				.from(contacts)
				.where(eq(contacts.customerId, customer.id))
				.orderBy(asc(contacts.name))
				.all()
		],
		sites: places,
		visits: db
			.select()
			.from(visits)
			.where(eq(visits.jobId, id))
			.orderBy(asc(visits.date), asc(visits.from))
			.all(),
		materials: materialsOf(db, id),
		files: filesOf(db, { to: 'job', id }),
		contract: contractOf(db, id),
		billed,
		toBill: Number(open.reduce((sum, one) => sum + one.amount, 0n)),
		toBillCount: open.length,
		stages,
		position: contractPosition(lines),
		contractLines: lines,
		canStage: lines.length > 0 && !billedWhole(db, id),
		retentions: retentionsOf(db, id),
		agreement: agreementOf(world, id),
		sheets: sheetsOf(db, id),
		margin: marginsOf(world, [id]).get(id)!,
		clock: runningClock(world),
		trail: db
			.select()
			.from(jobTrail)
			.where(eq(jobTrail.jobId, id))
			.orderBy(desc(jobTrail.id))
			.limit(50)
			.all()
			.map((row) => ({ ...row, words: JOB_EVENT_WORDS[row.what as JobEvent] ?? row.what })),
		today: world.clock.today(),
		now: world.clock.now()
	};
}

/** What was agreed by a quote: until when it can be cancelled, from when work may begin, what is paid when; and quotes for extra work. */
function agreementOf({ db, clock }: World, jobId: number) {
	const row = db
		.select({ id: quotes.id, number: quotes.number, acceptance: acceptances })
		.from(quotes)
		.innerJoin(acceptances, eq(acceptances.quoteId, quotes.id))
		.where(and(eq(quotes.jobId, jobId), isNull(quotes.forJobId)))
		.get();
	const extras = db
		.select({
			id: quotes.id,
			number: quotes.number,
			title: quotes.title,
			state: quotes.state,
			total: quotes.total
		})
		.from(quotes)
		.where(and(eq(quotes.forJobId, jobId), ne(quotes.state, 'discarded')))
		.orderBy(asc(quotes.id))
		.all();
	const plan = db
		.select({ title: stagePlans.title, amount: stagePlans.amount })
		.from(stagePlans)
		.where(eq(stagePlans.jobId, jobId))
		.orderBy(asc(stagePlans.position))
		.all();
	if (!row)
		return {
			quote: null,
			cancel: null,
			goods: false,
			receivedOn: null,
			mayBegin: null,
			extras,
			plan
		};
	const { acceptance, ...quote } = row;
	const limit = cancelLimit(db, acceptance);
	const today = clock.today();
	const begins = beginsOn(acceptance.law, acceptance.agreedOn);
	return {
		quote: { ...quote, on: acceptance.agreedOn, total: acceptance.total },
		cancel: limit && mayCancel(db, acceptance, today) ? (limit.until ?? ('open' as const)) : null,
		/** The period to cancel runs from the day the last of the materials came to them. */
		goods: acceptance.law.may && acceptance.law.goods && acceptance.cancelledOn === null,
		receivedOn: acceptance.receivedOn,
		/** Not before this day: they did not ask for an earlier begin. */
		mayBegin: begins && begins > today ? begins : null,
		extras,
		plan
	};
}
