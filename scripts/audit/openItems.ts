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
	toPay: number;
	reached: number;
	told: number;
	balance: number | null;
}

interface Entry {
	id: number;
	date: string;
	/** The order of what happened on one day: payments, credits, money given back, debts written off. */
	rank: number;
	amount: number;
	stated: number | null;
	deduction: number | null;
}

const PAID = 0;
const CREDITED = 1;
const GIVEN_BACK = 2;
const WRITTEN_OFF = 4;

/** Everything that settled anything, by invoice, in order of date. */
function entriesByInvoice(file: DataFile): Map<number, Entry[]> {
	const rows = rowsOf<Entry>(
		file,
		`select * from (
			select a.document_id as id, coalesce(a.applied_on, p.date) as date, 0 as rank, a.amount,
				a.withheld_stated as stated, null as deduction, a.id as n
			from allocations a join payments p on p.id = a.payment_id
			where not exists (select 1 from payment_reversals v where v.payment_id = p.id)
			union all select c.corrects_id, c.issue_date, 1, c.total, null, c.deduction, c.id
			from documents c where c.state = 'issued' and c.corrects_id is not null
			union all select document_id, date, 2, amount, null, null, id from refunds
			union all select from_id, date, 2, amount, null, null, 1000000000 + id from transfers
			union all select to_id, date, 0, amount, null, null, 1000000000 + id from transfers
			union all select document_id, max(date), 4, sum(amount), null, null, 0 from write_offs
			group by document_id having sum(amount) > 0
		) order by id, date, rank, n`
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
}

/** `figures.md` 4: what is withheld follows the cash, as far as it was not stated. */
function positionOf(item: Item, entries: readonly Entry[]): Position {
	let expected = item.expected ?? 0;
	let credited = 0;
	let paid = 0;
	let back = 0;
	let withheld = 0;
	let lost = 0;
	for (const { rank, amount, stated, deduction } of entries) {
		if (rank === CREDITED) {
			credited += amount;
			expected -= deduction ?? 0;
		} else if (rank === GIVEN_BACK) back += amount;
		else if (rank === WRITTEN_OFF) lost += amount;
		else if (rank === PAID) {
			paid += amount;
			const payable = item.total - credited - expected;
			const target =
				payable > 0
					? Math.min(
							Number(divideRounded(BigInt(expected) * BigInt(paid), BigInt(payable))),
							expected
						)
					: 0;
			withheld += stated ?? Math.max(target - withheld, 0);
		}
	}
	return {
		cash: paid - back,
		withheld,
		owed: item.total - paid - withheld - credited - lost + back
	};
}

export const wrongOpenItems: Check = (file) => {
	const entries = entriesByInvoice(file);
	return rowsOf<Item>(
		file,
		`select o.document_id as id, d.number, d.total, o.deduction, d.deduction as expected, o.cash, o.withheld,
			o.outstanding, o.overpaid, o.to_pay as toPay, o.reached,
			exists (select 1 from trail t where t.document_id = d.id and t.what in
				('sent', 'delivered', 'linkCopied', 'downloaded', 'handedOver', 'opened', 'onStatement')) as told,
			(select sum(l.amount) from journal_lines l where l.account = 'receivable' and l.document_id = d.id) +
			coalesce((select sum(l.amount) from documents c join journal_lines l on l.document_id = c.id
				where c.corrects_id = d.id and l.account = 'receivable'), 0) as balance
		from open_items o join documents d on d.id = o.document_id`
	).flatMap((item) => {
		const found: string[] = [];
		const say = (wrong: boolean, what: string) => wrong && found.push(`${item.number}: ${what}`);
		const { cash, withheld, owed } = positionOf(item, entries.get(item.id) ?? []);
		say(
			Math.max(owed, 0) !== item.outstanding ||
				Math.max(-owed, 0) !== item.overpaid ||
				withheld !== item.withheld ||
				cash !== item.cash,
			'what stands open does not come out of its payments and credits'
		);
		say(
			(item.balance ?? 0) !== item.outstanding - item.overpaid,
			`the journal says ${item.balance}, the open item ${item.outstanding - item.overpaid}`
		);
		const left = Math.max((item.deduction ?? 0) - item.withheld, 0);
		say(
			item.toPay !== Math.max(item.outstanding - left, 0),
			'what is still to pay is not what is outstanding less what may be deducted'
		);
		say(item.reached !== item.told, 'whether the customer has it differs from its paper trail');
		return found;
	});
};

export const missingOpenItems: Check = (file) =>
	rowsOf<{ number: string }>(
		file,
		`select d.number from documents d where d.state = 'issued' and d.kind = 'invoice'
		and not exists (select 1 from open_items o where o.document_id = d.id)`
	).map(({ number }) => `${number}: it stands nowhere among the open items`);
