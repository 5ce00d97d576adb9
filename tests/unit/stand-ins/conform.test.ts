// The conformance test of card processors: the stand-in passes it, and one that cheats is found out.
import { expect } from 'chai';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, it } from 'mocha';
import { conformance } from '../../../scripts/conform';
import { startCardStandIn } from '../../../stand-ins/card/server';
import { freePort } from '../../support/app';

const SECRET = 'the secret of both sides';

describe('the conformance test of card processors', () => {
	it('is passed by the stand-in', async function () {
		this.timeout(30_000);
		const folder = mkdtempSync(join(tmpdir(), 'axiometer-conform-'));
		const [port, back] = [await freePort(), await freePort()];
		const origin = `http://127.0.0.1:${port}`;
		const standIn = await startCardStandIn({
			port,
			file: join(folder, 'c.sqlite'),
			origin,
			secret: SECRET,
			lateAfter: 100
		});
		const findings = await conformance({
			base: origin,
			secret: SECRET,
			reached: `http://127.0.0.1:${back}`,
			port: back,
			patience: 8000,
			pay: async (url) => {
				await fetch(url, {
					method: 'POST',
					body: new URLSearchParams({ number: '9000000000000001' }),
					redirect: 'manual'
				});
			},
			dispute: async (url, step) => {
				await fetch(`${url}/${step}`, { method: 'POST', redirect: 'manual' });
			}
		});
		await standIn.close();
		rmSync(folder, { recursive: true, force: true });
		expect(findings.filter(({ wrong }) => wrong)).to.deep.equal([]);
		expect(findings).to.have.length(12);
	});

	it('finds out one that says yes to everything and tells nothing', async function () {
		this.timeout(30_000);
		const [port, back] = [await freePort(), await freePort()];
		let n = 0;
		const yes = createServer((_, response) => {
			n++;
			response.end(
				JSON.stringify({
					id: `x${n}`,
					url: `http://127.0.0.1:${port}/`,
					state: 'settled',
					events: [],
					next: null
				})
			);
		}).listen(port, '127.0.0.1');
		const findings = await conformance({
			base: `http://127.0.0.1:${port}`,
			secret: SECRET,
			reached: `http://127.0.0.1:${back}`,
			port: back,
			patience: 100,
			pay: async () => undefined,
			dispute: async () => undefined
		});
		yes.close();
		expect(findings.filter(({ wrong }) => !wrong).map(({ what }) => what)).to.deep.equal([
			'a card that is not known is forgotten already',
			'all it has told is told again for books from a backup',
			'a payment page is reached'
		]);
	});
});
