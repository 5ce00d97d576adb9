// Where invoices stand, worked out anew from payments, credits, refunds and write-offs, against what is kept and posted.
import { divideRounded } from '../../src/lib/core/money/decimal';
import { rowsOf, type Check, type DataFile } from './reading';

interface Item {
	id: number;
	number: string;
	total: number;
	deduction: number | null;
	expected: number | null;
	cash: number;
	withheld: number;
	outstanding: number;
	overpaid: number;
	inHand: number;
	toPay: number;
	reached: number;
	state: string;
	settledOn: string | null;
	/** Its days, customer and sums as the document has them, and as they are kept for speed. */
	frozen: string;
	kept: string;
	payer: number;
	frozenPayer: number;
	payerMerged: number;
}

interface Entry {
	id: number;
	date: string;
	/** The order of what happened on one day: payments, credits, money moved, money given back, debts written off. */
	rank: number;
	amount: number;
	stated: number | null;
	deduction: number | null;
	paidOn: string | null;
}

const CREDITED = 1;
const LEFT = 2;
const GIVEN_BACK = 3;
const WRITTEN_OFF = 4;

/** Everything that settled anything, by invoice, in order of date. */
function entriesByInvoice(file: DataFile): Map<number, Entry[]> {
	const rows = rowsOf<Entry>(
		file,
		`select * from (
			select a.document_id as id, coalesce(a.applied_on, p.date) as date, 0 as rank, a.amount,
				a.withheld_stated as stated, null as deduction, a.id as n, p.date as paidOn
			from allocations a join payments p on p.id = a.payment_id
			where not exists (select 1 from payment_reversals v where v.payment_id = p.id)
			union all select c.corrects_id, c.issue_date, 1, c.total, null, c.deduction, c.id, null
			from documents c where c.state = 'issued' and c.corrects_id is not null
			union all select from_id, date, 2, amount, withheld, null, id, null from transfers
			where id not in (select transfer_id from transfer_reversals)
			union all select to_id, date, 2.5, amount, withheld, null, id, coalesce(paid_on, date) from transfers
			where id not in (select transfer_id from transfer_reversals)
			union all select document_id, date, 3, amount, withheld_stated, null, id, null from refunds
			union all select document_id, max(date), 4, sum(amount), null, null, 0, null from write_offs
			group by document_id having sum(amount) > 0
		) order by id, date, floor(rank), n`
	);
	const found = new Map<number, Entry[]>();
	for (const row of rows) {
		const list = found.get(row.id);
		if (list) list.push(row);
		else found.set(row.id, [row]);
	}
	return found;
}

interface Position {
	cash: number;
	withheld: number;
	owed: number;
	inHand: number;
	state: string;
	settledOn: string | null;
	/** What was withheld, by the day the contractor paid; what went back is taken from the last. */
	days: Map<string, number>;
}

const share = (of: number, part: number, whole: number): number =>
	Number(divideRounded(BigInt(of) * BigInt(part), BigInt(whole)));

/** docs/figures.md 4: what is withheld follows the cash, and goes back with it, as far as it was not stated. */
function positionOf(item: Item, entries: readonly Entry[]): Position {
	let expected = item.expected ?? 0;
	let credited = 0;
	let cash = 0;
	let withheld = 0;
	let lost = 0;
	let settledOn: string | null = null;
	const parts: { paidOn: string; withheld: number }[] = [];
	const owedNow = () => item.total - cash - withheld - credited - lost;
	const beyond = () => cash - Math.max(0, item.total - credited - expected);
	for (const { date, rank, amount, stated, deduction, paidOn } of entries) {
		if (rank === CREDITED) {
			credited += amount;
			expected -= deduction ?? 0;
		} else if (rank === WRITTEN_OFF) lost += amount;
		else if (rank === GIVEN_BACK || rank === LEFT) {
			const over = withheld - expected;
			const along = over > 0 && beyond() > 0 ? Math.min(share(over, amount, beyond()), over) : 0;
			let back = stated ?? along;
			cash -= amount;
			withheld -= back;
			for (let at = parts.length - 1; at >= 0 && back > 0; at--) {
				const part = parts[at]!;
				const taken = Math.min(back, part.withheld);
				part.withheld -= taken;
				back -= taken;
			}
		} else {
			cash += amount;
			const payable = item.total - credited - expected;
			const target =
				payable > 0 ? Math.min(share(expected, Math.max(cash, 0), payable), expected) : 0;
			const part = stated ?? Math.max(target - withheld, 0);
			withheld += part;
			parts.push({ paidOn: paidOn ?? date, withheld: part });
		}
		settledOn = owedNow() > 0 ? null : (settledOn ?? date);
	}
	const owed = owedNow();
	const days = new Map<string, number>();
	for (const part of parts) days.set(part.paidOn, (days.get(part.paidOn) ?? 0) + part.withheld);
	const state =
		entries.length === 0
			? 'open'
			: owed > 0
				? cash + withheld + credited > 0
					? 'partPaid'
					: 'open'
				: credited >= item.total
					? 'credited'
					: lost > 0
						? 'writtenOff'
						: 'paid';
	const inHand = Math.max(0, Math.min(-owed, beyond()));
	return { cash, withheld, owed, inHand, state, settledOn, days };
}

