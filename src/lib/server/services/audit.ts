// The books checked against themselves: the journal, what stands open, and the documents' own figures.
import { and, asc, eq, isNotNull, ne, sql } from 'drizzle-orm';
import { lineAmount } from '../../core/jobs/billing';
import { signed } from '../../core/settlement/statement';
import { settle } from '../../core/settlement/settle';
import { documentLines, documents, jobLines, openItems, stageParts, stages } from '../db/schema';
import type { World } from '../world';
import { accountItems } from './owed/payerAccounts';
import { unusedPayments } from './ledger/inHand';
import { loadSeries } from './business/series';
import { frozenFigures } from './invoices/freeze';
import { settlementEntries } from './ledger/settlement';

/** Recomputes everything; returns what differs, in words. Empty: the books agree. */
export function auditBooks(world: World): string[] {
	return [
		...unbalanced(world),
		...wrongDocuments(world),
		...wrongOpenItems(world),
		...wrongCredit(world),
		...wrongAccounts(world),
		...wrongJobs(world),
		...wrongPayouts(world),
		...gaps(world)
	];
}

function unbalanced(world: World): string[] {
	const rows = world.db.all<{ key: string; sum: number }>(sql`
		select e.key, sum(l.amount) as sum from journal_entries e join journal_lines l on l.entry_id = e.id
		group by e.id having sum(l.amount) <> 0`);
	return rows.map((row) => `journal entry ${row.key} is out of balance by ${row.sum}`);
}

function wrongDocuments(world: World): string[] {
	const found: string[] = [];
	for (const row of world.db.select().from(documents).where(eq(documents.state, 'issued')).all()) {
		if (!row.frozen) {
			found.push(`${row.number} has nothing frozen`);
			continue;
		}
		const figures = frozenFigures(row.frozen);
		const lines = world.db
			.select({ sum: sql<number>`coalesce(sum(${documentLines.taxable}), 0)` })
			.from(documentLines)
			.where(eq(documentLines.documentId, row.id))
			.get()!;
		const same =
			Number(figures.total) === row.total &&
			Number(figures.net) === row.net &&
			Number(figures.vatCharged) === row.vatCharged &&
			(figures.cis ? Number(figures.cis.deduction) : null) === row.deduction;
		if (!same) found.push(`${row.number}: its figures do not come out of what is frozen`);
		if (BigInt(lines.sum) !== figures.lines.reduce((sum, line) => sum + line.taxable, 0n))
			found.push(`${row.number}: its lines do not add up to it`);
		if (journalled(world, row.id, row.kind) !== row.total)
			found.push(`${row.number}: the journal does not hold its total`);
	}
	return found;
}

function journalled(world: World, documentId: number, kind: 'invoice' | 'creditNote'): number {
	const { total } = world.db.get<{ total: number | null }>(sql`
		select sum(l.amount) as total from journal_lines l join journal_entries e on e.id = l.entry_id
		where l.document_id = ${documentId} and l.account = 'receivable' and e.key in (${`issue:${documentId}`}, ${`credit:${documentId}`})`);
	return kind === 'invoice' ? (total ?? 0) : -(total ?? 0);
}

function wrongOpenItems(world: World): string[] {
	const found: string[] = [];
	for (const item of world.db.select().from(openItems).all()) {
		const row = world.db.select().from(documents).where(eq(documents.id, item.documentId)).get()!;
		const result = settle({
			total: BigInt(row.total),
			deduction: row.deduction === null ? null : BigInt(row.deduction),
			entries: settlementEntries(world.db, item.documentId)
		});
		if (
			Number(result.outstanding) !== item.outstanding ||
			Number(result.withheld) !== item.withheld ||
			Number(result.cash) !== item.cash
		) {
			found.push(`${row.number}: what stands open does not come out of its payments and credits`);
		}
		const { balance } = world.db.get<{ balance: number | null }>(sql`
			select sum(amount) as balance from journal_lines where account = 'receivable'
			and document_id in (select id from documents where id = ${item.documentId} or corrects_id = ${item.documentId})`);
		if ((balance ?? 0) !== item.outstanding - item.overpaid)
			found.push(
				`${row.number}: the journal says ${balance}, the open item ${item.outstanding - item.overpaid}`
			);
	}
	return found;
}

/** What payers have in hand stands in the journal as it comes out of their payments, and nothing is used twice. */
function wrongCredit(world: World): string[] {
	const sums = new Map<number, number>();
	const found: string[] = [];
	for (const { id, payerId, left } of unusedPayments(world.db)) {
		if (left < 0) found.push(`payment ${id} is used beyond its amount by ${-left}`);
		sums.set(payerId, (sums.get(payerId) ?? 0) + left);
	}
	const booked = world.db.all<{ payer: number; amount: number }>(sql`
		select customer_id as payer, -sum(amount) as amount from journal_lines
		where account = 'customerCredit' group by customer_id`);
	for (const { payer, amount } of booked) {
		if (amount !== (sums.get(payer) ?? 0))
			found.push(`payer ${payer} has ${sums.get(payer) ?? 0} in hand, the journal says ${amount}`);
		sums.delete(payer);
	}
	for (const [payer, left] of sums)
		found.push(`payer ${payer} has ${left} in hand, the journal knows nothing of it`);
	return found;
}

