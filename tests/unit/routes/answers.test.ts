// What a form's action answers: the values by their shape, a message at each box, and nothing typed lost.
import {
	isActionFailure,
	isHttpError,
	isRedirect,
	redirect,
	type ActionFailure
} from '@sveltejs/kit';
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { z } from 'zod';
import {
	ConflictError,
	FieldError,
	NotFoundError,
	RefusedError
} from '../../../src/lib/core/refusals';
import type * as Answers from '../../../src/lib/server/answers';
import { UnavailableError } from '../../../src/lib/server/gateways/asking';
import '../../support/kit';
import { auditBooks } from '../../../scripts/audit/books';
import { addCustomer } from '../../../src/lib/server/services/customers/customers';
import { makeWorld, type TestWorld } from '../../support/world';

let world: TestWorld;
let answers: typeof Answers;
beforeEach(async () => {
	answers = await import('../../../src/lib/server/answers');
	world = makeWorld();
});
afterEach(() => world.end());

type Body = Record<string, string | string[] | File>;
function posting(fields: Body) {
	const body = new FormData();
	for (const [name, value] of Object.entries(fields))
		for (const one of Array.isArray(value) ? value : [value]) body.append(name, one);
	const request = new Request('http://127.0.0.1/x', { method: 'POST', body });
	return { request, locals: { world } } as unknown as Parameters<typeof Answers.act>[0];
}
const shape = () =>
	z.object({
		name: answers.box,
		on: answers.tick,
		row: answers.rowId,
		many: z.array(answers.rowId).catch([])
	});

interface Refused {
	form: {
		valid: boolean;
		errors: Record<string, string[]>;
		message?: string;
		data: Record<string, unknown>;
	};
}
function refused(answer: unknown): ActionFailure<Refused> {
	if (!isActionFailure(answer)) throw new Error('was not refused');
	return answer as unknown as ActionFailure<Refused>;
}

describe('the action of a form', () => {
	it('reads boxes, ticks, rows and many of a name; what is missing is empty', async () => {
		let seen: unknown;
		await answers.act(
			posting({ name: ' Kiln ', on: 'on', row: '12', many: ['3', '4'] }),
			shape(),
			(values) => {
				seen = values;
			}
		);
		expect(seen).to.deep.equal({ name: ' Kiln ', on: true, row: 12, many: [3, 4] });
		await answers.act(posting({}), shape(), (values) => {
			seen = values;
		});
		expect(seen).to.deep.equal({ name: '', on: false, row: 0, many: [] });
	});

	it('says that the disk is full, keeps what was typed, and takes it once there is room again', async () => {
		const client = world.db.$client;
		client.pragma(`max_page_count = ${client.pragma('page_count', { simple: true }) as number}`);
		const many = () => {
			for (let n = 0; n < 300; n++)
				addCustomer(world, { name: `Household ${n}`, kind: 'household', address: 'x'.repeat(900) });
		};
		const full = refused(await answers.act(posting({ name: 'Kiln' }), shape(), many));
		expect([full.status, full.data.form.message, full.data.form.data.name]).to.deep.equal([
			507,
			'There is no room left on the disk. Nothing was saved by this; make room, and press again.',
			'Kiln'
		]);
		client.pragma('max_page_count = 100000');
		expect(isActionFailure(await answers.act(posting({}), shape(), many))).to.equal(false);
		expect(auditBooks(client)).to.deep.equal([]);
	});

	it('takes nonsense for nothing, in no validator’s words', async () => {
		let seen: unknown;
		const answer = await answers.act(
			posting({ name: 'x', row: '-3', many: ['a'], on: 'perhaps' }),
			shape(),
			(values) => {
				seen = values;
			}
		);
		expect(seen).to.include({ name: 'x', row: 0 });
		expect(seen).to.deep.include({ many: [0] });
		expect(isActionFailure(answer)).to.equal(false);
	});

	it('answers what was done beside the form’s own state, which names the form', async () => {
		const answer = await answers.act(
			posting({ name: 'x', __superform_id: '?/save 7' }),
			shape(),
			() => ({ kept: 3 })
		);
		expect(answer).to.deep.include({ kept: 3 });
		expect(answer).to.have.nested.property('form.id', '?/save 7');
		expect(answer).to.have.nested.property('form.valid', true);
	});

	it('puts each message at its box, and gives back what was typed', async () => {
		const answer = refused(
			await answers.act(
				posting({ name: 'long', row: '5', __superform_id: 'form' }),
				shape(),
				() => {
					throw new FieldError({ name: 'Too long.', 'lines.2.price': 'No number.' });
				}
			)
		);
		expect(answer.status).to.equal(422);
		expect(answer.data.form.errors).to.deep.equal({
			name: ['Too long.'],
			'lines.2.price': ['No number.']
		});
		expect(answer.data.form.message).to.equal(undefined);
		expect(answer.data.form.valid).to.equal(false);
		expect(answer.data.form.data).to.include({ name: 'long', row: 5 });
	});

	it('says what belongs to no box by itself, with the status it has', async () => {
		const refusals: [Error, number, RegExp][] = [
			[new ConflictError(), 409, /./],
			[new NotFoundError('This visit'), 404, /This visit/],
			[new RefusedError('It is billed.'), 410, /^It is billed\.$/],
			[new UnavailableError('down'), 503, /Nothing was charged/]
		];
		for (const [problem, status, words] of refusals) {
			const answer = refused(
				await answers.act(posting({ name: 'x' }), shape(), () => {
					throw problem;
				})
			);
			expect(answer.status).to.equal(status);
			expect(answer.data.form.message).to.match(words);
			expect(answer.data.form.errors).to.deep.equal({});
		}
	});

	it('lets a redirect pass, and what is broken: nobody is told internals', async () => {
		const thrown = async (problem: () => never) =>
			answers.act(posting({}), shape(), problem).catch((error: unknown) => error);
		expect(isRedirect(await thrown(() => redirect(303, '/work')))).to.equal(true);
		const broken = new TypeError('x is undefined');
		expect(
			await thrown(() => {
				throw broken;
			})
		).to.equal(broken);
	});

	it('reads a day typed where no script could, and hands files on as they are', async () => {
		let day = '';
		let size = 0;
		await answers.act(
			posting({ date: 'fri', 'typed-day': 'date', file: new File(['abc'], 'a.csv') }),
			z.object({ date: answers.box }),
			async (values, _world, posted) => {
				day = values.date;
				size = (posted.get('file') as File).size;
			}
		);
		expect(day).to.equal('2026-11-27');
		expect(size).to.equal(3);
	});

	it('refuses a body that is no form', async () => {
		const request = new Request('http://127.0.0.1/x', { method: 'POST', body: 'x' });
		const problem: unknown = await answers
			.act({ request, locals: { world } } as never, shape(), () => undefined)
			.catch((error: unknown) => error);
		expect(isHttpError(problem, 400)).to.equal(true);
	});

	it('leaves a service’s own boxes missing where they are, so that its defaults hold', async () => {
		const service = z.object({ name: z.string(), days: z.coerce.number().default(14) });
		let seen: unknown;
		await answers.act(posting({ name: 'x' }), answers.boxesOf(service), (values) => {
			seen = service.parse(values);
		});
		expect(seen).to.deep.equal({ name: 'x', days: 14 });
		expect(answers.filled({ a: '', b: undefined, c: '0' })).to.deep.equal({ c: '0' });
	});

	it('gathers boxes that stand by a row, and nothing else', () => {
		const posted = new FormData();
		for (const [name, value] of [
			['shares.12', '5'],
			['shares.13', ''],
			['sharesx.1', '9'],
			['withheld.12', '1']
		] as const)
			posted.append(name, value);
		expect(answers.byId(posted, 'shares')).to.deep.equal({ 12: '5', 13: '' });
	});
});

