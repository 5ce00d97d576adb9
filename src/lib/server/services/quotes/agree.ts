// What was chosen on a quote as work that is agreed: a job of its own, or more of the one it was for.
import { eq, sql } from 'drizzle-orm';
import { FiguresError } from '../../../core/figures/types';
import { agreedLines, checkPicked, type Picked } from '../../../core/quotes/chosen';
import { frozenQuote } from '../../../core/quotes/frozen';
import { FieldError } from '../../../core/refusals';
import { quoteName } from '../../../core/quotes/terms';
import type { Transaction } from '../../db/connection';
import { jobLines, jobs } from '../../db/schema';
import type { World } from '../../world';
import { parseForm } from '../business/fields';
import { jobForm, jobOnce, loadJob } from '../jobs/jobs';
import { lineForm, saveLines } from '../jobs/lines';
import { workChanged } from '../jobs/takenParts';
import { noteJob } from '../trail/jobs';
import type { QuoteRow } from './quotes';
import type { QuoteVersion } from './send';

type Agreed = ReturnType<typeof agreedLines>;

const asJobLine = (line: Agreed[number], extra: boolean) => {
	const {
		jobId: _job,
		bills: _bills,
		stageLineId: _stage,
		workDone: _day,
		listPrice: _list,
		itemId,
		...plain
	} = line;
	return {
		...plain,
		itemId: itemId ?? null,
		extra,
		income: line.income ?? '',
		centre: line.centre ?? ''
	};
};

/** A job with everything that was agreed. */
export function newJob(
	tx: Transaction,
	world: World,
	row: QuoteRow,
	{ frozen }: QuoteVersion,
	agreed: Agreed,
	orderNumber: string
): number {
	const { sheet } = frozen;
	const terms = sheet.quote!;
	const lookedAt = jobOfEnquiry(tx, row.enquiryId);
	if (lookedAt !== null) return agreeOn(tx, world, lookedAt, row, frozen, agreed);
	const { id } = jobOnce(
		tx,
		world,
		`quote:${row.id}`,
		() =>
			parseForm(jobForm, {
				title: terms.title.trim() || `${quoteName(terms)} ${row.number}`,
				customerId: frozen.customer.id,
				siteId: stillThere(tx, sheet.siteId),
				billToId: sheet.billToId ?? null,
				workKindId: sheet.workKindId ?? null,
				contract: frozen.customer.kind === 'contractor' ? sheet.contract : null,
				contractReason: sheet.contractReason ?? '',
				...(sheet.endUser
					? { endUserStatement: sheet.endUser.statement, endUserDate: sheet.endUser.date }
					: {}),
				description: [
					`As agreed in ${row.number}.`,
					orderNumber ? `Order number ${orderNumber}.` : '',
					terms.notIncluded.trim() ? `Not included: ${terms.notIncluded.trim()}` : '',
					terms.assumed.trim() ? `Assumed: ${terms.assumed.trim()}` : ''
				]
					.filter(Boolean)
					.join('\n'),
				privateNote: sheet.note,
				pricesIncludeVat: frozen.seller.vatRegistered && sheet.pricesIncludeVat,
				// An estimate does not bind: what is done is what is charged.
				fixedPrice: terms.binding,
				retention: sheet.retention.trim().replace(/%$/, ''),
				retentionDue: sheet.retentionDue ?? '',
				lines: agreed.map((line) => asJobLine(line, false))
			}),
		'booked'
	);
	return id;
}

/** What was looked at before it was quoted is a job already. */
const jobOfEnquiry = (tx: Transaction, enquiryId: number | null): number | null =>
	enquiryId === null
		? null
		: (tx.get<{ id: number }>(
				sql`select j.id from enquiries e join jobs j on j.id = e.job_id where e.id = ${enquiryId} and j.state = 'enquiry'`
			)?.id ?? null);

/** The job that was looked at becomes the one that is agreed. */
function agreeOn(
	tx: Transaction,
	world: World,
	jobId: number,
	row: QuoteRow,
	frozen: QuoteVersion['frozen'],
	agreed: Agreed
): number {
	const { sheet } = frozen;
	const terms = sheet.quote!;
	const now = world.clock.now();
	saveLines(
		tx,
		jobId,
		agreed.map((line) => parseForm(lineForm, asJobLine(line, false)))
	);
	tx.update(jobs)
		.set({
			title: terms.title.trim() || `${quoteName(terms)} ${row.number}`,
			customerId: frozen.customer.id,
			siteId: stillThere(tx, sheet.siteId),
			state: 'booked',
			fixedPrice: terms.binding,
			contract: frozen.customer.kind === 'contractor' ? sheet.contract : null,
			pricesIncludeVat: frozen.seller.vatRegistered && sheet.pricesIncludeVat,
			retention: sheet.retention.trim().replace(/%$/, ''),
			updatedAt: now
		})
		.where(eq(jobs.id, jobId))
		.run();
	noteJob(tx, jobId, now, 'booked', `As agreed in ${row.number}`);
	workChanged(tx, jobId, now);
	return jobId;
}

const stillThere = (tx: Transaction, siteId: number | null): number | null =>
	siteId !== null &&
	tx.get<{ id: number }>(sql`select id from sites where id = ${siteId}`) !== undefined
		? siteId
		: null;

/** Extra or lesser work becomes part of what is agreed on its job, and only now. */
export function putOnJob(tx: Transaction, world: World, jobId: number, agreed: Agreed): number {
	const job = loadJob(tx, jobId);
	const { n } = tx.get<{ n: number }>(
		sql`select coalesce(max(position), -1) + 1 as n from job_lines where job_id = ${jobId}`
	);
	for (const [index, line] of agreed.entries())
		tx.insert(jobLines)
			.values({
				...parseForm(lineForm, asJobLine(line, true)),
				id: undefined,
				jobId,
				position: n + index
			})
			.run();
	const now = world.clock.now();
	noteJob(tx, job.id, now, 'sumChanged', 'Extra work was agreed');
	workChanged(tx, jobId, now);
	return jobId;
}

/** What is chosen on a version. @throws FieldError for a choice that is none */
export function chosenOn(version: Pick<QuoteVersion, 'frozen'>, picked: Picked) {
	try {
		const result = frozenQuote(version.frozen, picked);
		checkPicked(result.lines, picked);
		return result;
	} catch (error) {
		if (error instanceof FiguresError)
			throw new FieldError({ picked: 'That cannot be chosen here. Load the page again.' });
		throw error;
	}
}
