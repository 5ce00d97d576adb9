// Every journal entry against what it is about: payments, what they settle, what was moved, given back, given up, claimed.
import { rowsOf, type Check, type DataFile } from './reading';

/** What an entry must hold: by account, and by document what its debt changed by, deductions and losses included. */
interface Expected {
	event: string;
	/** Null: any day. */
	date: string | null;
	sums: Map<string, number>;
}

const WAY: Record<string, string> = {
	bank: 'bank',
	cheque: 'bank',
	cash: 'cash',
	card: 'cardClearing'
};

class Book {
	readonly entries = new Map<string, Expected>();

	add(key: string, event: string, date: string | null, sums: Record<string, number>): void {
		const known = this.entries.get(key) ?? { event, date, sums: new Map<string, number>() };
		for (const [bucket, amount] of Object.entries(sums))
			known.sums.set(bucket, (known.sums.get(bucket) ?? 0) + amount);
		this.entries.set(key, known);
	}
}

function documentEntries(file: DataFile, book: Book): void {
	for (const row of rowsOf<{
		id: number;
		kind: string;
		date: string;
		number: string;
		of: number | null;
	}>(
		file,
		"select id, kind, issue_date as date, number, corrects_id as of from documents where state = 'issued'"
	)) {
		if (row.kind === 'invoice') book.add(`issue:${row.id}`, 'issue', row.date, {});
		else {
			book.add(`credit:${row.id}`, 'credit', row.date, {});
			book.add(`credit-withheld:${row.of}:${row.number}`, 'credit', row.date, {});
		}
	}
}

function paymentEntries(file: DataFile, book: Book): void {
	for (const row of rowsOf<{
		id: number;
		date: string;
		amount: number;
		fee: number;
		way: string;
		source: string;
		undone: number;
	}>(
		file,
		`select p.id, p.date, p.amount, p.fee, p.way, p.source,
			exists (select 1 from payment_reversals v where v.payment_id = p.id) as undone from payments p`
	)) {
		const account = row.source === 'opening' ? 'opening' : WAY[row.way]!;
		const sums = { [account]: row.amount - row.fee, cardFees: row.fee };
		book.add(`payment:${row.id}`, 'payment', row.date, { ...sums, customerCredit: -row.amount });
		if (row.undone)
			book.add(`undo-payment:${row.id}`, 'reversal', null, {
				[WAY[row.way]!]: -row.amount,
				customerCredit: row.amount
			});
	}
	for (const row of rowsOf<{
		payment: number;
		document: number;
		amount: number;
		applied: string | null;
		key: string | null;
		undone: number;
	}>(
		file,
		`select a.payment_id as payment, a.document_id as document, a.amount, a.applied_on as applied, a.key,
			exists (select 1 from payment_reversals v where v.payment_id = a.payment_id) as undone from allocations a`
	)) {
		const used = { customerCredit: row.amount, [`doc ${row.document}`]: -row.amount };
		if (row.applied === null) book.add(`payment:${row.payment}`, 'payment', null, used);
		else book.add(`apply:${row.key}`, 'apply', row.applied, used);
		if (row.undone)
			book.add(`undo-payment:${row.payment}`, 'reversal', null, { customerCredit: -row.amount });
	}
	for (const row of rowsOf<{ key: string; from: number; to: number; date: string; amount: number }>(
		file,
		'select key, from_id as "from", to_id as "to", date, amount from transfers'
	))
		book.add(`apply:${row.key.replace(/\/\d+$/, '')}`, 'apply', row.date, {
			[`doc ${row.from}`]: row.amount,
			[`doc ${row.to}`]: -row.amount
		});
}

function backEntries(file: DataFile, book: Book, keys: ReadonlySet<string>): void {
	for (const row of rowsOf<{
		id: number;
		key: string;
		document: number;
		date: string;
		amount: number;
		way: string;
	}>(file, 'select id, key, document_id as document, date, amount, way from refunds')) {
		const own = `refund:${row.id}`;
		// Of a payment for several invoices, one entry holds all that went back.
		const key = keys.has(own) ? own : `refund:${row.key.replace(/:\d+$/, '')}`;
		book.add(key, 'refund', row.date, {
			[WAY[row.way]!]: -row.amount,
			[`doc ${row.document}`]: row.amount
		});
	}
	for (const row of rowsOf<{ key: string; date: string; amount: number; way: string }>(
		file,
		'select key, date, amount, way from credit_returns'
	)) {
		const own = `return:${row.key}`;
		book.add(
			keys.has(own) ? own : `refund:${row.key.replace(/:credit$/, '')}`,
			'refund',
			row.date,
			{
				[WAY[row.way]!]: -row.amount,
				customerCredit: row.amount
			}
		);
	}
	for (const row of rowsOf<{ key: string; date: string }>(
		file,
		"select key, date from write_offs where key not like 'taken-up:%'"
	))
		book.add(`writeOff:${row.key}`, 'writeOff', row.date, {});
	for (const row of rowsOf<{ key: string; document: number; date: string; vat: number }>(
		file,
		'select key, document_id as document, date, vat from relief_claims'
	))
		book.add(`relief:${row.key}`, 'relief', row.date, {
			vatRelief: row.vat,
			[`doc ${row.document}`]: -row.vat
		});
	for (const row of rowsOf<{ id: string; date: string }>(
		file,
		'select processor_id as id, date from payouts'
	))
		book.add(`payout:${row.id}`, 'payout', row.date, {});
}

