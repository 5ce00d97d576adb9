// Merge fields: what stands in braces becomes what is known when a message goes out.

export interface Words {
	/** Empty where there is none: a text message. */
	subject: string;
	text: string;
}

/** What fields become, by name. */
export type Values = Readonly<Record<string, string>>;

/** Where the link goes: it is put in last, when it is known, wherever the owner moved it. */
export const LINK_PLACEHOLDER = '{link}';

const FIELD = /\{([a-z]+)\}/g;

/**
 * Words as they go out, each field filled once: what a name holds is no field. A paragraph whose fields all come out empty is
 * left out, and so is one with the link where there is none.
 */
export function fillWords({ subject, text }: Words, values: Values): Words {
	const value = (whole: string, name: string): string => {
		const known = Object.hasOwn(values, name) ? values[name] : undefined;
		if (known === undefined) return whole;
		return known === LINK_PLACEHOLDER ? known : known.replaceAll(LINK_PLACEHOLDER, '(link)');
	};
	const fill = (part: string) =>
		part
			// What was empty leaves no gap.
			.replace(/ ?\{([a-z]+)\}/g, (whole, name: string) =>
				values[name] === '' && whole.startsWith(' ') ? '' : whole
			)
			.replace(FIELD, value);
	const noLink = values.link === '';
	const paragraphs = text
		.replaceAll('\r\n', '\n')
		.split(/\n{2,}/)
		.filter((paragraph) => !(noLink && paragraph.includes(LINK_PLACEHOLDER)))
		.map((paragraph) => ({ before: paragraph, after: fill(paragraph) }))
		.filter(({ before, after }) => after.trim() !== '' || before.trim() === '')
		.map(({ after }) =>
			after
				.split('\n')
				.map((line) => line.trimEnd())
				.join('\n')
				.trim()
		);
	return {
		subject: begin(fill(subject).replace(/\s+/g, ' ').trim(), subject),
		text: begin(paragraphs.join('\n\n'), text)
	};
}

/** What begins with a field begins with a capital letter; an address does not. */
const begin = (filled: string, words: string): string =>
	/^\s*\{(?!link\})/.test(words) ? (filled[0]?.toUpperCase() ?? '') + filled.slice(1) : filled;

/**
 * What is wrong with the fields of some words, and in which line; null where nothing is. A brace that is no field is refused
 * too: it is half a field, or a field within one, and would go out as it stands.
 */
export function fieldProblem(
	text: string,
	fields: Readonly<Record<string, unknown>>
): string | null {
	for (const match of text.matchAll(/\{([^{}\s]{1,40})\}|[{}]/g)) {
		const name = match[1];
		if (name !== undefined && Object.hasOwn(fields, name)) continue;
		const line = text.slice(0, match.index).split('\n').length;
		const where = text.includes('\n') ? ` in line ${line}` : '';
		return name === undefined
			? `The brace “${match[0]}”${where} belongs to no field: it would go out as it stands.`
			: `{${name}}${where} is no field: it would go out as it stands.`;
	}
	return null;
}
