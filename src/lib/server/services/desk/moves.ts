// Next moves: what needs doing, with amounts, most money first, each one press from done.
import { and, desc, eq, gt, inArray, isNull, lte, or, sql } from 'drizzle-orm';
import { displayDate } from '../../../core/calendar/conversion';
import { taxYearEnd } from '../../../core/calendar/manipulation';
import { daysBetween } from '../../../core/calendar/queries';
import { displayPounds } from '../../../core/money/display';
import {
	chaseMessages,
	customers,
	documents,
	jobs,
	mails,
	openItems,
	retentions,
	stages,
	statements,
	texts,
	trail
} from '../../db/schema';
import type { World } from '../../world';
import { loadBusiness } from '../business/settings';
import { loadChaseSettings } from '../chasing/settings';
import { lastLetters } from '../chasing/day';
import { missingStatements } from '../tax/deductions';
import { latePayers } from '../owed/owed';
import { aboutToGo, troubledRepeats } from '../repeats/page';
import { stillToPay } from '../../../core/settlement/position';
import { toBill } from '../billing/toBill';

export interface Move {
	id: string;
	/** Pence; null where it is not about money. */
	amount: number | null;
	late: boolean;
	title: string;
	detail: string;
	action: string;
	href: string;
}

const MOST = 100;

export function nextMoves(world: World): Move[] {
	const last = loadChaseSettings(world.db).on ? lastLetters(world) : [];
	return [
		...troubledMails(world),
		...troubledStatements(world),
		...chasingMoves(world, last),
		...unsent(world),
		...late(world, new Set(last.map((one) => one.payerId))),
		...overpaid(world),
		...drafts(world),
		...work(world),
		...retentionsDue(world),
		...applications(world),
		...repeating(world),
		...statementsMissing(world),
		...setUp(world)
	].sort((a, b) => (b.amount ?? -1) - (a.amount ?? -1));
}

function troubledMails(world: World): Move[] {
	const rows = world.db
		.select({
			id: mails.id,
			documentId: mails.documentId,
			to: mails.to,
			state: mails.state,
			error: mails.lastError,
			number: documents.number,
			total: documents.total
		})
		.from(mails)
		.innerJoin(documents, eq(documents.id, mails.documentId))
		.where(inArray(mails.state, ['failed', 'unsure']))
		.orderBy(desc(documents.total))
		.limit(MOST)
		.all();
	return rows.map((row) => ({
		id: `mail:${row.id}`,
		amount: row.total,
		late: false,
		title:
			row.state === 'failed'
				? `${row.number} did not reach ${row.to}`
				: `It is not known whether ${row.number} reached ${row.to}`,
		detail: row.error,
		action: 'Look and send again',
		href: `/billing/${row.documentId}`
	}));
}

/** Statements whose mail did not arrive, or may not have. */
function troubledStatements(world: World): Move[] {
	return world.db
		.select({
			id: mails.id,
			runId: statements.runId,
			to: mails.to,
			state: mails.state,
			error: mails.lastError,
			balance: statements.balance
		})
		.from(mails)
		.innerJoin(statements, eq(statements.id, mails.statementId))
		.where(inArray(mails.state, ['failed', 'unsure']))
		.orderBy(desc(statements.balance))
		.limit(MOST)
		.all()
		.map((row) => ({
			id: `mail:${row.id}`,
			amount: row.balance,
			late: false,
			title:
				row.state === 'failed'
					? `A statement did not reach ${row.to}`
					: `It is not known whether a statement reached ${row.to}`,
			detail: row.error,
			action: 'Look and send again',
			href: `/owed/statements/${row.runId}`
		}));
}