export const wrongOpenItems: Check = (file) => {
	const entries = entriesByInvoice(file);
	const booked = deductionsByDay(file);
	const balances = balancesOf(file);
	const told = new Set(
		rowsOf<{ id: number }>(
			file,
			`select distinct document_id as id from trail where what in
				('sent', 'delivered', 'linkCopied', 'downloaded', 'handedOver',
				'broughtIn', 'texted', 'theirs', 'opened', 'onStatement')`
		).map(({ id }) => id)
	);
	return rowsOf<Item>(
		file,
		`select o.document_id as id, d.number, d.total, o.deduction, d.deduction as expected, o.cash, o.withheld,
			o.outstanding, o.overpaid, o.in_hand as inHand, o.to_pay as toPay, o.reached,
			o.state, o.settled_on as settledOn,
			json_array(d.issue_date, d.due_date, d.customer_id, d.total, d.total_sterling, d.currency) as frozen,
			json_array(o.issue_date, o.due_date, coalesce(m.id, o.customer_id), o.total, o.total_sterling, o.currency) as kept,
			o.payer_id as payer, coalesce(json_extract(d.frozen, '$.customer.billTo.id'), d.customer_id) as frozenPayer,
			exists (select 1 from customers c where c.archived_at is not null and
				c.id = coalesce(json_extract(d.frozen, '$.customer.billTo.id'), d.customer_id)) as payerMerged
		from open_items o join documents d on d.id = o.document_id
		-- A customer that was merged into another is archived, and what is open went along.
		left join customers m on m.id = d.customer_id and m.archived_at is not null`
	).flatMap((item) => {
		const found: string[] = [];
		const say = (wrong: boolean, what: string) => wrong && found.push(`${item.number}: ${what}`);
		const { cash, withheld, owed, inHand, state, settledOn, days } = positionOf(
			item,
			entries.get(item.id) ?? []
		);
		say(item.frozen !== item.kept, 'its days, customer or sums among what is open are not its own');
		say(
			item.payer !== item.frozenPayer && !item.payerMerged,
			'somebody else is asked to pay than it says'
		);
		say(state !== item.state, `it is called ${item.state}, and is ${state}`);
		say(settledOn !== item.settledOn, 'the day on which it was settled is another');
		for (const day of new Set([...days.keys(), ...(booked.get(item.id)?.keys() ?? [])]))
			say(
				(days.get(day) ?? 0) !== (booked.get(item.id)?.get(day) ?? 0),
				`what was withheld on ${day} is another sum in the journal`
			);
		say(
			Math.max(owed, 0) !== item.outstanding ||
				Math.max(-owed, 0) !== item.overpaid ||
				withheld !== item.withheld ||
				cash !== item.cash ||
				inHand !== item.inHand,
			'what stands open does not come out of its payments and credits'
		);
		say(
			(balances.get(item.id) ?? 0) !== item.outstanding - item.overpaid,
			`the journal says ${balances.get(item.id) ?? 0}, the open item ${item.outstanding - item.overpaid}`
		);
		const left = Math.max((item.deduction ?? 0) - item.withheld, 0);
		say(
			item.toPay !== Math.max(item.outstanding - left, 0),
			'what is still to pay is not what is outstanding less what may be deducted'
		);
		say(
			(item.reached === 1) !== told.has(item.id),
			'whether the customer has it differs from its paper trail'
		);
		return found;
	});
};

/** What is owed by the journal, by invoice: what corrects an invoice counts with it. */
function balancesOf(file: DataFile): Map<number, number> {
	return new Map(
		rowsOf<{ id: number; amount: number }>(
			file,
			`select coalesce(d.corrects_id, d.id) as id, sum(x.amount) as amount from (
				select document_id, sum(amount) as amount from journal_lines
				where account = 'receivable' group by document_id
			) x join documents d on d.id = x.document_id group by 1`
		).map(({ id, amount }) => [id, amount])
	);
}

/** Deductions in the journal, by invoice and by the day the contractor paid. */
function deductionsByDay(file: DataFile): Map<number, Map<string, number>> {
	const found = new Map<number, Map<string, number>>();
	for (const { id, day, amount } of rowsOf<{ id: number; day: string; amount: number }>(
		file,
		`select l.document_id as id, coalesce(l.paid_on, e.date) as day, sum(l.amount) as amount
		from journal_lines l join journal_entries e on e.id = l.entry_id
		where l.account = 'cisWithheld' and l.document_id is not null group by 1, 2`
	)) {
		const days = found.get(id) ?? new Map<string, number>();
		days.set(day, amount);
		found.set(id, days);
	}
	return found;
}

export const missingOpenItems: Check = (file) =>
	rowsOf<{ number: string }>(
		file,
		`select d.number from documents d where d.state = 'issued' and d.kind = 'invoice'
		and not exists (select 1 from open_items o where o.document_id = d.id)`
	).map(({ number }) => `${number}: it stands nowhere among the open items`);
