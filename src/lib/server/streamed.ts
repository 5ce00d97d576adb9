// A file that is sent while it is written: pieces are read as they are wanted, and others get their turn in between.
import type { Readable } from 'node:stream';
import { turn } from './turn';

export function streamed(pieces: Generator<string>, type: string, name: string): Response {
	const encoder = new TextEncoder();
	return new Response(
		new ReadableStream({
			async pull(controller) {
				const { value, done } = pieces.next();
				if (done) return controller.close();
				controller.enqueue(encoder.encode(value));
				await turn();
			},
			cancel: () => void pieces.return(undefined)
		}),
		{
			headers: {
				'content-type': `${type}; charset=utf-8`,
				'content-disposition': `attachment; filename="${name}"`
			}
		}
	);
}

/** What is read, as the body of an answer. Whoever goes away in the middle ends the reading, and nothing else. */
export function bodyOf(source: Readable): ReadableStream<Uint8Array> {
	const pieces = source[Symbol.asyncIterator]() as AsyncIterator<Uint8Array>;
	return new ReadableStream<Uint8Array>({
		async pull(controller) {
			const { value, done } = await pieces.next();
			if (done) controller.close();
			else controller.enqueue(new Uint8Array(value));
		},
		cancel: () => void source.destroy()
	});
}
