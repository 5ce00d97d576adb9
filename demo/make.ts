// Lays out the demo business by calling the services day by day, so that it obeys every rule.
// Over 300 lines: one day after the other, in the order in which they happen.
import { randomUUID } from 'node:crypto';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { displayDate, londonDate } from '../src/lib/core/calendar/conversion';
import { addDays, addMonths } from '../src/lib/core/calendar/manipulation';
import { parseDecimal } from '../src/lib/core/money/decimal';
import { displayAmount } from '../src/lib/core/money/display';
import { blankSheet } from '../src/lib/core/sheet/blank';
import type { Sheet, SheetLine, SheetRow } from '../src/lib/core/sheet/types';
import { makeBackup } from '../src/lib/server/services/keep/backups';
import { settableClock } from '../src/lib/server/clock';
import { readConfig } from '../src/lib/server/config';
import { threadPress, type Press } from '../src/lib/server/documents/press';
import type { MailOutcome } from '../src/lib/server/gateways/mail';
import { clockOf, openWorld } from '../src/lib/server/open';
import { addRate } from '../src/lib/server/services/business/exchange';
import { saveBusiness } from '../src/lib/server/services/business/settings';
import { openCheckout } from '../src/lib/server/services/money/checkouts';
import { receiveCardEvent } from '../src/lib/server/services/money/cardEvents';
import { correctAsDraft } from '../src/lib/server/services/invoices/corrections';
import { creditInvoice, creditPart } from '../src/lib/server/services/invoices/creditNote';
import { issueAndSend } from '../src/lib/server/services/money/issueAndSend';
import { creditPrompt } from '../src/lib/server/services/money/promptPayment';
import { customerRecord } from '../src/lib/server/services/customers/parts';
import { addCustomer } from '../src/lib/server/services/customers/customers';
import { documentDetail } from '../src/lib/server/services/desk/documents';
import {
	beginInvoice,
	beginSelfBilled,
	loadDraft,
	saveDraft
} from '../src/lib/server/services/invoices/drafts';
import { issueInvoice } from '../src/lib/server/services/invoices/issue';
import { deliverDue } from '../src/lib/server/clockwork/delivery';
import { setPassword } from '../src/lib/server/services/business/signIn';
import { noteOpened } from '../src/lib/server/services/money/payPage';
import { recordPayment } from '../src/lib/server/services/money/payments';
import { prepareSending, sendByMail } from '../src/lib/server/services/invoices/send';
import { chasingSteps } from './chasing';
import { costSteps } from './costs';
import { DEMO_CUSTOMERS } from './customers';
import { DEMO_DOCUMENTS, type DemoDocument } from './documents';
import { writeBankFile } from './bankFile';
import { kindOf, layOutLetterheads, tagsOfWords } from './letterheads';
import { layOutPeople } from './people';
import { movingSteps } from './moving';
import { owedSteps } from './owed';
import { DEMO_CARD, repeatSteps } from './repeats';
import { knowCard } from '../stand-ins/card/store';
import { quoteSteps } from './quotes';
import { layOutPrices, workSteps, type Step } from './work';

/** Draws the first of each sort, and gives it for all that follow. */
function onePress(press: Press): Press {
	const drawn = new Map<string, Promise<Buffer>>();
	const once = (sort: string, draw: () => Promise<Buffer>): Promise<Buffer> => {
		if (!drawn.has(sort)) drawn.set(sort, draw());
		return drawn.get(sort)!;
	};
	return {
		document: (...given) => once('document', () => press.document(...given)),
		statements: (...given) => once('statements', () => press.statements(...given)),
		letter: (...given) => once('letter', () => press.letter(...given)),
		summary: (...given) => once('summary', () => press.summary(...given)),
		warm: () => press.warm()
	};
}

const config = readConfig(process.env);
const start = clockOf(config).now();
const today = londonDate(start);
const clock = settableClock(start);
let mailAnswer: MailOutcome = { state: 'sent' };
let checkout = '';
const charged: { checkout: string; amount: number }[] = [];
const world = openWorld(config, {
	clock,
	mail: { send: async () => mailAnswer },
	text: { send: async () => ({ state: 'sent' }) },
	bank: {
		openTransfer: async ({ key }) => ({ id: `demo-${key}`, url: 'http://bank.example/' }),
		newsSince: async () => []
	},
	card: {
		async openCheckout({ key }) {
			checkout = `demo-${key}`;
			return { id: checkout, url: 'http://card.example/' };
		},
		refund: async () => ({ id: 'demo-refund' }),
		async charge({ key, amount }) {
			charged.push({ checkout: `demo-${key}`, amount });
			return { id: `demo-${key}`, state: 'settled' };
		},
		forgetCard: async () => undefined,
		newsSince: async () => []
	},
	// Drawing two hundred papers takes most of the time: where they are not the point, one of each sort stands for all.
	...(process.env.AXIOMETER_DEMO_PAPERS === 'one' ? { press: onePress(threadPress()) } : {})
});

