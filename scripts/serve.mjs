// The app's server: what the build handles, compressed on its way out, and ended in order.
import compression from 'compression';
import { createServer } from 'node:http';
import { oneDrain } from './oneDrain.mjs';

const { handler } = await import(new URL('../build/handler.js', import.meta.url).href);

/** What is under way may finish before it ends; longer than this nobody waits. */
const PATIENCE_MS = 30_000;

const compress = compression();
const server = createServer((request, response) =>
	compress(/** @type {any} */ (request), /** @type {any} */ (response), () => {
		oneDrain(response);
		handler(request, response, () => {
			response.statusCode = 404;
			response.end();
		});
	})
);
server.listen(Number(process.env.PORT ?? 3000), process.env.HOST ?? '0.0.0.0');

for (const signal of ['SIGINT', 'SIGTERM'])
	process.once(signal, () => {
		server.close(() => process.exit(0));
		server.closeIdleConnections();
		setTimeout(() => server.closeAllConnections(), PATIENCE_MS).unref();
	});
