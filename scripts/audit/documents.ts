// Issued documents: their lines, their sums, what the journal holds of them, their frozen dates, their PDF, their numbers.
import { createHash } from 'node:crypto';
import { rowsOf, type Check } from './reading';

interface Issued {
	id: number;
	kind: 'invoice' | 'creditNote';
	number: string;
	net: number;
	vat: number;
	total: number;
	taxable: number | null;
	withoutVat: number | null;
	receivable: number | null;
	sales: number | null;
	vatOutput: number | null;
	opening: number | null;
	/** From the books before: null where it is not, whether its VAT stood in a return there. */
	returned: number | null;
	frozen: string | null;
	issueDate: string;
	taxPoint: string;
	dueDate: string;
	customerId: number;
}

export const wrongDocuments: Check = (file) =>
	rowsOf<Issued>(
		file,
		`select d.id, d.kind, d.number, d.net, d.vat_charged as vat, d.total, d.issue_date as issueDate,
			d.tax_point as taxPoint, d.due_date as dueDate, d.customer_id as customerId,
			json_object('issueDate', json_extract(d.frozen, '$.issueDate'), 'taxPoint', json_extract(d.frozen, '$.taxPoint'),
				'dueDate', json_extract(d.frozen, '$.dueDate'), 'customerId', json_extract(d.frozen, '$.customer.id')) as frozen,
			case d.kind when 'invoice' then json_extract(d.frozen, '$.sheet.opening.returned') end as returned,
			l.taxable, l.withoutVat, j.receivable, j.sales, j.vatOutput, j.opening
		from documents d
		left join (select document_id, sum(taxable) as taxable, sum(without_vat) as withoutVat
			from document_lines group by document_id) l on l.document_id = d.id
		left join (select e.document_id,
				sum(case x.account when 'receivable' then x.amount end) as receivable,
				sum(case when x.account = case json_extract(o.frozen, '$.sheet.charge') when 'late' then 'lateCharges'
					else 'sales' end then x.amount end) as sales,
				sum(case x.account when 'vatOutput' then x.amount end) as vatOutput,
				sum(case x.account when 'opening' then x.amount end) as opening
			from journal_entries e join journal_lines x on x.entry_id = e.id join documents o on o.id = e.document_id
			where e.key in ('issue:' || e.document_id, 'credit:' || e.document_id) group by e.document_id) j
			on j.document_id = d.id
		where d.state = 'issued' order by d.id`
	).flatMap((row) => {
		const found: string[] = [];
		const say = (wrong: boolean, what: string) => wrong && found.push(`${row.number}: ${what}`);
		const sign = row.kind === 'invoice' ? 1 : -1;
		say(row.net + row.vat !== row.total, 'its net and its VAT do not make its total');
		say((row.withoutVat ?? 0) !== row.net, 'its lines do not add up to it');
		say(
			(row.taxable ?? 0) !== row.net && (row.taxable ?? 0) !== row.total,
			'its lines add up neither to its net nor to its total'
		);
		say(sign * (row.receivable ?? 0) !== row.total, 'the journal does not hold its total');
		const carried = row.returned === null ? 0 : row.returned ? row.net + row.vat : row.net;
		say(
			-sign * (row.sales ?? 0) !== (row.returned === null ? row.net : 0),
			'the journal does not hold its sales'
		);
		say(
			-sign * (row.vatOutput ?? 0) !== (row.returned ? 0 : row.vat),
			'the journal does not hold its VAT'
		);
		say(-(row.opening ?? 0) !== carried, 'the journal carries over another sum of it');
		const { issueDate, taxPoint, dueDate, customerId } = JSON.parse(row.frozen ?? '{}');
		say(
			issueDate !== row.issueDate || taxPoint !== row.taxPoint || dueDate !== row.dueDate,
			'its dates are not the frozen ones'
		);
		say(customerId !== row.customerId, 'its customer is not the frozen one');
		return found;
	});

