import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, idOf, orNotFound, rowId, tick } from '$lib/server/answers';
import { BILLING_SHAPES } from '$lib/core/jobs/billing';
import { JOB_STATES } from '$lib/core/jobs/types';
import { removeTime, saveTime, startClock, stopClock } from '$lib/server/services/jobs/time';
import { removeCost, saveCost } from '$lib/server/services/jobs/costs';
import { addMaterial, materialsAsAgreed, moveMaterial } from '$lib/server/services/jobs/materials';
import { noteReceived } from '$lib/server/services/quotes/cancel';
import { removeVisit, saveVisit } from '$lib/server/services/jobs/visits';
import { peopleOnSite } from '$lib/server/services/people/people';
import { jobPage } from '$lib/server/services/desk/jobPage';
import { copyJob } from '$lib/server/services/jobs/begin';
import { removeJob } from '$lib/server/services/jobs/jobs';
import { moveJob } from '$lib/server/services/jobs/states';
import { approveApplication, withdrawApplication } from '$lib/server/services/billing/applications';
import { releaseRetention } from '$lib/server/services/billing/retentions';
import { billJob, jobAsPattern } from '$lib/server/services/billing/toBill';
import { newToken } from '$lib/server/services/business/keys';
import { attachSheets } from '$lib/server/services/signing/send';
import { beginSheet } from '$lib/server/services/signing/sheets';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params, url }) =>
	orNotFound(() => ({
		...jobPage(locals.world, idOf(params.id)),
		crew: peopleOnSite(locals.world.db),
		/** What was done a moment ago. */
		just: url.searchParams.get('just')
	}));

const press = { key: box };
/** A row that is added or, where it names one, changed. */
const row = { ...press, entry: rowId };
const toStage = { stage: rowId };

export const actions: Actions = {
	move: (event) =>
		act(
			event,
			z.object({ to: z.enum(['', ...JOB_STATES]).catch(''), on: box }),
			({ to, on }, world) => {
				if (to) moveJob(world, idOf(event.params.id), to, on);
			}
		),
	start: (event) =>
		act(event, z.object(press), ({ key }, world) => {
			startClock(world, key, idOf(event.params.id));
		}),
	stop: (event) =>
		act(event, z.object({}), (_values, world) => {
			stopClock(world);
		}),
	time: (event) =>
		act(
			event,
			z.object({
				...row,
				date: box,
				person: box,
				hours: box,
				rate: box,
				hourlyCost: box,
				chargeable: tick,
				note: box
			}),
			({ key, entry, ...values }, world) => {
				saveTime(world, idOf(event.params.id), key, entry || null, values);
			}
		),
	removeTime: (event) =>
		act(event, z.object(row), ({ entry }, world) => {
			return { bin: removeTime(world, idOf(event.params.id), entry) };
		}),
	cost: (event) =>
		act(
			event,
			z.object({
				...row,
				date: box,
				kind: box,
				description: box,
				quantity: box,
				unit: box,
				unitCost: box,
				markUp: box,
				unitPrice: box,
				chargeable: tick,
				itemId: rowId
			}),
			({ key, entry, ...values }, world) => {
				saveCost(world, idOf(event.params.id), key, entry || null, {
					...values,
					kind: values.kind || 'materials',
					itemId: values.itemId || null
				});
			}
		),
	removeCost: (event) =>
		act(event, z.object(row), ({ entry }, world) => {
			return { bin: removeCost(world, idOf(event.params.id), entry) };
		}),
	visit: (event) =>
		act(
			event,
			z.object({
				...row,
				date: box,
				from: box,
				to: box,
				person: box,
				personId: rowId,
				note: box,
				done: tick
			}),
			({ key: _, entry, personId, ...values }, world) => {
				saveVisit(world, idOf(event.params.id), entry || null, {
					...values,
					personId: personId || null
				});
			}
		),
	removeVisit: (event) =>
		act(event, z.object(row), ({ entry }, world) => {
			return { bin: removeVisit(world, idOf(event.params.id), entry) };
		}),
	addMaterial: (event) =>
		act(event, z.object({ ...press, what: box, expectedOn: box }), ({ key, ...form }, world) => {
			addMaterial(world, idOf(event.params.id), { ...form, key: key || newToken() });
		}),
	material: (event) =>
		act(event, z.object({ id: rowId, to: box }), (form, world) => {
			moveMaterial(world, idOf(event.params.id), form);
		}),
	materialsAsAgreed: (event) =>
		act(event, z.object({}), (_values, world) => {
			materialsAsAgreed(world, idOf(event.params.id));
		}),
	received: (event) =>
		act(event, z.object({ receivedOn: box }), (form, world) => {
			noteReceived(world, idOf(event.params.id), form);
		}),
	copy: (event) =>
		act(event, z.object(press), ({ key }, world) => {
			redirect(303, `/work/${copyJob(world, idOf(event.params.id), key)}?just=copied`);
		}),
	sheet: (event) =>
		act(event, z.object(press), ({ key }, world) => {
			redirect(303, `/work/sheets/${beginSheet(world, idOf(event.params.id), key || newToken())}`);
		}),
	repeat: (event) =>
		act(event, z.object(press), ({ key }, world) => {
			const draft = jobAsPattern(world, idOf(event.params.id), key);
			redirect(303, `/billing/repeats/new?from=${draft}`);
		}),
	bill: (event) =>
		act(
			event,
			z.object({
				...press,
				shape: z.enum(BILLING_SHAPES).catch('lines'),
				finish: tick,
				sheets: tick
			}),
			({ key, shape, finish, sheets }, world) => {
				const id = idOf(event.params.id);
				if (finish) moveJob(world, id, 'finished');
				const draft = billJob(world, id, shape, key);
				if (sheets) attachSheets(world, draft);
				redirect(303, `/billing/${draft}`);
			}
		),
	approve: (event) =>
		act(
			event,
			z.object({ ...toStage, amount: box, paidOn: box }),
			({ stage, ...values }, world) => {
				redirect(303, `/billing/${approveApplication(world, stage, values)}`);
			}
		),
	withdraw: (event) =>
		act(event, z.object(toStage), ({ stage }, world) => {
			withdrawApplication(world, stage);
		}),
	release: (event) =>
		act(event, z.object(press), ({ key }, world) => {
			redirect(303, `/billing/${releaseRetention(world, idOf(event.params.id), key)}`);
		}),
	remove: (event) =>
		act(event, z.object({}), (_values, world) => {
			removeJob(world, idOf(event.params.id));
			redirect(303, '/work');
		})
};
