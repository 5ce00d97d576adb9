// Logos: whatever picture is brought in becomes a PNG of a size that prints well, so that nothing in it can do anything.
import { must } from '../../actor';
import { eq } from 'drizzle-orm';
import { picture } from '../../pictures';
import { FieldError, NotFoundError } from '../../../core/refusals';
import type { Reader } from '../../db/connection';
import { logos } from '../../db/schema';
import type { World } from '../../world';
import { sha256 } from '../business/keys';

/** Twice what 120 mm need at 200 dots an inch. */
const WIDEST = 1200;
const LARGEST_FILE = 8 * 1024 * 1024;

/** A small file may unpack into a huge picture. */
const MOST_PIXELS = 64_000_000;

/** Pictures that are drawn by numbers are drawn as large as this. */
const SVG_DENSITY = 300;

/** What an SVG may hold that is more than a drawing: it is refused rather than mended (script, what is loaded, what is embedded). */
const MORE_THAN_A_DRAWING =
	/<\s*(script|foreignObject|iframe|embed|object|!ENTITY|!DOCTYPE[^>]*\[)|\son[a-z]+\s*=|(?:href|src)\s*=\s*["']?\s*(?!#|data:image\/(?:png|jpeg);)|@import|url\(\s*["']?\s*(?!#)/i;

const SVG_BEGINS =
	/^\uFEFF?\s*(?:<\?xml[^>]*>\s*)?(?:<!--[\s\S]*?-->\s*|<!DOCTYPE[^>]*>\s*)*<svg[\s>]/;

/** @returns the hash it is found by @throws FieldError */
export async function saveLogo(world: World, bytes: Buffer, name: string): Promise<string> {
	must('settings');
	const { content, width, height } = await prepareLogo(bytes);
	const hash = sha256(content);
	world.db
		.insert(logos)
		.values({
			hash,
			name: name.slice(0, 120),
			content,
			width,
			height,
			createdAt: world.clock.now()
		})
		.onConflictDoNothing()
		.run();
	return hash;
}

async function prepareLogo(bytes: Buffer) {
	const refuse = (message: string): never => {
		throw new FieldError({ logo: message });
	};
	if (bytes.length === 0) refuse('The file is empty.');
	if (bytes.length > LARGEST_FILE)
		refuse(`At most 8 MB; this has ${Math.ceil(bytes.length / 1024 / 1024)} MB.`);
	const begin = bytes.subarray(0, 2000).toString('utf8');
	const drawing = SVG_BEGINS.test(begin);
	if (drawing && MORE_THAN_A_DRAWING.test(bytes.toString('utf8')))
		refuse(
			'This SVG holds more than a drawing (a script, or something loaded from elsewhere). Save it as a PNG.'
		);
	try {
		const whole = await picture(bytes, {
			limitInputPixels: MOST_PIXELS,
			failOn: 'error',
			...(drawing ? { density: SVG_DENSITY } : {})
		});
		const { format } = await whole.metadata();
		if (!['png', 'jpeg', 'svg', 'webp'].includes(format)) refuse('A PNG, a JPEG or an SVG.');
		const { data, info } = await whole
			.rotate()
			.resize({ width: WIDEST, height: WIDEST, fit: 'inside', withoutEnlargement: true })
			.png({ compressionLevel: 9 })
			.toBuffer({ resolveWithObject: true });
		return { content: data, width: info.width, height: info.height };
	} catch (error) {
		if (error instanceof FieldError) throw error;
		if (/pixel limit/i.test((error as Error).message))
			return refuse('This picture has too many points. Make it smaller: 2,000 across is plenty.');
		return refuse('This is no picture, whatever its name says: a PNG, a JPEG or an SVG.');
	}
}

/** As its file was called; null where there is none of this hash. */
export const logoName = (db: Reader, hash: string): string | null =>
	db.select({ name: logos.name }).from(logos).where(eq(logos.hash, hash)).get()?.name ?? null;

/** @throws NotFoundError */
export function loadLogo(db: Reader, hash: string): Buffer {
	const row = db.select({ content: logos.content }).from(logos).where(eq(logos.hash, hash)).get();
	if (!row) throw new NotFoundError('This logo');
	return row.content;
}