export const wrongFiles: Check = (file) => {
	const found: string[] = [];
	const rows = file
		.prepare(
			`select d.number, f.sha256 as hash, f.content from documents d
			left join document_files f on f.document_id = d.id where d.state = 'issued'`
		)
		.iterate() as IterableIterator<{
		number: string;
		hash: string | null;
		content: Buffer | null;
	}>;
	for (const { number, hash, content } of rows)
		if (!content) found.push(`${number}: its PDF is missing`);
		else if (createHash('sha256').update(content).digest('hex') !== hash)
			found.push(`${number}: its PDF is not the one that was stored`);
	return found;
};

/** Numbers without gaps, but where the owner began anew. */
export const numberGaps: Check = (file) => {
	const starts = new Map(
		rowsOf<{ kind: string; starts: string }>(file, 'select kind, starts from number_series').map(
			(row) => [row.kind, new Set(JSON.parse(row.starts) as number[])]
		)
	);
	return rowsOf<{ kind: string; running: number; before: number | null }>(
		file,
		`select kind, running, lag(running) over (partition by kind order by running) as before
		from documents where running is not null`
	)
		.filter(
			({ kind, running, before }) =>
				before !== null && running !== before + 1 && !starts.get(kind)?.has(running)
		)
		.map(({ kind, running, before }) => `${kind} numbers go from ${before} to ${running}`);
};

/** When what a document bills took place: all of it, no more, as it was frozen, and posted to the days it says. */
export const wrongTaxPoints: Check = (file) => [
	...rowsOf<{ number: string }>(
		file,
		`select d.number from documents d left join (
			select document_id as id, sum(net) as net, sum(vat_charged) as charged, sum(vat_reverse_charged) as reversed
			from tax_points group by document_id
		) t on t.id = d.id
		where d.state = 'issued' and (t.id is null or t.net <> coalesce(json_extract(d.frozen, '$.exchange.net'), d.net)
			or t.charged <> coalesce(json_extract(d.frozen, '$.exchange.vatCharged'), d.vat_charged)
			or t.reversed <> coalesce(json_extract(d.frozen, '$.exchange.vatReverseCharged'), d.vat_reverse_charged))`
	).map(({ number }) => `${number}: its tax points do not add up to it`),
	...rowsOf<{ number: string }>(
		file,
		`select d.number from documents d where d.state = 'issued' and json_extract(d.frozen, '$.taxPoints') is not null
			and (select group_concat(date || rule || because || net || ' ' || vat_charged || ' ' || vat_reverse_charged || vat)
				from (select * from tax_points t where t.document_id = d.id order by date))
			is not (select group_concat((p.value ->> 'date') || (p.value ->> 'rule') || (p.value ->> 'because')
				|| (p.value ->> 'net') || ' ' || (p.value ->> 'vatCharged') || ' ' || (p.value ->> 'vatReverseCharged')
				|| (p.value ->> 'vat'))
				from (select * from json_each(d.frozen, '$.taxPoints') order by value ->> 'date') p)`
	).map(({ number }) => `${number}: its tax points are not the frozen ones`),
	...rowsOf<{ number: string; date: string }>(
		file,
		`select d.number, t.date from tax_points t join documents d on d.id = t.document_id
		where json_extract(d.frozen, '$.taxPoints') is not null
			and not (d.kind = 'invoice' and coalesce(json_extract(d.frozen, '$.sheet.opening.returned'), 0))
			and t.vat_charged <> coalesce((
			select sum(case d.kind when 'creditNote' then l.sterling else -l.sterling end) from journal_lines l
			where l.document_id = d.id and l.account = 'vatOutput' and coalesce(l.tax_point, d.tax_point) = t.date), 0)`
	).map(({ number, date }) => `${number}: the journal has other VAT on its tax point ${date}`),
	...rowsOf<{ number: string; date: string }>(
		file,
		`select distinct d.number, l.tax_point as date from journal_lines l join documents d on d.id = l.document_id
		where l.account = 'vatOutput' and l.tax_point is not null
			and not exists (select 1 from tax_points t where t.document_id = d.id and t.date = l.tax_point)`
	).map(
		({ number, date }) => `${number}: VAT is posted on ${date}, which is none of its tax points`
	)
];
