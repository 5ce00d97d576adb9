import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, idOf, orNotFound, tick } from '$lib/server/answers';
import { deliverOrLeave, deliverSoon } from '$lib/server/clockwork/delivery';
import { quoteDetail, quoteSheetPage } from '$lib/server/services/desk/quotePage';
import { invoiceDeposits, recordDeposit } from '$lib/server/services/money/depositRequests';
import { settleCancelled } from '$lib/server/services/money/cancelled';
import { acceptByHand } from '$lib/server/services/quotes/accept';
import { noteCancelled } from '$lib/server/services/quotes/cancel';
import { answerQuestion } from '$lib/server/services/quotes/page';
import { loadQuote } from '$lib/server/services/quotes/quotes';
import {
	noteDeclined,
	prolongQuote,
	quietQuote,
	reopenQuote,
	withdrawQuote
} from '$lib/server/services/quotes/answers';
import { confirmAcceptances } from '$lib/server/services/quotes/record';
import { sendQuote } from '$lib/server/services/quotes/send';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { world }, params, url }) => {
	const id = idOf(params.id);
	const { state } = orNotFound(() => loadQuote(world.db, id));
	const detail = quoteDetail(world, id);
	const writes =
		state === 'draft' || (state === 'sent' && (url.searchParams.has('write') || !detail));
	return {
		state,
		detail: writes ? null : detail,
		sheet: writes ? quoteSheetPage(world, id) : null,
		just: url.searchParams.get('just') ?? ''
	};
};

const reason = z.object({ reason: box });

export const actions: Actions = {
	again: (event) =>
		act(event, z.object({ key: box, to: box, subject: box, text: box }), async (form, world) => {
			const id = idOf(event.params.id);
			await sendQuote(world, id, loadQuote(world.db, id).version, form);
			await deliverOrLeave(world);
		}),
	withdraw: (event) =>
		act(event, reason, (form, world) => withdrawQuote(world, idOf(event.params.id), form)),
	declined: (event) =>
		act(event, reason, (form, world) => noteDeclined(world, idOf(event.params.id), form)),
	reopen: (event) =>
		act(event, z.object({}), (_form, world) => reopenQuote(world, idOf(event.params.id))),
	quiet: (event) =>
		act(event, z.object({ quiet: tick }), ({ quiet }, world) =>
			quietQuote(world, idOf(event.params.id), quiet)
		),
	prolong: (event) =>
		act(event, z.object({ days: box }), ({ days }, world) => {
			prolongQuote(world, idOf(event.params.id), days);
		}),
	answer: (event) =>
		act(event, z.object({ question: box, answer: box }), (form, world) => {
			answerQuestion(world, idOf(event.params.id), form);
			deliverSoon(world);
		}),
	byHand: (event) =>
		act(
			event,
			z.object({
				key: box,
				n: box,
				total: box,
				picked: box,
				name: box,
				orderNumber: box,
				agreedOn: box,
				informed: box,
				inWriting: tick
			}),
			async (form, world) => {
				acceptByHand(world, idOf(event.params.id), form);
				await confirmAcceptances(world);
				deliverSoon(world);
			}
		),
	cancelled: (event) =>
		act(event, z.object({ sentOn: box, how: box }), (form, world) => {
			noteCancelled(world, idOf(event.params.id), form);
			deliverSoon(world);
		}),
	settle: (event) =>
		act(event, z.object({ done: box }), async (form, world) => {
			const draft = await settleCancelled(world, idOf(event.params.id), form);
			if (draft !== null) redirect(303, `/billing/${draft}`);
		}),
	deposit: (event) =>
		act(event, z.object({ key: box, date: box, way: box }), async (form, world) => {
			recordDeposit(world, idOf(event.params.id), form);
			await invoiceDeposits(world);
			deliverSoon(world);
		})
};
