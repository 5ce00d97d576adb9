import { redirect } from '@sveltejs/kit';
import { act, box, boxesOf } from '$lib/server/answers';
import { deviceOf } from '$lib/server/guesser';
import { setSession } from '$lib/server/cookies';
import { isSetUp, readBusiness, saveBusiness } from '$lib/server/services/business/settings';
import { businessForm } from '$lib/server/services/business/form';
import { isSetupCode, markClaimed } from '$lib/server/services/business/claim';
import { FieldError } from '$lib/core/refusals';
import { checkPassword, hasOwner, setPassword } from '$lib/server/services/business/signIn';
import { openSession } from '$lib/server/services/business/sessions';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ url }) => ({ code: url.searchParams.get('code') ?? '' });

export const actions: Actions = {
	default: (event) =>
		act(
			event,
			boxesOf(businessForm).extend({ code: box }),
			async ({ code, ...values }, world, posted) => {
				if (hasOwner(world) && isSetUp(world)) redirect(303, '/sign-in');
				const { config } = event.locals;
				if (!isSetupCode(code, config.setupCode))
					throw new FieldError({
						code: 'That is not the code. It stands in the window in which Axiometer was started, and changes with every start.'
					});
				const password = String(posted.get('password') ?? '');
				// All is looked at before anything is written, so that every message comes at once.
				const wrong = { ...passwordProblem(password), ...unanswered(values) };
				if (!values.email?.trim()) wrong.email = 'Copies, tests and news of payments go there.';
				try {
					const [vatRegistered, cisSubcontractor] = QUESTIONS.map((name) => values[name] === 'yes');
					const answers = { ...values, vatRegistered, cisSubcontractor, copyToSelf: true };
					if (Object.keys(wrong).length) readBusiness(answers);
					else saveBusiness(world, answers, true);
				} catch (problem) {
					if (problem instanceof FieldError) throw new FieldError({ ...problem.fields, ...wrong });
					throw problem;
				}
				if (Object.keys(wrong).length) throw new FieldError(wrong);
				await setPassword(world, password);
				markClaimed(config.dataFolder);
				setSession(event.cookies, config, openSession(world, deviceOf(event.request)));
				redirect(303, '/');
			}
		)
};

/** The questions that are answered by yes or no: neither is taken for granted. */
const QUESTIONS = ['vatRegistered', 'cisSubcontractor'] as const;

const unanswered = (values: Record<string, unknown>): Record<string, string> =>
	Object.fromEntries(
		QUESTIONS.filter((name) => values[name] !== 'yes' && values[name] !== 'no').map((name) => [
			name,
			'Yes or no? It can be changed later.'
		])
	);

function passwordProblem(password: string): Record<string, string> {
	try {
		checkPassword(password);
		return {};
	} catch (problem) {
		if (problem instanceof FieldError) return problem.fields;
		throw problem;
	}
}
