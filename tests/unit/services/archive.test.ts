// An archive that cannot be finished says so to whoever waits for it, and hurts nobody else.
import { PassThrough } from 'node:stream';
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { archiveTo } from '../../../src/lib/server/archive';

describe('an archive', () => {
	it('whose rows give out on the way is refused as a whole', async () => {
		const out = new PassThrough();
		out.on('error', () => undefined);
		out.resume();
		const archive = archiveTo(out, 0);
		archive.text('rows.csv', function* () {
			yield 'a,b\n';
			throw new Error('The books are closed.');
		});
		archive.text('more.csv', () => ['c']);
		const met = await archive.end().then(
			() => null,
			(error: Error) => error.message
		);
		expect(met).to.equal('The books are closed.');
	});
});
