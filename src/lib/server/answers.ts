// How services' refusals become answers: messages at their fields, never a stack or an internal.
import { writeMinor } from '$lib/core/money/json';
import { error, fail, json, type ActionFailure, type RequestEvent } from '@sveltejs/kit';
import { superValidate, type SuperValidated } from 'sveltekit-superforms/server';
import { zod4 } from 'sveltekit-superforms/adapters';
import { z } from 'zod';
import { readTypedDate } from '../core/calendar/conversion';
import { TableError } from '../core/formats/table';
import { formOf } from './multipart';
import { parseMoney } from '../core/money/decimal';
import { readTypedNumber } from '../core/money/typed';
import { UnavailableError } from './gateways/asking';
import { troubleOf } from './db/trouble';
import {
	ConflictError,
	FieldError,
	ForbiddenError,
	NotFoundError,
	RefusedError
} from '../core/refusals';
import { NotReadyError } from './services/invoices/freeze';
import type { World } from './world';

export interface Refusal {
	message: string;
	fields: Record<string, string>;
}

function refusalOf(problem: unknown): { status: number; refusal: Refusal } | null {
	const trouble = troubleOf(problem);
	if (trouble) return { status: 507, refusal: { message: trouble, fields: {} } };
	if (problem instanceof FieldError)
		return { status: 422, refusal: { message: problem.message, fields: problem.fields } };
	// A table that cannot be read came in the box for the file.
	if (problem instanceof TableError)
		return {
			status: 422,
			refusal: { message: problem.message, fields: { file: problem.message } }
		};
	if (problem instanceof NotReadyError) {
		const fields = Object.fromEntries(problem.problems.map((one) => [one.path, one.message]));
		return { status: 422, refusal: { message: problem.message, fields } };
	}
	if (problem instanceof ConflictError)
		return { status: 409, refusal: { message: problem.message, fields: {} } };
	if (problem instanceof NotFoundError)
		return { status: 404, refusal: { message: problem.message, fields: {} } };
	if (problem instanceof ForbiddenError)
		return { status: 403, refusal: { message: problem.message, fields: {} } };
	if (problem instanceof RefusedError)
		return { status: 410, refusal: { message: problem.message, fields: {} } };
	if (problem instanceof UnavailableError) {
		return {
			status: 503,
			refusal: {
				message:
					'Payments cannot be reached right now. Nothing was charged. Try again in a minute.',
				fields: {}
			}
		};
	}
	return null;
}

// What a form's boxes hold. Their meaning is checked by the service the values go to; here only their shape is settled, and a
// box that is missing or holds nonsense is as good as empty, so that no validator's own words reach a person.
export const box = z.string().catch('');
export const tick = z.boolean().catch(false);
/** A hidden number, such as the row a button stands in; 0, which nothing has, where it is none. */
export const rowId = z.number().int().min(0).catch(0);

/** The boxes a service's own schema names. What is missing stays missing, so that its defaults hold. */
export const boxesOf = <S extends z.ZodRawShape>(schema: z.ZodObject<S>) =>
	z.object(
		Object.fromEntries(
			Object.keys(schema.shape).map((name) => [name, z.string().optional().catch(undefined)])
		) as Record<keyof S & string, z.ZodCatch<z.ZodOptional<z.ZodString>>>
	);

/** Without the boxes that were left empty. */
export const filled = (values: Record<string, unknown>): Record<string, unknown> =>
	Object.fromEntries(
		Object.entries(values).filter(([, value]) => value !== undefined && value !== '')
	);

type Shape = z.ZodObject;
/** What the frame of a form takes back: the values, a message at each box, and one that belongs to no box. */
export type FormState<S extends Shape> = SuperValidated<z.infer<S>, string>;
type Done<S extends Shape, T> = { form: FormState<S> } & (T extends object ? T : unknown);
type Posted = Pick<RequestEvent, 'request' | 'locals'>;

/**
 * A form's action: reads what was posted by its shape, does the work, and answers what the frame of the form understands.
 * What was typed goes back with the messages; files are read from `posted`.
 */
export async function act<S extends Shape, T>(
	{ request, locals }: Posted,
	shape: S,
	work: (values: z.infer<S>, world: World, posted: FormData) => T | Promise<T>
): Promise<Done<S, T> | ActionFailure<Refusal & { form: FormState<S> }>> {
	const posted = await readForm(request, locals.world.clock.today());
	// The types of the two libraries agree, but for how they spell it.
	const form = (await superValidate(posted, zod4(shape))) as unknown as FormState<S>;
	try {
		const done = await work(form.data, locals.world, posted);
		return { ...(typeof done === 'object' ? done : {}), form } as Done<S, T>;
	} catch (problem) {
		const known = refusalOf(problem);
		if (!known) throw problem;
		const { message, fields } = known.refusal;
		form.valid = false;
		form.errors = Object.fromEntries(
			Object.entries(fields).map(([name, text]) => [name, [text]])
		) as typeof form.errors;
		if (Object.keys(fields).length === 0) form.message = message;
		return fail(known.status, { ...known.refusal, form });
	}
}

