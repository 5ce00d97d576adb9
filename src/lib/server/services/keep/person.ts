// A person's own data: what is kept of one customer, and the removal of all of it that no law asks to keep.
import type { Writable } from 'node:stream';
import { desc, eq } from 'drizzle-orm';
import { addDays, addMonths, taxYearEnd } from '../../../core/calendar/manipulation';
import type { PlainDate } from '../../../core/calendar/types';
import { NotFoundError } from '../../../core/refusals';
import { counted } from '../../../core/words';
import type { Database } from '../../db/connection';
import { customers, removals } from '../../db/schema';
import type { World } from '../../world';
import { unusedPayments } from '../ledger/inHand';
import { exportCards } from '../customers/file';
import { archiveTo } from '../../archive';
import { addFiles, addPapers, addTables, type Part } from './export';

export const OF_JOBS = 'job_id in (select id from jobs where customer_id = ?)';
export const OF_DOCUMENTS = 'document_id in (select id from documents where customer_id = ?)';

export const OF_QUOTES = 'quote_id in (select id from quotes where customer_id = ?)';

/** Which rows are about a customer, table by table. */
export const OF_PERSON: Readonly<Record<string, string>> = {
	customers: 'id = ?',
	contacts: 'customer_id = ?',
	sites: 'customer_id = ?',
	tax_standings: 'customer_id = ?',
	breathing_spaces: 'customer_id = ?',
	card_disputes: OF_DOCUMENTS,
	call_notes: 'customer_id = ?',
	late_terms: 'customer_id = ?',
	customer_chasing: 'customer_id = ?',
	chase_wordings: 'payer_id = ?',
	chase_messages: 'payer_id = ?',
	chase_done: OF_DOCUMENTS,
	payer_names: 'payer_id = ?',
	saved_cards: 'customer_id = ?',
	repeats: 'customer_id = ?',
	repeat_changes: 'repeat_id in (select id from repeats where customer_id = ?)',
	repeat_occurrences: 'repeat_id in (select id from repeats where customer_id = ?)',
	jobs: 'customer_id = ?',
	job_lines: OF_JOBS,
	job_costs: OF_JOBS,
	files: `${OF_JOBS} or customer_id = ? or ${OF_DOCUMENTS} or ${OF_QUOTES} or enquiry_id in (select id from enquiries where customer_id = ?)`,
	job_trail: OF_JOBS,
	visits: OF_JOBS,
	time_entries: OF_JOBS,
	stages: OF_JOBS,
	stage_parts: `stage_id in (select id from stages where ${OF_JOBS})`,
	retentions: OF_JOBS,
	billed_parts: OF_JOBS,
	bill_run_steps: 'customer_id = ?',
	documents: 'customer_id = ?',
	document_lines: OF_DOCUMENTS,
	document_labels: OF_DOCUMENTS,
	document_files: OF_DOCUMENTS,
	tax_points: OF_DOCUMENTS,
	trials: OF_DOCUMENTS,
	trail: OF_DOCUMENTS,
	holds: OF_DOCUMENTS,
	open_items: 'customer_id = ? or payer_id = ?',
	journal_lines: 'customer_id = ?',
	journal_entries: 'id in (select entry_id from journal_lines where customer_id = ?)',
	payments: 'payer_id = ?',
	payment_reversals: 'payment_id in (select id from payments where payer_id = ?)',
	allocations: 'payment_id in (select id from payments where payer_id = ?)',
	credit_returns: 'payment_id in (select id from payments where payer_id = ?)',
	transfers: 'from_id in (select id from documents where customer_id = ?)',
	refunds: OF_DOCUMENTS,
	relief_claims: OF_DOCUMENTS,
	write_offs: OF_DOCUMENTS,
	checkouts: `payer_id = ? or ${OF_DOCUMENTS}`,
	statements: 'payer_id = ?',
	deduction_statements: 'contractor_id = ?',
	mails: `${OF_DOCUMENTS} or statement_id in (select id from statements where payer_id = ?) or chase_message_id in (select id from chase_messages where payer_id = ?) or ${OF_QUOTES} or told_id in (select id from told where ${OF_JOBS}) or sheet_id in (select id from job_sheets where ${OF_JOBS})`,
	texts: `${OF_DOCUMENTS} or chase_message_id in (select id from chase_messages where payer_id = ?) or told_id in (select id from told where ${OF_JOBS})`,
	bank_lines: 'payment_id in (select id from payments where payer_id = ?)',
	removals: 'customer_id = ?',
	quotes: 'customer_id = ?',
	quote_versions: OF_QUOTES,
	quote_trail: OF_QUOTES,
	quote_trials: OF_QUOTES,
	job_materials: OF_JOBS,
	text_replies: 'customer_id = ?',
	quote_questions: OF_QUOTES,
	acceptances: OF_QUOTES,
	job_sheets: OF_JOBS,
	signatures: `${OF_DOCUMENTS} or sheet_id in (select id from job_sheets where ${OF_JOBS})`,
	deposit_requests: 'payer_id = ?',
	stage_plans: OF_JOBS,
	enquiries: 'customer_id = ?',
	visit_people: `visit_id in (select id from visits where ${OF_JOBS})`,
	told: OF_JOBS
};

