// Customers as files, in and out: CSV with columns found by looking at it, and vCards. Looked through, then written.
import { must } from '../../actor';
import { and, asc, eq, gt, isNull } from 'drizzle-orm';
import { stringify } from 'csv-stringify/sync';
import { z } from 'zod';
import { readContacts } from '../../../core/formats/contacts';
import { TableError } from '../../../core/formats/table';
import { writeCard } from '../../../core/formats/vcard';
import { CUSTOMER_KINDS, type CustomerKind } from '../../../core/regimes/types';
import { writeAtOnce } from '../../db/connection';
import { contacts, customers } from '../../db/schema';
import type { World } from '../../world';
import { FieldError } from '../../../core/refusals';
import { safeCell } from '../../../core/formats/cells';

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

function read(bytes: Uint8Array): {
	incoming: Incoming[];
	leftOut: { row: number; why: string }[];
} {
	const { people, leftOut } = readContacts(bytes);
	return {
		leftOut,
		incoming: people.map((one) => ({
			line: one.row,
			name: one.organisation || one.name,
			kind: CUSTOMER_KINDS.find((kind) => kind === one.kind) ?? 'household',
			email: one.emails[0] ?? '',
			phone: one.phones[0] ?? '',
			address: one.address,
			labels: one.labels.map((label) => label.slice(0, 40)),
			// A customer has one number and one address for mail; the others are not lost.
			privateNote: [
				one.note,
				...[...one.emails.slice(1), ...one.phones.slice(1)].map((other) => `Also: ${other}`)
			]
				.filter(Boolean)
				.join('\n'),
			contact: one.organisation && one.name !== one.organisation ? one.name : ''
		}))
	};
}

interface Planned {
	report: CustomerImportRow;
	/** Null for what is nobody. */
	values: Incoming | null;
}

function plan(world: World, bytes: Uint8Array): Planned[] {
	let file: ReturnType<typeof read>;
	try {
		file = read(bytes);
	} catch (error) {
		if (error instanceof TableError) throw new FieldError({ file: error.message });
		throw error;
	}
	const { incoming } = file;
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
	const planned = incoming.map((values): Planned => {
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
	const nobody = file.leftOut.map(({ row, why }): Planned => ({
		values: null,
		report: { line: row, name: '', outcome: 'wrong', detail: why }
	}));
	return [...planned, ...nobody].sort((a, b) => a.report.line - b.report.line);
}

/** What the file would bring. @throws FieldError */
export function previewCustomers(world: World, bytes: Uint8Array): CustomerImportRow[] {
	return plan(world, bytes).map(({ report }) => report);
}

/** Brings in whoever is not here yet, all or nothing. The same file again brings nobody. @throws FieldError */
export function importCustomers(world: World, bytes: Uint8Array): CustomerImportRow[] {
	must('work');
	const now = world.clock.now();
	return writeAtOnce(world.db, (tx) => {
		const planned = plan(world, bytes);
		for (const { report, values } of planned) {
			if (report.outcome !== 'new' || !values) continue;
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

/** So many are read at a time: whoever asks for something else meanwhile waits for no more. */
const AT_ONCE = 100;

function* everyone({ db }: Pick<World, 'db'>) {
	const { id, name, kind, email, phone, address, labels, privateNote } = customers;
	let after = 0;
	for (;;) {
		const rows = db
			.select({ id, name, kind, email, phone, address, labels, privateNote })
			.from(customers)
			.where(and(gt(customers.id, after), isNull(customers.archivedAt)))
			.orderBy(asc(customers.id))
			.limit(AT_ONCE)
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

/** Cards of all, or of the one that is named. */
export function* exportCards(world: Pick<World, 'db'>, only?: number): Generator<string> {
	for (const rows of everyone(world))
		for (const row of rows) {
			if (only !== undefined && row.id !== only) continue;
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
