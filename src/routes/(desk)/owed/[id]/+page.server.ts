import { act, idOf, orNotFound } from '$lib/server/answers';
import { applyCredit, recordForPayer, returnCredit } from '$lib/server/services/accountPayments';
import { holdInvoice, noteCall, releaseInvoice } from '$lib/server/services/holds';
import { payerPage } from '$lib/server/services/owed';
import { undoPayment } from '$lib/server/services/payments';
import { undoWriteOff, writeOff } from '$lib/server/services/writeOffs';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) =>
	orNotFound(() => payerPage(locals.world, idOf(params.id)));

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
		const form = await request.formData();
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
					...(form.has('chosen') ? { shares } : {})
				})
			}),
			values
		);
	},
	apply: async ({ request, locals }) => {
		const form = await request.formData();
		return act(() => ({ applied: applyCredit(locals.world, document(form), text(form, 'key')) }));
	},
	giveBack: async ({ request, locals }) => {
		const form = await request.formData();
		const values = {
			form: 'giveBack',
			date: text(form, 'date'),
			amount: text(form, 'amount'),
			way: text(form, 'way'),
			reference: text(form, 'reference')
		};
		return act(
			() =>
				returnCredit(locals.world, idOf(text(form, 'payment')), {
					...values,
					key: text(form, 'key')
				}),
			values
		);
	},
	hold: async ({ request, locals }) => {
		const form = await request.formData();
		const values = {
			form: `hold.${text(form, 'document')}`,
			kind: text(form, 'kind') === 'promise' ? ('promise' as const) : ('dispute' as const),
			until: text(form, 'until'),
			note: text(form, 'note')
		};
		return act(() => holdInvoice(locals.world, document(form), values), values);
	},
	release: async ({ request, locals }) => {
		const form = await request.formData();
		return act(() => releaseInvoice(locals.world, document(form)));
	},
	writeOff: async ({ request, locals }) => {
		const form = await request.formData();
		const values = { form: `writeOff.${text(form, 'document')}`, reason: text(form, 'reason') };
		return act(
			() => writeOff(locals.world, document(form), values.reason, text(form, 'key')),
			values
		);
	},
	takeUp: async ({ request, locals }) => {
		const form = await request.formData();
		return act(() => undoWriteOff(locals.world, document(form), text(form, 'key')));
	},
	undo: async ({ request, locals }) => {
		const form = await request.formData();
		return act(() => undoPayment(locals.world, idOf(text(form, 'payment')), 'Recorded by mistake'));
	},
	call: async ({ request, locals, params }) => {
		const form = await request.formData();
		const values = { form: 'call', text: text(form, 'text') };
		return act(
			() => noteCall(locals.world, idOf(params.id), values.text, text(form, 'key')),
			values
		);
	}
};