describe('where somebody wanted to go', () => {
	const PLACES: [string | null, string][] = [
		['/billing?q=render&view=late#new', '/billing?q=render&view=late#new'],
		['/customers?q=Pořídka', '/customers?q=Po%C5%99%C3%ADdka'],
		[null, '/'],
		['', '/'],
		['billing', '/'],
		['https://evil.example/', '/'],
		['//evil.example', '/'],
		['/\\evil.example', '/'],
		// A browser leaves these out as it reads an address.
		['/\t/evil.example', '/'],
		['/\n/evil.example', '/'],
		['/\r\n\\evil.example', '/'],
		['javascript:alert(1)', '/'],
		['/..//evil.example', '/']
	];
	for (const [to, place] of PLACES)
		it(`${JSON.stringify(to)} is ${place}`, () => expect(answers.placeHere(to)).to.equal(place));

	it('is never another house, however it is written', () => {
		const parts = ['/', '\\', '\t', '\n', '..', '.', '%2f', '@', ':', 'evil.example'];
		for (const a of parts)
			for (const b of parts)
				for (const c of parts)
					for (const d of parts) {
						const to = `/${a}${b}${c}${d}`;
						const went = new URL(answers.placeHere(to), 'http://127.0.0.1:4400/sign-in');
						expect(went.origin, JSON.stringify(to)).to.equal('http://127.0.0.1:4400');
					}
	});
});

describe('what is written down of an address', () => {
	const said = (id: string | null, path: string) =>
		answers.pathForLog({
			route: { id },
			url: new URL(path, 'http://127.0.0.1')
		} as Parameters<typeof answers.pathForLog>[0]);
	it('is its path, and of a link never its key', () => {
		expect(said('/(desk)/billing/[id]', '/billing/7?q=x')).to.equal('/billing/7');
		expect(said('/(public)/p/[token]/pdf', '/p/s3cret/pdf')).to.equal('/(public)/p/[token]/pdf');
		expect(said(null, '/nowhere')).to.equal('/nowhere');
	});
});
