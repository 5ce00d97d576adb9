// An answer that is compressed while it is written: whole, and without a listener more for each piece.
import { createServer, get } from 'node:http';
import type { AddressInfo } from 'node:net';
import { createGunzip } from 'node:zlib';
import { expect } from 'chai';
import compression from 'compression';
import { describe, it } from 'mocha';
import { oneDrain } from '../../../scripts/oneDrain.mjs';

const PIECES = 400;
const piece = (n: number) => `${n}:${'lime and sand '.repeat(4000)}\n`;

describe('a long answer', () => {
	it('goes out whole and compressed, however often its writer waits for room', async () => {
		const compress = compression();
		const warned: string[] = [];
		const note = ({ name }: Error) => void warned.push(name);
		process.on('warning', note);
		let waited = 0;
		const server = createServer((request, response) =>
			compress(request as never, response as never, () => {
				oneDrain(response);
				response.setHeader('content-type', 'text/csv');
				let n = 0;
				const next = () => {
					while (n < PIECES)
						if (!response.write(piece(n++))) {
							waited++;
							return void response.once('drain', next);
						}
					response.end();
				};
				next();
			})
		);
		await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
		const { port } = server.address() as AddressInfo;
		const got = await new Promise<string>((done, failed) => {
			get({ port, host: '127.0.0.1', headers: { 'accept-encoding': 'gzip' } }, (answer) => {
				let text = '';
				answer
					.pipe(createGunzip())
					.setEncoding('utf8')
					.on('data', (part: string) => (text += part))
					.on('end', () => done(text))
					.on('error', failed);
			}).on('error', failed);
		});
		server.close();
		await new Promise((resolve) => setImmediate(resolve));
		process.off('warning', note);
		expect(got).to.equal(Array.from({ length: PIECES }, (_, n) => piece(n)).join(''));
		expect(waited).to.be.greaterThan(20);
		expect(warned).to.deep.equal([]);
	});
});
