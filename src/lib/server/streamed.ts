// A file that is sent while it is written: pieces are read as they are wanted, and others get their turn in between.

export function streamed(pieces: Generator<string>, type: string, name: string): Response {
	const encoder = new TextEncoder();
	return new Response(
		new ReadableStream({
			async pull(controller) {
				const { value, done } = pieces.next();
				if (done) return controller.close();
				controller.enqueue(encoder.encode(value));
				await new Promise((resolve) => setImmediate(resolve));
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
