// People and firms as vCards (RFC 6350, and 2.1 and 3.0 as phones still write them), in and out.
import ICAL from 'ical.js';

/** A person or a firm of an address book. */
export interface Person {
	/** Where it stands in the file: the how-manieth card, the line of a CSV file. */
	row: number;
	/** The person's; of a firm without one the firm's. */
	name: string;
	organisation: string;
	/** The preferred one first. */
	emails: string[];
	phones: string[];
	address: string;
	note: string;
	/** Words it is grouped by. */
	labels: string[];
}

/** The cards of a file, and those that name nobody, with the reason. */
export function readCards(text: string): {
	people: Person[];
	leftOut: { row: number; why: string }[];
} {
	const people: Person[] = [];
	const leftOut: { row: number; why: string }[] = [];
	const parts = text.split(/^\s*BEGIN:VCARD[^\S\n]*$/im).slice(1);
	parts.forEach((part, index) => {
		const row = index + 1;
		const end = /^\s*END:VCARD\s*$/im.exec(part);
		const properties = propertiesOf(end ? part.slice(0, end.index) : part);
		if (!end) leftOut.push({ row, why: 'The card is cut off: its end is missing.' });
		else if (properties.find(({ name }) => name === 'kind')?.value.toLowerCase() === 'group')
			leftOut.push({ row, why: 'A group of others, nobody itself.' });
		else {
			const person = personOf(properties, row);
			if (person.name) people.push(person);
			else leftOut.push({ row, why: 'It names nobody.' });
		}
	});
	return { people, leftOut };
}

interface Property {
	name: string;
	/** What it is marked as, in small letters: `cell`, `work`, `pref`. */
	marks: string[];
	value: string;
	parts: string[];
}

/**
 * The properties of a card. Each is brought into the form of the standard and read by itself, so that an odd one is lost alone: version 2.1 writes
 * parameters without a name, and long or foreign text as quoted-printable over several lines.
 */
function propertiesOf(card: string): Property[] {
	// A line in its pieces: joined once, however many there are.
	const lines: { pieces: string[]; quoted: boolean }[] = [];
	for (const line of card.split(/\r\n|\n|\r/)) {
		const last = lines.at(-1);
		const before = last?.pieces.at(-1) ?? '';
		if (last?.quoted && before.endsWith('=')) {
			last.pieces[last.pieces.length - 1] = before.slice(0, -1);
			last.pieces.push(line.replace(/^[ \t]/, ''));
		} else if (last && /^[ \t]/.test(line)) last.pieces.push(line.slice(1));
		else if (line.trim() !== '')
			lines.push({
				pieces: [line],
				quoted: /^[^:]*;(?:ENCODING=)?QUOTED-PRINTABLE[;:]/i.test(line)
			});
	}
	return lines.flatMap(({ pieces }) => {
		const line = pieces.join('');
		// Pictures and sounds: nothing that is taken in here is as long.
		if (line.length > LONGEST) return [];
		try {
			return [propertyOf(line)].filter((one) => one !== null);
		} catch {
			return [];
		}
	});
}

const LONGEST = 100_000;

const KNOWN = /^(fn|n|org|email|tel|adr|note|kind|categories|nickname|x-company)$/;

function propertyOf(line: string): Property | null {
	const match = /^(?:[\w-]+\.)?([\w-]+)((?:;(?:"[^"]*"|[^":;])*)*):([\s\S]*)$/.exec(line);
	const name = match?.[1]?.toLowerCase() ?? '';
	if (!match || !KNOWN.test(name)) return null;
	const parameters = match[2]!
		.split(';')
		.slice(1)
		.map((one) => /^([\w-]+)=([\s\S]*)$/.exec(one.trim())?.slice(1) ?? ['TYPE', one.trim()]) as [
		string,
		string
	][];
	const given = (wanted: string) =>
		parameters
			.filter(([key]) => key.toUpperCase() === wanted)
			.map(([, value]) => value.replace(/^"|"$/g, ''));
	const marks = given('TYPE').flatMap((value) => value.toLowerCase().split(','));
	const preferred = given('PREF')[0];
	if (preferred !== undefined)
		marks.push(preferred === '' || Number(preferred) === 1 ? 'pref' : `pref${preferred}`);
	const encoded = [...given('ENCODING'), ...marks].some((one) => /^quoted-printable$/i.test(one));
	const value = encoded ? quotedPrintable(match[3]!, given('CHARSET')[0] ?? 'utf-8') : match[3]!;
	// The standard's own reader takes the value apart: escapes, lists, the parts of names and addresses.
	const property = ICAL.Property.fromString(
		`${name.toUpperCase()}:${value.replace(/\r?\n/g, '\\n')}`,
		ICAL.design.vcard
	);
	const parts = property
		.getValues()
		.flat(2)
		.map((part) => unescape(String(part ?? '')).trim());
	return { name, marks, parts, value: parts.filter(Boolean).join(name === 'org' ? ', ' : ' ') };
}

