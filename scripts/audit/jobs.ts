// Nothing of a job is billed beyond what it is worth, nothing twice, and its sales are those of its lines.
import { divideRounded, parseDecimal, parseMoney } from '../../src/lib/core/money/decimal';
import { rowsOf, type Check } from './reading';

interface StagedLine {
	id: number;
	quantity: string;
	unitPrice: string;
	discount: string;
	staged: number;
}

/** Pence of an agreed line: quantity times price, less its discount. */
function worthOf({ quantity, unitPrice, discount }: StagedLine): bigint {
	const zero = { units: 0n, scale: 0 };
	const count = parseDecimal(quantity.trim()) ?? zero;
	const price = parseDecimal(unitPrice.trim()) ?? zero;
	const extension = divideRounded(
		count.units * price.units * 100n,
		10n ** BigInt(count.scale + price.scale)
	);
	const typed = discount.trim();
	if (typed === '') return extension;
	if (!typed.endsWith('%')) return extension - (parseMoney(typed) ?? 0n);
	const percent = parseDecimal(typed.slice(0, -1).trim()) ?? zero;
	return extension - divideRounded(extension * percent.units, 100n * 10n ** BigInt(percent.scale));
}

export const overbilledLines: Check = (file) =>
	rowsOf<StagedLine>(
		file,
		`select l.id, l.quantity, l.unit_price as unitPrice, l.discount, sum(p.amount) as staged
		from stage_parts p join stages s on s.id = p.stage_id join job_lines l on l.id = p.line_id
		where s.state <> 'dropped' group by l.id`
	).flatMap((line) => {
		const worth = worthOf(line);
		const staged = BigInt(line.staged);
		return (worth >= 0n ? staged > worth : staged < worth)
			? [`job line ${line.id} is worth ${worth}, and stages bill ${staged} of it`]
			: [];
	});

export const billedTwice: Check = (file) =>
	rowsOf<{ line: number }>(
		file,
		`select p.line_id as line from stage_parts p join stages s on s.id = p.stage_id and s.state <> 'dropped'
		join billed_parts b on b.type = 'line' and b.part_id = p.line_id group by p.line_id`
	).map(({ line }) => `job line ${line} is billed whole and in stages`);

export const wrongJobSales: Check = (file) =>
	rowsOf<{ number: string; job: number }>(
		file,
		`select d.number, x.job from documents d join (
			select document_id as document, job_id as job, sum(without_vat) as amount from document_lines
			where job_id is not null group by document_id, job_id
		) x on x.document = d.id where d.state = 'issued' and d.origin <> 'opening' and x.amount <> coalesce((
			select sum(case d.kind when 'invoice' then -l.amount else l.amount end) from journal_lines l
			where l.document_id = d.id and l.job_id = x.job and l.account = 'sales'), 0)`
	).map(({ number, job }) => `${number}: its sales for job ${job} are not in the journal`);

/**
 * What credit notes took back, line by line: of an invoice at once, or part by part. A table for the checks below.
 * `freed`: of the line's net, what went back to its job.
 */
const TAKEN_BACK = `taken_back as (
	select d.corrects_id as document, l.job_id as job, l.retention as held, l.net as freed
	from documents d join document_lines l on l.document_id = d.corrects_id
	where d.state = 'issued' and d.corrects_id is not null and json_extract(d.frozen, '$.corrects.parts') is null
	union all select d.corrects_id, l.job_id, p.value ->> 'retention',
		case when p.value ->> 'again' and p.value ->> 'quantity' is not null then p.value ->> 'net' else 0 end
	from documents d join json_each(d.frozen, '$.corrects.parts') p
	join document_lines l on l.document_id = d.corrects_id and l.position = p.value ->> 'position'
	where d.state = 'issued' and d.corrects_id is not null
)`;

