// Address books as people: vCards, and CSV files of phones, mail programs and spreadsheets.
import { uncoverCell } from './cells';
import { matchColumns, plain, readTable, TableError, type Column } from './table';
import { decode } from './text';
import { unreadable } from './kinds';
import { readCards, type Person } from './vcard';

export interface AddressBook {
	format: 'vcard' | 'csv';
	encoding: string;
	people: (Person & { kind: string })[];
	/** What is nobody, with the reason. */
	leftOut: { row: number; why: string }[];
}

type Field =
	| 'name'
	| 'given'
	| 'family'
	| 'organisation'
	| 'kind'
	| 'address'
	| 'street'
	| 'street2'
	| 'town'
	| 'county'
	| 'postcode'
	| 'country'
	| 'labels'
	| 'note';

const COLUMNS: Column<Field>[] = [
	{ field: 'given', names: ['first name', 'given name', 'forename', 'firstname'] },
	{ field: 'family', names: ['last name', 'family name', 'surname', 'lastname'] },
	{
		field: 'organisation',
		names: [
			'company',
			'organisation',
			'organization',
			'company name',
			'organisation name',
			'organization name',
			'firm',
			'business name',
			'business'
		],
		not: /title|department|type|phone|street|city|postal|country|state|fax|address|job|mail|phonetic/
	},
	{
		field: 'name',
		names: [
			'name',
			'full name',
			'display name',
			'customer',
			'customer name',
			'client',
			'contact',
			'contact name'
		],
		not: /middle|nick|file|user|phonetic|suffix|prefix|type|mail|phone|account|bank|pronunciation|spouse|manager|assistant/
	},
	{
		field: 'kind',
		names: ['kind', 'type'],
		not: /phone|mail|address|relation|event|website|label/
	},
	{
		field: 'street',
		names: [
			'address line 1',
			'address 1',
			'street',
			'home street',
			'business street',
			'street address',
			'address 1 street',
			'line 1'
		],
		not: /2|3|mail|web/
	},
	{
		field: 'street2',
		names: [
			'address line 2',
			'address 2',
			'street 2',
			'home street 2',
			'business street 2',
			'line 2',
			'extended address'
		],
		not: /mail|web/
	},
	{
		field: 'town',
		names: ['town', 'city', 'home city', 'business city', 'address 1 city', 'post town', 'locality']
	},
	{
		field: 'county',
		names: ['county', 'region', 'home state', 'business state', 'address 1 region', 'state']
	},
	{
		field: 'postcode',
		names: [
			'postcode',
			'post code',
			'postal code',
			'zip',
			'zip code',
			'home postal code',
			'business postal code',
			'address 1 postal code'
		]
	},
	{
		field: 'country',
		names: ['country', 'home country', 'business country', 'address 1 country'],
		not: /code/
	},
	{
		field: 'address',
		names: [
			'address',
			'home address',
			'business address',
			'postal address',
			'billing address',
			'address 1 formatted',
			'mailing address'
		],
		not: /\b(e ?)?mail\b|web|type|line|ip|label|\b\d\b (street|city|type|po)/
	},
	{
		field: 'labels',
		names: ['labels', 'tags', 'groups', 'group membership', 'categories', 'group']
	},
	{ field: 'note', names: ['private note', 'note', 'notes', 'comment', 'comments', 'remarks'] }
];

/** Columns of which an address book may have several, in the order in which they count. */
const EMAIL = /\b(e ?mail|mail address|mail)\b/;
const PHONE = /\b(phone|telephone|tel|mobile|cell|landline)\b/;
const NOT_A_VALUE =
	/type|label|display name|fax|pager|provider|street|city|opt|consent|telex|callback|isdn|radio|tty|car\b/;

/** How an address book is written: what it is read as, before anybody in it is looked at. */
export function contactsWrittenAs(
	bytes: Uint8Array
): Pick<AddressBook, 'format' | 'encoding'> & { text: string } {
	const { text, encoding } = decode(bytes);
	const cards = /^\s*BEGIN:VCARD/im.test(text.slice(0, 4000));
	return { format: cards ? 'vcard' : 'csv', encoding, text };
}

/**
 * The people of an address book.
 * @throws TableError with words for the person, where it is none
 */
export function readContacts(bytes: Uint8Array): AddressBook {
	if (bytes.length === 0) throw new TableError('The file is empty.');
	const packed = unreadable.binary(bytes);
	if (packed)
		throw new TableError(packed.replace(/Ask your bank.*$/, 'Save the addresses as CSV or vCard.'));
	const { format, encoding, text } = contactsWrittenAs(bytes);
	if (format === 'vcard') {
		const { people, leftOut } = readCards(text);
		return {
			format,
			encoding,
			people: people.map((one) => ({ ...one, kind: one.organisation ? 'business' : 'household' })),
			leftOut
		};
	}
	return { format, encoding, ...fromTable(bytes) };
}

function fromTable(bytes: Uint8Array): Pick<AddressBook, 'people' | 'leftOut'> {
	const table = readTable(bytes);
	const at = matchColumns<Field>(table.headings, COLUMNS);
	if (
		at.name === undefined &&
		at.organisation === undefined &&
		at.given === undefined &&
		at.family === undefined
	)
		throw new TableError('No column looks like a name. Give its heading the word “name”.');
	const several = (what: RegExp) =>
		table.headings.flatMap((heading, index) =>
			what.test(plain(heading)) && !NOT_A_VALUE.test(plain(heading)) ? [index] : []
		);
	const emails = several(EMAIL);
	const phones = several(PHONE).filter((index) => !emails.includes(index));
	const people: AddressBook['people'] = [];
	const leftOut: AddressBook['leftOut'] = [];
	for (const { line, cells } of table.rows) {
		const cell = (field: Field) =>
			at[field] === undefined ? '' : uncoverCell(cells[at[field]] ?? '').trim();
		const values = (columns: readonly number[]) => [
			...new Set(
				columns
					// Several in one cell stand apart by a mark of their own.
					.flatMap((index) => uncoverCell(cells[index] ?? '').split(/ ::: |;/))
					.map((value) => value.trim())
					.filter(Boolean)
			)
		];
		const parts = [cell('given'), cell('family')].filter(Boolean).join(' ');
		const organisation = cell('organisation');
		const name = cell('name') || parts || organisation;
		if (!name) {
			leftOut.push({ row: line, why: 'It names nobody.' });
			continue;
		}
		const lines = ['street', 'street2', 'town', 'county', 'postcode', 'country'].map((field) =>
			cell(field as Field)
		);
		const whole = cell('address');
		people.push({
			row: line,
			name,
			organisation,
			emails: values(emails),
			phones: values(phones),
			address: [whole, ...lines.filter((one) => one && !whole.includes(one))]
				.filter(Boolean)
				.join('\n'),
			note: cell('note'),
			labels: cell('labels')
				.split(/ ::: |[;,]/)
				.map((label) => label.replace(/^\*\s*/, '').trim())
				.filter(Boolean),
			kind: cell('kind').toLowerCase() || (organisation ? 'business' : 'household')
		});
	}
	return { people, leftOut };
}
