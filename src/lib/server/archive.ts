// ZIP archives, written while they are read: what is in them is fetched when its turn comes, so that the largest one needs little memory.
import { createReadStream } from 'node:fs';
import { PassThrough, Readable, type Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { ZipFile } from 'yazl';
import { bodyOf } from './streamed';

export interface Archive {
	/** Text that comes in pieces. */
	text(name: string, pieces: () => Iterable<string>): void;
	/** Bytes, fetched when their turn comes; what is not there is left out with a note. */
	bytes(name: string, fetch: () => Buffer | undefined): void;
	/** A file of the disk. */
	file(name: string, place: string): void;
	/** Ends it. What was written is whole only once this has come back. */
	end(): Promise<void>;
}

/** A name that any system takes, once for each archive. */
function namer(): (name: string) => string {
	const taken = new Map<string, number>();
	return (name) => {
		const plain = name
			.split('/')
			.map(
				(part) =>
					part
						// eslint-disable-next-line no-control-regex -- they are what must not stand in a name
						.replace(/[\\:*?"<>|\x00-\x1f\u202a-\u202e\u2066-\u2069]+/g, ' ')
						.replace(/\s+/g, ' ')
						.replace(/^[. ]+|[. ]+$/g, '')
						.slice(0, 120) || 'unnamed'
			)
			.join('/');
		const count = (taken.get(plain.toLowerCase()) ?? 0) + 1;
		taken.set(plain.toLowerCase(), count);
		return count === 1 ? plain : plain.replace(/(\.[^./]*)?$/, ` (${count})$1`);
	};
}

/** Begins an archive that goes to `out`. `at`: what its files say they were made at, milliseconds. */
export function archiveTo(out: Writable, at: number): Archive {
	const zip = new ZipFile();
	const nameFor = namer();
	const mtime = new Date(at);
	const written = pipeline(zip.outputStream as Readable, out);
	// Its failure is told by `end`.
	written.catch(() => undefined);
	const lazily = (name: string, compress: boolean, open: () => Readable) =>
		zip.addReadStreamLazy(nameFor(name), { mtime, compress }, (done) => {
			try {
				// What cannot be read on, however late, ends the archive and nothing else.
				const opened = open();
				opened.on('error', (error) => (zip.outputStream as Readable).destroy(error));
				done(null, opened);
			} catch (error) {
				done(error, undefined as never);
			}
		});
	zip.on('error', (error) => (zip.outputStream as Readable).destroy(error as Error));
	return {
		text: (name, pieces) => lazily(name, true, () => Readable.from(pieces(), { objectMode: true })),
		bytes: (name, fetch) =>
			lazily(name, false, () =>
				Readable.from([fetch() ?? Buffer.from('It is not there any more.')])
			),
		file: (name, place) => lazily(name, false, () => createReadStream(place)),
		end() {
			zip.end();
			return written;
		}
	};
}

/** An archive as the body of an answer: `fill` says what is in it. */
export function archiveBody(
	at: number,
	fill: (archive: Archive) => void
): ReadableStream<Uint8Array> {
	const out = new PassThrough();
	const archive = archiveTo(out, at);
	fill(archive);
	archive.end().catch((error: Error) => out.destroy(error));
	return bodyOf(out);
}
