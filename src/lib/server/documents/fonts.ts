// The typefaces of printed documents, from the packages that ship with the app.
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { inflateSync } from 'node:zlib';

const require = createRequire(import.meta.url);

function file(name: string, subset: 'latin' | 'latin-ext', weight: 400 | 700): string {
	const folder = dirname(require.resolve(`@fontsource/${name}/package.json`));
	return join(folder, 'files', `${name}-${subset}-${weight}-normal.woff`);
}

const TEXT = 'atkinson-hyperlegible-next';
const HEADING = 'bricolage-grotesque';
const SERIF = 'source-serif-4';

function family(name: string, subset: 'latin' | 'latin-ext') {
	return { normal: file(name, subset, 400), bold: file(name, subset, 700) };
}

/** Families by name; each style is the path of its file. */
export const FONTS = {
	Text: family(TEXT, 'latin'),
	TextMore: family(TEXT, 'latin-ext'),
	Heading: family(HEADING, 'latin'),
	HeadingMore: family(HEADING, 'latin-ext'),
	Serif: family(SERIF, 'latin'),
	SerifMore: family(SERIF, 'latin-ext')
};

/** Every font file, unpacked once: unpacking it for each document would take longer than drawing it. */
export function unpackedFonts(): [path: string, content: Buffer][] {
	return Object.values(FONTS)
		.flatMap((font) => [font.normal, font.bold])
		.map((path) => [path, unpackWoff(readFileSync(path))]);
}

const WOFF_HEADER = 44;
const WOFF_ENTRY = 20;
const SFNT_HEADER = 12;
const SFNT_ENTRY = 16;

/** A WOFF 1.0 file as the font it packs (W3C Recommendation WOFF File Format 1.0, sections 3 to 5). */
function unpackWoff(woff: Buffer): Buffer {
	const tables = Array.from({ length: woff.readUInt16BE(12) }, (_, index) => {
		const entry = WOFF_HEADER + index * WOFF_ENTRY;
		const [offset, packed, length] = [4, 8, 12].map((at) => woff.readUInt32BE(entry + at)) as [
			number,
			number,
			number
		];
		const raw = woff.subarray(offset, offset + packed);
		return {
			tag: woff.subarray(entry, entry + 4),
			checksum: woff.readUInt32BE(entry + 16),
			data: packed < length ? inflateSync(raw) : raw
		};
	});
	const header = Buffer.alloc(SFNT_HEADER + tables.length * SFNT_ENTRY);
	const power = Math.floor(Math.log2(tables.length));
	woff.copy(header, 0, 4, 8);
	header.writeUInt16BE(tables.length, 4);
	header.writeUInt16BE(16 * 2 ** power, 6);
	header.writeUInt16BE(power, 8);
	header.writeUInt16BE(16 * (tables.length - 2 ** power), 10);
	const parts: Uint8Array[] = [header];
	let offset = header.length;
	for (const [index, { tag, checksum, data }] of tables.entries()) {
		const entry = SFNT_HEADER + index * SFNT_ENTRY;
		tag.copy(header, entry);
		header.writeUInt32BE(checksum, entry + 4);
		header.writeUInt32BE(offset, entry + 8);
		header.writeUInt32BE(data.length, entry + 12);
		const padding = (4 - (data.length % 4)) % 4;
		parts.push(data, Buffer.alloc(padding));
		offset += data.length + padding;
	}
	return Buffer.concat(parts);
}

const LATIN =
	/[\s\u0020-\u007e\u00a0-\u00ff\u0131\u0152\u0153\u02bb\u02bc\u02c6\u02da\u02dc\u2000-\u206f\u20ac\u2122\u2191\u2193\u2212\u2215]/;
const LATIN_MORE =
	/[\u0100-\u02ba\u02bd-\u02c5\u1e00-\u1e9f\u1ef2-\u1eff\u20a0-\u20ab\u20ad-\u20c0\u2113\u2c60-\u2c7f\ua720-\ua7ff]/;

export interface Run {
	text: string;
	font: string;
}

/** Splits text into runs that a typeface can show; what none can show becomes a question mark. */
export function runs(text: string, base: 'Text' | 'Heading'): Run[] {
	const result: Run[] = [];
	// A word longer than a line may break anywhere, or its end would leave the page.
	for (const character of text.replace(/\S{28}(?=\S)/g, '$& ')) {
		const more = !LATIN.test(character) && LATIN_MORE.test(character);
		const font = more ? `${base}More` : base;
		const shown = more || LATIN.test(character) ? character : '?';
		const last = result.at(-1);
		if (last?.font === font) last.text += shown;
		else result.push({ text: shown, font });
	}
	return result.length ? result : [{ text: '', font: base }];
}
