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
		) x on x.document = d.id where d.state = 'issued' and x.amount <> coalesce((
			select sum(case d.kind when 'invoice' then -l.amount else l.amount end) from journal_lines l
			where l.document_id = d.id and l.job_id = x.job and l.account = 'sales'), 0)`
	).map(({ number, job }) => `${number}: its sales for job ${job} are not in the journal`);

/** What is held is what the invoice's lines held, job by job, and what releases it says so and is issued. */
export const wrongRetentions: Check = (file) => [
	...rowsOf<{ number: string; held: number; lines: number }>(
		file,
		`select d.number, r.amount as held, coalesce((select sum(retention) from document_lines l
			where l.document_id = d.id and l.job_id is r.job_id), 0) as lines
		from retentions r join documents d on d.id = r.document_id`
	)
		.filter(({ held, lines }) => held !== lines)
		.map(({ number, held, lines }) => `${number}: ${held} is held, its lines say ${lines}`),
	...rowsOf<{ number: string }>(
		file,
		`select distinct d.number from document_lines l join documents d on d.id = l.document_id
		where l.retention <> 0 and d.kind = 'invoice' and d.state = 'issued'
			and not exists (select 1 from retentions r where r.document_id = d.id and r.job_id is l.job_id)
			and not exists (select 1 from documents c where c.corrects_id = d.id and c.state = 'issued')`
	).map(({ number }) => `${number}: what it held back stands nowhere`),
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
			and not exists (select 1 from documents c where c.corrects_id = x.id and c.state = 'issued')
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
		`select d.number, s.amount, sum(l.net) as billed from stages s join documents d on d.id = s.document_id
		join document_lines l on l.document_id = d.id and l.job_id = s.job_id
		where d.state = 'issued' and s.state <> 'dropped' group by s.id having sum(l.net) <> s.amount`
	).map(({ number, amount, billed }) => `${number}: it bills ${billed} of a stage of ${amount}`)
];
