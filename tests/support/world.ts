// A world of its own for each test: a data file in a folder that goes away, a clock that stands, gateways that do as told.
import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { londonMoment } from '../../src/lib/core/calendar/conversion';
import { blankLine, blankSheet } from '../../src/lib/core/sheet/blank';
import type { Sheet, SheetLine } from '../../src/lib/core/sheet/types';
import { settableClock } from '../../src/lib/server/clock';
import { readConfig } from '../../src/lib/server/config';
import type { Press } from '../../src/lib/server/documents/press';
import { CardUnavailableError, type CardEvent } from '../../src/lib/server/gateways/card';
import type { MailMessage, MailOutcome } from '../../src/lib/server/gateways/mail';
import type { TextOutcome } from '../../src/lib/server/gateways/text';
import { connect } from '../../src/lib/server/db/connection';
import { migrateFile } from '../../src/lib/server/db/migrate';
import { dataFile, MIGRATIONS, openWorld, worldOn } from '../../src/lib/server/open';
import { saveBusiness } from '../../src/lib/server/services/business/settings';
import { addCustomer } from '../../src/lib/server/services/customers/customers';
import { beginInvoice, saveDraft } from '../../src/lib/server/services/invoices/drafts';
import { issueInvoice } from '../../src/lib/server/services/invoices/issue';
import type { Issued } from '../../src/lib/server/services/invoices/issuing';
import { receiveCardEvent } from '../../src/lib/server/services/money/cardEvents';
import type { World } from '../../src/lib/server/world';

export const NOW = londonMoment('2026-11-24T09:00');

export interface TestWorld extends World {
	clock: ReturnType<typeof settableClock>;
	folder: string;
	sent: MailMessage[];
	mailAnswer: (message: MailMessage) => MailOutcome;
	texts: { key: string; to: string; text: string }[];
	textAnswer: TextOutcome;
	cardDown: boolean;
	checkouts: { key: string; amount: number; id: string }[];
	charges: { key: string; amount: number; id: string }[];
	chargeState: 'settled' | 'declined';
	/** What the gateways say they have said. */
	cardNews: unknown[];
	bankNews: unknown[];
	end(): void;
}

export const BUSINESS = {
	ownerName: 'Tamsin Orrell',
	tradingName: 'Orrell Lime & Plaster',
	address: 'Kiln Cottage\nHarrowmere',
	email: 'tamsin@orrell-lime.example',
	phone: '',
	vatRegistered: true,
	vatNumber: '444444454',
	cisSubcontractor: true,
	utr: '2234567890',
	bankAccountName: '',
	bankSortCode: '00-00-00',
	bankAccountNumber: '00012345',
	termsDays: 14,
	invoicePattern: 'INV-{nnnn}',
	invoiceNext: 7,
	copyToSelf: true
};

/** Everything that stands in something, as one text to look for words in. */
export function wordsOf(of: unknown): string {
	return JSON.stringify(of, (_, value) => (typeof value === 'bigint' ? String(value) : value));
}

/** Instead of drawing, tells what would be drawn: real PDFs are drawn where they are the point. */
function paperPress(): Press {
	const words = async (of: object) => Buffer.from(`%PDF-paper ${wordsOf(of)}`);
	return {
		document: (view, options) => words({ view, options }),
		statements: (views, options) => words({ views, options }),
		letter: (letter) => words({ letter }),
		summary: (summary) => words({ summary }),
		warm: () => undefined
	};
}

/** Data files that were laid out once for this process: migrated, and with each business that was asked for. A world begins with a copy. */
const laidOut = new Map<string, string>();

function fileOf(key: string, layOut: (folder: string) => void): string {
	let file = laidOut.get(key);
	if (!file) {
		const folder = mkdtempSync(join(tmpdir(), 'axiometer-laid-out-'));
		process.once('exit', () => rmSync(folder, { recursive: true, force: true }));
		file = dataFile(folder);
		layOut(folder);
		laidOut.set(key, file);
	}
	return file;
}

const migrated = () => fileOf('', (folder) => migrateFile(dataFile(folder), MIGRATIONS, 0));

const begunWith = (business: object) =>
	fileOf(JSON.stringify(business), (folder) => {
		copyFileSync(migrated(), dataFile(folder));
		const config = readConfig({ AXIOMETER_DATA: folder });
		const world = openWorld(config, { clock: settableClock(NOW), press: paperPress() });
		saveBusiness(world, { ...BUSINESS, ...business }, true);
		// All of it into the file itself.
		world.db.$client.pragma('wal_checkpoint(TRUNCATE)');
		world.db.$client.close();
	});

