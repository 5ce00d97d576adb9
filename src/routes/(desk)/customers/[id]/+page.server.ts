import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, idOf, orNotFound, rowId } from '$lib/server/answers';
import { customerAccount, daysToPay } from '$lib/server/services/owed/customerAccount';
import { mergeCustomers } from '$lib/server/services/customers/merge';
import { lookOfItsOwn } from '$lib/server/services/letterheads/letterheads';
import { listJobs } from '$lib/server/services/jobs/list';
import { filesOf } from '$lib/server/services/files/files';
import { cardOf, revokeCard } from '$lib/server/services/repeats/keptCards';
import {
	archiveCustomer,
	customerDetail,
	removeCustomer
} from '$lib/server/services/customers/customers';
import { listDocuments } from '$lib/server/services/desk/documentList';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) => {
	const id = idOf(params.id);
	return {
		customer: orNotFound(() => customerDetail(locals.world, id)),
		account: customerAccount(locals.world, id).slice(-200).reverse(),
		pays: daysToPay(locals.world, id),
		jobs: listJobs(locals.world, { customerId: id }).rows.slice(0, 12),
		files: filesOf(locals.world.db, { to: 'customer', id }),
		card: cardOf(locals.world.db, id)?.lastDigits ?? '',
		...listDocuments(locals.world, {
			state: 'all',
			age: 'any',
			search: '',
			customerId: id,
			cursor: null
		})
	};
};

export const actions: Actions = {
	archive: (event) =>
		act(event, z.object({ archived: box }), ({ archived }, world) => {
			archiveCustomer(world, idOf(event.params.id), archived === 'yes');
		}),
	merge: (event) =>
		act(event, z.object({ into: rowId }), ({ into }, world) => {
			mergeCustomers(world, idOf(event.params.id), into);
			redirect(303, `/customers/${into}`);
		}),
	forgetCard: (event) =>
		act(event, z.object({}), async (_values, world) => {
			await revokeCard(world, idOf(event.params.id), 'you');
		}),
	look: (event) =>
		act(event, z.object({}), (_values, world) =>
			redirect(303, `/settings/letterheads/${lookOfItsOwn(world, idOf(event.params.id))}`)
		),
	remove: (event) =>
		act(event, z.object({}), (_values, world) => {
			removeCustomer(world, idOf(event.params.id));
			redirect(303, '/customers');
		})
};
