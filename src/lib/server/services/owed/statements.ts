// Statements: what each payer's account looks like, made and sent in a run that goes on after a crash, once each.
import { and, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import { isPlainDate } from '../../../core/calendar/queries';
import { sellerOn } from '../../../core/parties';
import {
	viewStatement,
	type AccountEntry,
	type StatementOptions,
	type StatementView
} from '../../../core/documents/statementView';
import { BOOKS, CURRENCIES, type Currency } from '../../../core/money/currencies';
import { statement, type Statement } from '../../../core/settlement/statement';
import type { Reader } from '../../db/connection';
import { contacts, customers, documents, holds, openItems } from '../../db/schema';
import type { World } from '../../world';
import { howPaid } from './howPaid';
import { payerAccounts } from './payerAccounts';
import { sellerRecord } from '../business/settings';
import { parseForm } from '../business/fields';
import { NotFoundError } from '../../../core/refusals';
import { frozenView } from '../../../core/documents/view';

const day = z.string().refine((text) => isPlainDate(text), 'Give a day that exists.');
const optionsForm = z
	.object({
		style: z.enum(['openItems', 'activity']).default('openItems'),
		asOf: day,
		from: z.union([z.literal('').transform(() => null), z.null(), day]).default(null),
		ageing: z.enum(['dueDate', 'issueDate']).default('dueDate'),
		withLines: z.boolean().default(false),
		currency: z.enum(CURRENCIES).default('GBP')
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
	/** Numbers of its invoices that it disputes. */
	disputed: string[];
	/** Documents and payments after the last day that this statement does not show. */
	hidden: number;
}

interface StatementFilter {
	zero?: boolean;
	archived?: boolean;
	payerId?: number;
}

/** The money that invoices are in, pounds first: a statement is about one. */
export const currenciesInUse = (db: Reader): Currency[] =>
	db
		.all<{ currency: Currency }>(
			sql`select distinct currency from open_items order by currency = 'GBP' desc, currency`
		)
		.map(({ currency }) => currency);

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
	const accounts = payerAccounts(
		world.db,
		payerId === undefined ? undefined : [payerId],
		options.currency
	);
	const names = new Map(
		world.db
			.select({ id: customers.id, name: customers.name, archivedAt: customers.archivedAt })
			.from(customers)
			.where(archived ? undefined : isNull(customers.archivedAt))
			.all()
			.map((row) => [row.id, row.name])
	);
	const addresses = statementAddresses(world.db, [...accounts.keys()]);
	const disputed = disputedOf(world.db);
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
			disputed: disputed.get(payer) ?? [],
			hidden
		});
	}
	rows.sort((a, b) => b.balance - a.balance || a.payer.localeCompare(b.payer));
	return { rows, hidden: allHidden };
}

/** Numbers of open invoices that are disputed, by payer. */
function disputedOf(db: Reader): Map<number, string[]> {
	const numbers = new Map<number, string[]>();
	for (const row of db
		.select({ payerId: openItems.payerId, number: documents.number })
		.from(holds)
		.innerJoin(openItems, eq(openItems.documentId, holds.documentId))
		.innerJoin(documents, eq(documents.id, holds.documentId))
		.where(
			and(
				isNull(holds.endedAt),
				eq(holds.kind, 'dispute'),
				inArray(openItems.state, ['open', 'partPaid'])
			)
		)
		.orderBy(holds.documentId)
		.all())
		numbers.set(row.payerId, [...(numbers.get(row.payerId) ?? []), row.number ?? '']);
	return numbers;
}

/** Where statements go: a contact for statements first, then where invoices go. */
export function statementAddresses(db: Reader, payerIds: readonly number[]): Map<number, string> {
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
	const entries = payerAccounts(db, [payerId], options.currency).get(payerId) ?? [];
	const result = compute(entries, options);
	const shown = new Set(result.rows.map(({ item }) => item.id));
	const documentIds = entries.flatMap((entry) =>
		entry.type === 'invoice' && entry.documentId && shown.has(entry.id) ? [entry.documentId] : []
	);
	const view = viewStatement(
		result,
		new Map(entries.map((entry) => [entry.id, entry])),
		options,
		sellerOn(sellerRecord(db), options.asOf),
		payer,
		(documentId) => linesOf(db, documentId),
		howPaid(db, documentIds).bank,
		retainedBy(db, payerId, options)
	);
	return { view, balance: Number(result.balance), documentIds };
}

/** What a payer held back by the last day of a statement, and has not released since. */
function retainedBy(db: Reader, payerId: number, { asOf, currency = BOOKS }: StatementOptions) {
	return db
		.all<{ number: string; amount: number }>(
			sql`
		select d.number, r.amount from retentions r join open_items o on o.document_id = r.document_id
		join documents d on d.id = r.document_id left join documents l on l.id = r.released_by_id and l.state = 'issued'
		where o.payer_id = ${payerId} and o.currency = ${currency} and o.issue_date <= ${asOf} and r.amount > 0
			and (l.id is null or l.issue_date > ${asOf}) order by r.document_id`
		)
		.map(({ number, amount }) => ({ number, amount: BigInt(amount) }));
}

function linesOf(db: Reader, documentId: number): string[] {
	const row = db.select().from(documents).where(eq(documents.id, documentId)).get();
	if (!row?.frozen || !row.number) return [];
	return frozenView(row.frozen, row.number, 'issued')
		.sections.flatMap((section) => section.rows)
		.map((line) => `${line.description.split('\n')[0]}  ${line.amount}`);
}
