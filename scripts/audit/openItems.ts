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
	told: number;
	balance: number | null;
}

interface Entry {
	id: number;
	date: string;
	/** The order of what happened on one day: payments, credits, money moved, money given back, debts written off. */
	rank: number;
	amount: number;
	stated: number | null;
	deduction: number | null;
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
				a.withheld_stated as stated, null as deduction, a.id as n
			from allocations a join payments p on p.id = a.payment_id
			where not exists (select 1 from payment_reversals v where v.payment_id = p.id)
			union all select c.corrects_id, c.issue_date, 1, c.total, null, c.deduction, c.id
			from documents c where c.state = 'issued' and c.corrects_id is not null
			union all select from_id, date, 2, amount, withheld, null, id from transfers
			where id not in (select transfer_id from transfer_reversals)
			union all select to_id, date, 2.5, amount, withheld, null, id from transfers
			where id not in (select transfer_id from transfer_reversals)
			union all select document_id, date, 3, amount, withheld_stated, null, id from refunds
			union all select document_id, max(date), 4, sum(amount), null, null, 0 from write_offs
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
	const beyond = () => cash - Math.max(0, item.total - credited - expected);
	for (const { rank, amount, stated, deduction } of entries) {
		if (rank === CREDITED) {
			credited += amount;
			expected -= deduction ?? 0;
		} else if (rank === WRITTEN_OFF) lost += amount;
		else if (rank === GIVEN_BACK || rank === LEFT) {
			const over = withheld - expected;
			const along = over > 0 && beyond() > 0 ? Math.min(share(over, amount, beyond()), over) : 0;
			cash -= amount;
			withheld -= stated ?? along;
		} else {
			cash += amount;
			const payable = item.total - credited - expected;
			const target =
				payable > 0 ? Math.min(share(expected, Math.max(cash, 0), payable), expected) : 0;
			withheld += stated ?? Math.max(target - withheld, 0);
		}
	}
	const owed = item.total - cash - withheld - credited - lost;
	return { cash, withheld, owed, inHand: Math.max(0, Math.min(-owed, beyond())) };
}

export const wrongOpenItems: Check = (file) => {
	const entries = entriesByInvoice(file);
	return rowsOf<Item>(
		file,
		`select o.document_id as id, d.number, d.total, o.deduction, d.deduction as expected, o.cash, o.withheld,
			o.outstanding, o.overpaid, o.in_hand as inHand, o.to_pay as toPay, o.reached,
			exists (select 1 from trail t where t.document_id = d.id and t.what in
				('sent', 'delivered', 'linkCopied', 'downloaded', 'handedOver', 'opened', 'onStatement')) as told,
			(select sum(l.amount) from journal_lines l where l.account = 'receivable' and l.document_id = d.id) +
			coalesce((select sum(l.amount) from documents c join journal_lines l on l.document_id = c.id
				where c.corrects_id = d.id and l.account = 'receivable'), 0) as balance
		from open_items o join documents d on d.id = o.document_id`
	).flatMap((item) => {
		const found: string[] = [];
		const say = (wrong: boolean, what: string) => wrong && found.push(`${item.number}: ${what}`);
		const { cash, withheld, owed, inHand } = positionOf(item, entries.get(item.id) ?? []);
		say(
			Math.max(owed, 0) !== item.outstanding ||
				Math.max(-owed, 0) !== item.overpaid ||
				withheld !== item.withheld ||
				cash !== item.cash ||
				inHand !== item.inHand,
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
