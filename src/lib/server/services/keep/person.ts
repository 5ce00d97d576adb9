// A person's own data: what is kept of one customer, and the removal of all of it that no law asks to keep.
import { appendFileSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Writable } from 'node:stream';
import { desc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { addDays, addMonths, taxYearEnd } from '../../../core/calendar/manipulation';
import type { PlainDate } from '../../../core/calendar/types';
import { NotFoundError, RefusedError } from '../../../core/refusals';
import { counted } from '../../../core/words';
import { blankQuote } from '../../../core/quotes/terms';
import { writeAtOnce, type Database } from '../../db/connection';
import { folderOf } from '../../db/fileStore';
import { customers, removals } from '../../db/schema';
import type { World } from '../../world';
import { unusedPayments } from '../ledger/inHand';
import { exportCards } from '../customers/file';
import { archiveTo } from '../../archive';
import { addFiles, addPapers, addTables, type Part } from './export';

const OF_JOBS = 'job_id in (select id from jobs where customer_id = ?)';
const OF_DOCUMENTS = 'document_id in (select id from documents where customer_id = ?)';

const OF_QUOTES = 'quote_id in (select id from quotes where customer_id = ?)';

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

const FILE = 'removals.jsonl';
const line = z.object({ customerId: z.number().int(), at: z.number().int() });
type Removal = z.output<typeof line>;

/** Removals are listed beside the data file as well: a backup from before them must not bring back what was removed. */
export const removalsFile = (folder: string): string => join(folder, FILE);

export function removalsIn(folder: string): Removal[] {
	let text: string;
	try {
		text = readFileSync(removalsFile(folder), 'utf8');
	} catch {
		return [];
	}
	return text.split('\n').flatMap((one) => {
		try {
			return [line.parse(JSON.parse(one))];
		} catch {
			return [];
		}
	});
}

/**
 * Removes all of a customer that no law asks to keep. Its documents, payments and postings stay, with the name on them.
 * @throws NotFoundError; RefusedError while something is open
 */
export async function removePerson(world: World, customerId: number): Promise<void> {
	const why = whyNotRemove(world.db, customerId);
	if (why) throw new RefusedError(why);
	const cards = world.db.$client
		.prepare('select token from saved_cards where customer_id = ? and revoked_at is null')
		.pluck()
		.all(customerId) as string[];
	// The processor forgets them too; where it cannot be reached, nothing is removed yet.
	for (const token of cards) await world.card.forgetCard(token);
	const at = world.clock.now();
	writeAtOnce(world.db, () => {
		if (whyNotRemove(world.db, customerId)) throw new RefusedError('Something has just come in.');
		removeRows(world.db, customerId, at);
		appendFileSync(removalsFile(folderOf(world.db)), `${JSON.stringify({ customerId, at })}\n`, {
			mode: 0o600
		});
	});
}

/** Applies removals to books that are older than they are. */
export function removeAgain(db: Database, list: readonly Removal[]): void {
	const known = db.$client.prepare('select 1 from removals where customer_id = ? and at = ?');
	const there = db.$client.prepare('select 1 from customers where id = ?');
	writeAtOnce(db, () => {
		for (const { customerId, at } of list)
			if (there.get(customerId) && !known.get(customerId, at)) removeRows(db, customerId, at);
	});
}

/** What of a person's goes, and how: rows, or what is written in them. */
const OF_IT = (where: string): string => where.replaceAll('?', '@id');
/** What went out and came to nothing is nobody's record; what was agreed is kept as a contract is. */
const NOT_AGREED =
	"quote_id in (select id from quotes where customer_id = @id and state not in ('accepted', 'cancelled'))";

const GONE: readonly string[] = [
	`delete from files where ${OF_IT(`${OF_QUOTES} or enquiry_id in (select id from enquiries where customer_id = ?)`)}`,
	`update mails set quote_trial_id = null where quote_trial_id in (select id from quote_trials where ${OF_IT(OF_QUOTES)})`,
	`delete from quote_trials where ${OF_IT(OF_QUOTES)}`,
	'delete from text_replies where customer_id = @id',
	`delete from quote_questions where ${NOT_AGREED}`,
	`delete from quote_trail where ${NOT_AGREED}`,
	`delete from quote_versions where ${NOT_AGREED}`,
	`update quotes set state = 'discarded', customer_name = '', title = '', reason = '', sheet = @blank, sent = 0, enquiry_id = null, job_id = null, for_job_id = null
	 where customer_id = @id and state not in ('accepted', 'cancelled')`,
	'update quotes set enquiry_id = null where customer_id = @id',
	'delete from enquiries where customer_id = @id',
	`delete from job_sheets where state = 'draft' and ${OF_IT(OF_JOBS)}`,
	`update mails set told_id = null where told_id in (select id from told where ${OF_IT(OF_JOBS)})`,
	`update texts set told_id = null, "to" = '', text = '' where told_id in (select id from told where ${OF_IT(OF_JOBS)})`,
	`delete from told where ${OF_IT(OF_JOBS)}`,
	'delete from contacts where customer_id = @id',
	'delete from breathing_spaces where customer_id = @id',
	'delete from call_notes where customer_id = @id',
	'delete from late_terms where customer_id = @id',
	'delete from customer_chasing where customer_id = @id',
	'delete from chase_wordings where payer_id = @id',
	'delete from payer_names where payer_id = @id',
	`delete from files where ${`${OF_JOBS} or customer_id = ? or ${OF_DOCUMENTS}`.replaceAll('?', '@id')}`,
	`update visits set note = '' where ${OF_JOBS.replace('?', '@id')}`,
	`update time_entries set note = '' where ${OF_JOBS.replace('?', '@id')}`,
	`update jobs set private_note = '' where customer_id = @id`,
	"update sites set access_notes = '', contact_name = '', contact_email = '', contact_phone = '' where customer_id = @id",
	`update saved_cards set token = 'removed-' || id, last_digits = '', revoked_at = coalesce(revoked_at, @at), revoked_by = coalesce(revoked_by, 'you') where customer_id = @id`,
	`update mails set "to" = '', cc = '', bcc = '', subject = '', text = '', html = '', missed = '' where ${OF_PERSON.mails!.replaceAll('?', '@id')}`,
	`update texts set "to" = '', text = '' where ${OF_PERSON.texts!.replaceAll('?', '@id')}`,
	`update chase_messages set "to" = '', subject = '', text = '', pdf = null where payer_id = @id`,
	'update statements set pdf = null where payer_id = @id',
	// Jobs of which nothing was billed, booked or bought are nobody's records.
	`delete from jobs where customer_id = @id and id not in (select job_id from billed_parts union select job_id from document_lines where job_id is not null
	 union select job_id from journal_lines where job_id is not null union select job_id from repeats where job_id is not null
	 union select job_id from stages union select job_id from job_costs union select job_id from retentions where job_id is not null
	 union select job_id from quotes where job_id is not null union select for_job_id from quotes where for_job_id is not null
	 union select job_id from deposit_requests union select job_id from job_sheets union select job_id from enquiries where job_id is not null)`,
	`delete from sites where customer_id = @id and id not in (select site_id from jobs where site_id is not null)`
];

const WORDS =
	'enquiries and quotes that came to nothing; phone, e-mail and notes; contacts; photos and files; notes of calls and visits; words of messages; kept cards; jobs of which nothing was billed';

function removeRows(db: Database, customerId: number, at: number): void {
	// It stands first: what went out may be removed for nothing else.
	db.insert(removals).values({ customerId, at, what: WORDS }).run();
	const blank = JSON.stringify(blankQuote());
	for (const query of GONE) db.$client.prepare(query).run({ id: customerId, at, blank });
	const kept = db.$client
		.prepare(
			`select exists (select 1 from documents where customer_id = @id) or exists (select 1 from payments where payer_id = @id) or exists (select 1 from jobs where customer_id = @id)`
		)
		.pluck()
		.get({ id: customerId });
	db.update(customers)
		.set({
			...(kept ? {} : { name: `Removed customer ${customerId}` }),
			email: '',
			phone: '',
			address: '',
			salutation: '',
			letterheadId: null,
			privateNote: '',
			labels: [],
			payWays: null,
			billToId: null,
			archivedAt: at,
			updatedAt: at
		})
		.where(eq(customers.id, customerId))
		.run();
}
