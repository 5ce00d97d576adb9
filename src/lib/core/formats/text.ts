// The text of a file, whatever it is written in: by its mark, by what it declares, or by looking at its bytes.
import { analyse } from 'chardet';

export interface Text {
	text: string;
	/** As the standard for encodings names it: `utf-8`, `windows-1252`. */
	encoding: string;
}

const decoder = (label: string, fatal = false): TextDecoder | null => {
	try {
		return new TextDecoder(label, { fatal });
	} catch {
		return null;
	}
};

/** What windows-1252 has where plain Latin-1 has signs that nobody writes, from 0x80 on. */
const UPPER = '€\x81‚ƒ„…†‡ˆ‰Š‹Œ\x8dŽ\x8f\x90‘’“”•–—˜™š›œ\x9džŸ';
/** Some runtimes read windows-1252 as Latin-1, and lose its dashes and quotation marks: they are put back. */
const asWindows = (text: string) =>
	text.replace(/[\x80-\x9f]/g, (sign) => UPPER[sign.charCodeAt(0) - 0x80]!);

/** The text as this encoding has it; null where it is not known, or the bytes are none of it. */
function as(bytes: Uint8Array, label: string): Text | null {
	try {
		const known = decoder(label, true);
		if (!known) return null;
		const text = known.decode(bytes);
		const { encoding } = known;
		return { text: encoding === 'windows-1252' ? asWindows(text) : text, encoding };
	} catch {
		return null;
	}
}

/** UTF-16 without a mark: every other byte of plain text is nothing. */
function wide(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | null {
	const head = bytes.subarray(0, 400);
	if (head.length < 4) return null;
	const nothing = (from: number) => {
		let count = 0;
		for (let at = from; at < head.length; at += 2) if (head[at] === 0) count++;
		return count / (head.length / 2);
	};
	if (nothing(1) > 0.7 && nothing(0) < 0.2) return 'utf-16le';
	if (nothing(0) > 0.7 && nothing(1) < 0.2) return 'utf-16be';
	return null;
}

/** Encodings that are worth a guess for files of banks, spreadsheets and phones here. */
const GUESSED =
	/^(iso-8859-\d+|windows-125\d|macintosh|koi8-r|shift_jis|gb18030|big5|euc-(jp|kr))$/i;

/** Reads a file as text. `declared` is what the file says of itself, as in the first line of XML. Never fails: what cannot be read becomes a sign for that. */
export function decode(bytes: Uint8Array, declared = ''): Text {
	if (bytes[0] === 0xff && bytes[1] === 0xfe) return as(bytes, 'utf-16le') ?? latin(bytes);
	if (bytes[0] === 0xfe && bytes[1] === 0xff) return as(bytes, 'utf-16be') ?? latin(bytes);
	const two = wide(bytes);
	const found =
		(two && as(bytes, two)) ||
		(declared && !/^utf-?16/i.test(declared) && as(bytes, declared)) ||
		as(bytes, 'utf-8');
	if (found) return found;
	const [best] = analyse(bytes.subarray(0, 200_000)).filter(({ name }) => GUESSED.test(name));
	// A handful of bytes says little: what spreadsheets here still save in is likelier than a far language.
	return (best && best.confidence >= 60 && as(bytes, best.name)) || latin(bytes);
}

const latin = (bytes: Uint8Array): Text => ({
	text: asWindows(new TextDecoder('windows-1252').decode(bytes)),
	encoding: 'windows-1252'
});

/** What XML says of its own encoding. */
export function declaredEncoding(bytes: Uint8Array): string {
	const head = new TextDecoder('latin1').decode(bytes.subarray(0, 300));
	return /^\s*<\?xml[^>]*\bencoding\s*=\s*["']([\w.:-]+)["']/i.exec(head)?.[1] ?? '';
}
