// Saving as one types: what was typed is never lost, and never written over what another tab wrote.
import { expect } from 'chai';
import { afterEach, before, beforeEach, describe, it } from 'mocha';
import type * as Module from '../../../src/lib/ui/invoices/sheet/autosave.svelte';
import { loadRunes } from '../../support/runes';

let Autosave: typeof Module.Autosave;
let now: number;
let timers: { id: number; at: number; run: () => void }[];
let asked: { version: number; sheet: unknown; keepalive: boolean }[];
let answerNext: () => Promise<Response>;
let stored: Map<string, string>;
let tabs: Channel[];
let ears: Record<string, () => void>;

class Channel {
	onmessage: ((event: { data: unknown }) => void) | null = null;
	constructor(readonly name: string) {
		tabs.push(this);
	}
	postMessage(data: unknown) {
		for (const tab of tabs) if (tab !== this && tab.name === this.name) tab.onmessage?.({ data });
	}
	close() {
		tabs = tabs.filter((tab) => tab !== this);
	}
}

const real = {
	setTimeout: globalThis.setTimeout,
	clearTimeout: globalThis.clearTimeout,
	fetch: globalThis.fetch,
	BroadcastChannel: globalThis.BroadcastChannel
};
const settled = () => new Promise<void>((done) => setImmediate(done));

/** Lets time pass: what falls due runs in order, and what it awaits is awaited. */
async function pass(ms: number): Promise<void> {
	const until = now + ms;
	for (;;) {
		const next = timers.filter(({ at }) => at <= until).sort((a, b) => a.at - b.at)[0];
		if (!next) break;
		timers = timers.filter((one) => one !== next);
		now = next.at;
		next.run();
		await settled();
	}
	now = until;
	await settled();
}

const ok = (version: number) => async () => Response.json({ version, savedAt: now });
const status = (code: number, message?: string) => async () =>
	Response.json(message ? { message } : {}, { status: code });
const lost = async (): Promise<Response> => {
	throw new TypeError('fetch failed');
};
const begin = (version = 3) =>
	new Autosave({ id: 7, version, sheet: { rows: [] } as never, savedAt: 0 });
const KEY = 'axiometer-draft-7';

