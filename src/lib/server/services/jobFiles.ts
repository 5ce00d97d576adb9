// Photos and files of a job. What a file is, is told by its content, never by its name.
import { and, desc, eq } from 'drizzle-orm';
import sharp from 'sharp';
import { writeAtOnce } from '../db/connection';
import { jobFiles } from '../db/schema';
import type { World } from '../world';
import { FieldError, NotFoundError } from './errors';
import { loadJob } from './jobs';
import { sha256 } from './keys';

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

/** Turned upright, made smaller, and rid of where and with what it was taken. */
async function preparePhoto(bytes: Buffer): Promise<Prepared> {
	const photo = (side: number) =>
		sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' })
			.rotate()
			.resize({ width: side, height: side, fit: 'inside', withoutEnlargement: true })
			.flatten({ background: '#ffffff' })
			.jpeg({ quality: 82 })
			.toBuffer();
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

/** Adds a photo or file. The same one again changes nothing. @throws FieldError, NotFoundError */
export async function addJobFile(
	world: World,
	jobId: number,
	name: string,
	bytes: Buffer
): Promise<void> {
	loadJob(world.db, jobId);
	const prepared = await prepareFile(bytes);
	writeAtOnce(world.db, (tx) => {
		loadJob(tx, jobId);
		tx.insert(jobFiles)
			.values({
				...prepared,
				jobId,
				name: name.slice(0, 200) || 'file',
				sha256: sha256(bytes),
				addedAt: world.clock.now()
			})
			.onConflictDoNothing()
			.run();
	});
}

export function filesOf(world: World, jobId: number) {
	return world.db
		.select({
			id: jobFiles.id,
			name: jobFiles.name,
			type: jobFiles.type,
			addedAt: jobFiles.addedAt
		})
		.from(jobFiles)
		.where(eq(jobFiles.jobId, jobId))
		.orderBy(desc(jobFiles.id))
		.all();
}

/** @throws NotFoundError */
export function jobFile(
	world: World,
	jobId: number,
	id: number,
	small: boolean
): { name: string; type: string; content: Buffer } {
	const row = world.db
		.select()
		.from(jobFiles)
		.where(and(eq(jobFiles.id, id), eq(jobFiles.jobId, jobId)))
		.get();
	if (!row) throw new NotFoundError('This file');
	return { name: row.name, type: row.type, content: (small && row.thumbnail) || row.content };
}

export function removeJobFile(world: World, jobId: number, id: number): void {
	world.db
		.delete(jobFiles)
		.where(and(eq(jobFiles.id, id), eq(jobFiles.jobId, jobId)))
		.run();
}
