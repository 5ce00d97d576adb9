// People and firms as vCards (RFC 6350, and 2.1 and 3.0 as phones still write them), in and out.
import ICAL from 'ical.js';

export interface Card {
	name: string;
	/** An organisation rather than a person. */
	firm: boolean;
	email: string;
	phone: string;
	address: string;
	note: string;
	/** A person at a firm. */
	contact: string;
}

/** The cards of a file. What is no card is left out; a file with none gives none. */
export function readCards(text: string): Card[] {
	const parts = text.split(/(?=BEGIN:VCARD)/i).filter((part) => /^BEGIN:VCARD/i.test(part));
	return parts.flatMap((part) => {
		try {
			const end = /END:VCARD/i.exec(part);
			if (!end) return [];
			const body = part.slice(0, end.index) + 'END:VCARD';
			const component = new ICAL.Component(ICAL.parse(body) as never);
			return [cardOf(component)].filter((card) => card.name !== '');
		} catch {
			return [];
		}
	});
}

type Component = InstanceType<typeof ICAL.Component>;

function textOf(component: Component, name: string): string {
	const value = component.getFirstPropertyValue(name);
	const flat = Array.isArray(value) ? value.flat().join(' ') : String(value ?? '');
	return flat.replace(/\\([,;nN\\])/g, (_, char: string) => (/n/i.test(char) ? '\n' : char)).trim();
}

function cardOf(component: Component): Card {
	const formatted = textOf(component, 'fn');
	const parts = component.getFirstPropertyValue('n');
	const named = Array.isArray(parts)
		? [parts[3], parts[1], parts[2], parts[0]].flat().filter(Boolean).join(' ').trim()
		: '';
	const person = formatted || named;
	const organisation = textOf(component, 'org').replace(/;+/g, ' ').trim();
	const firm = organisation !== '' || textOf(component, 'kind').toLowerCase() === 'org';
	const address = component.getFirstPropertyValue('adr');
	return {
		name: (firm && organisation) || person,
		firm,
		email: textOf(component, 'email'),
		phone: textOf(component, 'tel').replace(/^tel:/i, ''),
		address: (Array.isArray(address) ? address.flat() : [])
			.map((line) => String(line).trim())
			.filter(Boolean)
			.join('\n'),
		note: textOf(component, 'note'),
		contact: firm && organisation && person !== organisation ? person : ''
	};
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

export function writeCard(card: Omit<Card, 'note'>): string {
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
