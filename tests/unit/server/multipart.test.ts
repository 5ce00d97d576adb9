// A form with files, read as it comes: the same as the platform reads in one go.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { formOf } from '../../../src/lib/server/multipart';

const posted = (body: BodyInit, headers: Record<string, string> = {}) =>
	new Request('http://127.0.0.1/', { method: 'POST', body, headers });

/** Everything a form holds, files with their bytes. */
const told = async (form: FormData) =>
	Promise.all(
		[...form].map(async ([name, value]) =>
			value instanceof File
				? [name, value.name, value.type, Buffer.from(await value.arrayBuffer()).toString('hex')]
				: [name, value]
		)
	);

const written = (...parts: string[]) =>
	posted(
		parts.map((part) => `--xx\r\nContent-Disposition: form-data; ${part}\r\n`).join('') +
			'--xx--\r\n',
		{
			'content-type': 'multipart/form-data; boundary=xx'
		}
	);

describe('a form with files', () => {
	it('is what the platform reads in one go: names, words, several of one name, files with every byte', async () => {
		const form = new FormData();
		form.append('words', 'Pořídka, naïve — “quoted”\r\nand a second line');
		form.append('payer', '1');
		form.append('payer', '2');
		form.append('', '');
		form.append('a "name"', 'x');
		const bytes = Uint8Array.from({ length: 300_000 }, (_, n) => (n * 7) % 256);
		form.append('file', new File([bytes], 'Überweisung "November".csv', { type: 'text/csv' }));
		form.append('none', new File([], '', { type: 'application/octet-stream' }));
		form.append('file', new File(['--xx\r\n'], 'b.txt', { type: 'text/plain' }));
		const asItIs = await told(await posted(form).formData());
		expect(asItIs).to.have.length(8);
		expect(await told(await formOf(posted(form)))).to.deep.equal(asItIs);
	});

	it('keeps what was written, word for word', async () => {
		const form = await formOf(
			written(
				'name="long"\r\n\r\n' + 'x'.repeat(2_000_000),
				'name="f"; filename="tax &amp; 100%.csv"\r\nContent-Type: text/csv\r\n\r\na,b'
			)
		);
		expect(String(form.get('long'))).to.have.length(2_000_000);
		const file = form.get('f') as File;
		expect([file.name, file.type, await file.text()]).to.deep.equal([
			'tax &amp; 100%.csv',
			'text/csv',
			'a,b'
		]);
	});

	it('that is broken off, or is none, is refused', async () => {
		const failed = (request: Request) =>
			formOf(request).then(
				() => 'read',
				() => 'refused'
			);
		const type = { 'content-type': 'multipart/form-data; boundary=xx' };
		const half = '--xx\r\nContent-Disposition: form-data; name="f"; filename="a.csv"\r\n\r\na,b';
		expect(await failed(posted(half, type))).to.equal('refused');
		expect(await failed(posted('a=b', { 'content-type': 'multipart/form-data' }))).to.equal(
			'refused'
		);
		expect(await failed(posted('{}', { 'content-type': 'application/json' }))).to.equal('refused');
		let sent = 0;
		const broken = new ReadableStream<Uint8Array>({
			pull(controller) {
				if (sent++) controller.error(new Error('gone'));
				else controller.enqueue(new TextEncoder().encode(half));
			}
		});
		const request = new Request('http://127.0.0.1/', {
			method: 'POST',
			body: broken,
			headers: type,
			duplex: 'half'
		} as RequestInit);
		expect(await failed(request)).to.equal('refused');
	});

	it('of boxes alone is read as ever', async () => {
		const form = await formOf(posted(new URLSearchParams({ a: '1 & 2' })));
		expect(form.get('a')).to.equal('1 & 2');
	});
});
