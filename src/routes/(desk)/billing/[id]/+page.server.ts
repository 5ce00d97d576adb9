import { error, redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, byId, idOf, orNotFound, rowId, tick } from '$lib/server/answers';
import { parseMoney } from '$lib/core/money/decimal';
import { readCredit } from '$lib/core/documents/credit';
import { readTypedNumber } from '$lib/core/money/typed';
import { loadSheetPage } from '$lib/server/services/invoices/sheetPage';
import { useInHand } from '$lib/server/services/money/useInHand';
import { refundByHand, refundCard } from '$lib/server/services/money/refunds';
import { correctAsDraft, debitAsDraft } from '$lib/server/services/invoices/corrections';
import { creditPart } from '$lib/server/services/invoices/creditNote';
import { documentDetail, documentState } from '$lib/server/services/desk/documents';
import { chargeLate } from '$lib/server/services/owed/lateCharges';
import { deliverOrLeave, deliverSoon } from '$lib/server/clockwork/delivery';
import {
	markArrived,
	sendAgain,
	sendDocumentTextAgain
} from '$lib/server/services/messages/outbox';
import { answerDispute } from '$lib/server/services/money/cardDisputes';
import { recordPayment } from '$lib/server/services/money/payments';
import { creditPrompt } from '$lib/server/services/money/promptPayment';
import { undoPayment } from '$lib/server/services/money/undo';
import {
	noteHandedOver,
	prepareSending,
	renewDocumentLink,
	sendByMail,
	sendByText
} from '$lib/server/services/invoices/send';
import { attachSheets, sheetsBeside } from '$lib/server/services/signing/send';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) => {
	const id = idOf(params.id);
	const state = documentState(locals.world, id);
	if (state === null) error(404, 'This document is not here, or not any more.');
	if (state === 'draft')
		return {
			state,
			...loadSheetPage(locals.world, id),
			sheets: sheetsBeside(locals.world.db, id)
		};
	return {
		state,
		document: orNotFound(() => documentDetail(locals.world, id)),
		sending: prepareSending(locals.world, id)
	};
};

const press = { key: box };
const money = { ...press, date: box, amount: box, way: box, reference: box };
const mailOf = z.object({ mail: rowId });

export const actions: Actions = {
	claim: (event) =>
		act(event, z.object(press), ({ key }, world) => {
			redirect(303, `/billing/${chargeLate(world, idOf(event.params.id), key)}`);
		}),
	sheet: (event) =>
		act(event, z.object({ sheet: rowId }), ({ sheet }, world) => {
			attachSheets(world, idOf(event.params.id), sheet);
		}),
	renewLink: (event) =>
		act(event, z.object({}), (_values, world) => {
			renewDocumentLink(world, idOf(event.params.id));
		}),
	send: (event) =>
		act(
			event,
			z.object({ ...press, to: box, cc: box, subject: box, text: box, copyToSelf: tick }),
			async (values, world) => {
				sendByMail(world, idOf(event.params.id), values);
				// The first try follows at once; where it fails the outbox goes on trying.
				await deliverOrLeave(world);
			}
		),
	text: (event) =>
		act(event, z.object({ ...press, mobile: box, words: box }), async (values, world) => {
			sendByText(world, idOf(event.params.id), values);
			await deliverOrLeave(world);
		}),
	textAgain: (event) =>
		act(event, z.object({ text: rowId }), async ({ text }, world) => {
			sendDocumentTextAgain(world, idOf(event.params.id), text);
			await deliverOrLeave(world);
		}),
	again: (event) =>
		act(event, mailOf, async ({ mail }, world) => {
			sendAgain(world, mail);
			await deliverOrLeave(world);
		}),
	arrived: (event) =>
		act(event, mailOf, ({ mail }, world) => {
			markArrived(world, mail);
		}),
	handed: (event) =>
		act(
			event,
			z.object({ how: z.enum(['handedOver', 'linkCopied', 'downloaded']).catch('handedOver') }),
			({ how }, world) => {
				noteHandedOver(world, idOf(event.params.id), how);
			}
		),
	pay: (event) =>
		act(
			event,
			z.object({ ...money, withheld: box, reached: box, allowOverpaid: tick, receipt: tick }),
			(values, world) => {
				const payment = { ...values, key: `form:${values.key}` };
				recordPayment(world, idOf(event.params.id), payment);
				deliverSoon(world);
			}
		),
	undo: (event) =>
		act(event, z.object({ payment: rowId, reason: box }), ({ payment, reason }, world) => {
			undoPayment(world, payment, reason);
		}),
	refund: (event) =>
		act(
			event,
			z.object({ ...press, payment: rowId, amount: box }),
			async ({ key, payment, amount }, world) => {
				const typed = readTypedNumber(amount, { decimals: 2 });
				const pence = typed.ok ? Number(parseMoney(typed.text)) : 0;
				await refundCard(world, payment, pence, `refund:${key}`);
			}
		),
	giveBack: (event) =>
		act(event, z.object({ ...money, reached: box }), (values, world) => {
			refundByHand(world, idOf(event.params.id), values);
		}),
	answered: (event) =>
		act(event, z.object({ dispute: rowId }), ({ dispute }, world) => answerDispute(world, dispute)),
	useCredit: (event) =>
		act(event, z.object(press), ({ key }, world) => {
			useInHand(world, idOf(event.params.id), key);
		}),
	prompt: (event) =>
		act(event, z.object({}), async (_, world) => {
			const creditNote = await creditPrompt(world, idOf(event.params.id));
			deliverSoon(world);
			return { creditNote };
		}),
	correct: (event) =>
		act(event, z.object(press), ({ key }, world) => {
			redirect(303, `/billing/${correctAsDraft(world, idOf(event.params.id), `correct:${key}`)}`);
		}),
	raise: (event) =>
		act(event, z.object(press), ({ key }, world) => {
			redirect(303, `/billing/${debitAsDraft(world, idOf(event.params.id), `raise:${key}`)}`);
		}),
	credit: (event) =>
		act(
			event,
			z.object({ ...press, reason: box, way: box, off: box, again: tick, send: tick }),
			async ({ key, reason, way, off, again, send }, world, posted) => {
				const typed = {
					way,
					off,
					take: byId(posted, 'take'),
					quantity: byId(posted, 'quantity'),
					amount: byId(posted, 'amount')
				};
				const wishes = readCredit(typed);
				const form = { key: `credit:${key}`, reason, wishes, again, send };
				const creditNote = await creditPart(world, idOf(event.params.id), form);
				deliverSoon(world);
				return { creditNote };
			}
		)
};
