import { redirect } from '@sveltejs/kit';
import { act, readJson, readForm } from '$lib/server/answers';
import { TableError } from '$lib/core/formats/table';
import { bankPage, type LineState } from '$lib/server/services/money/bank/lines';
import {
	acceptLine,
	acceptReversal,
	acceptSure,
	reopenLine,
	setNotBusiness
} from '$lib/server/services/money/bank/accept';
import { bringIn } from '$lib/server/services/money/bank/bringIn';
import { FieldError } from '$lib/core/refusals';
import { matchingProgress, matchLines } from '$lib/server/services/money/bank/matching';
import type { Actions, PageServerLoad } from './$types';

const STATES: readonly LineState[] = ['open', 'accepted', 'notBusiness', 'out'];
const LARGEST = 60 * 1024 * 1024;

export const load: PageServerLoad = ({ locals, url }) => {
	const state = STATES.find((one) => one === url.searchParams.get('state')) ?? 'open';
	const page = /^[1-9]\d{0,5}$/.test(url.searchParams.get('page') ?? '')
		? Number(url.searchParams.get('page'))
		: 1;
	return { ...bankPage(locals.world, state, page), state, page, matching: matchingProgress() };
};

const idOf = (form: FormData) => Number(form.get('line')) || 0;

export const actions: Actions = {
	file: async ({ request, locals }) => {
		const file = (await readForm(request, locals.world.clock.today())).get('file');
		const result = await act(async () => {
			if (!(file instanceof File) || file.size === 0)
				throw new FieldError({ file: 'Choose a statement file from your bank.' });
			if (file.size > LARGEST)
				throw new FieldError({ file: 'The file is larger than 60 MB: split it.' });
			try {
				return bringIn(locals.world, file.name, new Uint8Array(await file.arrayBuffer()));
			} catch (error) {
				if (error instanceof TableError) throw new FieldError({ file: error.message });
				throw error;
			}
		});
		if (!('importId' in result)) return result;
		if (result.asking) redirect(303, `/money/columns/${result.importId}`);
		matchLines(locals.world).catch(() => undefined);
		return { came: result };
	},
	accept: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() => {
			acceptLine(locals.world, idOf(form), {
				payerId: Number(form.get('payer')) || 0,
				...(form.get('shares') ? { shares: readJson(form.get('shares')) } : {}),
				...(form.get('recorded') ? { recorded: readJson(form.get('recorded')) } : {})
			});
			return { accepted: 1 };
		});
	},
	takeBack: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() => acceptReversal(locals.world, idOf(form), Number(form.get('payment')) || 0));
	},
	sure: ({ locals }) =>
		act(async () => {
			const done = await acceptSure(locals.world);
			matchLines(locals.world).catch(() => undefined);
			return { sure: done };
		}),
	notBusiness: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() => setNotBusiness(locals.world, idOf(form)));
	},
	reopen: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() => {
			reopenLine(locals.world, idOf(form));
			matchLines(locals.world).catch(() => undefined);
		});
	}
};
