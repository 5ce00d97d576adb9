// A list as a file, streamed: rows are read as they are sent.
import { readView } from '../core/lists/address';
import { listCsv, type ListSource } from './services/desk/lists/engine';
import type { World } from './world';

export function csvOfList(world: World, source: ListSource, url: URL): Response {
	const { name } = source.spec;
	const parts = listCsv(world, source, readView(source.spec, url.searchParams));
	const encoder = new TextEncoder();
	return new Response(
		new ReadableStream({
			async pull(controller) {
				const { value, done } = parts.next();
				if (done) return controller.close();
				controller.enqueue(encoder.encode(value));
				// Others get their turn between pieces.
				await new Promise((resolve) => setImmediate(resolve));
			},
			cancel: () => void parts.return(undefined)
		}),
		{
			headers: {
				'content-type': 'text/csv; charset=utf-8',
				'content-disposition': `attachment; filename="${name}.csv"`
			}
		}
	);
}
