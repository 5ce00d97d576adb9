// A data file in which everything that touches the books has happened once at least.
import { eq } from 'drizzle-orm';
import { addDays } from '../../src/lib/core/calendar/manipulation';
import { londonMoment } from '../../src/lib/core/calendar/conversion';
import { documents, openItems } from '../../src/lib/server/db/schema';
import { deliverDue } from '../../src/lib/server/clockwork/delivery';
import { releaseRetention } from '../../src/lib/server/services/billing/retentions';
import { billStage } from '../../src/lib/server/services/billing/stages';
import { addRate } from '../../src/lib/server/services/business/exchange';
import { addCustomer } from '../../src/lib/server/services/customers/customers';
import { correctAsDraft } from '../../src/lib/server/services/invoices/corrections';
import { creditInvoice, creditPart } from '../../src/lib/server/services/invoices/creditNote';
import { loadDraft, saveDraft } from '../../src/lib/server/services/invoices/drafts';
import { importOpening } from '../../src/lib/server/services/moving/invoices';
import { issueInvoice } from '../../src/lib/server/services/invoices/issue';
import {
	prepareSending,
	sendByMail,
	sendByText
} from '../../src/lib/server/services/invoices/send';
import { addJob } from '../../src/lib/server/services/jobs/jobs';
import { issueAndSend } from '../../src/lib/server/services/money/issueAndSend';
import { openCheckout } from '../../src/lib/server/services/money/checkouts';
import { recordForPayer } from '../../src/lib/server/services/money/payerPayments';
import { receivePayout } from '../../src/lib/server/services/money/payouts';
import { refundByHand } from '../../src/lib/server/services/money/refunds';
import { undoPayment } from '../../src/lib/server/services/money/undo';
import { returnInHand, useInHand } from '../../src/lib/server/services/money/useInHand';
import { writeOff } from '../../src/lib/server/services/money/writeOffs';
import { chargeLate } from '../../src/lib/server/services/owed/lateCharges';
import { saveRate } from '../../src/lib/server/services/owed/referenceRates';
import { settleRelief } from '../../src/lib/server/services/tax/badDebts';
import { another, FIRM, oneLine, payByHand } from './money';
import {
	CONTRACTOR,
	HOUSEHOLD,
	issued,
	line,
	makeWorld,
	receive,
	settledEvent,
	type TestWorld
} from './world';

export interface RichBooks {
	world: TestWorld;
	/** Numbers of documents, by what they are. */
	ids: Record<
		| 'plain'
		| 'contract'
		| 'parts'
		| 'partNote'
		| 'wrong'
		| 'right'
		| 'credited'
		| 'replaced'
		| 'lost'
		| 'stage'
		| 'late'
		| 'card'
		| 'euro'
		| 'euroNote'
		| 'returned'
		| 'carried',
		number
	>;
}