/** What is held is what the invoice's lines held less what was credited, job by job; what releases it is issued. */
export const wrongRetentions: Check = (file) => [
	...rowsOf<{ number: string; held: number; lines: number }>(
		file,
		`with ${TAKEN_BACK}, lines as (
			select document_id as document, job_id as job, sum(retention) as held from document_lines
			group by document_id, job_id having sum(retention) <> 0
		)
		select d.number, coalesce((select sum(r.amount) from retentions r
				where r.document_id = d.id and r.job_id is x.job), 0) as held,
			x.held - coalesce((select sum(t.held) from taken_back t where t.document = d.id and t.job is x.job), 0) as lines
		from lines x join documents d on d.id = x.document where d.kind = 'invoice' and d.state = 'issued'`
	)
		.filter(({ held, lines }) => held !== lines)
		.map(({ number, held, lines }) => `${number}: ${held} is held, its lines say ${lines}`),
	...rowsOf<{ number: string }>(
		file,
		`select d.number from retentions r join documents d on d.id = r.document_id
		where not exists (select 1 from document_lines l
			where l.document_id = d.id and l.job_id is r.job_id and l.retention <> 0)`
	).map(({ number }) => `${number}: something is held that its lines do not hold back`),
	...rowsOf<{ number: string }>(
		file,
		`select d.number from retentions r join documents d on d.id = r.document_id
		left join documents x on x.id = r.released_by_id and x.state = 'issued'
		where r.released_by_id is not null and not exists (
			select 1 from json_each(x.frozen, '$.sheet.releases') where value = d.id)`
	).map(({ number }) => `${number}: what it held back is called released, and nothing releases it`),
	...rowsOf<{ number: string; release: string }>(
		file,
		`select d.number, x.number as release from documents x join json_each(x.frozen, '$.sheet.releases') e
		join documents d on d.id = e.value
		where x.state = 'issued' and x.kind = 'invoice'
			and x.total > (select coalesce(sum(c.total), 0) from documents c
				where c.corrects_id = x.id and c.state = 'issued')
			and not exists (select 1 from retentions r where r.document_id = d.id and r.released_by_id = x.id)`
	).map(
		({ number, release }) =>
			`${number}: ${release} releases what it held back, and it is called held`
	)
];

/** A stage is what its parts come to, and what its invoice bills of the job. */
export const wrongStages: Check = (file) => [
	...rowsOf<{ id: number; amount: number; parts: number }>(
		file,
		`select s.id, s.amount, coalesce((select sum(amount) from stage_parts p where p.stage_id = s.id), 0) as parts
		from stages s where s.state <> 'dropped'`
	)
		.filter(({ amount, parts }) => amount !== parts)
		.map(({ id, amount, parts }) => `stage ${id} is ${amount}, its parts come to ${parts}`),
	...rowsOf<{ number: string; amount: number; billed: number }>(
		file,
		`with ${TAKEN_BACK} select * from (
			select d.number, s.amount, (select sum(l.net) from document_lines l
					where l.document_id = d.id and l.job_id = s.job_id)
				- coalesce((select sum(t.freed) from taken_back t where t.document = d.id and t.job = s.job_id), 0) as billed
			from stages s join documents d on d.id = s.document_id where d.state = 'issued' and s.state <> 'dropped'
		) where billed <> amount`
	).map(({ number, amount, billed }) => `${number}: it bills ${billed} of a stage of ${amount}`)
];

/** Of no line, and of no invoice, more is credited than it billed. */
export const overcredited: Check = (file) => [
	...rowsOf<{ number: string; position: number }>(
		file,
		`select d.number, l.position from documents d join document_lines l on l.document_id = d.id join (
			select c.corrects_id as document, p.value ->> 'position' as position,
				sum(p.value ->> 'net') as net, sum(p.value ->> 'taxable') as taxable
			from documents c join json_each(c.frozen, '$.corrects.parts') p
			where c.state = 'issued' and c.corrects_id is not null group by 1, 2
		) x on x.document = d.id and x.position = l.position
		where abs(x.net) > abs(l.net) or abs(x.taxable) > abs(l.taxable) or x.net * l.net < 0`
	).map(
		({ number, position }) => `${number}: more of line ${position + 1} is credited than it billed`
	),
	...rowsOf<{ number: string; total: number; credited: number }>(
		file,
		`select d.number, d.total, x.total as credited from documents d join (
			select corrects_id as document, sum(total) as total, sum(vat_charged) as vat,
				sum(coalesce(deduction, 0)) as deduction
			from documents where state = 'issued' and corrects_id is not null group by corrects_id
		) x on x.document = d.id
		where x.total > d.total or (x.total = d.total and x.vat <> d.vat_charged)
			or (x.total = d.total and x.deduction <> coalesce(d.deduction, 0))`
	).map(
		({ number, total, credited }) =>
			`${number}: ${credited} of ${total} is credited, or with another VAT or deduction`
	)
];

/** What stands in place of an invoice takes all of that back. */
export const halfReplaced: Check = (file) =>
	rowsOf<{ number: string; of: string }>(
		file,
		`select d.number, x.number as "of" from documents d join documents x on x.id = d.about_id
		where d.state = 'issued' and d.origin = 'replacement' and x.total <> (
			select coalesce(sum(c.total), 0) from documents c where c.corrects_id = x.id and c.state = 'issued')`
	).map(({ number, of }) => `${number}: it stands in place of ${of}, which is not credited whole`);