/** Tables that are about nobody in particular. */
export const OF_NOBODY: readonly string[] = [
	'audits',
	'backup_settings',
	'backups',
	'bank_imports',
	'bill_runs',
	'business',
	'chase_plans',
	'chase_settings',
	'csv_layouts',
	'kit_parts',
	'purchases',
	'suppliers',
	'letterheads',
	'links',
	'list_views',
	'logos',
	'many_rows',
	'many_runs',
	'number_series',
	'odd_news',
	'payout_parts',
	'payouts',
	'price_items',
	'price_pictures',
	'bin',
	'movings',
	'line_tags',
	'enquiry_questions',
	'enquiry_page',
	'quote_plan',
	'diary_blocks',
	'diary_feeds',
	'diary_settings',
	'pack_links',
	'moved_rows',
	'taken_back',
	'exchange_rates',
	'reference_rates',
	'restores',
	'text_stops',
	'starting_points',
	'statement_runs',
	'transfer_reversals',
	'vat_statuses',
	'watched_changes',
	'webhook_events',
	'wordings',
	'work_kinds'
];

const partOf = (customerId: number): Part => ({
	where: (table) => OF_PERSON[table] ?? null,
	values: (where) => Array<number>(where.split('?').length - 1).fill(customerId)
});

/** Writes all that is kept of a customer. `at`: now, milliseconds. @throws NotFoundError */
export async function exportPerson(
	db: Database,
	customerId: number,
	out: Writable,
	at: number
): Promise<void> {
	const customer = db.select().from(customers).where(eq(customers.id, customerId)).get();
	if (!customer) throw new NotFoundError('This customer');
	const archive = archiveTo(out, at);
	archive.text('Read me first.txt', () => [
		`This is all that is kept of ${customer.name}.\n\ndocuments/ and letters/ hold what was written, files/ photos and files of the jobs,\ntables/ everything else, and what each column means.\n`
	]);
	const part = partOf(customerId);
	addTables(archive, db, part);
	if (customer.archivedAt === null)
		archive.text('contact.vcf', () => exportCards({ db }, customerId));
	addPapers(archive, db, part);
	addFiles(archive, db, part);
	await archive.end();
}

/** What stays, and until when the law asks for it. */
export interface Staying {
	documents: number;
	payments: number;
	/** The day after which none of it has to be kept; null where nothing stays. */
	until: PlainDate | null;
}

/**
 * Records of a trade are kept for five years after 31 January that follows the tax year (Taxes Management Act 1970 s.12B), those of VAT for six years (VAT Act 1994
 * Sch. 11 para. 6): the later of the two holds.
 */
export function keptUntil(last: PlainDate, registered: boolean): PlainDate {
	const forIncomeTax = addMonths(`${Number(taxYearEnd(last).slice(0, 4)) + 1}-01-31`, 60);
	const forVat = addDays(addMonths(last, 72), 1);
	return registered && forVat > forIncomeTax ? forVat : forIncomeTax;
}

export function whatStays(world: World, customerId: number): Staying {
	const { documents, payments, last } = world.db.$client
		.prepare(
			`select (select count(*) from documents where customer_id = @id and state = 'issued') as documents,
			 (select count(*) from payments where payer_id = @id) as payments,
			 max(coalesce((select max(issue_date) from documents where customer_id = @id and state = 'issued'), ''),
			     coalesce((select max(date) from payments where payer_id = @id), '')) as last`
		)
		.get({ id: customerId }) as { documents: number; payments: number; last: string };
	const registered = world.db.$client
		.prepare('select 1 from vat_statuses where registered = 1')
		.get();
	return { documents, payments, until: last ? keptUntil(last, registered !== undefined) : null };
}

/** Why nothing can be removed now, in words; empty where it can. */
export function whyNotRemove(db: Database, customerId: number): string {
	const { $client: client } = db;
	const customer = db.select().from(customers).where(eq(customers.id, customerId)).get();
	if (!customer) throw new NotFoundError('This customer');
	if (customer.kind !== 'household')
		return 'This is a firm: what is kept of it is the business’s, and its people can be removed one by one.';
	const count = (query: string) => client.prepare(query).pluck().get({ id: customerId }) as number;
	const why: string[] = [];
	const open = count(
		'select count(*) from open_items where (customer_id = @id or payer_id = @id) and outstanding <> 0'
	);
	if (open) why.push(`${counted(open, 'invoice')} not settled`);
	if (unusedPayments(db, customerId).length) why.push('money in hand');
	const drafts = count(
		"select count(*) from documents where customer_id = @id and state <> 'issued'"
	);
	if (drafts) why.push(counted(drafts, 'draft'));
	const repeats = count(
		"select count(*) from repeats where customer_id = @id and state = 'active'"
	);
	if (repeats) why.push(`${counted(repeats, 'repeat')} going on`);
	const onTheWay = client
		.prepare(
			`select count(*) from mails where state in ('queued', 'sending') and (${OF_PERSON.mails})`
		)
		.pluck()
		.get(...partOf(customerId).values(OF_PERSON.mails!)) as number;
	if (onTheWay) why.push('a message on its way');
	return why.length ? `There is still something open: ${why.join(', ')}.` : '';
}

/** What the page about a customer's data shows. @throws NotFoundError */
export function whatIsKept(world: World, customerId: number) {
	const why = whyNotRemove(world.db, customerId);
	const { name, kind } = world.db
		.select({ name: customers.name, kind: customers.kind })
		.from(customers)
		.where(eq(customers.id, customerId))
		.get()!;
	const removed = world.db
		.select({ at: removals.at, what: removals.what })
		.from(removals)
		.where(eq(removals.customerId, customerId))
		.orderBy(desc(removals.id))
		.get();
	return {
		id: customerId,
		name,
		household: kind === 'household',
		why,
		stays: whatStays(world, customerId),
		removed: removed ?? null
	};
}