const DAY = 86_400_000;
/** Invented, for the newest month and those before it. */
const EURO = ['0.8731', '0.8694', '0.8702', '0.8655', '0.8647', '0.8589'];
/** The first day of a month, so many months from a day's own. */
const monthStart = (day: string, months: number): string =>
	`${addMonths(`${day.slice(0, 7)}-01`, months).slice(0, 7)}-01`;
/** Ten in the morning so many days before the demo starts, and minutes after that. */
const morning = (ago: number, minutes = 0) =>
	start - (start % DAY) - ago * DAY + 10 * 3_600_000 + minutes * 60_000;

clock.set(morning(425));
saveBusiness(
	world,
	{
		ownerName: 'Tamsin Orrell',
		tradingName: 'Orrell Lime & Plaster',
		address: 'Kiln Cottage\nHarrowmere\nWestmarch WM4 2KC',
		email: 'tamsin@orrell-lime.example',
		phone: '01632 960001',
		vatRegistered: true,
		vatNumber: '444444454',
		vatStagger: 'march',
		cisSubcontractor: true,
		utr: '2234567890',
		bankAccountName: 'T Orrell t/a Orrell Lime & Plaster',
		bankSortCode: '000000',
		bankAccountNumber: '00012345',
		bankIban: 'GB53 XXXX 0000 0000 0123 45',
		bankBic: 'XXXXGB2X',
		termsDays: 14,
		invoicePattern: 'OLP-{nnnn}',
		invoiceNext: 173,
		copyToSelf: true,
		textPrice: '0.045'
	},
	true
);
await setPassword(world, 'lime-and-plaster');

const ids = new Map<string, number>();
for (const { key, billToKey, ...customer } of DEMO_CUSTOMERS) {
	const billToId = billToKey ? (ids.get(billToKey) ?? null) : null;
	ids.set(key, addCustomer(world, { ...customer, billToId }));
}

layOutPrices(world);
// What a euro was worth, month by month, as a table would have it.
for (let back = 0; back < 15; back++) {
	const to = addDays(monthStart(today, -back + 1), -1);
	addRate(world, {
		currency: 'EUR',
		from: monthStart(today, -back),
		to,
		rate: EURO[back % EURO.length]!,
		source: 'monthly rates of the tax office'
	});
}
await layOutLetterheads(world);
await layOutPeople(world);
const steps: Step[] = [
	...DEMO_DOCUMENTS.flatMap((document, index) => stepsOf(document, index)),
	...movingSteps({ world, ids, today, morning }),
	...workSteps({ world, ids, today, morning }),
	...owedSteps({ world, ids, today, morning }),
	...costSteps({ world, ids, today, morning }),
	...quoteSteps({ world, ids, today, morning }, (amount) => settle(checkout, amount)),
	...chasingSteps({ world, ids, today, morning }),
	...repeatSteps({ world, ids, today, morning, payByCard, settleCharges })
].sort((a, b) => a.at - b.at);
for (const step of steps) {
	// What lies after now has not happened yet.
	if (step.at > start) continue;
	clock.set(step.at);
	await step.run();
}
mkdirSync(config.dataFolder, { recursive: true });
writeBankFile({ world, ids, today, morning }, config.dataFolder);
knowCard(join(config.dataFolder, 'stand-in-card.sqlite'), DEMO_CARD);
// Last night’s backup, as the clockwork makes it.
clock.set(Math.min(start, morning(0, -470)));
await makeBackup(world, 'night');
world.db.$client.pragma('wal_checkpoint(TRUNCATE)');
writeFileSync(join(config.dataFolder, 'complete'), `${today}\n`);

/** The customer pays on the pay page, and may let the card be kept. */
async function payByCard(id: number, key: string, keep = false): Promise<void> {
	const { toPay, link } = documentDetail(world, id);
	await openCheckout(world, link.split('/').at(-1)!, key, undefined, { keepCard: keep });
	await settle(checkout, Number(toPay), keep);
}

async function settleCharges(): Promise<void> {
	for (const one of charged.splice(0)) await settle(one.checkout, one.amount);
}

async function settle(paid: string, amount: number, keep = false): Promise<void> {
	const { token, number } = DEMO_CARD;
	const event = {
		id: randomUUID(),
		type: 'payment.settled' as const,
		checkout: paid,
		amount,
		fee: Math.floor((amount * 14 + 500) / 1000) + 20,
		...(keep ? { card: { token, lastDigits: number.slice(-4) } } : {})
	};
	receiveCardEvent(world, event, JSON.stringify(event));
	await deliverDue(world);
}

