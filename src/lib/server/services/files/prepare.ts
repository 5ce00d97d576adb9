// What a file is, told by its content and never by its name; photos are made smaller and lose their place.
import { picture } from '../../pictures';
import { FieldError } from '../../../core/refusals';

export const LARGEST_FILE = 25 * 1024 * 1024;

/** Longer sides of a stored photo and of its small picture, in pixels. */
const PHOTO_PX = 2000;

const THUMBNAIL_PX = 320;

/** A small file may unpack into a huge picture. */
const MOST_PIXELS = 100_000_000;

const DOCUMENTS: { type: string; begins: number[] }[] = [
	{ type: 'application/pdf', begins: [0x25, 0x50, 0x44, 0x46, 0x2d] },
	// Letters, tables and drawings of office programs are zip files.
	{ type: 'application/zip', begins: [0x50, 0x4b, 0x03, 0x04] }
];

interface Prepared {
	type: string;
	content: Buffer;
	thumbnail: Buffer | null;
}

/** @throws FieldError where it is neither a picture nor a document that is known, or too large */
export async function prepareFile(bytes: Buffer): Promise<Prepared> {
	if (bytes.length === 0) throw new FieldError({ file: 'The file is empty.' });
	if (bytes.length > LARGEST_FILE)
		throw new FieldError({
			file: `At most 25 MB; this has ${Math.ceil(bytes.length / 1024 / 1024)} MB.`
		});
	// Phones keep photos in it; no browser but one draws it, and nothing here can unpack it.
	if (isHeic(bytes)) return { type: 'image/heic', content: bytes, thumbnail: null };
	const known = DOCUMENTS.find(({ begins }) => begins.every((byte, at) => bytes[at] === byte));
	if (known) return { type: known.type, content: bytes, thumbnail: null };
	try {
		return await preparePhoto(bytes);
	} catch {
		if (isText(bytes)) return { type: 'text/plain', content: bytes, thumbnail: null };
		throw new FieldError({
			file: 'This is neither a photo nor a PDF, an office file or a text, whatever its name says.'
		});
	}
}

const isHeic = (bytes: Buffer): boolean =>
	/^ftyp(?:heic|heix|hevc|heim|heis|mif1|msf1)/.test(bytes.subarray(4, 12).toString('latin1'));

/** Turned upright, made smaller, and rid of where and with what it was taken. */
async function preparePhoto(bytes: Buffer): Promise<Prepared> {
	const photo = async (side: number) => {
		const whole = await picture(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' });
		return whole
			.rotate()
			.resize({ width: side, height: side, fit: 'inside', withoutEnlargement: true })
			.flatten({ background: '#ffffff' })
			.jpeg({ quality: 82 })
			.toBuffer();
	};
	return {
		type: 'image/jpeg',
		content: await photo(PHOTO_PX),
		thumbnail: await photo(THUMBNAIL_PX)
	};
}

function isText(bytes: Buffer): boolean {
	try {
		return !new TextDecoder('utf-8', { fatal: true }).decode(bytes).includes('\0');
	} catch {
		return false;
	}
}
