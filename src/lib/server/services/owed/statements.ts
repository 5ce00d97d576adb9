// Statements: what each payer's account looks like, made and sent in a run that goes on after a crash, once each.
import { and, asc, count, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import { isPlainDate } from '../../../core/calendar/queries';
import { sellerOn } from '../../../core/parties';
import {
	viewStatement,
	type AccountEntry,
	type StatementOptions,
	type StatementView
} from '../../../core/documents/statementView';
import { statementMessage } from '../../../core/documents/wording';
import { statement, type Statement } from '../../../core/settlement/statement';
import { writeAtOnce, type Database, type Transaction } from '../../db/connection';
import { contacts, customers, documents, mails, statementRuns, statements } from '../../db/schema';
import { drawOnThread } from '../../documents/pdfThreads';
import type { World } from '../../world';
import { accountItems } from './payerAccounts';
import { loadBusiness, sellerRecord } from '../business/settings';
import { parseForm } from '../business/fields';
import { mailAddresses } from '../customers/parts';
import { NotFoundError, RefusedError } from '../../../core/refusals';
import { frozenView } from '../invoices/freeze';
import { newToken } from '../business/keys';
import { queueMail } from '../messages/outbox';
import { note } from '../trail/documents';

type Reader = Database | Transaction;

const day = z.string().refine((text) => isPlainDate(text), 'Give a day that exists.');
const optionsForm = z
	.object({
		style: z.enum(['openItems', 'activity']).default('openItems'),
		asOf: day,
		from: z.union([z.literal('').transform(() => null), z.null(), day]).default(null),
		ageing: z.enum(['dueDate', 'issueDate']).default('dueDate'),
		withLines: z.boolean().default(false)
	})
	.superRefine(({ style, from, asOf }, context) => {
		if (style !== 'activity') return;
		if (from === null)
			context.addIssue({ code: 'custom', path: ['from'], message: 'From which day?' });
		else if (from > asOf)
			context.addIssue({ code: 'custom', path: ['from'], message: 'That is after its last day.' });
	});

/** @throws FieldError */
export function readStatementOptions(input: unknown): StatementOptions {
	const { from, ...options } = parseForm(optionsForm, input);
	return { ...options, from: options.style === 'activity' ? from : null };
}

function compute(entries: readonly AccountEntry[], options: StatementOptions): Statement {
	const { asOf, from, ageing } = options;
	return statement({ asOf, from, ageing, items: entries });
}

export interface StatementRowInfo {
	payerId: number;
	payer: string;
	/** Pence. */
	balance: number;
	/** Credit that stands against no invoice. Above zero where there is any. */
	unapplied: number;
	/** Whether there is an invoice the credit could be used for. */
	usable: boolean;
	address: string;
	/** Documents and payments after the last day that this statement does not show. */
	hidden: number;
}

interface StatementFilter {
	zero?: boolean;
	archived?: boolean;
	payerId?: number;
}

/** Every payer a statement could go to, largest balance first. Zero balances and archived customers only if asked for. */
export function statementList(
	world: World,
	options: StatementOptions,
	filter: StatementFilter = {}
): StatementRowInfo[] {
	return statementOverview(world, options, filter).rows;
}

/** The same, with how much of all accounts the last day hides: of those it leaves without a balance as well. */
export function statementOverview(
	world: World,
	options: StatementOptions,
	{ zero = false, archived = false, payerId }: StatementFilter = {}
): { rows: StatementRowInfo[]; hidden: number } {
	const accounts = accountItems(world.db, payerId === undefined ? undefined : [payerId]);
	const names = new Map(
		world.db
			.select({ id: customers.id, name: customers.name, archivedAt: customers.archivedAt })
			.from(customers)
			.where(archived ? undefined : isNull(customers.archivedAt))
			.all()
			.map((row) => [row.id, row.name])
	);
	const addresses = statementAddresses(world.db, [...accounts.keys()]);
	const rows: StatementRowInfo[] = [];
	let allHidden = 0;
	for (const [payer, entries] of accounts) {
		const name = names.get(payer);
		if (name === undefined) continue;
		const hidden = entries.filter((entry) => entry.date > options.asOf).length;
		allHidden += hidden;
		const { balance, ageing } = compute(entries, options);
		if (balance === 0n && ageing.unapplied === 0n && !zero) continue;
		rows.push({
			payerId: payer,
			payer: name,
			balance: Number(balance),
			unapplied: Number(-ageing.unapplied),
			usable: ageing.unapplied < 0n && balance - ageing.unapplied > 0n,
			address: addresses.get(payer) ?? '',
			hidden
		});
	}
	rows.sort((a, b) => b.balance - a.balance || a.payer.localeCompare(b.payer));
	return { rows, hidden: allHidden };
}

/** Where statements go: a contact for statements first, then where invoices go. */
function statementAddresses(db: Reader, payerIds: readonly number[]): Map<number, string> {
	const own = new Map<number, string>();
	for (let start = 0; start < payerIds.length; start += 500) {
		const ids = payerIds.slice(start, start + 500);
		for (const row of db
			.select({ id: customers.id, email: customers.email })
			.from(customers)
			.where(inArray(customers.id, ids))
			.all())
			own.set(row.id, row.email);
		for (const row of db
			.select()
			.from(contacts)
			.where(inArray(contacts.customerId, ids))
			.orderBy(desc(contacts.id))
			.all())
			if (row.email && (/statement/i.test(row.role) || !own.get(row.customerId)))
				own.set(row.customerId, row.email);
	}
	return own;
}

/** A payer's statement as it would look now. @throws NotFoundError */
export function buildStatement(
	world: World,
	payerId: number,
	options: StatementOptions
): { view: StatementView; balance: number; documentIds: number[] } {
	const { db } = world;
	const payer = db.select().from(customers).where(eq(customers.id, payerId)).get();
	if (!payer) throw new NotFoundError('This payer');
	const entries = accountItems(db, [payerId]).get(payerId) ?? [];
	const result = compute(entries, options);
	const view = viewStatement(
		result,
		new Map(entries.map((entry) => [entry.id, entry])),
		options,
		sellerOn(sellerRecord(db), options.asOf),
		payer,
		(documentId) => linesOf(db, documentId)
	);
	const shown = new Set(result.rows.map(({ item }) => item.id));
	return {
		view,
		balance: Number(result.balance),
		documentIds: entries.flatMap((entry) =>
			entry.type === 'invoice' && entry.documentId && shown.has(entry.id) ? [entry.documentId] : []
		)
	};
}

function linesOf(db: Reader, documentId: number): string[] {
	const row = db.select().from(documents).where(eq(documents.id, documentId)).get();
	if (!row?.frozen || !row.number) return [];
	return frozenView(row.frozen, row.number, 'issued')
		.sections.flatMap((section) => section.rows)
		.map((line) => `${line.description.split('\n')[0]}  ${line.amount}`);
}

/** Begins a run. The same key again gives that one back. @throws FieldError, RefusedError */
export function startStatements(
	world: World,
	key: string,
	input: unknown,
	payerIds: readonly number[],
	action: 'send' | 'make'
): number {
	const options = readStatementOptions(input);
	const wanted = [...new Set(payerIds)];
	if (wanted.length === 0) throw new RefusedError('Choose at least one payer.');
	return writeAtOnce(world.db, (tx) => {
		const same = tx
			.select({ id: statementRuns.id })
			.from(statementRuns)
			.where(eq(statementRuns.key, key))
			.get();
		if (same) return same.id;
		const { id } = tx
			.insert(statementRuns)
			.values({ key, options, action, state: 'running', createdAt: world.clock.now() })
			.returning({ id: statementRuns.id })
			.get();
		for (const payerId of wanted)
			tx.insert(statements).values({ runId: id, payerId, state: 'waiting' }).run();
		return id;
	});
}

let running: Promise<void> | null = null;

/** Goes on with what is not finished. Safe to call again, and from anywhere. */
export function continueStatements(world: World): Promise<void> {
	running ??= finishRuns(world).finally(() => (running = null));
	return running;
}

/** So many are drawn at once. */
const AT_ONCE = 8;

async function finishRuns(world: World): Promise<void> {
	for (;;) {
		const run = world.db
			.select()
			.from(statementRuns)
			.where(eq(statementRuns.state, 'running'))
			.orderBy(asc(statementRuns.id))
			.get();
		if (!run) return;
		const next = world.db
			.select()
			.from(statements)
			.where(and(eq(statements.runId, run.id), eq(statements.state, 'waiting')))
			.orderBy(asc(statements.id))
			.limit(AT_ONCE)
			.all();
		if (next.length === 0) {
			world.db
				.update(statementRuns)
				.set({ state: 'done', finishedAt: world.clock.now() })
				.where(eq(statementRuns.id, run.id))
				.run();
			continue;
		}
		await Promise.all(next.map((one) => makeOne(world, run, one)));
	}
}

async function makeOne(
	world: World,
	run: typeof statementRuns.$inferSelect,
	row: typeof statements.$inferSelect
): Promise<void> {
	const token = newToken();
	const now = world.clock.now();
	const link = `${world.origin}/s/${token}`;
	const { view, balance, documentIds } = buildStatement(world, row.payerId, run.options);
	const pdf = await drawOnThread(view, { payUrl: balance > 0 ? link : null, madeAt: now });
	writeAtOnce(world.db, (tx) => {
		const still = tx.select().from(statements).where(eq(statements.id, row.id)).get();
		if (still?.state !== 'waiting') return;
		const to =
			run.action === 'send'
				? statementAddresses(tx, [row.payerId]).get(row.payerId) ||
					mailAddresses(tx, row.payerId)[0]
				: undefined;
		const sending = run.action === 'send' && to;
		tx.update(statements)
			.set({
				state: sending ? 'sent' : run.action === 'make' ? 'made' : 'skipped',
				note: sending ? to : run.action === 'send' ? 'There is no mail address to send it to.' : '',
				token,
				view,
				balance,
				pdf,
				madeAt: now
			})
			.where(eq(statements.id, row.id))
			.run();
		if (!sending) return;
		const owner = loadBusiness(tx);
		queueMail(tx, world, {
			key: `statement:${row.id}`,
			kind: 'statement',
			statementId: row.id,
			to,
			bcc: owner.copyToSelf ? owner.email : '',
			...statementMessage(view, owner.ownerName),
			link,
			attachPdf: true
		});
		for (const documentId of documentIds)
			note(tx, { documentId, at: now, who: 'axiometer', what: 'onStatement', detail: to });
	});
}

/** A run with how far it is, and who got what. @throws NotFoundError */
export function statementRun(world: World, id: number) {
	const run = world.db.select().from(statementRuns).where(eq(statementRuns.id, id)).get();
	if (!run) throw new NotFoundError('This run');
	const rows = world.db
		.select({
			id: statements.id,
			payerId: statements.payerId,
			payer: customers.name,
			state: statements.state,
			note: statements.note,
			balance: statements.balance,
			openedAt: statements.openedAt,
			mail: mails.state,
			mailId: mails.id,
			mailError: mails.lastError
		})
		.from(statements)
		.innerJoin(customers, eq(customers.id, statements.payerId))
		.leftJoin(mails, eq(mails.statementId, statements.id))
		.where(eq(statements.runId, id))
		.orderBy(asc(statements.id))
		.all();
	return { run, rows, done: rows.filter((row) => row.state !== 'waiting').length };
}

export function listStatementRuns(world: World) {
	return world.db
		.select({
			id: statementRuns.id,
			action: statementRuns.action,
			state: statementRuns.state,
			createdAt: statementRuns.createdAt,
			statements: count(statements.id)
		})
		.from(statementRuns)
		.leftJoin(statements, eq(statements.runId, statementRuns.id))
		.groupBy(statementRuns.id)
		.orderBy(desc(statementRuns.id))
		.limit(10)
		.all();
}

/** The statements of a run in one, to print. */
export function runViews(world: World, id: number): { view: StatementView; token: string }[] {
	return world.db
		.select({ view: statements.view, token: statements.token })
		.from(statements)
		.where(and(eq(statements.runId, id), sql`${statements.view} is not null`))
		.orderBy(asc(statements.id))
		.all()
		.map((row) => ({ view: row.view!, token: row.token! }));
}

/** The PDF of one statement as it was made. */
export function statementPdf(world: World, id: number): Buffer {
	const row = world.db.select().from(statements).where(eq(statements.id, id)).get();
	if (!row?.pdf) throw new NotFoundError('This statement');
	return row.pdf;
}
