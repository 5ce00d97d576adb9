// A form with files, read piece by piece as it comes: read in one go, one of 25 MB would hold everybody else up.
import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import { pipeline } from 'node:stream/promises';
import busboy from 'busboy';

/** A name with a quote or the end of a line in it comes with that written out; one that is empty does not come at all. */
const plainName = (name: string | undefined): string =>
	(name ?? '').replace(/%(22|0A|0D)/gi, (written) => decodeURIComponent(written));

/**
 * What a form says. How large it may be is limited before, for each route.
 * @throws where it is none, or broken off
 */
export async function formOf(request: Request): Promise<FormData> {
	const type = request.headers.get('content-type') ?? '';
	if (!/^multipart\/form-data\b/i.test(type) || !request.body) return request.formData();
	const reading = busboy({
		headers: { 'content-type': type },
		defParamCharset: 'utf8',
		limits: { fieldSize: Infinity }
	});
	// A file has its place where it begins, and is whole later.
	const entries: { name: string; value: string | File }[] = [];
	reading.on('field', (name, value) => entries.push({ name: plainName(name), value }));
	reading.on('file', (name, content, { filename, mimeType }) => {
		const entry = { name: plainName(name), value: '' as string | File };
		entries.push(entry);
		const pieces: Buffer<ArrayBuffer>[] = [];
		content.on('data', (piece: Buffer<ArrayBuffer>) => pieces.push(piece));
		content.on('end', () => {
			// A box for a file that nobody chose one for is empty.
			if (filename || pieces.length)
				entry.value = new File(pieces, plainName(filename), { type: mimeType });
		});
		// Broken off in the middle: the whole form is.
		content.on('error', () => undefined);
	});
	await pipeline(Readable.fromWeb(request.body as ReadableStream), reading);
	const form = new FormData();
	for (const { name, value } of entries)
		if (typeof value === 'string') form.append(name, value);
		else form.append(name, value);
	return form;
}
