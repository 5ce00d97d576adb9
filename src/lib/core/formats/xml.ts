// XML from outside, read without ever following what it points to.
import { XMLParser } from 'fast-xml-parser';
import { TableError } from './table';

const LARGEST = 25 * 1024 * 1024;

const parser = new XMLParser({
	ignoreAttributes: false,
	attributeNamePrefix: '@',
	removeNSPrefix: true,
	parseTagValue: false,
	parseAttributeValue: false,
	trimValues: true,
	// Entities could point outside or grow without end: none is expanded, the five of XML itself are read below.
	processEntities: false
});

/** @throws TableError for what is no XML, or declares entities. */
export function readXml(text: string): Record<string, unknown> {
	if (text.length > LARGEST) throw new TableError('The file is larger than 25 MB: split it.');
	if (/<!DOCTYPE|<!ENTITY/i.test(text))
		throw new TableError(
			'The file declares entities of its own, which no bank does. It was not read.'
		);
	try {
		return parser.parse(text, true) as Record<string, unknown>;
	} catch {
		throw new TableError('The file is cut off, or is no XML.');
	}
}

const ENTITIES: ReadonlyMap<string, string> = new Map(
	Object.entries({ amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" })
);

/** The text of a node; empty where there is none. */
export function textOf(node: unknown): string {
	const raw =
		typeof node === 'string'
			? node
			: node && typeof node === 'object' && '#text' in node
				? String(node['#text'])
				: '';
	return raw.replace(/&(#x?[0-9a-f]+|\w+);/gi, (whole, name: string) => {
		if (!name.startsWith('#')) return ENTITIES.get(name) ?? whole;
		const code = name[1] === 'x' ? parseInt(name.slice(2), 16) : Number(name.slice(1));
		return code > 31 && code < 0x110000 ? String.fromCodePoint(code) : ' ';
	});
}

/** The nodes of a name below another, one or many. */
export function nodes(parent: unknown, name: string): Record<string, unknown>[] {
	const found =
		parent && typeof parent === 'object' ? (parent as Record<string, unknown>)[name] : undefined;
	const list = Array.isArray(found) ? found : found === undefined ? [] : [found];
	return list.map((one) =>
		one && typeof one === 'object' ? (one as Record<string, unknown>) : { '#text': String(one) }
	);
}

/** The node at the end of a path; undefined where it breaks off. */
export function at(parent: unknown, ...path: string[]): unknown {
	let node: unknown = parent;
	for (const name of path) {
		if (Array.isArray(node)) node = node[0];
		node = node && typeof node === 'object' ? (node as Record<string, unknown>)[name] : undefined;
	}
	return Array.isArray(node) ? node[0] : node;
}