function sheetOf(document: DemoDocument): Sheet {
	const customerId = ids.get(document.customer)!;
	const { sites, currency } = customerRecord(world.db, customerId)!;
	const issued = addDays(today, -document.ago);
	const rows: SheetRow[] = document.lines.flatMap((line, index): SheetRow[] => {
		const title = document.headings?.[index];
		return [
			...(title ? [{ id: `h${index}`, type: 'heading' as const, text: title }] : []),
			{
				id: `l${index}`,
				type: 'line' as const,
				kind: line.kind,
				description: line.description,
				quantity: line.quantity,
				unit: line.unit,
				unitPrice: line.price,
				...tagsOfWords(line.description),
				vat: line.vat ?? 'standard',
				vatReason: line.reason ?? '',
				discount: line.discount ?? '',
				cost: line.cost ?? ''
			}
		];
	});
	return {
		...blankSheet(),
		...(currency ? { currency } : {}),
		customerId,
		siteId: document.site === undefined ? null : (sites[document.site]?.id ?? null),
		contract: document.contract ?? null,
		workFinished: document.finished ? displayDate(addDays(issued, -document.finished)) : '',
		orderNumber: document.orderNumber ?? '',
		reference: document.reference ?? '',
		workKindId: kindOf(world, document.lines[0]!.description),
		note: document.note ?? '',
		pricesIncludeVat: document.includesVat ?? false,
		discount: document.discount ?? '',
		retention: document.retention ?? '',
		...(document.prompt ? { prompt: document.prompt } : {}),
		...(document.theirs
			? { selfBilled: { number: document.theirs, agreedOn: displayDate(addDays(today, -300)) } }
			: {}),
		rows
	};
}

function stepsOf(document: DemoDocument, index: number): Step[] {
	const { outcome, ago } = document;
	let id = 0;
	const steps: Step[] = [
		{
			at: Math.min(morning(ago, index % 50), start - (60 - (index % 50)) * 1000),
			async run() {
				id = document.theirs
					? beginSelfBilled(world, `demo:${index}`)
					: beginInvoice(world, `demo:${index}`, ids.get(document.customer)!);
				const { version } = saveDraft(world, id, 1, sheetOf(document));
				if (outcome.type === 'draft') return;
				await issueInvoice(world, id, version);
				if (outcome.type === 'unsent' || document.theirs) return;
				mailAnswer =
					outcome.type === 'bounced'
						? { state: 'refused', reason: 'the mail server answered 550' }
						: { state: 'sent' };
				const { to, subject, text } = prepareSending(world, id);
				sendByMail(world, id, { key: 'demo', to, subject, text, copyToSelf: true });
				await deliverDue(world);
				mailAnswer = { state: 'sent' };
			}
		}
	];
	const later = (days: number, run: () => Promise<void>) =>
		steps.push({ at: morning(ago - days, 200 + (index % 50)), run });
	const token = () => documentDetail(world, id).link.split('/').at(-1)!;
	if (outcome.type === 'sent' && outcome.seen !== undefined)
		later(outcome.seen, async () => noteOpened(world, token(), 'opened'));
	if (outcome.type === 'credited')
		later(
			outcome.after,
			async () => void (await creditInvoice(world, id, outcome.reason, `demo-credit:${index}`))
		);
	const pay = (what: string, date: string) => {
		const { toPay, prompt, number } = documentDetail(world, id);
		recordPayment(world, id, {
			key: `demo:${index}:${what}`,
			date,
			amount: displayAmount(prompt?.payable ?? toPay),
			withheld: '',
			way: 'bank',
			reference: number,
			allowOverpaid: false
		});
	};
	if (outcome.type === 'partCredited')
		later(outcome.after, async () => {
			await creditPart(world, id, {
				key: `demo-part:${index}`,
				reason: outcome.reason,
				wishes: () => [{ position: 0, quantity: parseDecimal(outcome.units)! }],
				again: false
			});
			pay('rest', clock.today());
		});
	if (outcome.type === 'prompt')
		later(outcome.after, async () => {
			pay('prompt', clock.today());
			await creditPrompt(world, id);
		});
	if (outcome.type === 'corrected')
		later(outcome.after, async () => {
			pay('wrong', clock.today());
			const draft = correctAsDraft(world, id, `demo-correct:${index}`);
			const { sheet, version } = loadDraft(world.db, draft);
			const [first, ...others] = sheet.rows;
			saveDraft(world, draft, version, {
				...sheet,
				about: { ...sheet.about!, reason: outcome.reason },
				rows: [{ ...(first as SheetLine), quantity: outcome.units }, ...others]
			});
			const wish = { sendTo: null, copyToSelf: false, useInHand: false };
			await issueAndSend(world, draft, version + 1, wish);
		});
	if (outcome.type === 'paid' && outcome.way === 'card') {
		later(outcome.after, async () => {
			noteOpened(world, token(), 'opened');
			await payByCard(id, `demo:${index}`);
		});
	} else if (outcome.type === 'paid' || outcome.type === 'part' || outcome.type === 'overpaid') {
		later(outcome.after, async () => {
			const detail = documentDetail(world, id);
			const amount = outcome.type === 'paid' ? displayAmount(detail.toPay) : outcome.amount;
			const way = outcome.type === 'paid' ? outcome.way : 'bank';
			recordPayment(world, id, {
				key: `demo:${index}`,
				date: clock.today(),
				amount,
				withheld: '',
				way,
				...(outcome.type === 'paid' && outcome.reached ? { reached: outcome.reached } : {}),
				reference: detail.number,
				allowOverpaid: outcome.type === 'overpaid'
			});
		});
	}
	return steps;
}