export async function richBooks(): Promise<RichBooks> {
	const world = makeWorld();
	const at = (day: string) => world.clock.set(londonMoment(`${day}T09:00`));
	const issue = (id: number) => issueInvoice(world, id, loadDraft(world.db, id).version);
	const pay = (id: number, amount: string, more: object = {}) =>
		payByHand(world, id, amount, { date: world.clock.today(), ...more });
	saveRate(world, '2026-07-01', '3.75');
	saveRate(world, '2027-01-01', '3.75');

	const plain = await issued(world, FIRM, {
		rows: [line('a', 'Render', '100'), line('b', 'Sand', '50', { kind: 'materials', cost: '30' })]
	});
	pay(plain.id, '60', { key: 'part' });
	undoPayment(world, pay(plain.id, '20', { key: 'wrong' }), 'Not ours');
	const contract = await issued(world, CONTRACTOR);
	pay(contract.id, '800', { key: 'some' });

	const credited = await issued(world, { ...CONTRACTOR, name: 'Quillfeather' }, oneLine('1000'));
	pay(credited.id, '800');
	await creditInvoice(world, credited.id, 'A mistake', 'c1');
	const replaced = await another(world, credited.customerId, '600', { contract: 'construction' });
	useInHand(world, replaced.id, 'u1');
	refundByHand(world, credited.id, {
		key: 'back',
		amount: '100',
		date: world.clock.today(),
		way: 'bank',
		reference: ''
	});

	await importOpening(
		world,
		new TextEncoder().encode(
			'Number,Customer,Issued,Net,VAT,Paid,Paid on,VAT returned\n' +
				'OLD-1,Corvane Dairy Ltd,3 Oct 2026,1000,200,300,20 Oct 2026,yes\n' +
				'OLD-2,Corvane Dairy Ltd,3 Nov 2026,100,20,,,no'
		),
		{ key: 'moved', name: 'old.csv', addCustomers: false, returnedUntil: '' }
	);

	const early = addCustomer(world, { ...FIRM, name: 'Early' });
	const inHand = recordForPayer(world, early, {
		key: 'early',
		date: '2026-11-20',
		amount: '500',
		way: 'cash',
		reference: '',
		shares: {}
	});
	const used = await another(world, early, '100');
	useInHand(world, used.id, 'u2');
	returnInHand(world, inHand, {
		key: 'return',
		date: world.clock.today(),
		amount: '50',
		way: 'cash',
		reference: ''
	});

	const job = addJob(world, 'job', {
		title: 'Mill',
		customerId: contract.customerId,
		contract: 'construction',
		pricesIncludeVat: false,
		retention: '5',
		lines: [
			{ kind: 'labour', description: 'Render', quantity: '1', unitPrice: '600' },
			{ kind: 'materials', description: 'Lime', quantity: '1', unitPrice: '400', cost: '300' }
		]
	});
	const part = { kind: 'valuation', by: 'toDate', percent: '50', amount: '', done: {} };
	const stage = await issue(billStage(world, job, 's1', part));
	await issue(releaseRetention(world, job, 'r1'));
	await issue(billStage(world, job, 's2', { ...part, by: 'rest' }));

	const parts = await issue(
		billStage(
			world,
			addJob(world, 'parts', {
				title: 'Kiln',
				customerId: contract.customerId,
				contract: 'construction',
				pricesIncludeVat: false,
				retention: '5',
				lines: [{ kind: 'labour', description: 'Render', quantity: '1', unitPrice: '1000' }]
			}),
			's3',
			part
		)
	);
	const partNote = await creditPart(world, parts.id, {
		key: 'part',
		reason: 'Less was done',
		again: true,
		wishes: () => [{ position: 0, quantity: { units: 4n, scale: 1 } }]
	});
	const wrong = await issued(world, { ...HOUSEHOLD, name: 'Wrong' }, oneLine('300'));
	pay(wrong.id, '360');
	const right = correctAsDraft(world, wrong.id, 'right');
	const { sheet, version } = loadDraft(world.db, right);
	saveDraft(world, right, version, {
		...sheet,
		...oneLine('280'),
		about: { ...sheet.about!, reason: 'A slip' }
	});
	await issueAndSend(world, right, version + 1, {
		sendTo: null,
		copyToSelf: false,
		useInHand: false
	});

	const card = await issued(world, { ...HOUSEHOLD, name: 'Card' }, oneLine('200'));
	const token = world.db.select().from(documents).where(eq(documents.id, card.id)).get()!.token!;
	await openCheckout(world, token, 'k1');
	receive(world, settledEvent(world.checkouts[0]!.id, 240_00));
	receivePayout(
		world,
		{
			id: 'po-event',
			type: 'payout.paid',
			payout: 'po-1',
			amount: 239_75,
			reference: 'po-1',
			parts: [{ checkout: world.checkouts[0]!.id, type: 'payment', amount: 240_00, fee: 25 }]
		},
		'{}'
	);

	addRate(world, {
		currency: 'EUR',
		from: '2026-11-01',
		to: '2026-11-30',
		rate: '0.8432',
		source: 'monthly'
	});
	const euro = await issued(
		world,
		{ ...FIRM, name: 'Atelier', currency: 'EUR' },
		{ ...oneLine('1000'), currency: 'EUR' }
	);
	pay(euro.id, '500', { key: 'euro', reached: '430' });
	undoPayment(world, pay(euro.id, '20', { key: 'euro-wrong', reached: '17' }), 'Not ours');
	refundByHand(world, euro.id, {
		key: 'euro-back',
		amount: '100',
		reached: '90',
		date: world.clock.today(),
		way: 'bank',
		reference: ''
	});
	const euroNote = await creditPart(world, euro.id, {
		key: 'euro-note',
		reason: 'Less was done',
		again: false,
		wishes: () => [{ position: 0, amount: 333_33n }]
	});
	const late = await issued(world, { ...FIRM, name: 'Late' }, oneLine('1000'));
	const lost = await issued(world, { ...FIRM, name: 'Lost' }, oneLine('1000'));
	sendByMail(world, late.id, {
		...prepareSending(world, late.id),
		key: 'send',
		to: FIRM.email,
		copyToSelf: false
	});
	sendByText(world, plain.id, {
		key: 'text',
		mobile: '07700900123',
		words: 'Your invoice: {link}'
	});
	await deliverDue(world);
	at('2027-01-10');
	await issue(chargeLate(world, late.id, 'late'));
	at(
		addDays(
			world.db.select().from(openItems).where(eq(openItems.documentId, lost.id)).get()!.dueDate,
			200
		)
	);
	writeOff(world, lost.id, 'Gone', 'w1');
	settleRelief(world, lost.id, 'relief');
	const numbered = (number: string) =>
		world.db.select().from(documents).where(eq(documents.number, number)).get()!.id;
	return {
		world,
		ids: {
			plain: plain.id,
			contract: contract.id,
			credited: credited.id,
			replaced: replaced.id,
			lost: lost.id,
			stage: stage.id,
			parts: parts.id,
			partNote: partNote.id,
			wrong: wrong.id,
			right,
			late: late.id,
			card: card.id,
			euro: euro.id,
			euroNote: euroNote.id,
			returned: numbered('OLD-1'),
			carried: numbered('OLD-2')
		}
	};
}