/** For the JSON the sheet talks. */
export async function answer(work: () => unknown): Promise<Response> {
	try {
		return new Response(JSON.stringify((await work()) ?? {}, writeMinor), {
			headers: { 'content-type': 'application/json' }
		});
	} catch (problem) {
		const known = refusalOf(problem);
		if (!known) throw problem;
		return json(known.refusal, { status: known.status });
	}
}

/** The JSON a page sent: an object. @throws FieldError where it is none. */
export async function readBody(request: Request): Promise<Record<string, unknown>> {
	const body: unknown = await request.json().catch(() => null);
	if (typeof body !== 'object' || body === null || Array.isArray(body))
		throw new FieldError({ '': 'This could not be read.' });
	return body as Record<string, unknown>;
}

/** For loading a page: what is not there is a 404. */
export function orNotFound<T>(work: () => T): T {
	const said = (problem: unknown): never => {
		if (problem instanceof NotFoundError) error(404, problem.message);
		if (problem instanceof ForbiddenError) error(403, problem.message);
		throw problem;
	};
	try {
		const found = work();
		return found instanceof Promise ? (found.catch(said) as T) : found;
	} catch (problem) {
		return said(problem);
	}
}

/** Where what was signed or accepted came from, as far as it is known. */
export const fromOf = (event: Pick<RequestEvent, 'getClientAddress' | 'request'>) => ({
	address: event.getClientAddress().slice(0, 100),
	agent: (event.request.headers.get('user-agent') ?? '').slice(0, 300)
});

const HERE = 'http://here.invalid';

/** Where somebody wanted to go, as a path of this app; the first page where it is anywhere else, as a browser would read it. */
export function placeHere(to: string | null): string {
	if (!to?.startsWith('/') || !URL.canParse(to, HERE)) return '/';
	const { origin, pathname, search, hash } = new URL(to, HERE);
	// What is left once dots are resolved may begin like another house.
	return origin === HERE && !pathname.startsWith('//') ? pathname + search + hash : '/';
}

/** What is written down of an address: the key of a link stays with whoever has it. */
export const pathForLog = ({ route, url }: Pick<RequestEvent, 'route' | 'url'>): string =>
	route.id?.includes('[token]') ? route.id : url.pathname;

/** A number from an address; anything else is not found. */
export function idOf(text: string): number {
	if (!/^\d{1,12}$/.test(text)) error(404, 'There is no such page.');
	return Number(text);
}

/**
 * What was posted. A day typed where no script could read it is read here; what is no day stays as it was typed, for the
 * service to refuse.
 */
export async function readForm(request: Request, today: string): Promise<FormData> {
	const form = await formOf(request).catch(() => error(400, 'This could not be read.'));
	for (const name of form.getAll('typed-day').map(String)) {
		const day = readTypedDate(String(form.get(name) ?? ''), today);
		if (day !== null) form.set(name, day);
	}
	form.delete('typed-day');
	return form;
}

/** The boxes `prefix.12` as an object by 12. */
export function byId(posted: FormData, prefix: string): Record<string, string> {
	return Object.fromEntries(
		[...posted].flatMap(([name, value]) =>
			name.startsWith(`${prefix}.`) ? [[name.slice(prefix.length + 1), String(value)]] : []
		)
	);
}

/**
 * The bytes of the file in the box `file`.
 * @throws FieldError where there is none, or it has more than `most` megabytes
 */
export async function fileOf(
	posted: FormData,
	most: number,
	none = 'Choose a file.',
	tooLarge = `The file is larger than ${most} MB.`
): Promise<{ name: string; bytes: Uint8Array<ArrayBuffer> }> {
	const file = posted.get('file');
	if (!(file instanceof File) || file.size === 0) throw new FieldError({ file: none });
	if (file.size > most * 1024 * 1024) throw new FieldError({ file: tooLarge });
	return { name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) };
}

/** The file in a box that may stay empty. */
export async function optionalFile(
	posted: FormData,
	box: string
): Promise<{ name: string; bytes: Buffer } | null> {
	const file = posted.get(box);
	if (!(file instanceof File) || file.size === 0) return null;
	return { name: file.name, bytes: Buffer.from(await file.arrayBuffer()) };
}

/** JSON in a field of a form; nothing where it is none, for the service to refuse. */
export function readJson(value: FormDataEntryValue | null): unknown {
	try {
		return JSON.parse(typeof value === 'string' ? value : '');
	} catch {
		return undefined;
	}
}

/** An amount a payer typed, in pence; nothing typed: the whole. @throws FieldError */
export function typedAmount(typed: string): number | undefined {
	if (typed === '') return undefined;
	const read = readTypedNumber(typed, { decimals: 2 });
	if (!read.ok)
		throw new FieldError({ amount: 'Write the amount as a plain number, such as 250.00.' });
	return Number(parseMoney(read.text));
}

/** For news of outside services: unsigned, not understood, not known yet, or taken. */
export function takeNews(signed: boolean, work: () => void): Response {
	if (!signed) return new Response('not signed', { status: 401 });
	try {
		work();
	} catch (problem) {
		if (problem instanceof NotFoundError) return new Response('not known', { status: 404 });
		if (problem instanceof z.ZodError || problem instanceof SyntaxError)
			return new Response('not understood', { status: 400 });
		throw problem;
	}
	return new Response('taken');
}
