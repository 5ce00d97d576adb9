// Every route, called with a request: nonsense is refused by a status and never breaks, and JSON that cannot be read changes
// nothing. Whoever adds a route has it tried here by that.
import { readdirSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { isActionFailure, isHttpError, isRedirect } from '@sveltejs/kit';
import { expect } from 'chai';
import { after, before, describe, it } from 'mocha';
import { readConfig } from '../../../src/lib/server/config';
import { addJob } from '../../../src/lib/server/services/jobs/jobs';
import '../../support/kit';
import { draftOf, HOUSEHOLD, issued, makeWorld, type TestWorld } from '../../support/world';

type Handler = (event: object) => unknown;
interface Route {
	path: string;
	source: string;
	handlers: [string, Handler][];
}

const ROUTES = 'src/routes';
const files = (readdirSync(ROUTES, { recursive: true }) as string[])
	.filter((path) => /\+(page|layout)?\.?server\.ts$/.test(path))
	.sort();

let world: TestWorld;
const routes: Route[] = [];

/** Everything in the data file, table by table. */
function everything(): string {
	const db = world.db.$client;
	const tables = db
		.prepare(`select name from sqlite_master where type = 'table' and name not like '%search%'`)
		.pluck()
		.all() as string[];
	return JSON.stringify(tables.map((table) => db.prepare(`select * from "${table}"`).all()));
}

function eventOf(params: string, address: string, request: RequestInit): object {
	const url = new URL(address, 'http://127.0.0.1:4400/x');
	return {
		request: new Request(url, request),
		url,
		locals: { world, config: readConfig({ AXIOMETER_DATA: world.folder }), signedIn: true },
		params: new Proxy({}, { get: () => params }),
		cookies: { get: () => undefined, set: () => undefined, delete: () => undefined },
		getClientAddress: () => '127.0.0.1',
		setHeaders: () => undefined,
		depends: () => undefined,
		untrack: (work: () => unknown) => work(),
		parent: async () => ({}),
		route: { id: null }
	};
}

/** How it was answered: a status, or `ok`. What breaks is thrown on. */
async function answered(handler: Handler, event: object): Promise<number> {
	try {
		const result = await handler(event);
		if (result instanceof Response) {
			await result.arrayBuffer();
			return result.status;
		}
		return isActionFailure(result) ? result.status : 200;
	} catch (thrown) {
		if (isHttpError(thrown) || isRedirect(thrown)) return thrown.status;
		throw thrown;
	}
}

/** Tries one after the other and lists what broke, so that one failure does not hide the next. */
async function broken(tries: [string, Handler, () => object][]): Promise<string[]> {
	const list: string[] = [];
	for (const [name, handler, event] of tries) {
		try {
			const status = await answered(handler, event());
			if (status >= 500 && status !== 503) list.push(`${name}: ${status}`);
		} catch (thrown) {
			list.push(`${name}: ${String(thrown).slice(0, 160)}`);
		}
	}
	return list;
}

const form = (fields: Record<string, string>): RequestInit => ({
	method: 'POST',
	body: new URLSearchParams(fields)
});
const json = (method: string, body: string): RequestInit => ({
	method,
	body,
	headers: { 'content-type': 'application/json' }
});

/** In the short run the first few of what is tried with each route; in the long one all of it. */
const some = <T>(all: readonly T[], few: number): readonly T[] =>
	process.env.AXIOMETER_TEST_ALL ? all : all.slice(0, few);

/** What writes out all of the books: the first of each kind of address is enough. */
const WHOLE = /export|data\/zip|\?backup/;

describe('every route', () => {
	before(async () => {
		world = makeWorld();
		await issued(world, HOUSEHOLD);
		draftOf(world, HOUSEHOLD);
		addJob(world, 'a job', { title: 'Plaster', customerId: 1, lines: [] });
		for (const path of files) {
			const module = (await import(pathToFileURL(resolve(ROUTES, path)).href)) as {
				load?: Handler;
				actions?: Record<string, Handler>;
			} & Record<string, Handler>;
			const handlers: [string, Handler][] = Object.entries(module.actions ?? {}).map(
				([name, action]) => [`?${name}`, action]
			);
			for (const name of ['load', 'GET', 'POST', 'PUT', 'DELETE'])
				if (module[name]) handlers.push([name, module[name]]);
			routes.push({ path, source: readFileSync(join(ROUTES, path), 'utf8'), handlers });
		}
	});
	after(() => world.end());

	const of = (wanted: (name: string) => boolean) =>
		routes.flatMap(({ path, source, handlers }) =>
			handlers
				.filter(([name]) => wanted(name))
				.map(([name, handler]) => ({ name: `${path} ${name}`, source, handler }))
		);
	const reads = (name: string) => name === 'load' || name === 'GET';

	it('is found, whatever number or word stands in its address', async () => {
		const tries = of(reads).flatMap(({ name, handler }) =>
			(WHOLE.test(name) ? ['1', 'x'] : some(['1', '999999', "x'", '2', '-1', '0'], 3)).map(
				(param): [string, Handler, () => object] => [
					`${name} of ${param}`,
					handler,
					() => eventOf(param, '', {})
				]
			)
		);
		expect(await broken(tries)).to.deep.equal([]);
	});

	it('bears any words after the question mark', async () => {
		const known = (source: string) =>
			[...source.matchAll(/'([a-zA-Z-]+)'/g)].map(([, key]) => key!);
		const tries = of((name) => reads(name)).flatMap(({ name, source, handler }) =>
			(WHOLE.test(name)
				? ['x']
				: some(["x'", '9999999999999999', '%00', '-1', '2026-02-31'], 3)
			).map((value): [string, Handler, () => object] => {
				const query = [...new Set([...known(source), 'q', 'page', 'after', 'before', 'state'])]
					.map((key) => `${key}=${value}`)
					.join('&');
				return [`${name}?…=${value}`, handler, () => eventOf('1', `?${query}`, {})];
			})
		);
		expect(await broken(tries)).to.deep.equal([]);
	});

	it('refuses an empty form, and one full of nonsense, at its fields', async () => {
		const tries = of((name) => name.startsWith('?')).flatMap(({ name, source, handler }) => {
			const names = new Set(
				[...source.matchAll(/'([a-zA-Z-]+)'|(\w+): (?:box|tick|rowId|z\.)/g)].map(
					([, one, two]) => one ?? two!
				)
			);
			const full = (value: string) => Object.fromEntries([...names].map((one) => [one, value]));
			return (WHOLE.test(name) ? ['1'] : some(['1', 'x', '999999'], 2)).flatMap((param) =>
				some(
					[{}, full('nonsense'), full('999999999999999999'), full('-1'), full('{"a":[]}')],
					3
				).map((fields, index): [string, Handler, () => object] => [
					`${name} of ${param}, form ${index}`,
					handler,
					() => eventOf(param, '', form(fields))
				])
			);
		});
		expect(await broken(tries)).to.deep.equal([]);
	});

	it('refuses JSON that is none, or says nothing it knows, and changes nothing', async () => {
		const before = everything();
		const tries = of((name) => name === 'POST' || name === 'PUT').flatMap(({ name, handler }) =>
			[
				'',
				'null',
				'[]',
				'"x"',
				'7',
				'{"version":"x"}',
				'{"action":"nonsense"}',
				'{"sheet":{"rows":7}}'
			]
				.filter(() => !/sign-out|billing\/new/.test(name))
				.map((body): [string, Handler, () => object] => [
					`${name} ${body}`,
					handler,
					() => eventOf('1', '', json(name.endsWith('PUT') ? 'PUT' : 'POST', body))
				])
		);
		expect(await broken(tries)).to.deep.equal([]);
		expect(everything() === before, 'nothing changed').to.equal(true);
	});
});
