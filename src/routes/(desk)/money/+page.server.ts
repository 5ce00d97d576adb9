import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, fileOf, readJson, rowId } from '$lib/server/answers';
import { readCursor } from '$lib/core/paging';
import type { LineState } from '$lib/server/services/money/bank/lines';
import {
	acceptLine,
	acceptReversal,
	acceptSure,
	reopenLine,
	setNotBusiness
} from '$lib/server/services/money/bank/accept';
import { fileIn, linesShown } from '$lib/server/services/money/bank/incoming';
import { matchingProgress, matchLines } from '$lib/server/services/money/bank/matching';
import type { Actions, PageServerLoad } from './$types';

const STATES: readonly LineState[] = ['open', 'accepted', 'notBusiness', 'out'];

export const load: PageServerLoad = async ({ locals, url }) => {
	const state = STATES.find((one) => one === url.searchParams.get('state')) ?? 'open';
	return {
		...(await linesShown(locals.world, state, readCursor(url.searchParams))),
		state,
		brought: Number(url.searchParams.get('brought')) || null,
		matching: matchingProgress()
	};
};

const line = { line: rowId };

export const actions: Actions = {
	file: (event) =>
		act(event, z.object({}), async (_values, world, posted) => {
			const { name, bytes } = await fileOf(
				posted,
				25,
				'Choose a statement file from your bank.',
				'The file is larger than 25 MB: split it.'
			);
			redirect(303, `/money/look/${await fileIn(world, name, bytes)}`);
		}),
	accept: (event) =>
		act(
			event,
			z.object({ ...line, payer: rowId, shares: box, recorded: box }),
			({ line, payer, shares, recorded }, world) => {
				acceptLine(world, line, {
					payerId: payer,
					...(shares ? { shares: readJson(shares) } : {}),
					...(recorded ? { recorded: readJson(recorded) } : {})
				});
				return { accepted: 1 };
			}
		),
	takeBack: (event) =>
		act(event, z.object({ ...line, payment: rowId }), ({ line, payment }, world) => {
			acceptReversal(world, line, payment);
		}),
	sure: (event) =>
		act(event, z.object({}), async (_values, world) => {
			const done = await acceptSure(world);
			matchLines(world).catch(() => undefined);
			return { sure: done };
		}),
	notBusiness: (event) =>
		act(event, z.object(line), ({ line }, world) => {
			setNotBusiness(world, line);
		}),
	reopen: (event) =>
		act(event, z.object(line), ({ line }, world) => {
			reopenLine(world, line);
			matchLines(world).catch(() => undefined);
		})
};
