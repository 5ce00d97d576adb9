// Where the list of invoices finds its fields.
import { sql, type SQL } from 'drizzle-orm';
import { addDays } from '../../../../core/calendar/manipulation';
import { INVOICES } from '../../../../core/lists/invoices';
import type { Filter } from '../../../../core/lists/types';
import { REACHED } from '../../trail/documents';
import { searchExpression } from '../../trail/search';
import { named, type ListSource } from './where';

/** Said as it stands in the partial index of what is open, which a bound value would not match. */
const OPEN = sql`o.state in ('open', 'partPaid')`;

const ITEM_STATES = ['open', 'partPaid', 'paid', 'credited', 'writtenOff'];

function stateIs(value: string): SQL {
	const states = value.split(',');
	const items = ITEM_STATES.filter((state) => states.includes(state));
	const found = [
		...(states.includes('draft') ? [sql`d.state = 'draft'`] : []),
		...(states.includes('creditNote') ? [sql`(d.kind = 'creditNote' and d.state = 'issued')`] : []),
		...(items.length ? [sql.raw(`o.state in (${items.map((one) => `'${one}'`).join(', ')})`)] : [])
	];
	return found.length === 1 ? found[0]! : sql`(${sql.join(found, sql` or `)})`;
}

/** The newest moment of the trail at which one of these happened. */
const lastOf = (...whats: string[]) =>
	sql`(select max(t.at) from trail t where t.document_id = d.id and t.what in (${sql.join(
		whats.map((what) => sql`${what}`),
		sql`, `
	)}))`;

const holdOf = (kind: string, column: SQL) =>
	sql`(select ${column} from holds h where h.document_id = d.id and h.kind = ${kind} and h.ended_at is null limit 1)`;

/** What its lines say, each once. */
const tagsOfLines = (tag: 'income' | 'centre') =>
	sql`(select group_concat(distinct json_extract(j.value, ${`$.${tag}`})) from json_each(d.sheet, '$.rows') j)`;

const signed = (amount: SQL) =>
	sql`case when d.kind = 'creditNote' then -${amount} else ${amount} end`;

export const INVOICE_LIST: ListSource = {
	spec: INVOICES,
	from: sql`documents d left join open_items o on o.document_id = d.id left join customers c on c.id = d.customer_id left join work_kinds w on w.id = d.work_kind_id`,
	id: sql`d.id`,
	base: sql`d.state <> 'discarded'`,
	fields: {
		customer: () => sql`d.customer_name`,
		number: () => sql`d.number`,
		kind: () => sql`d.kind`,
		state: () =>
			sql`case when d.state = 'draft' then 'draft' when d.kind = 'creditNote' then 'creditNote' else o.state end`,
		issued: () => sql`d.issue_date`,
		due: () => sql`o.due_date`,
		late: ({ today }) =>
			sql`case when ${OPEN} and o.due_date < ${today} then cast(julianday(${today}) - julianday(o.due_date) as integer) end`,
		total: () => signed(sql`d.total_sterling`),
		open: () => sql`o.outstanding_sterling`,
		toPay: () => sql`o.to_pay_sterling`,
		money: () =>
			sql`case when d.currency = 'GBP' then '' else printf('%.2f', d.total / 100.0) || ' ' || d.currency end`,
		paidOn: () => sql`case when o.state = 'paid' then o.settled_on end`,
		settled: () =>
			sql`case when o.document_id is null then '' else round(100.0 * (d.total - o.outstanding) / max(d.total, 1)) || ' %' end`,
		sent: () => sql`coalesce(o.reached, ${lastOf(...REACHED)} is not null)`,
		opened: () => lastOf('opened', 'reminderOpened'),
		reminded: () => lastOf('reminded'),
		disputed: () => sql`${holdOf('dispute', sql`1`)} is not null`,
		promised: () => holdOf('promise', sql`h.until`),
		workKind: () => sql`coalesce(json_extract(d.frozen, '$.workKind.name'), w.name)`,
		income: () => tagsOfLines('income'),
		centre: () => tagsOfLines('centre'),
		label: () =>
			sql`(select group_concat(l.label, ', ') from document_labels l where l.document_id = d.id)`,
		customerLabel: () => sql`(select group_concat(j.value, ', ') from json_each(c.labels) j)`,
		reference: () => sql`json_extract(d.sheet, '$.reference')`,
		order: () => sql`json_extract(d.sheet, '$.orderNumber')`,
		selfBilled: () => sql`json_extract(d.sheet, '$.selfBilled') is not null`
	},
	order: { issued: sql`d.sort_date`, total: signed(sql`d.total_sterling`) },
	// What is open has a day it is due, and an index by it.
	indexedFor: ({ sort, filters }) =>
		sort.field === 'due' &&
		filters.some(
			({ field, how, value }) =>
				field === 'late' ||
				(field === 'state' &&
					how === 'is' &&
					value.split(',').every((state) => state === 'open' || state === 'partPaid'))
		)
			? {
					key: sql`o.due_date`,
					id: sql`o.document_id`,
					from: sql`open_items o indexed by open_items_open join documents d on d.id = o.document_id left join customers c on c.id = d.customer_id left join work_kinds w on w.id = d.work_kind_id`,
					base: OPEN
				}
			: null,
	asked: {
		state: ({ how, value }: Filter) =>
			how === 'is' ? stateIs(value) : sql`not coalesce(${stateIs(value)}, 0)`,
		late: ({ how, value }, { today }) =>
			how === 'least'
				? sql`(${OPEN} and o.due_date <= ${addDays(today, -Number(value))})`
				: sql`(${OPEN} and o.due_date >= ${addDays(today, -Number(value))})`
	},
	search: (typed) => {
		const expression = searchExpression(typed);
		return expression === null
			? null
			: sql`d.id in (select rowid from document_search where document_search match ${expression})`;
	},
	href: (id) => `/billing/${id}`,
	names: named(
		'documents',
		sql`coalesce(number, 'Draft') || ', ' || coalesce(nullif(customer_name, ''), 'no customer yet')`
	),
	more: {
		kind: () => sql`d.kind`,
		state: () => sql`d.state`,
		customer: () => sql`d.customer_name`,
		number: () => sql`d.number`,
		due: () => sql`o.due_date`,
		total: () => sql`d.total`,
		currency: () => sql`d.currency`,
		cash: () => sql`o.cash`,
		withheld: () => sql`o.withheld`,
		credited: () => sql`o.credited`,
		writtenOff: () => sql`o.written_off`,
		outstanding: () => sql`o.outstanding`,
		toPay: () => sql`o.to_pay`,
		toPaySterling: () => sql`o.to_pay_sterling`,
		settlement: () => sql`o.state`,
		settledOn: () => sql`o.settled_on`,
		mailTrouble: () =>
			sql`exists (select 1 from mails m where m.document_id = d.id and m.state in ('failed', 'unsure'))`
	}
};