const unescape = (text: string) =>
	text.replace(/\\([,;nN\\])/g, (_, char: string) => (/n/i.test(char) ? '\n' : char));

function quotedPrintable(text: string, charset: string): string {
	const bytes = Array.from(text.matchAll(/=([0-9a-f]{2})|([\s\S])/gi), ([, code, char]) =>
		code === undefined ? [...new TextEncoder().encode(char)] : [parseInt(code, 16)]
	).flat();
	let decoder = new TextDecoder('utf-8');
	try {
		decoder = new TextDecoder(charset);
	} catch {
		// A name nobody knows: what phones write is the likeliest.
	}
	return decoder.decode(new Uint8Array(bytes));
}

/** Values of a name, the preferred one first and then as they stand. */
function ranked(properties: readonly Property[], name: string): string[] {
	const rank = ({ marks }: Property) => {
		const level = marks.map((mark) => /^pref(\d*)$/.exec(mark)).find(Boolean);
		return level ? Number(level[1] || 0) : 1000;
	};
	const values = properties
		.filter((one) => one.name === name)
		.sort((a, b) => rank(a) - rank(b))
		.map(({ value }) => value.replace(/^(tel|mailto):/i, '').trim())
		.filter(Boolean);
	return [...new Set(values)];
}

function personOf(properties: readonly Property[], row: number): Person {
	const first = (name: string) => properties.find((one) => one.name === name && one.value !== '');
	const [family = '', given = '', between = '', before = ''] = first('n')?.parts ?? [];
	const named = [before, given, between, family].filter(Boolean).join(' ');
	const organisation = first('org')?.value || first('x-company')?.value || '';
	const addresses = properties.filter((one) => one.name === 'adr' && one.value !== '');
	const address = addresses.find(({ marks }) => marks.includes('pref')) ?? addresses[0];
	return {
		row,
		name: first('fn')?.value || named || organisation || first('nickname')?.value || '',
		organisation,
		emails: ranked(properties, 'email'),
		phones: ranked(properties, 'tel'),
		address: (address?.parts ?? []).filter(Boolean).join('\n'),
		note: properties
			.filter((one) => one.name === 'note')
			.map(({ value }) => value)
			.filter(Boolean)
			.join('\n'),
		labels: properties
			.filter((one) => one.name === 'categories')
			.flatMap(({ parts }) => parts.filter(Boolean))
	};
}

/** What a card is written from. */
export interface Card {
	name: string;
	/** An organisation rather than a person. */
	firm: boolean;
	email: string;
	phone: string;
	address: string;
	/** A person at a firm. */
	contact: string;
}

const escape = (text: string) =>
	text.replace(/[\\,;]/g, (char) => `\\${char}`).replace(/\r?\n/g, '\\n');

/** Lines longer than 75 octets are folded (RFC 6350 3.2). */
function fold(line: string): string {
	const parts: string[] = [];
	let current = '';
	let bytes = 0;
	for (const char of line) {
		const size = new TextEncoder().encode(char).length;
		if (bytes + size > 74) {
			parts.push(current);
			current = ' ';
			bytes = 1;
		}
		current += char;
		bytes += size;
	}
	return [...parts, current].join('\r\n');
}

export function writeCard(card: Card): string {
	const lines = [
		'BEGIN:VCARD',
		'VERSION:4.0',
		`KIND:${card.firm ? 'org' : 'individual'}`,
		`FN:${escape(card.contact || card.name)}`,
		...(card.firm ? [`ORG:${escape(card.name)}`] : []),
		...(card.email ? [`EMAIL:${escape(card.email)}`] : []),
		...(card.phone ? [`TEL:${escape(card.phone)}`] : []),
		...(card.address ? [`ADR:;;${escape(card.address)};;;;`] : []),
		'END:VCARD'
	];
	return `${lines.map(fold).join('\r\n')}\r\n`;
}
