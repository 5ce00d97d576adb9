// The items of payers' accounts as statements take them, read in bulk: what raised a balance and what lowered it.
import { sql, type SQL } from 'drizzle-orm';
import type { AccountEntry } from '../../../core/documents/statementView';
import { BOOKS, type Currency } from '../../../core/money/currencies';
import { WAY_NAMES, withinSentence } from '../../../core/words';
import type { PaymentWay } from '../../db/schema';
import type { Reader } from '../../db/connection';
import { unusedPayments } from '../ledger/inHand';
import { settledBy, settleDocument } from '../ledger/settlement';
import { stillToPay } from '../ledger/position';

interface Row {
	payer: number;
	document: number;
	date: string;
	amount: number;
}

/**
 * Every payer's items in one money, of some payers or of all. An invoice's id is `d17`; what stands against it says so.
 * Amounts in its minor units.
 */
export function payerAccounts(
	db: Reader,
	payerIds?: readonly number[],
	currency: Currency = BOOKS
): Map<number, AccountEntry[]> {
	const of = (column: SQL) =>
		payerIds === undefined
			? sql`1`
			: sql`${column} in (${sql.join(
					payerIds.map((id) => sql`${id}`),
					sql`, `
				)})`;
	const ours = (column: SQL) => sql`${of(column)} and o.currency = ${currency}`;
	const accounts = new Map<number, AccountEntry[]>();
	const add = (
		payer: number,
		entry: Partial<AccountEntry> &
			Pick<AccountEntry, 'id' | 'type'> & { date: string; amount: bigint; what: string }
	) => {
		const items = accounts.get(payer);
		const full: AccountEntry = {
			due: null,
			against: null,
			documentId: null,
			leftToDeduct: 0n,
			...entry
		};
		if (items) items.push(full);
		else accounts.set(payer, [full]);
	};
	if (payerIds?.length === 0) return accounts;

	const deducting: { payer: number; document: number; total: number; deduction: number | null }[] =
		[];
	for (const row of db.all<
		Row & {
			number: string;
			due: string;
			outstanding: number;
			deduction: number | null;
			withheld: number;
			expected: number | null;
			along: number;
			settledOn: string | null;
		}
	>(sql`select o.payer_id as payer, o.document_id as document, d.number, o.issue_date as date, o.due_date as due,
			o.total as amount, o.outstanding, o.deduction, o.withheld, d.deduction as expected,
			o.overpaid - o.in_hand as along, o.settled_on as settledOn
		from open_items o join documents d on d.id = o.document_id where ${ours(sql`o.payer_id`)} order by o.document_id`)) {
		if (row.amount > 0)
			add(row.payer, {
				id: `d${row.document}`,
				type: 'invoice',
				date: row.date,
				due: row.due,
				amount: BigInt(row.amount),
				what: `Invoice ${row.number}`,
				documentId: row.document,
				leftToDeduct: BigInt(row.outstanding - stillToPay(row))
			});
		if (row.deduction !== null)
			deducting.push({
				payer: row.payer,
				document: row.document,
				total: row.amount,
				deduction: row.expected
			});
		// A deduction that goes back with the money is nothing the payer has in its favour.
		if (row.along > 0)
			add(row.payer, {
				id: `b${row.document}`,
				type: 'refund',
				date: row.settledOn ?? row.date,
				amount: BigInt(row.along),
				what: `CIS deduction of ${row.number}, goes back with the money`
			});
	}
	for (const row of db.all<Row & { id: number; number: string }>(sql`
		select o.payer_id as payer, c.id, c.number, c.corrects_id as document, c.issue_date as date, c.total as amount
		from documents c join open_items o on o.document_id = c.corrects_id
		where c.state = 'issued' and c.total > 0 and ${ours(sql`o.payer_id`)} order by c.id`))
		add(row.payer, {
			id: `c${row.id}`,
			type: 'credit',
			date: row.date,
			amount: BigInt(row.amount),
			against: `d${row.document}`,
			what: `Credit note ${row.number}`,
			documentId: row.id
		});
	for (const row of db.all<Row & { id: number; way: PaymentWay; reference: string }>(sql`
		select o.payer_id as payer, a.id, a.document_id as document, p.date, a.amount, p.way, p.reference
		from allocations a join payments p on p.id = a.payment_id join open_items o on o.document_id = a.document_id
		where ${ours(sql`o.payer_id`)} and not exists (select 1 from payment_reversals v where v.payment_id = p.id)
		order by a.id`))
		add(row.payer, {
			id: `a${row.id}`,
			type: 'payment',
			date: row.date,
			amount: BigInt(row.amount),
			against: `d${row.document}`,
			what: `Payment, ${withinSentence(WAY_NAMES[row.way])}`
		});
	const settling = settledBy(
		db,
		deducting.map(({ document }) => document)
	);
	for (const { payer, document, total, deduction } of deducting) {
		const entries = settling.get(document)!;
		const settled = settleDocument({ total, deduction }, entries);
		for (const [index, { withheld }] of settled.entries.entries()) {
			const { type, date } = entries[index]!;
			const about = { id: `w${document}-${index}`, date, amount: withheld };
			if (withheld === 0n) continue;
			if (type === 'refund')
				add(payer, { ...about, type, what: 'CIS deduction, given back with it' });
			else
				add(payer, {
					...about,
					type: 'withholding',
					against: `d${document}`,
					what: 'CIS deduction'
				});
		}
	}
	for (const row of db.all<Row & { what: string }>(sql`
		select o.payer_id as payer, w.document_id as document, max(w.date) as date, sum(w.amount) as amount
		from write_offs w join open_items o on o.document_id = w.document_id where ${ours(sql`o.payer_id`)}
		group by w.document_id having sum(w.amount) > 0`))
		add(row.payer, {
			id: `x${row.document}`,
			type: 'writeOff',
			date: row.date,
			amount: BigInt(row.amount),
			against: `d${row.document}`,
			what: 'Written off'
		});
	for (const row of db.all<Row & { id: number }>(sql`
		select o.payer_id as payer, r.id, r.document_id as document, r.date, r.amount
		from refunds r join open_items o on o.document_id = r.document_id where ${ours(sql`o.payer_id`)} order by r.id`))
		add(row.payer, {
			id: `r${row.id}`,
			type: 'refund',
			date: row.date,
			amount: BigInt(row.amount),
			what: 'Given back'
		});
	// Credit used for another invoice leaves the account as it was: it goes out of one place and into another.
	for (const row of db.all<Row & { id: number; number: string }>(sql`
		select o.payer_id as payer, t.id, t.to_id as document, t.date, t.amount, d.number
		from transfers t join open_items o on o.document_id = t.to_id join documents d on d.id = t.from_id
		where ${ours(sql`o.payer_id`)} and not exists (select 1 from transfer_reversals v where v.transfer_id = t.id)
		order by t.id`)) {
		const about = { date: row.date, amount: BigInt(row.amount) };
		add(row.payer, {
			...about,
			id: `f${row.id}`,
			type: 'refund',
			what: `Credit of ${row.number} used`
		});
		add(row.payer, {
			...about,
			id: `t${row.id}`,
			type: 'payment',
			against: `d${row.document}`,
			what: `Credit of ${row.number}`
		});
	}
	// What no invoice took is always in pounds.
	if (currency !== BOOKS) return accounts;
	for (const row of db.all<{ payer: number; id: number; date: string; amount: number }>(sql`
		select p.payer_id as payer, r.id, r.date, r.amount from credit_returns r join payments p on p.id = r.payment_id
		where ${of(sql`p.payer_id`)} order by r.id`))
		add(row.payer, {
			id: `g${row.id}`,
			type: 'refund',
			date: row.date,
			amount: BigInt(row.amount),
			what: 'Given back'
		});
	for (const row of unusedOf(db, payerIds))
		add(row.payerId, {
			id: `u${row.id}`,
			type: 'payment',
			date: row.date,
			amount: BigInt(row.left),
			what: 'Payment, not yet applied'
		});
	return accounts;
}

/** What is left of payments, with what was given back of them: that stands in the account as a row of its own. */
function unusedOf(db: Reader, payerIds?: readonly number[]) {
	const returned = new Map(
		db
			.all<{ id: number; sum: number }>(
				sql`select payment_id as id, sum(amount) as sum from credit_returns group by payment_id`
			)
			.map((row) => [row.id, row.sum])
	);
	const rows = payerIds?.length === 1 ? unusedPayments(db, payerIds[0]) : unusedPayments(db);
	const known = new Set(payerIds);
	const used = rows
		.filter((row) => payerIds === undefined || known.has(row.payerId))
		.map((row) => ({ ...row, left: row.left + (returned.get(row.id) ?? 0) }));
	const listed = new Set(used.map((row) => row.id));
	const whole = [...returned].filter(([id]) => !listed.has(id));
	for (const [id, sum] of whole) {
		const row = db.get<{ payerId: number; date: string }>(
			sql`select payer_id as payerId, date from payments where id = ${id}`
		)!;
		if (payerIds === undefined || known.has(row.payerId))
			used.push({ id, ...row, reference: '', left: sum });
	}
	return used.filter((row) => row.left > 0);
}
