import { z } from 'zod';
import { act, box, byId, orNotFound, rowId } from '$lib/server/answers';
import { deliverSoon } from '$lib/server/clockwork/delivery';
import { newToken } from '$lib/server/services/business/keys';
import { askByPage, MOST_PHOTOS, publicEnquiry } from '$lib/server/services/enquiries/page';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { world }, params }) => ({
	...orNotFound(() => publicEnquiry(world, params.token)),
	opened: world.clock.now()
});

const boxes = z.object({
	key: box,
	name: box,
	email: box,
	phone: box,
	place: box,
	what: box,
	wanted: box,
	source: box,
	workKindId: rowId,
	website: box,
	opened: box
});

export const actions: Actions = {
	default: (event) =>
		act(event, boxes, async ({ key, ...form }, world, posted) => {
			const answers = Object.entries(byId(posted, 'answer.')).map(([id, answer]) => ({
				id: Number(id),
				answer
			}));
			const photos: { name: string; bytes: Buffer }[] = [];
			for (const file of posted.getAll('photo').slice(0, MOST_PHOTOS + 1))
				if (file instanceof File && file.size > 0)
					photos.push({ name: file.name, bytes: Buffer.from(await file.arrayBuffer()) });
			await askByPage(
				world,
				event.params.token,
				{ ...form, key: key || newToken() },
				answers,
				photos
			);
			deliverSoon(world);
			return { asked: true };
		})
};