describe('autosave', () => {
	before(async () => {
		({ Autosave } = await loadRunes<typeof Module>('src/lib/ui/invoices/sheet/autosave.svelte.ts'));
	});
	beforeEach(() => {
		now = 0;
		[timers, asked, tabs, ears] = [[], [], [], {}];
		stored = new Map();
		answerNext = ok(4);
		let count = 0;
		Object.assign(globalThis, {
			setTimeout: (run: () => void, ms: number) => {
				timers.push({ id: ++count, at: now + ms, run });
				return count;
			},
			clearTimeout: (id: number) => (timers = timers.filter((one) => one.id !== id)),
			fetch: (_: string, { body, keepalive }: RequestInit) => {
				asked.push({ ...JSON.parse(String(body)), keepalive: keepalive ?? false });
				return answerNext();
			},
			BroadcastChannel: Channel,
			localStorage: {
				getItem: (key: string) => stored.get(key) ?? null,
				setItem: (key: string, value: string) => stored.set(key, value),
				removeItem: (key: string) => stored.delete(key)
			},
			window: {
				addEventListener: (name: string, run: () => void) => (ears[name] = run),
				removeEventListener: (name: string) => delete ears[name]
			}
		});
	});
	afterEach(() => {
		Object.assign(globalThis, real);
		for (const name of ['localStorage', 'window']) Reflect.deleteProperty(globalThis, name);
	});

	it('sends the last of many keystrokes once, and forgets its own copy only then', async () => {
		const save = begin();
		for (const text of ['"a"', '"ab"', '"abc"']) {
			save.changed(text);
			await pass(349);
		}
		expect(asked).to.deep.equal([]);
		expect(stored.get(KEY)).to.equal('{"version":3,"sheet":"abc"}');
		await pass(1);
		expect(asked).to.deep.equal([{ version: 3, sheet: 'abc', keepalive: false }]);
		expect([save.state, save.version, stored.has(KEY)]).to.deep.equal(['saved', 4, false]);
		save.changed('"abc"');
		await pass(10_000);
		expect(asked).to.have.length(1);
	});

	it('goes on from the new version with what was typed while it saved', async () => {
		const save = begin();
		let arrive = (_: Response) => {};
		answerNext = () => new Promise((done) => (arrive = done));
		save.changed('"a"');
		await pass(350);
		save.changed('"ab"');
		await pass(350);
		expect(asked).to.have.length(1);
		answerNext = ok(5);
		arrive(Response.json({ version: 4, savedAt: 1 }));
		await pass(350);
		expect(asked.map(({ version, sheet }) => [version, sheet])).to.deep.equal([
			[3, 'a'],
			[4, 'ab']
		]);
		expect([save.state, save.version, stored.has(KEY)]).to.deep.equal(['saved', 5, false]);
	});

	it('keeps trying without a line, ever more slowly, at once when it is back, and loses nothing', async () => {
		const save = begin();
		const end = save.begin();
		answerNext = lost;
		save.changed('"a"');
		await pass(350);
		expect(save.state).to.equal('waiting');
		for (const wait of [1000, 2000, 5000, 10_000, 10_000]) {
			const before = asked.length;
			await pass(wait - 1);
			expect(asked.length, `before ${wait}`).to.equal(before);
			await pass(1);
			expect(asked.length, `after ${wait}`).to.equal(before + 1);
		}
		expect(stored.get(KEY)).to.equal('{"version":3,"sheet":"a"}');
		answerNext = ok(4);
		ears.online!();
		await pass(0);
		expect([save.state, save.message, stored.has(KEY)]).to.deep.equal(['saved', '', false]);
		end();
	});

	it('stops at a conflict, overwrites nothing, and still keeps what is typed', async () => {
		const save = begin();
		answerNext = status(409);
		save.changed('"a"');
		await pass(350);
		expect(save.state).to.equal('conflict');
		save.changed('"ab"');
		await pass(60_000);
		expect(asked).to.have.length(1);
		expect(await save.flush()).to.equal(false);
		expect(stored.get(KEY)).to.equal('{"version":3,"sheet":"ab"}');
	});

	it('waits for the owner to sign in again, and saves then', async () => {
		const save = begin();
		answerNext = status(401);
		save.changed('"a"');
		await pass(350);
		expect(save.state).to.equal('signedOut');
		answerNext = ok(4);
		await pass(5000);
		expect([save.state, save.message]).to.deep.equal(['saved', '']);
	});

	it('says that a draft is gone, in the server’s words, and asks no more', async () => {
		for (const code of [404, 410]) {
			const save = begin();
			asked = [];
			answerNext = status(code, 'It was issued.');
			save.changed('"a"');
			await pass(350);
			save.changed('"ab"');
			await pass(60_000);
			expect([save.state, save.message, asked.length]).to.deep.equal(['gone', 'It was issued.', 1]);
		}
	});

	it('knows of another tab, and stops when that has saved', async () => {
		const one = begin();
		const two = begin();
		one.begin();
		const end = two.begin();
		expect([one.alsoOpen, two.alsoOpen]).to.deep.equal([true, true]);
		two.changed('"b"');
		await pass(350);
		expect([one.state, two.state]).to.deep.equal(['conflict', 'saved']);
		end();
		expect(one.alsoOpen).to.equal(false);
	});

	it('sends the last keystrokes with the page that closes', () => {
		const save = begin();
		save.begin();
		save.changed('"a"');
		ears.pagehide!();
		expect(asked).to.deep.equal([{ version: 3, sheet: 'a', keepalive: true }]);
		expect(stored.has(KEY), 'until it is known to have arrived').to.equal(true);
	});

	it('takes up what the server never got; a clash only where both went on', () => {
		const copy = (version: number, sheet: unknown) =>
			stored.set(KEY, JSON.stringify({ version, sheet }));
		expect(begin().leftover()).to.equal(null);
		copy(3, { rows: [1] });
		expect(begin().leftover()).to.deep.equal({ sheet: { rows: [1] }, clash: false });
		copy(2, { rows: [1] });
		expect(begin().leftover()).to.deep.equal({ sheet: { rows: [1] }, clash: true });
		copy(2, { rows: [] });
		expect(begin().leftover(), 'it did arrive').to.equal(null);
		stored.set(KEY, '{"version":3,');
		expect(begin().leftover()).to.equal(null);
	});
});
