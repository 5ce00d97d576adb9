import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, idOf, orNotFound } from '$lib/server/answers';
import { deliverSoon } from '$lib/server/clockwork/delivery';
import { enquiryBoxes, typedEnquiry } from '$lib/server/enquiryForms';
import {
	answerEnquiry,
	closeEnquiry,
	enquiryToJob,
	noteAnswered,
	reopenEnquiry,
	saveEnquiry
} from '$lib/server/services/enquiries/enquiries';
import { enquiryPage } from '$lib/server/services/desk/enquiryPage';
import { questionsOf } from '$lib/server/services/enquiries/page';
import { quoteOfEnquiry } from '$lib/server/services/quotes/quotes';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { world }, params }) =>
	orNotFound(() => enquiryPage(world, idOf(params.id)));

export const actions: Actions = {
	save: (event) =>
		act(event, enquiryBoxes, ({ key: _key, version, ...form }, world, posted) => {
			const id = idOf(event.params.id);
			saveEnquiry(world, id, version, typedEnquiry(form, posted, questionsOf(world.db)));
		}),
	answer: (event) =>
		act(event, z.object({ key: box, to: box, subject: box, text: box }), (form, world) => {
			answerEnquiry(world, idOf(event.params.id), form);
			deliverSoon(world);
		}),
	answered: (event) =>
		act(event, z.object({}), (_form, world) => noteAnswered(world, idOf(event.params.id))),
	close: (event) =>
		act(event, z.object({ reason: box }), (form, world) =>
			closeEnquiry(world, idOf(event.params.id), form)
		),
	reopen: (event) =>
		act(event, z.object({}), (_form, world) => reopenEnquiry(world, idOf(event.params.id))),
	visit: (event) =>
		act(event, z.object({ day: box, from: box }), (form, world) => {
			redirect(303, `/work/${enquiryToJob(world, idOf(event.params.id), 'enquiry', form)}`);
		}),
	job: (event) =>
		act(event, z.object({}), (_form, world) => {
			redirect(303, `/work/${enquiryToJob(world, idOf(event.params.id), 'booked', {})}`);
		}),
	quote: (event) =>
		act(event, z.object({}), (_form, world) => {
			redirect(303, `/work/quotes/${quoteOfEnquiry(world, idOf(event.params.id))}?write`);
		})
};
