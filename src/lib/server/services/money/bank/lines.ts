// Bank statements in: read, kept once, matched, accepted. Nothing is posted before the owner accepts it.
import { createHash } from 'node:crypto';
import { and, asc, desc, eq, gt, inArray, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import { learnedName, Matcher } from '../../../../core/bank/match';
import { RecordedMatcher, together, type RecordedMoney } from '../../../../core/bank/recorded';
import type { OpenInvoice, Proposal, ToMatch } from '../../../../core/bank/types';
import { readBankFile, type BankFile, type CsvLayout } from '../../../../core/formats/bankFile';
import type { BankLine } from '../../../../core/formats/bankLine';
import { displayPounds } from '../../../../core/money/display';
import { shareOldestFirst } from '../../../../core/settlement/sharing';
import { writeAtOnce, type Database, type Transaction } from '../../../db/connection';
import {
	bankImports,
	bankLines,
	csvLayouts,
	customers,
	documents,
	openItems,
	payerNames,
	payouts
} from '../../../db/schema';
import type { World } from '../../../world';
import { openOf } from '../../ledger/openInvoices';
import { parseForm } from '../../business/fields';
import { FieldError, NotFoundError, RefusedError } from '../../../../core/refusals';
import { takeShared, undoPayment } from '../payments';
import { stillToPay } from '../../ledger/settlement';

type Reader = Database | Transaction;

/** What came of a file: brought in, or the columns are to be confirmed first. */
export interface BroughtIn {
	importId: number;
	asking: boolean;
	added: number;
	known: number;
	unread: number;
}

const signature = (headings: readonly string[]) =>
	headings.map((one) => one.trim().toLowerCase()).join('|');

/**
 * Brings a statement file in. A CSV file whose headings are new is kept until its columns are confirmed.
 * @throws TableError for what cannot be read, in words
 */
export function bringIn(world: World, name: string, bytes: Uint8Array): BroughtIn {
	const first = readBankFile(bytes);
	const remembered =
		first.format === 'csv'
			? world.db
					.select()
					.from(csvLayouts)
					.where(eq(csvLayouts.headings, signature(first.headings)))
					.get()
			: undefined;
	if (first.format === 'csv' && !remembered) {
		const { id } = world.db
			.insert(bankImports)
			.values({
				name: name.slice(0, 120),
				format: 'csv',
				state: 'asking',
				content: Buffer.from(bytes),
				createdAt: world.clock.now()
			})
			.returning({ id: bankImports.id })
			.get();
		return { importId: id, asking: true, added: 0, known: 0, unread: 0 };
	}
	const file = remembered ? readBankFile(bytes, remembered.layout) : first;
	return writeAtOnce(world.db, (tx) => {
		const { id } = tx
			.insert(bankImports)
			.values({
				name: name.slice(0, 120),
				format: file.format,
				state: 'done',
				createdAt: world.clock.now()
			})
			.returning({ id: bankImports.id })
			.get();
		return keepLines(tx, id, file, remembered?.account ?? '');
	});
}

/** A file whose columns are asked about, as it would be read. @throws NotFoundError, TableError */
export function askedFile(
	world: World,
	importId: number,
	layout: CsvLayout | null = null
): BankFile {
	const row = world.db.select().from(bankImports).where(eq(bankImports.id, importId)).get();
	if (row?.state !== 'asking' || !row.content) throw new NotFoundError('This file');
	return readBankFile(row.content, layout);
}

const column = z.number().int().min(0).max(200).optional();
const layoutForm = z.object({
	account: z.string().trim().max(60).default(''),
	date: column,
	amount: column,
	in: column,
	out: column,
	text: column,
	payer: column,
	dates: z.enum(['dmy', 'mdy', 'ymd']).default('dmy')
});

/** Confirms the columns, remembers them for files with these headings, and brings the lines in. @throws FieldError */
export function confirmColumns(world: World, importId: number, input: unknown): BroughtIn {
	const { account, ...layout } = layoutForm.parse(input);
	if (layout.date === undefined) throw new FieldError({ date: 'Which column holds the date?' });
	if (layout.amount === undefined && layout.in === undefined)
		throw new FieldError({ amount: 'Which column holds the amount, or what came in?' });
	const file = askedFile(world, importId, layout as CsvLayout);
	if (file.lines.length === 0)
		throw new FieldError({ date: 'No row could be read with these columns.' });
	return writeAtOnce(world.db, (tx) => {
		tx.insert(csvLayouts)
			.values({ headings: signature(file.headings), layout: layout as CsvLayout, account })
			.onConflictDoUpdate({
				target: csvLayouts.headings,
				set: { layout: layout as CsvLayout, account }
			})
			.run();
		tx.update(bankImports)
			.set({ state: 'done', content: null })
			.where(eq(bankImports.id, importId))
			.run();
		return keepLines(tx, importId, file, account);
	});
}

function keepLines(tx: Transaction, importId: number, file: BankFile, account: string): BroughtIn {
	let added = 0;
	for (const { key, line } of keyed(file.lines, account))
		added += tx
			.insert(bankLines)
			.values({
				key,
				importId,
				account: line.account || account,
				date: line.date,
				amount: Number(line.amount),
				text: line.text,
				payer: line.payer,
				reversal: line.reversal,
				state: 'open'
			})
			.onConflictDoNothing()
			.run().changes;
	const known = file.lines.length - added;
	const unread = file.problems.length;
	tx.update(bankImports).set({ added, known, unread }).where(eq(bankImports.id, importId)).run();
	return { importId, asking: false, added, known, unread };
}

/** Lines that are the same to the letter are told apart by their order: a file that overlaps has them in the same. */
function keyed(lines: readonly BankLine[], account: string): { key: string; line: BankLine }[] {
	const seen = new Map<string, number>();
	return lines.map((line) => {
		const content = JSON.stringify([
			line.account || account,
			line.date,
			String(line.amount),
			line.text,
			line.payer
		]);
		const count = (seen.get(content) ?? 0) + 1;
		seen.set(content, count);
		return { key: createHash('sha256').update(`${content}#${count}`).digest('hex'), line };
	});
}

/** What the matcher works with: every open invoice, and the names payers paid under. */
export function matchInput(db: Reader): {
	invoices: OpenInvoice[];
	learned: [string, number][];
	recorded: RecordedMoney[];
} {
	const invoices = db
		.select({
			item: openItems,
			number: documents.number,
			payer: customers.name,
			order: sql<string>`json_extract(${documents.sheet}, '$.orderNumber')`,
			reference: sql<string>`json_extract(${documents.sheet}, '$.reference')`
		})
		.from(openItems)
		.innerJoin(documents, eq(documents.id, openItems.documentId))
		.innerJoin(customers, eq(customers.id, openItems.payerId))
		.where(inArray(openItems.state, ['open', 'partPaid']))
		.all()
		.map(({ item, number, payer, order, reference }): OpenInvoice => ({
			documentId: item.documentId,
			payerId: item.payerId,
			payer,
			number: number!,
			references: [order, reference].filter(Boolean),
			dueDate: item.dueDate,
			toPay: stillToPay(item),
			outstanding: item.outstanding
		}));
	const learned = db
		.select()
		.from(payerNames)
		.all()
		.map((row): [string, number] => [row.name, row.payerId]);
	return { invoices, learned, recorded: recordedMoney(db) };
}

/** What reached the bank by the books and was not seen in a line yet: payments by bank, and payouts. */
function recordedMoney(db: Reader): RecordedMoney[] {
	const paid = db.all<Omit<RecordedMoney, 'marks' | 'kind'> & { marks: string }>(sql`
		select p.id, p.payer_id as payerId, c.name as payer, p.date, p.amount,
			p.reference || '\n' || coalesce((select group_concat(d.number, '\n') from allocations a
				join documents d on d.id = a.document_id where a.payment_id = p.id), '') as marks
		from payments p join customers c on c.id = p.payer_id
		where p.way = 'bank' and not exists (select 1 from bank_lines l where l.payment_id = p.id)
			and not exists (select 1 from payment_reversals v where v.payment_id = p.id)`);
	const sent = db
		.select()
		.from(payouts)
		.where(isNull(payouts.seenOn))
		.all()
		.map(({ id, date, amount, reference }): RecordedMoney => ({
			kind: 'payout',
			id,
			payerId: 0,
			payer: 'The card processor',
			date,
			amount,
			marks: [reference]
		}));
	return [
		...paid.map((row): RecordedMoney => ({
			...row,
			kind: 'payment',
			marks: row.marks.split('\n').filter(Boolean)
		})),
		...sent
	];
}

/** Payments an outgoing line may take back: the bank says so, or the text does. */
function takenBack(db: Reader, line: typeof bankLines.$inferSelect) {
	if (line.amount >= 0) return [];
	const words = line.reversal || /revers|return|unpaid|recall|bounc/i.test(line.text);
	if (!words) return [];
	return db.all<{ id: number; payer: string; date: string; reference: string }>(sql`
		select p.id, c.name as payer, p.date, p.reference from payments p join customers c on c.id = p.payer_id
		where p.amount = ${-line.amount} and p.way in ('bank', 'cheque') and p.date <= ${line.date}
			and not exists (select 1 from payment_reversals v where v.payment_id = p.id)
		order by p.date desc, p.id desc limit 4`);
}

const toMatch = (row: typeof bankLines.$inferSelect): ToMatch => ({
	id: row.id,
	date: row.date,
	amount: row.amount,
	text: row.text,
	payer: row.payer
});

export const LINES_PER_PAGE = 40;
export type LineState = 'open' | 'accepted' | 'notBusiness' | 'out';

/** Lines as a page, with fresh proposals for those that are open. */
export function bankPage(world: World, state: LineState, page: number) {
	const { db } = world;
	const which =
		state === 'out'
			? sql`${bankLines.amount} < 0`
			: and(eq(bankLines.state, state), gt(bankLines.amount, 0))!;
	const rows = db
		.select()
		.from(bankLines)
		.where(which)
		.orderBy(
			...(state === 'open'
				? [desc(sql`coalesce(json_extract(${bankLines.proposal}, '$.score'), -1)`)]
				: []),
			desc(bankLines.date),
			desc(bankLines.id)
		)
		.limit(LINES_PER_PAGE + 1)
		.offset((page - 1) * LINES_PER_PAGE)
		.all();
	const input = state === 'open' ? matchInput(db) : { invoices: [], learned: [], recorded: [] };
	const matcher = new Matcher(input.invoices, new Map(input.learned));
	const known = new RecordedMatcher(input.recorded);
	const propose = (row: (typeof rows)[number]) => {
		const line = toMatch(row);
		return together(matcher.propose(line), known.propose(line));
	};
	const counts = db.get<Record<LineState, number> & { sure: number; sureSum: number }>(sql`
		select coalesce(sum(state = 'open' and amount > 0), 0) as open, coalesce(sum(state = 'accepted'), 0) as accepted,
			coalesce(sum(state = 'notBusiness'), 0) as notBusiness, coalesce(sum(amount < 0), 0) as "out",
			coalesce(sum(state = 'open' and json_extract(proposal, '$.sure')), 0) as sure,
			coalesce(sum(case when state = 'open' and json_extract(proposal, '$.sure') then amount end), 0) as sureSum
		from bank_lines`)!;
	return {
		counts,
		lines: rows.slice(0, LINES_PER_PAGE).map((row) => ({
			id: row.id,
			date: row.date,
			amount: row.amount,
			text: row.text,
			payer: row.payer,
			account: row.account,
			reversal: row.reversal,
			state: row.state,
			proposals: row.state === 'open' && row.amount > 0 ? propose(row) : [],
			takenBack: row.state === 'open' ? takenBack(db, row) : [],
			paymentId: row.paymentId
		})),
		more: rows.length > LINES_PER_PAGE,
		payers: db
			.select({ id: customers.id, name: customers.name })
			.from(customers)
			.where(sql`${customers.archivedAt} is null`)
			.orderBy(asc(customers.name))
			.limit(5000)
			.all(),
		imports: db
			.select({
				id: bankImports.id,
				name: bankImports.name,
				state: bankImports.state,
				added: bankImports.added,
				known: bankImports.known,
				unread: bankImports.unread,
				createdAt: bankImports.createdAt
			})
			.from(bankImports)
			.orderBy(desc(bankImports.id))
			.limit(5)
			.all()
	};
}

/** Open lines that came in, for the thread that matches them all. */
export function linesToMatch(db: Reader): ToMatch[] {
	return db
		.select()
		.from(bankLines)
		.where(and(eq(bankLines.state, 'open'), gt(bankLines.amount, 0)))
		.orderBy(asc(bankLines.id))
		.all()
		.map(toMatch);
}

/** Keeps the best proposal of each line. */
export function keepProposals(world: World, found: { id: number; best: Proposal | null }[]): void {
	writeAtOnce(world.db, (tx) => {
		for (const { id, best } of found)
			tx.update(bankLines).set({ proposal: best }).where(eq(bankLines.id, id)).run();
	});
}

const acceptance = z.object({
	payerId: z.number().int().min(0),
	/** Absent: shared out, the one due first, first. Pence. */
	shares: z
		.array(
			z.object({
				documentId: z.number().int(),
				amount: z.number().int(),
				withheld: z.number().int().min(0).nullable()
			})
		)
		.max(500)
		.optional(),
	/** In the books already: tied, not recorded. */
	recorded: z.object({ kind: z.enum(['payment', 'payout']), id: z.number().int() }).optional()
});

/**
 * Records the payment of a line: its payment, its posting, and the name the payer paid under. Accepted already, it
 * changes nothing.
 * @throws FieldError without a payer, RefusedError where an invoice no longer has that much open
 */
export function acceptLine(world: World, lineId: number, input: unknown): number {
	const wanted = parseForm(acceptance, input);
	return writeAtOnce(world.db, (tx) => accept(tx, world, lineId, wanted));
}

function accept(
	tx: Transaction,
	world: World,
	lineId: number,
	{ payerId, shares, recorded }: z.output<typeof acceptance>
): number {
	const line = tx.select().from(bankLines).where(eq(bankLines.id, lineId)).get();
	if (!line || line.amount <= 0) throw new NotFoundError('This line');
	if (line.state === 'accepted') return line.paymentId ?? 0;
	if (recorded) return tie(tx, world, line, recorded);
	if (payerId === 0) throw new FieldError({ payerId: 'Choose who paid.' });
	if (!tx.select().from(customers).where(eq(customers.id, payerId)).get())
		throw new NotFoundError('This payer');
	const open = new Map(openOf(tx, payerId).map((item) => [item.documentId, item]));
	const wanted =
		shares ??
		shareOldestFirst(
			BigInt(line.amount),
			[...open.values()].map((item) => ({ ...item, toPay: BigInt(item.toPay) }))
		).shares.map((one) => ({ ...one, amount: Number(one.amount), withheld: null }));
	for (const { documentId, amount, withheld } of wanted) {
		const item = open.get(documentId);
		const most = item ? (withheld === null ? item.toPay : item.outstanding - withheld) : 0;
		if (amount <= 0 || amount > most)
			throw new RefusedError(
				item
					? `Only ${displayPounds(most)} is still to pay on ${item.number}.`
					: 'An invoice of this proposal is settled by now.'
			);
	}
	if (wanted.reduce((sum, one) => sum + one.amount, 0) > line.amount)
		throw new RefusedError('More is shared out than came in.');
	const { id } = takeShared(tx, world, {
		key: `bank:${line.key}:${line.times}`,
		payerId,
		date: line.date,
		amount: line.amount,
		way: 'bank',
		reference: (line.text || line.payer).slice(0, 200),
		fee: 0,
		who: 'you',
		shares: wanted
	});
	const at = world.clock.now();
	tx.update(bankLines)
		.set({ state: 'accepted', paymentId: id, times: line.times + 1, decidedAt: at })
		.where(eq(bankLines.id, lineId))
		.run();
	const name = learnedName(line);
	if (name.length >= 4)
		tx.insert(payerNames)
			.values({ name, payerId, learnedAt: at })
			.onConflictDoUpdate({ target: payerNames.name, set: { payerId, learnedAt: at } })
			.run();
	return id;
}

/** Ties a line to what is in the books already. @throws RefusedError where that was seen, undone, or is another sum */
function tie(
	tx: Transaction,
	world: World,
	line: typeof bankLines.$inferSelect,
	{ kind, id }: { kind: 'payment' | 'payout'; id: number }
): number {
	const same = recordedMoney(tx).find(
		(one) => one.kind === kind && one.id === id && one.amount === line.amount
	);
	if (!same) throw new RefusedError('That was seen in another line by now.');
	const decided = { state: 'accepted' as const, tied: true, decidedAt: world.clock.now() };
	if (kind === 'payout')
		tx.update(payouts).set({ seenOn: line.date }).where(eq(payouts.id, id)).run();
	tx.update(bankLines)
		.set({ ...decided, ...(kind === 'payout' ? { payoutId: id } : { paymentId: id }) })
		.where(eq(bankLines.id, line.id))
		.run();
	return kind === 'payment' ? id : 0;
}

/**
 * The bank took a payment back: it is undone with a trace, and the line is dealt with. A second press changes nothing.
 * @throws NotFoundError, RefusedError where the payment is another sum, or cannot be undone
 */
export function acceptReversal(world: World, lineId: number, paymentId: number): void {
	const line = world.db.select().from(bankLines).where(eq(bankLines.id, lineId)).get();
	if (!line || line.amount >= 0) throw new NotFoundError('This line');
	if (line.state === 'accepted') return;
	if (!takenBack(world.db, line).some((one) => one.id === paymentId))
		throw new RefusedError('That payment is undone already, or is another sum.');
	undoPayment(world, paymentId, 'The bank took it back', true);
	world.db
		.update(bankLines)
		.set({ state: 'accepted', paymentId, tied: true, decidedAt: world.clock.now() })
		.where(eq(bankLines.id, lineId))
		.run();
}

/**
 * Accepts every line whose proposal is sure, one after the other: what one of them settles, the next one finds settled.
 * @returns how many, and for how much in pence
 */
export async function acceptSure(
	world: World
): Promise<{ accepted: number; amount: number; left: number }> {
	const rows = world.db
		.select()
		.from(bankLines)
		.where(and(eq(bankLines.state, 'open'), sql`json_extract(${bankLines.proposal}, '$.sure')`))
		.orderBy(asc(bankLines.date), asc(bankLines.id))
		.all();
	let accepted = 0;
	let amount = 0;
	for (const [index, row] of rows.entries()) {
		// Many of them leave room for what others ask in between.
		if (index % 20 === 19) await new Promise((resolve) => setImmediate(resolve));
		try {
			acceptLine(world, row.id, row.proposal!);
			accepted++;
			amount += row.amount;
		} catch (error) {
			// Another line settled it: this one is looked at by hand.
			if (!(error instanceof RefusedError)) throw error;
			world.db.update(bankLines).set({ proposal: null }).where(eq(bankLines.id, row.id)).run();
		}
	}
	return { accepted, amount, left: rows.length - accepted };
}

/** Private money, or what is no payment of a customer: it is not proposed again. */
export function setNotBusiness(world: World, lineId: number): void {
	world.db
		.update(bankLines)
		.set({ state: 'notBusiness', decidedAt: world.clock.now() })
		.where(and(eq(bankLines.id, lineId), eq(bankLines.state, 'open')))
		.run();
}

/** Takes a decision back; the payment it made is undone with a trace. @throws RefusedError */
export function reopenLine(world: World, lineId: number): void {
	const line = world.db.select().from(bankLines).where(eq(bankLines.id, lineId)).get();
	if (!line) throw new NotFoundError('This line');
	if (line.amount < 0 && line.state === 'accepted')
		throw new RefusedError('The payment is undone. If it came after all, record it again.');
	if (line.payoutId !== null)
		world.db.update(payouts).set({ seenOn: null }).where(eq(payouts.id, line.payoutId)).run();
	if (line.state === 'accepted' && line.paymentId !== null && !line.tied)
		undoPayment(world, line.paymentId, 'The bank line was matched wrongly');
	world.db
		.update(bankLines)
		.set({
			state: 'open',
			paymentId: null,
			payoutId: null,
			tied: false,
			proposal: null,
			decidedAt: null
		})
		.where(eq(bankLines.id, lineId))
		.run();
}