/** Last letters that wait for a decision, letters to post, and reminders that did not arrive. */
function chasingMoves(world: World, toDecide: ReturnType<typeof lastLetters>): Move[] {
	const troubled = world.db
		.select({
			id: mails.id,
			to: mails.to,
			state: mails.state,
			error: mails.lastError,
			amount: chaseMessages.amount
		})
		.from(mails)
		.innerJoin(chaseMessages, eq(chaseMessages.id, mails.chaseMessageId))
		.where(inArray(mails.state, ['failed', 'unsure']))
		.union(
			world.db
				.select({
					id: texts.id,
					to: texts.to,
					state: sql<'failed'>`${texts.state}`,
					error: texts.lastError,
					amount: chaseMessages.amount
				})
				.from(texts)
				.innerJoin(chaseMessages, eq(chaseMessages.id, texts.chaseMessageId))
				.where(eq(texts.state, 'failed'))
		)
		.limit(MOST)
		.all();
	const letters = world.db
		.select({ id: chaseMessages.id, to: chaseMessages.to, amount: chaseMessages.amount })
		.from(chaseMessages)
		.where(eq(chaseMessages.state, 'toPost'))
		.all();
	return [
		...troubled.map((row) => ({
			id: `reminder:${row.to}:${row.id}`,
			amount: row.amount,
			late: false,
			title:
				row.state === 'failed'
					? `A reminder did not reach ${row.to}`
					: `It is not known whether a reminder reached ${row.to}`,
			detail: row.error,
			action: 'Look and send again',
			href: '/owed/chasing#sent'
		})),
		...letters.map((row) => ({
			id: `letter:${row.id}`,
			amount: row.amount,
			late: false,
			title: `Print and post the letter to ${row.to.split('\n')[0]}`,
			detail: 'it is made, and waits for its stamp',
			action: 'Print it',
			href: '/owed/chasing#sent'
		})),
		...toDecide.map((one) => ({
			id: `decide:${one.payerId}`,
			amount: one.amount,
			late: true,
			title: `A last letter to ${one.payer}?`,
			detail: 'earlier reminders brought nothing; you decide whether it goes',
			action: 'Read and decide',
			href: `/owed/chasing/${one.payerId}`
		}))
	];
}

/** Issued, and nothing says that the customer ever got it. */
function unsent(world: World): Move[] {
	const rows = world.db
		.select({
			id: documents.id,
			number: documents.number,
			customer: documents.customerName,
			outstanding: openItems.outstanding,
			issueDate: openItems.issueDate,
			deduction: openItems.deduction,
			withheld: openItems.withheld
		})
		.from(openItems)
		.innerJoin(documents, eq(documents.id, openItems.documentId))
		.where(
			and(
				inArray(openItems.state, ['open', 'partPaid']),
				sql`not exists (select 1 from ${trail} where ${trail.documentId} = ${documents.id} and ${trail.what} in ('sent', 'linkCopied', 'downloaded', 'handedOver', 'opened'))`
			)
		)
		.orderBy(desc(openItems.outstanding))
		.limit(MOST)
		.all();
	return rows.map((row) => ({
		id: `unsent:${row.id}`,
		amount: stillToPay(row),
		late: false,
		title: `Send ${row.number} to ${row.customer}`,
		detail: `issued ${displayDate(row.issueDate)}, and not sent yet`,
		action: 'Send it',
		href: `/billing/${row.id}?send`
	}));
}

/** Late, and neither disputed nor promised: by payer. Those whose last letter waits are asked about that. */
function late(world: World, deciding: ReadonlySet<number>): Move[] {
	const today = world.clock.today();
	const payers = latePayers(world).filter(({ payerId }) => !deciding.has(payerId));
	return payers.map(({ payerId, payer, items }) => {
		const first = items[0]!;
		const days = daysBetween(first.dueDate, today);
		const many = items.length > 1;
		const broken = items.find((item) => item.hold?.kind === 'promise');
		return {
			id: `late:${payerId}`,
			amount: items.reduce((sum, item) => sum + item.toPay, 0),
			late: true,
			title: many
				? `${payer} owes you ${items.length} late invoices`
				: `${payer} is ${days} ${days === 1 ? 'day' : 'days'} late`,
			detail: broken
				? `${broken.number} was promised by ${displayDate(broken.hold!.until!)}`
				: many
					? `the oldest, ${first.number}, is ${days} days late`
					: `${first.number}, due ${displayDate(first.dueDate)}`,
			action: many ? 'See them' : 'Remind',
			href: many ? `/owed/${payerId}` : `/owed/chasing/${payerId}`
		};
	});
}

