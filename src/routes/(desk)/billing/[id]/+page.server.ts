import { error, redirect } from '@sveltejs/kit';
import { act, formValues, idOf, orNotFound, readForm } from '$lib/server/answers';
import { parseMoney } from '$lib/core/money/decimal';
import { readTypedNumber } from '$lib/core/money/typed';
import { loadSheetPage } from '$lib/server/services/invoices/sheetPage';
import { useInHand } from '$lib/server/services/money/useInHand';
import { refundByHand, refundCard } from '$lib/server/services/money/refunds';
import { creditInvoice } from '$lib/server/services/invoices/creditNote';
import { documentDetail, documentState } from '$lib/server/services/desk/documents';
import { chargeLate } from '$lib/server/services/owed/lateCharges';
import { deliverDue } from '$lib/server/clockwork/delivery';
import { markArrived, sendAgain } from '$lib/server/services/messages/outbox';
import { recordPayment } from '$lib/server/services/money/payments';
import { undoPayment } from '$lib/server/services/money/undo';
import { noteHandedOver, prepareSending, sendByMail } from '$lib/server/services/invoices/send';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) => {
	const id = idOf(params.id);
	const state = documentState(locals.world, id);
	if (state === null) error(404, 'This document is not here, or not any more.');
	if (state === 'draft') return { state, ...loadSheetPage(locals.world, id) };
	return {
		state,
		document: orNotFound(() => documentDetail(locals.world, id)),
		sending: prepareSending(locals.world, id)
	};
};

export const actions: Actions = {
	claim: async ({ request, locals, params }) => {
		const key = String((await readForm(request, locals.world.clock.today())).get('key') ?? '');
		const draft = await act(() => chargeLate(locals.world, idOf(params.id), key));
		if (typeof draft !== 'number') return draft;
		redirect(303, `/billing/${draft}`);
	},
	send: async ({ request, locals, params }) => {
		const values = formValues(await readForm(request, locals.world.clock.today()));
		const result = await act(() => {
			sendByMail(locals.world, idOf(params.id), {
				key: values.key ?? '',
				to: values.to ?? '',
				subject: values.subject ?? '',
				text: values.text ?? '',
				copyToSelf: values.copyToSelf === 'on'
			});
			return { done: 'send' as const };
		}, values);
		// The first try follows at once; where it fails the outbox goes on trying.
		if ('done' in result) await deliverDue(locals.world);
		return result;
	},
	again: async ({ request, locals }) => {
		const mail = Number((await readForm(request, locals.world.clock.today())).get('mail'));
		const result = await act(() => {
			sendAgain(locals.world, mail);
			return { done: 'again' as const };
		});
		if ('done' in result) await deliverDue(locals.world);
		return result;
	},
	arrived: async ({ request, locals }) => {
		const mail = Number((await readForm(request, locals.world.clock.today())).get('mail'));
		return act(() => {
			markArrived(locals.world, mail);
			return { done: 'arrived' as const };
		});
	},
	handed: async ({ request, locals, params }) => {
		const how = (await readForm(request, locals.world.clock.today())).get('how');
		return act(() => {
			noteHandedOver(
				locals.world,
				idOf(params.id),
				how === 'linkCopied' || how === 'downloaded' ? how : 'handedOver'
			);
			return { done: 'handed' as const };
		});
	},
	pay: async ({ request, locals, params }) => {
		const values = formValues(await readForm(request, locals.world.clock.today()));
		return act(() => {
			recordPayment(locals.world, idOf(params.id), {
				key: `form:${values.key}`,
				date: values.date ?? '',
				amount: values.amount ?? '',
				withheld: values.withheld ?? '',
				way: values.way ?? '',
				reference: values.reference ?? '',
				allowOverpaid: values.allowOverpaid === 'on',
				receipt: values.receipt === 'on'
			});
			void deliverDue(locals.world);
			return { done: 'pay' as const };
		}, values);
	},
	undo: async ({ request, locals }) => {
		const values = formValues(await readForm(request, locals.world.clock.today()));
		return act(() => {
			undoPayment(locals.world, Number(values.payment), values.reason ?? '');
			return { done: 'undo' as const };
		});
	},
	refund: async ({ request, locals }) => {
		const values = formValues(await readForm(request, locals.world.clock.today()));
		const typed = readTypedNumber(values.amount ?? '', { decimals: 2 });
		const amount = typed.ok ? Number(parseMoney(typed.text)) : 0;
		return act(async () => {
			await refundCard(locals.world, Number(values.payment), amount, `refund:${values.key}`);
			return { done: 'refund' as const };
		}, values);
	},
	giveBack: async ({ request, locals, params }) => {
		const values = formValues(await readForm(request, locals.world.clock.today()));
		return act(() => {
			refundByHand(locals.world, idOf(params.id), {
				key: values.key ?? '',
				date: values.date ?? '',
				amount: values.amount ?? '',
				way: values.way ?? '',
				reference: values.reference ?? ''
			});
			return { done: 'giveBack' as const };
		}, values);
	},
	useCredit: async ({ request, locals, params }) => {
		const key = String((await readForm(request, locals.world.clock.today())).get('key') ?? '');
		return act(() => {
			useInHand(locals.world, idOf(params.id), key);
			return { done: 'useCredit' as const };
		});
	},
	credit: async ({ request, locals, params }) => {
		const values = formValues(await readForm(request, locals.world.clock.today()));
		return act(async () => {
			const note = await creditInvoice(
				locals.world,
				idOf(params.id),
				values.reason ?? '',
				`credit:${values.key}`
			);
			return { done: 'credit' as const, creditNote: note };
		}, values);
	}
};
