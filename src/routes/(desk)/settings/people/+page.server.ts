import { z } from 'zod';
import { act, box, rowId, tick } from '$lib/server/answers';
import { deliverSoon } from '$lib/server/clockwork/delivery';
import { guesserOf } from '$lib/server/guesser';
import { loadBusiness } from '$lib/server/services/business/settings';
import { confirmPassword } from '$lib/server/services/business/signIn';
import { tell } from '$lib/server/services/messages/watched';
import {
	changeRole,
	invite,
	inviteAgain,
	listPeople,
	removePerson
} from '$lib/server/services/people/people';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { world, person } }) => ({
	people: listPeople(world),
	me: person?.id ?? 0
});

export const actions: Actions = {
	invite: (event) =>
		act(
			event,
			z.object({ name: box, email: box, role: box, seesPrices: tick }),
			async (values, world, posted) => {
				// Who may come in is what a thief would change: the password is asked again.
				await confirmPassword(world, String(posted.get('current') ?? ''), guesserOf(event));
				invite(world, values);
				tell(
					world,
					'people',
					`${values.name} invited`,
					loadBusiness(world.db).email,
					guesserOf(event)
				);
				deliverSoon(world);
			}
		),
	again: (event) =>
		act(event, z.object({ id: rowId }), ({ id }, world) => {
			inviteAgain(world, id);
			deliverSoon(world);
		}),
	role: (event) =>
		act(
			event,
			z.object({ id: rowId, role: box, seesPrices: tick, name: box }),
			async ({ id, role, seesPrices, name }, world, posted) => {
				await confirmPassword(world, String(posted.get('current') ?? ''), guesserOf(event));
				changeRole(world, id, { role, seesPrices });
				tell(
					world,
					'people',
					`${name.slice(0, 100)} has another role`,
					loadBusiness(world.db).email,
					guesserOf(event)
				);
			}
		),
	remove: (event) =>
		act(event, z.object({ id: rowId, name: box }), async ({ id, name }, world, posted) => {
			await confirmPassword(world, String(posted.get('current') ?? ''), guesserOf(event));
			removePerson(world, id);
			tell(
				world,
				'people',
				`${name.slice(0, 100)} removed`,
				loadBusiness(world.db).email,
				guesserOf(event)
			);
		})
};
