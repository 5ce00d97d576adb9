import { act, idOf, orNotFound, readForm } from '$lib/server/answers';
import { recordForPayer } from '$lib/server/services/money/payerPayments';
import { useInHand, returnInHand } from '$lib/server/services/money/useInHand';
import { sentReminders } from '$lib/server/services/chasing/messages';
import { loadPlans } from '$lib/server/services/chasing/plans';
import { payerChasing, savePayerChasing } from '$lib/server/services/chasing/payers';
import { pauseInvoice, noteCall, resumeInvoice } from '$lib/server/services/owed/holds';
import { lateTermsOf, saveLateTerms } from '$lib/server/services/owed/lateTerms';
import { writeRate } from '$lib/core/regimes/gb/latePayment';
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

const text = (form: FormData, name: string) => String(form.get(name) ?? '');
const document = (form: FormData) => idOf(text(form, 'document'));

/** The fields `prefix.12` as an object by 12. */
function byInvoice(form: FormData, prefix: string): Record<string, string> {
	return Object.fromEntries(
		[...form].flatMap(([name, value]) =>
			name.startsWith(`${prefix}.`) ? [[name.slice(prefix.length + 1), String(value)]] : []
		)
	);
}

export const actions: Actions = {
	pay: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		const shares = byInvoice(form, 'shares');
		const values = {
			form: 'pay',
			date: text(form, 'date'),
			amount: text(form, 'amount'),
			way: text(form, 'way'),
			reference: text(form, 'reference')
		};
		return act(
			() => ({
				paid: recordForPayer(locals.world, idOf(params.id), {
					...values,
					key: text(form, 'key'),
					withheld: byInvoice(form, 'withheld'),
					receipt: form.has('receipt'),
					...(form.has('chosen') ? { shares } : {})
				})
			}),
			values
		);
	},
	apply: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() => ({ applied: useInHand(locals.world, document(form), text(form, 'key')) }));
	},
	giveBack: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		const values = {
			form: 'giveBack',
			date: text(form, 'date'),
			amount: text(form, 'amount'),
			way: text(form, 'way'),
			reference: text(form, 'reference')
		};
		return act(
			() =>
				returnInHand(locals.world, idOf(text(form, 'payment')), {
					...values,
					key: text(form, 'key')
				}),
			values
		);
	},
	hold: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		const values = {
			form: `hold.${text(form, 'document')}`,
			kind: text(form, 'kind') === 'promise' ? ('promise' as const) : ('dispute' as const),
			until: text(form, 'until'),
			note: text(form, 'note')
		};
		return act(() => pauseInvoice(locals.world, document(form), values), values);
	},
	release: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() => resumeInvoice(locals.world, document(form)));
	},
	writeOff: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		const values = { form: `writeOff.${text(form, 'document')}`, reason: text(form, 'reason') };
		return act(
			() => writeOff(locals.world, document(form), values.reason, text(form, 'key')),
			values
		);
	},
	takeUp: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() => undoWriteOff(locals.world, document(form), text(form, 'key')));
	},
	undo: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() => undoPayment(locals.world, idOf(text(form, 'payment')), 'Recorded by mistake'));
	},
	chasing: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		const plan = text(form, 'plan');
		const values = {
			form: 'chasing',
			never: plan === 'never',
			planId: /^\d+$/.test(plan) ? idOf(plan) : null,
			onHold: form.has('onHold'),
			note: text(form, 'note')
		};
		return act(() => savePayerChasing(locals.world, idOf(params.id), values), values);
	},
	terms: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		const values = {
			form: 'terms',
			fee: text(form, 'fee'),
			rate: text(form, 'rate'),
			afterDays: text(form, 'afterDays'),
			terms: text(form, 'terms')
		};
		return act(() => saveLateTerms(locals.world, idOf(params.id), values), values);
	},
	call: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		const values = { form: 'call', text: text(form, 'text') };
		return act(
			() => noteCall(locals.world, idOf(params.id), values.text, text(form, 'key')),
			values
		);
	}
};
