// Strangers: forged and repeated news, floods, files that mean harm. The books stay as they are, and everybody else is answered.
import { randomBytes } from 'node:crypto';
import { connect as dial } from 'node:net';
import { deflateRawSync, deflateSync, gzipSync } from 'node:zlib';
import { addJob } from '../src/lib/server/services/jobs/jobs';
import { addCustomer } from '../src/lib/server/services/customers/customers';
import { openCheckout } from '../src/lib/server/services/money/checkouts';
import { HOUSEHOLD, issued, line } from '../tests/support/world';
import { Ground, pause, type Outcome } from './ground';
import { signed } from './kills';

const healthy = async (ground: Ground): Promise<string[]> => {
	const answer = await ground.askTwice('/health');
	return answer?.status === 200 ? [] : [`health answers ${answer?.status}`];
};

/** News that are forged, stale, altered, senseless, huge or told a hundred times. */
export async function forgedNews(): Promise<Outcome> {
	const ground = await Ground.laidOut(async (world) => {
		const { id } = await issued(world, HOUSEHOLD, { rows: [line('a', 'Render', '100')] });
		const token = world.db.$client
			.prepare('select token from documents where id = ?')
			.pluck()
			.get(id) as string;
		await openCheckout(world, token, 'k');
	});
	const wrong: string[] = [];
	let tries = 0;
	const send = async (
		what: string,
		expected: readonly number[],
		body: string,
		headers: Record<string, string>,
		path = '/webhooks/card'
	) => {
		tries++;
		const answer = await fetch(ground.app.origin + path, {
			method: 'POST',
			body,
			headers: { 'content-type': 'application/json', ...headers }
		}).catch(() => null);
		if (!expected.includes(answer?.status ?? 0)) wrong.push(`${what}: ${answer?.status}`);
		const said = (await answer?.text()) ?? '';
		if (/node_modules|\bat [A-Za-z.]+ \(|SQLITE/.test(said))
			wrong.push(`${what}: says what is inside`);
	};
	const news = (more: object = {}) =>
		JSON.stringify({
			id: 'evt',
			type: 'payment.settled',
			checkout: 'chk-k',
			amount: 120_00,
			fee: 188,
			...more
		});
	const now = Math.floor(Date.now() / 1000);
	try {
		const good = news();
		await send('unsigned', [401], good, {});
		await send('signed with another secret', [401], good, signed(good, 'some other secret'));
		await send('signed by the bank', [401], good, signed(good, 'stand-in-bank-secret'));
		await send('stale', [401], good, signed(good, undefined, now - 301));
		await send('of tomorrow', [401], good, signed(good, undefined, now + 86_400));
		await send('altered', [401], good.replace('12000', '12001'), signed(good));
		await send('its time altered', [401], good, { ...signed(good), 'card-time': String(now - 1) });
		await send('signature cut', [401], good, { ...signed(good), 'card-signature': 'ab' });
		for (const body of ['', '{', 'null', '[]', '"x"', '['.repeat(50_000), '{"a":'.repeat(20_000)])
			await send(`senseless ${body.slice(0, 5)}`, [400], body, signed(body));
		for (const more of [
			{ amount: -1 },
			{ amount: 0 },
			{ amount: 1.5 },
			{ amount: 1e308 },
			{ amount: '12000' },
			{ fee: -5 },
			{ id: 'x'.repeat(1000) },
			{ type: 'payment.invented' },
			{ __proto__: { polluted: true }, constructor: { prototype: {} }, amount: null }
		]) {
			const body = news(more);
			await send(`wrong ${JSON.stringify(more).slice(0, 30)}`, [400], body, signed(body));
		}
		const unknown = news({ id: 'u', checkout: "chk' or 1=1 --" });
		await send('of nobody’s checkout', [404], unknown, signed(unknown));
		const huge = news({ id: 'h', extra: 'x'.repeat(2_000_000) });
		await send('huge', [413], huge, signed(huge));
		await send('to the bank', [401], good, signed(good), '/webhooks/bank');
		if (ground.read('select id from payments').length) wrong.push('one of them was booked');
		// The real one, a hundred times at once.
		const all = await Promise.all(
			Array.from({ length: 100 }, () =>
				fetch(`${ground.app.origin}/webhooks/card`, {
					method: 'POST',
					body: good,
					headers: signed(good)
				}).then((answer) => answer.status)
			)
		);
		tries += all.length;
		if (all.some((status) => status !== 200)) wrong.push(`repeated: ${[...new Set(all)].join()}`);
		const booked = ground.read<number>('select amount from payments');
		return {
			what: 'forged and repeated news',
			tries,
			lost: booked.length ? 0 : 1,
			doubled: Math.max(0, booked.length - 1),
			wrong: [...wrong, ...(await healthy(ground)), ...ground.audit()]
		};
	} finally {
		await ground.end();
	}
}

/** Guesses at links and at the password, lines that never end, bodies that are too large. */
export async function floods(): Promise<Outcome> {
	const ground = await Ground.laidOut(async () => undefined);
	const wrong: string[] = [];
	let tries = 0;
	const asked = async (path: string, options: RequestInit = {}) => {
		tries++;
		const answer = await fetch(ground.app.origin + path, { redirect: 'manual', ...options }).catch(
			() => null
		);
		await answer?.arrayBuffer();
		return answer?.status ?? 0;
	};
	try {
		// Lines that are opened and never say what they want.
		const slow = Array.from({ length: 200 }, () => {
			const { hostname, port } = new URL(ground.app.origin);
			const line = dial(Number(port), hostname);
			line.on('error', () => undefined);
			line.write('POST /sign-in HTTP/1.1\r\nhost: x\r\ncontent-length: 100000\r\n');
			return line;
		});
		tries += slow.length;
		wrong.push(...(await healthy(ground)));
		const links = await Promise.all(
			Array.from({ length: 400 }, () => asked(`/p/${randomBytes(24).toString('base64url')}`))
		);
		if (links.some((status) => status !== 404 && status !== 429))
			wrong.push(`guessed links answer ${[...new Set(links)].join()}`);
		const guesses = await Promise.all(
			Array.from({ length: 60 }, (_, n) =>
				asked('/sign-in?/password', {
					method: 'POST',
					body: new URLSearchParams({ password: `guess number ${n}` }),
					headers: { origin: ground.app.origin, accept: 'text/html' }
				})
			)
		);
		if (guesses.some((status) => status === 200 || status === 303 || status >= 500))
			wrong.push(`guessed passwords answer ${[...new Set(guesses)].join()}`);
		const large = await asked('/sign-in?/password', {
			method: 'POST',
			body: 'x'.repeat(1_000_000),
			headers: { origin: ground.app.origin, 'content-type': 'application/x-www-form-urlencoded' }
		});
		if (large !== 413) wrong.push(`a large body answers ${large}`);
		const elsewhere = await asked('/sign-in?/password', {
			method: 'POST',
			body: new URLSearchParams({ password: 'x' }),
			headers: { origin: 'http://elsewhere.example' }
		});
		if (elsewhere !== 403) wrong.push(`a form of another site answers ${elsewhere}`);
		wrong.push(...(await healthy(ground)));
		const owner = await ground.ask('/');
		if (owner?.status !== 200) wrong.push(`the owner is answered ${owner?.status}`);
		for (const one of slow) one.destroy();
		return { what: 'floods', tries, lost: 0, doubled: 0, wrong: [...wrong, ...ground.audit()] };
	} finally {
		await ground.end();
	}
}

/** A picture of a few bytes that unpacks into gigabytes. */
function hugePicture(): Buffer {
	const chunk = (type: string, data: Buffer) => {
		const length = Buffer.alloc(4);
		length.writeUInt32BE(data.length);
		return Buffer.concat([length, Buffer.from(type), data, Buffer.alloc(4)]);
	};
	const header = Buffer.alloc(13);
	header.writeUInt32BE(100_000, 0);
	header.writeUInt32BE(100_000, 4);
	header.set([8, 2, 0, 0, 0], 8);
	return Buffer.concat([
		Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
		chunk('IHDR', header),
		chunk('IDAT', deflateSync(Buffer.alloc(1_000_000))),
		chunk('IEND', Buffer.alloc(0))
	]);
}

/** One entry that unpacks into a gigabyte. */
function hugeZip(): Buffer {
	const data = deflateRawSync(Buffer.alloc(20_000_000));
	const local = Buffer.alloc(30);
	local.writeUInt32LE(0x04034b50, 0);
	local.writeUInt16LE(8, 8);
	local.writeUInt32LE(data.length, 18);
	local.writeUInt32LE(1_000_000_000, 22);
	local.writeUInt16LE(1, 26);
	return Buffer.concat([local, Buffer.from('a'), data]);
}

const LAUGHS = `<?xml version="1.0"?><!DOCTYPE l [<!ENTITY a "lol">${'bcdefghij'
	.split('')
	.map((name, n) => `<!ENTITY ${name} "${`&${'abcdefghi'[n]};`.repeat(10)}">`)
	.join('')}]><Document><BkToCstmrStmt>&j;</BkToCstmrStmt></Document>`;

const HOSTILE: [name: string, bytes: () => Buffer][] = [
	['laughs.xml', () => Buffer.from(LAUGHS)],
	[
		'outside.xml',
		() =>
			Buffer.from(
				'<?xml version="1.0"?><!DOCTYPE d [<!ENTITY x SYSTEM "file:///etc/passwd">]><Document><BkToCstmrStmt>&x;</BkToCstmrStmt></Document>'
			)
	],
	['deep.xml', () => Buffer.from(`<Document><BkToCstmrStmt>${'<a>'.repeat(200_000)}`)],
	['commas.csv', () => Buffer.from(','.repeat(1_000_000))],
	['quotes.csv', () => Buffer.from(`Date,Amount,Text\n"${'""'.repeat(1_000_000)}`)],
	['lines.csv', () => Buffer.from('\n'.repeat(1_000_000))],
	['nul.csv', () => Buffer.alloc(500_000)],
	['formula.csv', () => Buffer.from('Date,Amount,Text\n24/11/2026,1.00,=cmd|"/c calc"!A1\n')],
	['tags.ofx', () => Buffer.from(`OFXHEADER:100\n<OFX>${'<STMTTRN>'.repeat(100_000)}`)],
	['cards.vcf', () => Buffer.from('BEGIN:VCARD\n'.repeat(60_000))],
	[
		'fold.vcf',
		() => Buffer.from(`BEGIN:VCARD\nVERSION:3.0\nFN:x${'\n y'.repeat(500_000)}\nEND:VCARD\n`)
	],
	['bomb.zip', hugeZip],
	['bomb.gz', () => gzipSync(Buffer.alloc(50_000_000))],
	['bomb.png', hugePicture],
	[
		'script.svg',
		() => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>')
	],
	['../../../etc/cron.d/x.html', () => Buffer.from('<script>alert(1)</script>')]
];

/** Files that mean harm, wherever a file can be given. Each is answered, in time, and nothing of it is run or remembered wrongly. */
export async function hostileFiles(): Promise<Outcome> {
	let job = 0;
	const ground = await Ground.laidOut(async (world) => {
		job = addJob(world, 'j', { title: 'Kitchen', customerId: addCustomer(world, HOUSEHOLD) });
	});
	const wrong: string[] = [];
	let tries = 0;
	const places: [path: string, more: Record<string, string>][] = [
		['/money?/file', {}],
		['/customers/import?/preview', {}],
		['/work/import?/preview', {}],
		['/files', { to: 'job', id: String(job) }]
	];
	try {
		for (const [name, bytes] of HOSTILE)
			for (const [path, more] of places) {
				tries++;
				const body = new FormData();
				for (const [box, value] of Object.entries(more)) body.append(box, value);
				body.append('file', new File([new Uint8Array(bytes())], name));
				const begun = Date.now();
				const waiting = ground.askTwice(path, { method: 'POST', body });
				// Others are answered meanwhile.
				await pause(20);
				wrong.push(...(await healthy(ground)));
				const answer = await waiting;
				const said = (await answer?.text()) ?? '';
				const took = Date.now() - begun;
				if (!answer || answer.status >= 500 || /"status":5\d\d/.test(said))
					wrong.push(`${name} at ${path}: ${answer?.status} ${said.slice(0, 120)}`);
				if (/root:x:0|node_modules|SQLITE_/.test(said))
					wrong.push(`${name} at ${path}: says too much`);
				if (took > 20_000) wrong.push(`${name} at ${path}: ${took} ms`);
			}
		for (const id of ground.read<number>('select id from files')) {
			const answer = await ground.askTwice(`/files/${id}`);
			const type = answer?.headers.get('content-type') ?? '';
			if (!/^(image\/jpeg|application\/octet-stream)/.test(type))
				wrong.push(`a file is shown as ${type}`);
		}
		return {
			what: 'hostile files',
			tries,
			lost: 0,
			doubled: 0,
			wrong: [...wrong, ...ground.audit()]
		};
	} finally {
		await ground.end();
	}
}