/** A payer's account, item by item, comes to what the open items and what is in hand come to. */
function wrongAccounts(world: World): string[] {
	const expected = new Map<number, number>();
	const count = (payer: number, amount: number) =>
		expected.set(payer, (expected.get(payer) ?? 0) + amount);
	for (const { payer, amount } of world.db.all<{ payer: number; amount: number }>(
		sql`select payer_id as payer, sum(outstanding - overpaid) as amount from open_items group by payer_id`
	))
		count(payer, amount);
	for (const { payerId, left } of unusedPayments(world.db)) count(payerId, -left);
	const found: string[] = [];
	const accounts = accountItems(world.db);
	for (const [payer, amount] of expected) {
		const items = accounts.get(payer) ?? [];
		const sum = Number(items.reduce((total, item) => total + signed(item), 0n));
		if (sum !== amount)
			found.push(`the account of payer ${payer} comes to ${sum}, its open items to ${amount}`);
	}
	return found;
}

/** Nothing of a job is billed beyond what it is worth, nothing twice, and its sales are those of its lines. */
function wrongJobs(world: World): string[] {
	const found: string[] = [];
	const staged = world.db
		.select({ line: jobLines, amount: sql<number>`sum(${stageParts.amount})` })
		.from(stageParts)
		.innerJoin(stages, eq(stages.id, stageParts.stageId))
		.innerJoin(jobLines, eq(jobLines.id, stageParts.lineId))
		.where(ne(stages.state, 'dropped'))
		.groupBy(jobLines.id)
		.all();
	for (const { line, amount } of staged) {
		const worth = lineAmount(line);
		if (worth >= 0n ? BigInt(amount) > worth : BigInt(amount) < worth)
			found.push(`job line ${line.id} is worth ${worth}, and stages bill ${amount} of it`);
	}
	const twice = world.db.all<{ line: number }>(sql`
		select p.line_id as line from stage_parts p join stages s on s.id = p.stage_id and s.state <> 'dropped'
		join billed_parts b on b.type = 'line' and b.part_id = p.line_id group by p.line_id`);
	for (const { line } of twice) found.push(`job line ${line} is billed whole and in stages`);
	const sales = world.db.all<{ number: string; job: number }>(sql`
		select d.number, x.job from documents d join (
			select document_id as document, job_id as job, sum(without_vat) as amount from document_lines
			where job_id is not null group by document_id, job_id
		) x on x.document = d.id where d.state = 'issued' and x.amount <> coalesce((
			select sum(case d.kind when 'invoice' then -l.amount else l.amount end) from journal_lines l
			where l.document_id = d.id and l.job_id = x.job and l.account = 'sales'), 0)`);
	for (const { number, job } of sales)
		found.push(`${number}: its sales for job ${job} are not in the journal`);
	return found;
}

/** A payout is what its parts come to, and the journal holds it. */
function wrongPayouts(world: World): string[] {
	return world.db
		.all<{ id: string; amount: number; parts: number; booked: number }>(
			sql`
		select p.processor_id as id, p.amount,
			(select coalesce(sum(x.amount - x.fee), 0) from payout_parts x where x.payout_id = p.id) as parts,
			(select coalesce(sum(l.amount), 0) from journal_entries e join journal_lines l on l.entry_id = e.id
				where e.key = 'payout:' || p.processor_id and l.account = 'bank') as booked
		from payouts p`
		)
		.filter(({ amount, parts, booked }) => amount !== parts || amount !== booked)
		.map(
			({ id, amount, parts, booked }) =>
				`payout ${id} is ${amount}, its parts ${parts}, the journal says ${booked}`
		);
}

function gaps(world: World): string[] {
	const found: string[] = [];
	for (const kind of ['invoice', 'creditNote'] as const) {
		const { starts } = loadSeries(world.db, kind);
		const runs = world.db
			.select({ running: documents.running })
			.from(documents)
			.where(and(eq(documents.kind, kind), isNotNull(documents.running)))
			.orderBy(asc(documents.running))
			.all();
		for (const [index, { running }] of runs.entries()) {
			const before = runs[index - 1]?.running;
			if (before != null && running !== before + 1 && !starts.includes(running!))
				found.push(`${kind} numbers go from ${before} to ${running}`);
		}
	}
	return found;
}
