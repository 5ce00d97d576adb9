// What is in other money: its rate, what it stands at in the books, and what the bank had of it.
import { divideRounded } from '../../src/lib/core/money/decimal';
import { rowsOf, type Check } from './reading';

/** A part of a total, in pence. */
const share = (part: number, total: number, pence: number): number =>
	total === 0 ? 0 : Number(divideRounded(BigInt(part) * BigInt(pence), BigInt(total)));

/** A group is rounded by itself, so a document's pence may lie so far from its whole at the rate. */
const ROUNDED = 6;

/** Documents: their rate is frozen, their pence are what it makes of them, and the journal has those. */
export const wrongRates: Check = (file) =>
	rowsOf<{
		number: string;
		currency: string;
		said: string | null;
		rate: string | null;
		net: number;
		vat: number;
		netPence: number | null;
		vatPence: number | null;
		pence: number;
		/** From the books before: whether its VAT stood in a return there. */
		returned: number | null;
		income: number | null;
		vatOutput: number | null;
		strange: number;
	}>(
		file,
		`select d.number, d.currency, json_extract(d.frozen, '$.sheet.currency') as said,
			json_extract(d.frozen, '$.exchange.rate') as rate, d.net, d.vat_charged as vat,
			json_extract(d.frozen, '$.exchange.net') as netPence,
			json_extract(d.frozen, '$.exchange.vatCharged') as vatPence, d.total_sterling as pence,
			case d.kind when 'invoice' then json_extract(d.frozen, '$.sheet.opening.returned') end as returned,
			(select sum(case d.kind when 'invoice' then -l.sterling else l.sterling end) from journal_lines l
				join journal_entries e on e.id = l.entry_id
				where e.key in ('issue:' || d.id, 'credit:' || d.id) and l.account in ('sales', 'opening')) as income,
			(select sum(case d.kind when 'invoice' then -l.sterling else l.sterling end) from journal_lines l
				where l.document_id = d.id and l.account = 'vatOutput') as vatOutput,
			exists (select 1 from journal_lines l where l.document_id = d.id and l.currency <> d.currency
				and not (l.currency = 'GBP' and l.account in ('badDebts', 'vatRelief'))) as strange
		from documents d where d.state = 'issued' and (d.currency <> 'GBP' or json_extract(d.frozen, '$.exchange') is not null)`
	).flatMap((row) => {
		const found: string[] = [];
		const say = (wrong: boolean, what: string) => wrong && found.push(`${row.number}: ${what}`);
		say(row.currency !== row.said, 'it is not in the money it was frozen in');
		if (row.rate === null || row.netPence === null || row.vatPence === null) {
			found.push(`${row.number}: it has no rate`);
			return found;
		}
		const far = (amount: number, pence: number) =>
			Math.abs(amount * Number(row.rate) - pence) > ROUNDED;
		say(far(row.net, row.netPence) || far(row.vat, row.vatPence), 'its pence are not at its rate');
		say(row.netPence + row.vatPence !== row.pence, 'its pence do not add up');
		const apart = row.returned ? 0 : row.vatPence;
		say(
			(row.income ?? 0) !== row.netPence + row.vatPence - apart,
			'the journal has other pence of its sales'
		);
		say((row.vatOutput ?? 0) !== apart, 'the journal has other pence of its VAT');
		say(row.strange === 1, 'the journal has it in two kinds of money');
		return found;
	});

/** What is owed stands in the books at the document's rate, to the penny, whatever came and went. */
export const wrongOwedInPence: Check = (file) =>
	rowsOf<{ number: string; total: number; pence: number; at: number; stands: number }>(
		file,
		`select b.number, b.total, b.total_sterling as pence, sum(l.amount) as at, sum(l.sterling) as stands
		from journal_lines l join documents d on d.id = l.document_id
		join documents b on b.id = coalesce(d.corrects_id, d.id)
		where l.account = 'receivable' and b.currency <> 'GBP' group by b.id`
	)
		.filter(({ total, pence, at, stands }) => share(at, total, pence) !== stands)
		.map(
			({ number, stands }) => `${number}: in pence it stands at ${stands}, which is not its rate`
		);

/** What the bank had of a payment, or gave for a refund, is what the journal has of it. */
export const wrongBankPence: Check = (file) => [
	...rowsOf<{ id: number; pence: number; booked: number | null }>(
		file,
		`select p.id, p.amount_sterling as pence, (select sum(l.sterling) from journal_entries e
				join journal_lines l on l.entry_id = e.id where e.key = 'payment:' || p.id
				and l.account in ('bank', 'cash', 'cardClearing', 'cardFees', 'opening')) as booked
		from payments p where p.currency <> 'GBP'`
	)
		.filter(({ pence, booked }) => pence !== (booked ?? 0))
		.map(
			({ id, pence, booked }) =>
				`payment ${id} was ${pence} at the bank, the journal says ${booked}`
		),
	...rowsOf<{ id: number; pence: number | null; booked: number | null }>(
		file,
		`select r.id, r.amount_sterling as pence, (select -sum(l.sterling) from journal_entries e
				join journal_lines l on l.entry_id = e.id where e.key = 'refund:' || r.id
				and l.account in ('bank', 'cash')) as booked
		from refunds r join documents d on d.id = r.document_id where d.currency <> 'GBP'`
	)
		.filter(({ pence, booked }) => pence !== booked)
		.map(
			({ id, pence, booked }) => `refund ${id} was ${pence} at the bank, the journal says ${booked}`
		),
	...rowsOf<{ id: number; number: string }>(
		file,
		`select p.id, d.number from allocations a join payments p on p.id = a.payment_id
		join documents d on d.id = a.document_id where p.currency <> d.currency`
	).map(({ id, number }) => `payment ${id} is in other money than ${number}, which it settles`)
];