interface Line {
	key: string;
	event: string;
	date: string;
	account: string;
	amount: number;
	document: number | null;
}

/** Accounts that change what an invoice owes: they are looked at together. */
const DEBT = new Set(['receivable', 'cisWithheld', 'badDebts']);
/** Entries whose sums other checks hold: what was issued, lost, and paid out. */
const ELSEWHERE = new Set(['issue', 'credit', 'writeOff', 'payout']);

function actualEntries(file: DataFile): Map<string, Expected> {
	const found = new Map<string, Expected>();
	for (const line of file
		.prepare(
			`select e.key, e.event, e.date, l.account, l.amount, l.document_id as document
			from journal_entries e left join journal_lines l on l.entry_id = e.id order by e.id`
		)
		.iterate() as IterableIterator<Line>) {
		const { key, event, date, account, amount, document } = line;
		const entry = found.get(key) ?? { event, date, sums: new Map<string, number>() };
		const bucket = DEBT.has(account) ? `doc ${document}` : account;
		if (account) entry.sums.set(bucket, (entry.sums.get(bucket) ?? 0) + amount);
		found.set(key, entry);
	}
	return found;
}

export const wrongEntries: Check = (file) => {
	const actual = actualEntries(file);
	const book = new Book();
	documentEntries(file, book);
	paymentEntries(file, book);
	backEntries(file, book, new Set(actual.keys()));
	const found: string[] = [];
	for (const [key, entry] of actual) {
		const expected = book.entries.get(key);
		if (!expected) {
			found.push(`journal entry ${key} belongs to nothing in the books`);
			continue;
		}
		if (entry.event !== expected.event) found.push(`journal entry ${key} is not called what it is`);
		if (expected.date !== null && entry.date !== expected.date)
			found.push(
				`journal entry ${key} stands on ${entry.date}, what it is about on ${expected.date}`
			);
		if (ELSEWHERE.has(expected.event)) continue;
		for (const bucket of new Set([...entry.sums.keys(), ...expected.sums.keys()])) {
			// What a payment that is undone had settled elsewhere comes back with it: looked at as a whole below.
			if (expected.event === 'reversal' && bucket.startsWith('doc ')) continue;
			const [is, should] = [entry.sums.get(bucket) ?? 0, expected.sums.get(bucket) ?? 0];
			if (is !== should) found.push(`journal entry ${key} has ${is} for ${bucket}, not ${should}`);
		}
	}
	for (const [key, { event }] of book.entries)
		if (!actual.has(key) && !key.startsWith('credit-withheld:'))
			found.push(`the journal has no ${event} ${key}`);
	return found;
};

/** What undone payments and what they brought back changed on each debt, over all of them. */
export const wrongReversals: Check = (file) =>
	rowsOf<{ number: string; is: number; should: number }>(
		file,
		`select d.number, sum(x.booked) as "is", sum(x.meant) as should from (
			select l.document_id as id, l.amount as booked, 0 as meant from journal_lines l
				join journal_entries e on e.id = l.entry_id
				where e.event = 'reversal' and l.account in ('receivable', 'cisWithheld', 'badDebts')
			union all select a.document_id, 0, a.amount from allocations a
				join payment_reversals v on v.payment_id = a.payment_id
			union all select t.to_id, 0, t.amount from transfers t join transfer_reversals v on v.transfer_id = t.id
			union all select t.from_id, 0, -t.amount from transfers t join transfer_reversals v on v.transfer_id = t.id
		) x join documents d on d.id = x.id group by d.id having sum(x.booked) <> sum(x.meant)`
	).map(
		({ number, is, should }) => `${number}: payments undone changed ${is} of it, not ${should}`
	);

/** What was given up and not taken up again is in the account of bad debts, less the VAT that was claimed for it. */
export const wrongLosses: Check = (file) =>
	rowsOf<{ number: string; booked: number; lost: number }>(
		file,
		`select d.number, sum(x.booked) as booked, sum(x.lost) as lost from (
			select l.document_id as id, l.amount as booked, 0 as lost from journal_lines l
				join documents d on d.id = l.document_id
				-- The VAT of a loss in other money is claimed in pounds.
				where l.account = 'badDebts' and l.currency = d.currency
			union all select document_id, 0, amount from write_offs
			union all select r.document_id, 0, -r.vat from relief_claims r
				join documents d on d.id = r.document_id where d.currency = 'GBP'
		) x join documents d on d.id = x.id group by d.id having sum(x.booked) <> sum(x.lost)`
	).map(
		({ number, booked, lost }) => `${number}: ${lost} of it is lost, the journal says ${booked}`
	);

/** Whoever a document was for is whose account its lines are on. */
export const wrongParties: Check = (file) => [
	...rowsOf<{ number: string }>(
		file,
		`select distinct d.number from journal_lines l join documents d on d.id = l.document_id
		where l.account in ('receivable', 'cisWithheld', 'badDebts', 'sales', 'lateCharges', 'vatOutput')
			and l.customer_id is not d.customer_id`
	).map(({ number }) => `${number}: the journal has it on somebody else’s account`),
	...rowsOf<{ id: number; number: string }>(
		file,
		`select p.id, d.number from allocations a join payments p on p.id = a.payment_id
		join open_items o on o.document_id = a.document_id join documents d on d.id = o.document_id
		where p.payer_id is not null and p.payer_id <> o.payer_id`
	).map(({ id, number }) => `payment ${id} is another payer’s than ${number}, which it settles`)
];