function overpaid(world: World): Move[] {
	const rows = world.db
		.select({
			id: documents.id,
			number: documents.number,
			customer: documents.customerName,
			overpaid: openItems.overpaid
		})
		.from(openItems)
		.innerJoin(documents, eq(documents.id, openItems.documentId))
		.where(gt(openItems.overpaid, 0))
		.limit(MOST)
		.all();
	return rows.map((row) => ({
		id: `overpaid:${row.id}`,
		amount: row.overpaid,
		late: false,
		title: `${row.customer} has paid too much`,
		detail: `${displayPounds(row.overpaid)} over on ${row.number}`,
		action: 'See',
		href: `/billing/${row.id}`
	}));
}

function drafts(world: World): Move[] {
	const rows = world.db
		.select({
			id: documents.id,
			customer: documents.customerName,
			total: documents.total,
			version: documents.version
		})
		.from(documents)
		.where(and(eq(documents.state, 'draft'), or(gt(documents.version, 1), gt(documents.total, 0))))
		.orderBy(desc(documents.updatedAt))
		.limit(MOST)
		.all();
	return rows.map((row) => ({
		id: `draft:${row.id}`,
		amount: row.total,
		late: false,
		title: row.customer
			? `Finish the invoice to ${row.customer}`
			: 'Finish an invoice without a customer',
		detail: 'a draft: nothing has gone out yet',
		action: 'Finish it',
		href: `/billing/${row.id}`
	}));
}

/** Finished work no invoice covers, by customer: a run, or one job's bill. */
function work(world: World): Move[] {
	const byCustomer = new Map<number, ReturnType<typeof toBill>>();
	for (const job of toBill(world))
		if (job.finishedOn !== null)
			byCustomer.set(job.customerId, [...(byCustomer.get(job.customerId) ?? []), job]);
	return [...byCustomer.values()].map((waiting) => {
		const [first] = waiting as [(typeof waiting)[number]];
		const many = waiting.length > 1;
		return {
			id: `work:${first.customerId}`,
			amount: waiting.reduce((sum, job) => sum + job.amount, 0),
			late: false,
			title: many
				? `Bill ${first.customer} for ${waiting.length} finished jobs`
				: `Bill ${first.customer}: ${first.title}`,
			detail: `finished ${first.finishedOn === null ? '' : displayDate(first.finishedOn)}${many ? ' and after' : ''}`,
			action: many ? 'Bill them' : 'Bill it',
			href: many
				? `/work/bill?customer=${first.customerId}`
				: first.staged
					? `/work/${first.id}/stage`
					: `/work/${first.id}`
		};
	});
}

function retentionsDue(world: World): Move[] {
	return world.db
		.select({
			jobId: retentions.jobId,
			title: jobs.title,
			amount: sql<number>`sum(${retentions.amount})`,
			dueOn: sql<string>`min(${retentions.dueOn})`
		})
		.from(retentions)
		.innerJoin(jobs, eq(jobs.id, retentions.jobId))
		.where(and(isNull(retentions.releasedById), lte(retentions.dueOn, world.clock.today())))
		.groupBy(retentions.jobId)
		.all()
		.map((row) => ({
			id: `retention:${row.jobId}`,
			amount: row.amount,
			late: false,
			title: `Release the retention of ${row.title}`,
			detail: `held back until ${displayDate(row.dueOn)}`,
			action: 'Release it',
			href: `/work/${row.jobId}`
		}));
}

function applications(world: World): Move[] {
	return world.db
		.select({
			id: stages.id,
			jobId: stages.jobId,
			number: stages.applicationNumber,
			appliedOn: stages.appliedOn,
			amount: stages.amount,
			title: jobs.title
		})
		.from(stages)
		.innerJoin(jobs, eq(jobs.id, stages.jobId))
		.where(eq(stages.state, 'applied'))
		.all()
		.map((row) => ({
			id: `application:${row.id}`,
			amount: row.amount,
			late: false,
			title: `Is ${row.number} approved or paid? ${row.title}`,
			detail: `applied for on ${row.appliedOn ? displayDate(row.appliedOn) : ''}; the VAT invoice follows`,
			action: 'See',
			href: `/work/${row.jobId}`
		}));
}

