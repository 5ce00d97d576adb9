// The removal of a person’s data that no law asks to keep: done once, listed apart, and done again after a restore.
import { appendFileSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { RefusedError } from '../../../core/refusals';
import { blankQuote } from '../../../core/quotes/terms';
import { writeAtOnce, type Database } from '../../db/connection';
import { folderOf } from '../../db/fileStore';
import { customers, removals } from '../../db/schema';
import type { World } from '../../world';
import { OF_JOBS, OF_DOCUMENTS, OF_QUOTES, OF_PERSON, whyNotRemove } from './person';

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
