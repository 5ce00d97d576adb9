// Jobs brought in from a CSV file: looked through first, written when confirmed, all or nothing.
import { must } from '../../actor';
import { asc, eq, sql } from 'drizzle-orm';
import { readTypedDate } from '../../../core/calendar/conversion';
import { readFields, TableError, type Column } from '../../../core/formats/table';
import { readTypedNumber } from '../../../core/money/typed';
import { FieldError } from '../../../core/refusals';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { jobs, sites } from '../../db/schema';
import type { World } from '../../world';
import { addNamed, customersByName, nameOf, unknownName } from '../customers/byName';
import { rowKeys } from '../business/keys';
import { beginForm, beginOnce } from './begin';

const COLUMNS = [
	{
		field: 'customer',
		label: 'Customer',
		names: ['customer', 'client', 'name', 'customer name', 'client name', 'company'],
		required: true
	},
	{
		field: 'title',
		label: 'Title',
		names: ['title', 'job', 'job title', 'work', 'job name', 'what', 'subject'],
		required: true
	},
	{ field: 'day', label: 'Day', names: ['day', 'date', 'visit', 'start', 'start date', 'booked'] },
	{ field: 'from', label: 'Time', names: ['time', 'from', 'start time', 'at'] },
	{
		field: 'price',
		label: 'Price',
		names: ['price', 'amount', 'agreed', 'total', 'value', 'agreed price']
	},
	{ field: 'site', label: 'Site', names: ['site', 'property', 'site name', 'where'] },
	{ field: 'description', label: 'Description', names: ['description', 'details', 'about'] },
	{ field: 'note', label: 'Private note', names: ['private note', 'note', 'notes', 'comment'] },
	{ field: 'labels', label: 'Labels', names: ['labels', 'tags'] }
] as const satisfies readonly Column<string>[];
type Field = (typeof COLUMNS)[number]['field'];

export interface JobImportRow {
	line: number;
	name: string;
	outcome: 'new' | 'same' | 'wrong';
	detail: string;
}

interface Planned {
	report: JobImportRow;
	key: string;
	customer: string;
	customerId: number | undefined;
	values: Record<Field, string>;
}

/** @throws FieldError at `file` where it cannot be read as a table of jobs */
function readRows(bytes: Uint8Array): { line: number; values: Record<Field, string> }[] {
	try {
		return readFields<Field>(bytes, COLUMNS).rows;
	} catch (error) {
		if (error instanceof TableError) throw new FieldError({ file: error.message });
		throw error;
	}
}

function plan(db: Reader, bytes: Uint8Array, today: string, addCustomers: boolean): Planned[] {
	const known = customersByName(db);
	const brought = new Map(
		db
			.select({ key: jobs.key, number: jobs.number })
			.from(jobs)
			.where(sql`${jobs.key} glob 'file:*'`)
			.all()
			.map(({ key, number }) => [key, number])
	);
	const keyOf = rowKeys('file');
	return readRows(bytes).map(({ line, values }) => {
		const key = keyOf([values.customer, values.title, values.day, values.price].map(nameOf));
		const found = known.get(nameOf(values.customer)) ?? [];
		const here = brought.get(key);
		const problem = here
			? ''
			: problemOf(values, found.length, today, addCustomers) ||
				(found.length && values.site && siteOf(db, found[0]!.id, values.site) === null
					? `${values.customer} has no site called “${values.site.slice(0, 40)}”.`
					: '');
		return {
			key,
			customer: values.customer,
			customerId: found[0]?.id,
			values,
			report: {
				line,
				name: values.title,
				outcome: here ? 'same' : problem ? 'wrong' : 'new',
				detail:
					problem ||
					(here
						? `is here already as ${here}`
						: found.length
							? values.customer
							: `${values.customer}, a new customer`)
			}
		};
	});
}

/** Why a row cannot be taken in; empty where it can. */
function problemOf(
	values: Record<Field, string>,
	found: number,
	today: string,
	addCustomers: boolean
): string {
	if (values.customer === '') return 'It names no customer.';
	if (values.title === '') return 'It has no title.';
	if (values.title.length > 200) return 'Its title is longer than 200 characters.';
	if (values.customer.length > 300) return 'The customer’s name is too long.';
	const unknown = unknownName(values.customer, found, addCustomers);
	if (unknown) return unknown;
	if (values.day && readTypedDate(values.day, today) === null)
		return `“${values.day.slice(0, 30)}” is no day. Write it as 3 Nov 2026.`;
	if (values.price && !readTypedNumber(values.price, { decimals: 4 }).ok)
		return `“${values.price.slice(0, 30)}” is no price.`;
	if (!beginForm.shape.from.safeParse(values.from).success)
		return `“${values.from.slice(0, 30)}” is no time. Write it as 09:30.`;
	return '';
}

/** What the file would bring. @throws FieldError */
export function previewJobs(
	world: World,
	bytes: Uint8Array,
	addCustomers: boolean
): JobImportRow[] {
	return plan(world.db, bytes, world.clock.today(), addCustomers).map(({ report }) => report);
}

/**
 * Begins the jobs that are not here yet, each with its visit and its price; whoever is not a customer yet becomes one
 * where that is wanted, as a household. The same file again begins none. @throws FieldError
 */
export function importJobs(world: World, bytes: Uint8Array, addCustomers: boolean): JobImportRow[] {
	must('work');
	const today = world.clock.today();
	return writeAtOnce(world.db, (tx) => {
		const planned = plan(tx, bytes, today, addCustomers);
		const added = new Map<string, number>();
		for (const { report, key, customer, customerId, values } of planned) {
			if (report.outcome !== 'new') continue;
			const name = nameOf(customer);
			const id = customerId ?? added.get(name) ?? addNamed(tx, world, customer);
			added.set(name, id);
			const form = beginForm.parse({
				title: values.title,
				customerId: id,
				siteId: values.site ? (siteOf(tx, id, values.site) ?? addSite(tx, id, values.site)) : null,
				description: values.description.slice(0, 10_000),
				privateNote: values.note.slice(0, 10_000),
				labels: values.labels
					.split(/[;,]/)
					.map((label) => label.trim().slice(0, 40))
					.filter(Boolean),
				day: values.day && readTypedDate(values.day, today),
				from: values.from,
				price: values.price
			});
			beginOnce(tx, world, key, form, 'booked');
		}
		return planned.map(({ report }) => report);
	});
}

/** A new customer's site. */
const addSite = (tx: Transaction, customerId: number, name: string): number =>
	tx
		.insert(sites)
		.values({ customerId, name: name.slice(0, 200) })
		.returning({ id: sites.id })
		.get().id;

/** The customer's site of that name; none where it has no such site. */
function siteOf(db: Reader, customerId: number, name: string): number | null {
	const own = db
		.select({ id: sites.id, name: sites.name })
		.from(sites)
		.where(eq(sites.customerId, customerId))
		.orderBy(asc(sites.id))
		.all();
	return own.find((one) => nameOf(one.name) === nameOf(name))?.id ?? null;
}
