import { redirect } from '@sveltejs/kit';
import { act } from '$lib/server/answers';
import { enquiryBoxes, typedEnquiry } from '$lib/server/enquiryForms';
import { addEnquiry } from '$lib/server/services/enquiries/enquiries';
import { questionsOf } from '$lib/server/services/enquiries/page';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => ({
	questions: questionsOf(locals.world.db)
});

export const actions: Actions = {
	default: (event) =>
		act(event, enquiryBoxes, ({ key, version: _version, ...form }, world, posted) => {
			const id = addEnquiry(world, key, typedEnquiry(form, posted, questionsOf(world.db)));
			redirect(303, `/work/enquiries/${id}`);
		})
};
