// The customer's yes: on its page, on the owner's phone, or written down by hand. Once pressed or twice, once accepted; the job
// stands in the same moment, so that nothing can come between them.
import { must } from '../../actor';
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { londonDate } from '../../../core/calendar/conversion';
import { displayPounds } from '../../../core/money/display';
import { agreedLines, stagePlan } from '../../../core/quotes/chosen';
import { ConflictError, FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { contractFacts, rightToCancel } from '../../../core/regimes/gb/consumer';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import {
	acceptances,
	depositRequests,
	quotes,
	stagePlans,
	type AcceptedLaw
} from '../../db/schema';
import type { World } from '../../world';
import { day, parseForm, text } from '../business/fields';
import { mustNotRest } from '../business/resting';
import { loadBusiness } from '../business/settings';
import { depositStage } from '../billing/depositStage';
import { moveEnquiry } from '../enquiries/enquiries';
import { readDrawn } from '../files/drawn';
import { copyFiles, putFile, storeForLater, type Stored } from '../files/files';
import { queueMail } from '../messages/outbox';
import { loadQuote, noteQuote, type QuoteRow } from './quotes';
import { versionOf, type QuoteVersion } from './send';
import { newJob, putOnJob, chosenOn } from './agree';

export type Acceptance = typeof acceptances.$inferSelect;

const pickedForm = z.object({
	options: z.record(z.string().max(200), z.string().max(200)),
	extras: z.record(z.string().max(60), z.string().max(30))
});

export const acceptForm = z.object({
	key: z.string().min(1).max(100),
	/** The version that was looked at, and what it came to there, in pence. */
	n: z.coerce.number().int().positive(),
	total: z.coerce.number().int(),
	picked: z
		.string()
		.max(50_000)
		.transform((given, context) => {
			try {
				const read = pickedForm.safeParse(JSON.parse(given || '{"options":{},"extras":{}}'));
				if (read.success) return read.data;
			} catch {
				// Said below.
			}
			context.addIssue({ code: 'custom', message: 'What was chosen could not be read.' });
			return z.NEVER;
		}),
	name: text(200),
	position: text(200),
	orderNumber: text(60),
	/** A data address of a PNG; empty: the name stands for it. */
	signature: z.string().max(8_000_000).default(''),
	begin: z.boolean().default(false),
	acknowledged: z.boolean().default(false)
});

/** Where it comes from, as far as it is known. */
export interface From {
	address: string;
	agent: string;
}

export interface Accepting {
	way: Acceptance['way'];
	/** How the customer was told of its right to cancel. */
	informed: AcceptedLaw['informed'];
	agreedOn?: string;
	from: From;
	/** The order of a firm, as its own file. */
	order?: Stored | null;
}

/** An order is a scan or a paper, and no larger than this. */
const MOST_ORDER = 5 * 1024 * 1024;

/** The order that came with a yes; null where none did. @throws FieldError where it is no paper */
export async function readOrder(
	world: World,
	given: { name: string; bytes: Buffer } | null
): Promise<Stored | null> {
	if (!given) return null;
	if (given.bytes.length > MOST_ORDER) throw new FieldError({ order: 'At most 5 MB.' });
	const stored = await storeForLater(world, given.name, given.bytes).catch(() => null);
	if (!stored || !/^(application\/pdf|image\/)/.test(stored.type))
		throw new FieldError({ order: 'A PDF or a photo of the order, please.' });
	return stored;
}

export const acceptanceOf = (db: Reader, quoteId: number): Acceptance | undefined =>
	db.select().from(acceptances).where(eq(acceptances.quoteId, quoteId)).get();

/**
 * Accepts exactly one version with one choice. The same key again changes nothing.
 * @throws FieldError; ConflictError where another version went out meanwhile; RefusedError once it is answered or has expired
 */
export function acceptQuote(
	world: World,
	quoteId: number,
	typed: unknown,
	accepting: Accepting
): Acceptance {
	if (accepting.way !== 'page') must('bill');
	mustNotRest(world.db);
	const read = parseForm(acceptForm, typed);
	const form = { ...read, key: `${quoteId}:${read.key}` };
	return writeAtOnce(world.db, (tx) => {
		const before = acceptanceOf(tx, quoteId);
		if (before?.key === form.key) return before;
		if (before) throw new RefusedError('It has been accepted already.');
		const row = loadQuote(tx, quoteId);
		mustBeAcceptable(world, row, accepting.way);
		if (row.sent !== form.n)
			throw new ConflictError('It has been changed since you opened it. Look at what is new.');
		const version = versionOf(tx, quoteId, form.n);
		return accept(tx, world, row, version, form, accepting);
	});
}

function mustBeAcceptable(world: World, row: QuoteRow, way: Acceptance['way']): void {
	if (row.state === 'draft' || row.state === 'discarded') throw new NotFoundError('This quote');
	if (row.state !== 'sent') throw new RefusedError('It is not open any more.');
	// What the owner writes down may have been said in time.
	if (way !== 'byHand' && row.validUntil! < world.clock.today())
		throw new RefusedError('It has expired. Ask for it to be prolonged.');
}

function accept(
	tx: Transaction,
	world: World,
	row: QuoteRow,
	version: QuoteVersion,
	form: z.output<typeof acceptForm>,
	{ way, informed, from, order, ...when }: Accepting
): Acceptance {
	const { frozen } = version;
	const { lines, asked, quote } = chosenOn(version, form.picked);
	const total = Number(quote.figures.total);
	if (total !== form.total)
		throw new ConflictError(
			`What you chose comes to ${displayPounds(quote.figures.total)}. Look at it again before you accept.`
		);
	const household = frozen.customer.kind === 'household';
	const problems: Record<string, string> = {};
	if (form.name === '') problems.name = 'Who accepts it?';
	if (!household && frozen.customer.orderNumberRequired && form.orderNumber === '')
		problems.orderNumber = 'Your order number is needed on the invoice.';
	const signature = readDrawn(form.signature, problems);
	const terms = frozen.sheet.quote!;
	const facts = contractFacts(
		frozen.customer,
		terms,
		quote.figures.total,
		quote.included.map((index) => lines[index]!.kind)
	);
	const right = rightToCancel(facts);
	// To leave it out is an offence off premises (reg. 19): without proof that it was given, nothing is recorded.
	if (facts.consumer && !facts.newBuilding && facts.place !== 'onPremises' && informed === '')
		problems.informed =
			'Say how they got the information about cancelling: nothing is recorded without it (SI 2013/3134 reg. 10, 19).';
	if (form.begin && right.may && !form.acknowledged)
		problems.acknowledged = 'To begin early, this must be known too.';
	if (Object.keys(problems).length) throw new FieldError(problems);

	const at = world.clock.now();
	const acceptance = tx
		.insert(acceptances)
		.values({
			key: form.key,
			quoteId: row.id,
			versionId: version.id,
			way,
			name: form.name,
			position: form.position,
			orderNumber: form.orderNumber,
			picked: form.picked,
			signature,
			at,
			agreedOn: when.agreedOn || londonDate(at),
			...from,
			law: {
				...right,
				goods: facts.goods,
				begin: right.may && form.begin,
				acknowledged: right.may && form.acknowledged,
				informed: facts.consumer ? informed : ''
			},
			total,
			deposit: Number(quote.deposit)
		})
		.returning()
		.get();
	const agreed = agreedLines(lines, asked, quote);
	const jobId = row.forJobId
		? putOnJob(tx, world, row.forJobId, agreed)
		: newJob(tx, world, row, version, agreed, form.orderNumber);
	tx.update(quotes)
		.set({ state: 'accepted', jobId, answeredAt: at, updatedAt: at })
		.where(eq(quotes.id, row.id))
		.run();
	if (row.enquiryId !== null) moveEnquiry(tx, world, row.enquiryId, { state: 'job', jobId });
	if (order) putFile(tx, { to: 'quote', id: row.id }, order, at);
	copyFiles(tx, { to: 'quote', id: row.id }, { to: 'job', id: jobId }, at);
	noteQuote(
		tx,
		row.id,
		at,
		'accepted',
		`${form.name}, ${displayPounds(total)}`,
		...(way === 'page' ? [null] : [])
	);
	if (!row.forJobId)
		for (const [position, { title, amount }] of stagePlan(
			{ deposit: quote.deposit, stages: terms.stages },
			quote.figures.total
		).entries())
			tx.insert(stagePlans)
				.values({ jobId, position, title, amount: Number(amount) })
				.run();
	if (quote.deposit > 0n) {
		tx.insert(depositRequests)
			.values({
				quoteId: row.id,
				jobId,
				payerId: frozen.customer.billTo?.id ?? frozen.customer.id,
				amount: Number(quote.deposit),
				deduction:
					frozen.customer.kind === 'contractor'
						? Number(depositStage(tx, jobId, quote.deposit, world.clock.today()).keptBack)
						: 0,
				state: 'asked',
				askedAt: at
			})
			.run();
		noteQuote(tx, row.id, at, 'depositAsked', displayPounds(quote.deposit), null);
	}
	if (way === 'page')
		tellOwner(tx, world, row, {
			key: `accepted:${row.id}`,
			subject: `Accepted: ${row.title}, ${displayPounds(total)}`,
			text: `${form.name} accepted ${row.number} for ${frozen.customer.name}: ${displayPounds(total)}.${quote.deposit > 0n ? ` A deposit of ${displayPounds(quote.deposit)} is asked for.` : ''}\n\nBook it here: {link}`
		});
	return acceptance;
}

/** News of a quote for its owner, with a link to what is next. */
export function tellOwner(
	tx: Reader,
	world: World,
	row: Pick<QuoteRow, 'id'>,
	mail: { key: string; subject: string; text: string }
): void {
	const { email } = loadBusiness(tx);
	if (email)
		queueMail(tx, world, {
			...mail,
			kind: 'quoteNews',
			quoteId: row.id,
			to: email,
			link: `${world.origin}/work/quotes/${row.id}`
		});
}

const byHandForm = z.object({
	agreedOn: day,
	informed: z.enum(['', 'paper', 'mail']).catch(''),
	inWriting: z.boolean().default(false)
});

/**
 * Writes down what was said on the phone, or signed on paper. A spoken wish to begin early is not enough: it counts only in
 * writing (reg. 36(1)).
 */
export function acceptByHand(world: World, quoteId: number, typed: Record<string, unknown>): void {
	must('bill');
	const { agreedOn, informed, inWriting } = parseForm(byHandForm, typed);
	if (agreedOn && agreedOn > world.clock.today())
		throw new FieldError({ agreedOn: 'That day has not come yet.' });
	acceptQuote(
		world,
		quoteId,
		{ ...typed, begin: inWriting, acknowledged: inWriting },
		{ way: 'byHand', informed, ...(agreedOn ? { agreedOn } : {}), from: { address: '', agent: '' } }
	);
}