/** What goes out by itself soon, what asks, and what failed. */
function repeating(world: World): Move[] {
	const { asking, failed } = troubledRepeats(world);
	return [
		...asking.map((row) => ({
			id: `repeat-asks:${row.id}`,
			amount: null,
			late: false,
			title: `${row.name}: several invoices were due while Axiometer was off`,
			detail: 'nothing has gone out; say what is to happen',
			action: 'Decide',
			href: `/billing/repeats/${row.id}`
		})),
		...failed.map((row) => ({
			id: `repeat-failed:${row.documentId}`,
			amount: row.outstanding,
			late: false,
			title: `${row.customer}: ${row.number ?? 'a repeat’s draft'} needs you`,
			detail: row.note,
			action: 'See',
			href: `/billing/${row.documentId}`
		})),
		...aboutToGo(world).map((row) => ({
			id: `repeat-soon:${row.id}:${row.date}`,
			amount: row.total,
			late: false,
			title: `${row.name} goes out by itself on ${displayDate(row.date)}`,
			detail: row.action === 'charge' ? 'and is charged to the kept card' : 'issued and sent',
			action: 'See it before',
			href: `/billing/repeats/${row.id}`
		}))
	];
}

function setUp(world: World): Move[] {
	const owner = loadBusiness(world.db);
	const missing = [
		...(owner.bankAccountNumber ? [] : ['bank details, so that people can pay by transfer']),
		...(owner.email ? [] : ['your mail address, for copies and for news of payments'])
	];
	if (missing.length === 0) return [];
	return [
		{
			id: 'set-up',
			amount: null,
			late: false,
			title: 'Complete your details',
			detail: `missing: ${missing.join('; ')}`,
			action: 'Complete them',
			href: '/settings'
		}
	];
}

/** Received and withheld by month, the last six months. Pence, from the journal. */
export function moneyInByMonth(
	world: World
): { month: string; received: number; withheld: number }[] {
	const today = world.clock.today();
	const months: string[] = [];
	for (let back = 5; back >= 0; back--) {
		const index = Number(today.slice(0, 4)) * 12 + Number(today.slice(5, 7)) - 1 - back;
		months.push(`${Math.floor(index / 12)}-${String((index % 12) + 1).padStart(2, '0')}`);
	}
	const rows = world.db.all<{ month: string; received: number; withheld: number }>(sql`
		select substr(e.date, 1, 7) as month,
			sum(case when l.account in ('bank', 'cash', 'cardClearing', 'cardFees') then l.amount else 0 end) as received,
			sum(case when l.account = 'cisWithheld' then l.amount else 0 end) as withheld
		from journal_entries e join journal_lines l on l.entry_id = e.id
		where e.date >= ${`${months[0]}-01`} and e.event in ('payment', 'refund', 'reversal')
		group by 1`);
	return months.map(
		(month) => rows.find((row) => row.month === month) ?? { month, received: 0, withheld: 0 }
	);
}

/** Contractors whose payment and deduction statement should have come. */
function statementsMissing(world: World): Move[] {
	const missing = missingStatements(world);
	if (missing.length === 0) return [];
	const names = new Map(
		world.db
			.select({ id: customers.id, name: customers.name })
			.from(customers)
			.where(inArray(customers.id, [...new Set(missing.map((month) => month.contractorId))]))
			.all()
			.map((row) => [row.id, row.name])
	);
	return missing.slice(0, MOST).map((month) => ({
		id: `deduction:${month.contractorId}:${month.monthEnd}`,
		amount: month.withheld,
		late: false,
		title: `Ask ${names.get(month.contractorId)} for its deduction statement`,
		detail: `${displayPounds(month.withheld)} withheld in the tax month to ${displayDate(month.monthEnd)}; it was due by ${displayDate(month.deadline)}`,
		action: 'Enter it',
		href: `/tax?year=${taxYearEnd(month.monthEnd)}`
	}));
}