export function makeWorld(business: object = {}): TestWorld {
	const folder = mkdtempSync(join(tmpdir(), 'axiometer-'));
	copyFileSync(begunWith(business), dataFile(folder));
	const clock = settableClock(NOW);
	const db = connect(dataFile(folder), 'OFF');
	const world: TestWorld = Object.assign(
		worldOn(db, readConfig({ AXIOMETER_DATA: folder }), clock, { press: paperPress() }),
		{
			clock,
			folder,
			sent: [] as MailMessage[],
			mailAnswer: (): MailOutcome => ({ state: 'sent' }),
			texts: [] as TestWorld['texts'],
			textAnswer: { state: 'sent' } as TextOutcome,
			cardDown: false,
			checkouts: [] as TestWorld['checkouts'],
			charges: [] as TestWorld['charges'],
			chargeState: 'settled' as TestWorld['chargeState'],
			cardNews: [] as unknown[],
			bankNews: [] as unknown[],
			end() {
				world.db.$client.close();
				rmSync(folder, { recursive: true, force: true });
			}
		}
	);
	world.mail = {
		async send(message) {
			const outcome = world.mailAnswer(message);
			if (outcome.state !== 'later') world.sent.push(message);
			return outcome;
		}
	};
	world.bank = {
		async openTransfer({ key, amount }) {
			const same = world.checkouts.find((one) => one.key === key);
			const id = same?.id ?? `trf-${world.checkouts.length + 1}`;
			if (!same) world.checkouts.push({ key, amount, id });
			return { id, url: `http://bank.example/${id}` };
		},
		newsSince: async () => world.bankNews
	};
	world.text = {
		async send(message) {
			if (world.textAnswer.state === 'sent') world.texts.push(message);
			return world.textAnswer;
		}
	};
	world.card = {
		async openCheckout({ key, amount }) {
			if (world.cardDown) throw new CardUnavailableError('down');
			const same = world.checkouts.find((one) => one.key === key);
			const checkout = same ?? { key, amount, id: `chk-${world.checkouts.length + 1}` };
			if (!same) world.checkouts.push(checkout);
			return { id: checkout.id, url: `http://card.example/${checkout.id}` };
		},
		refund: async ({ key }) => ({ id: `ref-${key}` }),
		async charge({ key, amount }) {
			if (world.cardDown) throw new CardUnavailableError('down');
			const same = world.charges.find((one) => one.key === key);
			const charge = same ?? { key, amount, id: `chg-${world.charges.length + 1}` };
			if (!same) world.charges.push(charge);
			return { id: charge.id, state: world.chargeState };
		},
		forgetCard: async () => undefined,
		async newsSince() {
			if (world.cardDown) throw new CardUnavailableError('down');
			return world.cardNews;
		}
	};
	return world;
}

export const CONTRACTOR = {
	name: 'Beacon & Lathe Construction Ltd',
	kind: 'contractor' as const,
	address: 'Foundry House\nCastle Orme',
	email: 'accounts@beacon-lathe.example',
	termsDays: 45,
	standing: {
		from: '',
		vatRegistered: true,
		vatNumber: '123456782',
		cisRegistered: true,
		cisRate: '20' as const
	}
};
export const HOUSEHOLD = {
	name: 'Odile Brancaster',
	kind: 'household' as const,
	address: 'Lantern House\nHarrowmere',
	email: 'odile@post.example'
};

export function line(
	id: string,
	description: string,
	unitPrice: string,
	more: Partial<SheetLine> = {}
): SheetLine {
	return { ...blankLine(id), description, unitPrice, ...more };
}

/** Labour and materials: 1,440.00 and 860.00 that cost 720.00. */
export const LINES = [
	line('a', 'Lime render, two coats', '45.00', { quantity: '32', unit: 'hour' }),
	line('b', 'Hydraulic lime, sand, mesh', '860.00', { kind: 'materials', cost: '720.00' })
];

let keys = 0;

export function draftOf(
	world: World,
	customer: object,
	sheet: Partial<Sheet> = {}
): { id: number; version: number; customerId: number } {
	const customerId = addCustomer(world, customer);
	const id = beginInvoice(world, `draft-${keys++}`, customerId);
	const { version } = saveDraft(world, id, 1, {
		...blankSheet(),
		customerId,
		rows: LINES,
		contract: 'kind' in customer && customer.kind === 'contractor' ? 'construction' : null,
		...sheet
	});
	return { id, version, customerId };
}

export async function issued(
	world: World,
	customer: object,
	sheet: Partial<Sheet> = {}
): Promise<Issued & { customerId: number }> {
	const draft = draftOf(world, customer, sheet);
	return { ...(await issueInvoice(world, draft.id, draft.version)), customerId: draft.customerId };
}

export function settledEvent(checkout: string, amount: number, id = `evt-${keys++}`): CardEvent {
	return { id, type: 'payment.settled', checkout, amount, fee: 25 };
}

export function receive(world: World, event: CardEvent): void {
	receiveCardEvent(world, event, JSON.stringify(event));
}
