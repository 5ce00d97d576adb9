import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, byId, idOf, orNotFound, rowId, tick } from '$lib/server/answers';
import { recordForPayer } from '$lib/server/services/money/payerPayments';
import { depositDraft, taxedInHand } from '$lib/server/services/money/deposits';
import { useInHand, returnInHand } from '$lib/server/services/money/useInHand';
import { sentReminders } from '$lib/server/services/chasing/messages';
import { loadPlans } from '$lib/server/services/chasing/plans';
import { payerChasing, savePayerChasing } from '$lib/server/services/chasing/payers';
import { pauseInvoice, noteCall, resumeInvoice } from '$lib/server/services/owed/holds';
import { lateTermsOf, saveLateTerms } from '$lib/server/services/owed/lateTerms';
import { writeRate } from '$lib/core/regimes/gb/latePayment';
import { beginBreathing, breathingOf, endBreathing } from '$lib/server/services/ledger/breathing';
import { payerPage } from '$lib/server/services/owed/owed';
import { undoPayment } from '$lib/server/services/money/undo';
import { undoWriteOff, writeOff } from '$lib/server/services/money/writeOffs';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) =>
	orNotFound(() => {
		const payerId = idOf(params.id);
		const { db } = locals.world;
		const terms = lateTermsOf(db, payerId);
		return {
			...payerPage(locals.world, payerId),
			chasing: payerChasing(db, payerId),
			breathing: (breathingOf(db, [payerId]).get(payerId) ?? []).filter(
				({ to }) => to >= locals.world.clock.today()
			),
			taxed: [...taxedInHand(db, payerId)],
			plans: loadPlans(db).map(({ id, name, standard }) => ({ id, name, standard })),
			reminders: sentReminders(db, { payerId, limit: 12 }),
			terms: terms && {
				fee: Number(terms.fee),
				rate: terms.rate ? writeRate(terms.rate) : '',
				afterDays: terms.afterDays,
				terms: terms.terms
			}
		};
	});

const press = { key: box };
const money = { ...press, date: box, amount: box, way: box, reference: box };
const ofInvoice = z.object({ ...press, document: rowId });

export const actions: Actions = {
	breathe: (event) =>
		act(event, z.object({ ...press, from: box, note: box }), (form, world) =>
			beginBreathing(world, idOf(event.params.id), form)
		),
	breatheNoMore: (event) =>
		act(event, z.object({ space: rowId }), ({ space }, world) => ({
			ended: endBreathing(world, idOf(event.params.id), space)
		})),
	pay: (event) =>
		act(
			event,
			z.object({ ...money, receipt: tick, chosen: tick }),
			({ chosen, ...values }, world, posted) => ({
				paid: recordForPayer(world, idOf(event.params.id), {
					...values,
					withheld: byId(posted, 'withheld'),
					...(chosen ? { shares: byId(posted, 'shares') } : {})
				})
			})
		),
	apply: (event) =>
		act(event, ofInvoice, ({ document, key }, world) => ({
			applied: useInHand(world, document, key)
		})),
	giveBack: (event) =>
		act(event, z.object({ ...money, payment: rowId }), ({ payment, ...values }, world) => {
			returnInHand(world, payment, values);
		}),
	deposit: (event) =>
		act(event, z.object({ ...press, payment: rowId }), ({ key, payment }, world) => {
			redirect(303, `/billing/${depositDraft(world, payment, `deposit:${key}`)}`);
		}),
	hold: (event) =>
		act(
			event,
			z.object({
				document: rowId,
				kind: z.enum(['dispute', 'promise']).catch('dispute'),
				until: box,
				note: box
			}),
			({ document, ...values }, world) => {
				pauseInvoice(world, document, values);
			}
		),
	release: (event) =>
		act(event, ofInvoice, ({ document }, world) => {
			resumeInvoice(world, document);
		}),
	writeOff: (event) =>
		act(event, ofInvoice.extend({ reason: box }), ({ document, reason, key }, world) => {
			writeOff(world, document, reason, key);
		}),
	takeUp: (event) =>
		act(event, ofInvoice, ({ document, key }, world) => {
			undoWriteOff(world, document, key);
		}),
	undo: (event) =>
		act(event, z.object({ payment: rowId }), ({ payment }, world) => {
			undoPayment(world, payment, 'Recorded by mistake');
		}),
	chasing: (event) =>
		act(event, z.object({ plan: box, onHold: tick, note: box }), ({ plan, ...values }, world) => {
			savePayerChasing(world, idOf(event.params.id), {
				...values,
				never: plan === 'never',
				planId: /^\d+$/.test(plan) ? idOf(plan) : null
			});
		}),
	terms: (event) =>
		act(event, z.object({ fee: box, rate: box, afterDays: box, terms: box }), (values, world) => {
			saveLateTerms(world, idOf(event.params.id), values);
		}),
	call: (event) =>
		act(event, z.object({ ...press, text: box }), ({ text, key }, world) => {
			noteCall(world, idOf(event.params.id), text, key);
		})
};
