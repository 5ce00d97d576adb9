// Customers as files, in and out: CSV with columns found by looking at it, and vCards. Looked through, then written.
import { and, asc, eq, gt, isNull } from 'drizzle-orm';
import { stringify } from 'csv-stringify/sync';
import { z } from 'zod';
import { matchColumns, readTable, TableError, type Column } from '../../../core/formats/table';
import { readCards, writeCard } from '../../../core/formats/vcard';
import { CUSTOMER_KINDS, type CustomerKind } from '../../../core/regimes/types';
import { writeAtOnce } from '../../db/connection';
import { contacts, customers } from '../../db/schema';
import type { World } from '../../world';
import { FieldError } from '../../../core/refusals';
import { safeCell, uncoverCell } from '../../../core/formats/cells';

const COLUMNS = [
	{
		field: 'name',
		label: 'Name',
		names: [
			'name',
			'customer',
			'company',
			'organisation',
			'organization',
			'firm',
			'full name',
			'display name'
		],
		required: true
	},
	{ field: 'kind', label: 'Kind', names: ['kind', 'type'] },
	{
		field: 'email',
		label: 'E-mail',
		names: ['mail', 'email', 'e mail', 'mail address', 'email address']
	},
	{
		field: 'phone',
		label: 'Phone',
		names: ['phone', 'telephone', 'tel', 'mobile', 'phone number']
	},
	{
		field: 'address',
		label: 'Address',
		names: ['address', 'street', 'address line 1', 'billing address']
	},
	{ field: 'town', label: 'Town', names: ['town', 'city', 'address line 2'] },
	{ field: 'postcode', label: 'Postcode', names: ['postcode', 'post code', 'zip', 'postal code'] },
	{ field: 'labels', label: 'Labels', names: ['labels', 'tags', 'groups'] },
	{ field: 'note', label: 'Private note', names: ['private note', 'note', 'notes', 'comment'] }
] as const satisfies readonly Column<string>[];
type Field = (typeof COLUMNS)[number]['field'];

interface Incoming {
	line: number;
	name: string;
	kind: CustomerKind;
	email: string;
	phone: string;
	address: string;
	labels: string[];
	privateNote: string;
	contact: string;
}

export interface CustomerImportRow {
	line: number;
	name: string;
	outcome: 'new' | 'same' | 'wrong';
	detail: string;
}

function read(bytes: Uint8Array): Incoming[] {
	const head = new TextDecoder().decode(bytes.slice(0, 400));
	if (/BEGIN:VCARD/i.test(head)) {
		return readCards(new TextDecoder().decode(bytes)).map((card, index) => ({
			line: index + 1,
			name: card.name,
			kind: card.firm ? 'business' : 'household',
			email: card.email,
			phone: card.phone,
			address: card.address,
			labels: [],
			privateNote: card.note,
			contact: card.contact
		}));
	}
	const table = readTable(bytes);
	const at = matchColumns<Field>(table.headings, COLUMNS);
	if (at.name === undefined)
		throw new TableError('No column looks like a name. Give its heading the word “name”.');
	return table.rows.map(({ line, cells }) => {
		const cell = (field: Field) => {
			const index = at[field];
			return index === undefined ? '' : uncoverCell(cells[index] ?? '');
		};
		const kind = cell('kind').toLowerCase();
		return {
			line,
			name: cell('name'),
			kind: CUSTOMER_KINDS.find((one) => one === kind) ?? 'household',
			email: cell('email'),
			phone: cell('phone'),
			address: [cell('address'), cell('town'), cell('postcode')].filter(Boolean).join('\n'),
			labels: cell('labels')
				.split(/[;,]/)
				.map((label) => label.trim().slice(0, 40))
				.filter(Boolean),
			privateNote: cell('note'),
			contact: ''
		};
	});
}

interface Planned {
	report: CustomerImportRow;
	values: Incoming;
}

function plan(world: World, bytes: Uint8Array): Planned[] {
	let incoming: Incoming[];
	try {
		incoming = read(bytes);
	} catch (error) {
		if (error instanceof TableError) throw new FieldError({ file: error.message });
		throw error;
	}
	if (incoming.length === 0) throw new FieldError({ file: 'There is nobody in this file.' });
	const key = (name: string, email: string) =>
		`${name.trim().toLowerCase()}\n${email.trim().toLowerCase()}`;
	const known = new Set(
		world.db
			.select({ name: customers.name, email: customers.email })
			.from(customers)
			.all()
			.map((row) => key(row.name, row.email))
	);
	return incoming.map((values) => {
		const problem =
			values.name.trim() === ''
				? 'It has no name.'
				: values.name.length > 300 || values.address.length > 1000
					? 'Its name or address is too long.'
					: values.email && !z.email().safeParse(values.email).success
						? `“${values.email.slice(0, 60)}” is no e-mail address.`
						: '';
		const there = known.has(key(values.name, values.email));
		if (!problem) known.add(key(values.name, values.email));
		return {
			values,
			report: {
				line: values.line,
				name: values.name,
				outcome: problem ? 'wrong' : there ? 'same' : 'new',
				detail: problem || (there ? 'is here already' : values.kind)
			}
		};
	});
}

/** What the file would bring. @throws FieldError */
export function previewCustomers(world: World, bytes: Uint8Array): CustomerImportRow[] {
	return plan(world, bytes).map(({ report }) => report);
}

/** Brings in whoever is not here yet, all or nothing. The same file again brings nobody. @throws FieldError */
export function importCustomers(world: World, bytes: Uint8Array): CustomerImportRow[] {
	const now = world.clock.now();
	return writeAtOnce(world.db, (tx) => {
		const planned = plan(world, bytes);
		for (const { report, values } of planned) {
			if (report.outcome !== 'new') continue;
			const { line: _line, contact, ...columns } = values;
			const { id } = tx
				.insert(customers)
				.values({
					...columns,
					name: columns.name.trim(),
					phone: columns.phone.slice(0, 50),
					privateNote: columns.privateNote.slice(0, 10_000),
					createdAt: now,
					updatedAt: now
				})
				.returning({ id: customers.id })
				.get();
			if (contact)
				tx.insert(contacts)
					.values({ customerId: id, name: contact.slice(0, 200) })
					.run();
		}
		return planned.map(({ report }) => report);
	});
}

function* everyone(world: World) {
	let after = 0;
	for (;;) {
		const rows = world.db
			.select()
			.from(customers)
			.where(and(gt(customers.id, after), isNull(customers.archivedAt)))
			.orderBy(asc(customers.id))
			.limit(500)
			.all();
		if (rows.length === 0) return;
		after = rows.at(-1)!.id;
		yield rows;
	}
}

export function* exportCustomers(world: World): Generator<string> {
	yield stringify([['Name', 'Kind', 'E-mail', 'Phone', 'Address', 'Labels', 'Private note']]);
	for (const rows of everyone(world))
		yield stringify(
			rows.map((row) =>
				[
					row.name,
					row.kind,
					row.email,
					row.phone,
					row.address,
					row.labels.join('; '),
					row.privateNote
				].map(safeCell)
			)
		);
}

export function* exportCards(world: World): Generator<string> {
	for (const rows of everyone(world))
		for (const row of rows) {
			const person = world.db.select().from(contacts).where(eq(contacts.customerId, row.id)).get();
			yield writeCard({
				name: row.name,
				firm: row.kind !== 'household',
				email: row.email,
				phone: row.phone,
				address: row.address,
				contact: person?.name ?? ''
			});
		}
}
