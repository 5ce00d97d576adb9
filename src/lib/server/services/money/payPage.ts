// What an unguessable link shows: one document and nothing else. Opening it is noted.
import { BOOKS, type Currency } from '../../../core/money/currencies';
import { waysOf } from '../../../core/sheet/own';
import type { PayWays } from '../../../core/payWays';
import { and, desc, eq, sql, type SQL } from 'drizzle-orm';
import type { PlainDate } from '../../../core/calendar/types';
import { frozenView, viewDocument } from '../../../core/documents/view';
import { type DocumentView } from '../../../core/documents/viewTypes';
import {
	checkouts,
	documentFiles,
	documents,
	openItems,
	trials,
	trail,
	type PaymentWay
} from '../../db/schema';
import type { World } from '../../world';
import { filesGoingOut, loadFile, type FileShown } from '../files/files';
import { isToken } from '../business/keys';
import { feePassedOn } from './checkouts';
import { NotFoundError } from '../../../core/refusals';
import { frozenFigures } from '../../../core/documents/frozen';
import { leftToDeduct, stillToPay } from '../ledger/position';
import { note } from '../trail/documents';

export interface PayPage {
	view: DocumentView;
	/** What goes out with it. */
	files: FileShown[];
	trial: boolean;
	kind: 'invoice' | 'creditNote';
	/** What all amounts are in. */
	currency: Currency;
	/** What it came to, and what became of it, in minor units. */
	total: number;
	toPay: number;
	leftToDeduct: number;
	paid: number;
	withheld: number;
	credited: number;
	state: 'open' | 'pending' | 'paid' | 'credited';
	/** The last try to pay it online, with what is known of it. */
	last: LastTry | null;
	/** Payments that count, the earliest first. */
	payments: { date: PlainDate; amount: number; way: PaymentWay }[];
	due: { date: PlainDate; late: boolean } | null;
	/** How the business is reached. */
	reach: { phone: string; email: string };
	/** A commercial card would bear its fee. */
	mayBearFee: boolean;
	/** How it may be paid. */
	ways: PayWays;
}

export interface LastTry {
	way: 'card' | 'bank';
	state: 'open' | 'pending' | 'settled' | 'declined';
	/** Pence. */
	amount: number;
}

/** @throws NotFoundError for every link that is not exactly right. */
export function payPage(world: World, token: string): PayPage {
	if (!isToken(token)) throw new NotFoundError('This page');
	const row = world.db.select().from(documents).where(eq(documents.token, token)).get();
	if (row?.frozen && row.number) {
		const view = frozenView(row.frozen, row.number, 'issued');
		const item = world.db.select().from(openItems).where(eq(openItems.documentId, row.id)).get();
		const { phone, email } = row.frozen.seller;
		const { sheet, customer } = row.frozen;
		const common = {
			view,
			files: filesGoingOut(world.db, row.id),
			trial: false,
			kind: row.kind,
			reach: { phone, email },
			currency: row.currency,
			ways: waysOf(sheet, customer)
		} as const;
		if (!item)
			return {
				...common,
				total: 0,
				toPay: 0,
				leftToDeduct: 0,
				paid: 0,
				withheld: 0,
				credited: 0,
				state: 'credited',
				last: null,
				payments: [],
				due: null,
				mayBearFee: false
			};
		const toPay = stillToPay(item);
		const pending = isPending(world, row.id);
		return {
			...common,
			total: item.total,
			toPay,
			leftToDeduct: leftToDeduct(item),
			paid: item.cash,
			withheld: item.withheld,
			credited: item.credited,
			state:
				toPay === 0
					? item.state === 'credited'
						? 'credited'
						: 'paid'
					: pending
						? 'pending'
						: 'open',
			last: lastTry(world, eq(checkouts.documentId, row.id)),
			payments: paymentsOf(world, row.id),
			due: { date: item.dueDate, late: toPay > 0 && item.dueDate < world.clock.today() },
			mayBearFee: feePassedOn(world, row.customerId!, item)
		};
	}
	const trial = world.db.select().from(trials).where(eq(trials.token, token)).get();
	if (!trial) throw new NotFoundError('This page');
	const figures = frozenFigures(trial.frozen);
	const view = viewDocument(trial.frozen, figures, '', 'trial');
	const payable = Number(figures.payable);
	return {
		view,
		files: filesGoingOut(world.db, trial.documentId),
		trial: true,
		kind: 'invoice',
		total: payable,
		toPay: trial.paidAt === null ? payable : 0,
		leftToDeduct: 0,
		paid: trial.paidAt === null ? 0 : payable,
		withheld: 0,
		credited: 0,
		state: trial.paidAt === null ? 'open' : 'paid',
		last: lastTry(world, eq(checkouts.trialId, trial.id)),
		payments: [],
		due: null,
		reach: { phone: trial.frozen.seller.phone, email: trial.frozen.seller.email },
		mayBearFee: false,
		currency: trial.frozen.sheet.currency ?? BOOKS,
		ways: waysOf(trial.frozen.sheet, trial.frozen.customer)
	};
}

export function lastTry(world: World, of: SQL): LastTry | null {
	return (
		world.db
			.select({ way: checkouts.way, state: checkouts.state, amount: checkouts.amount })
			.from(checkouts)
			.where(of)
			.orderBy(desc(checkouts.id))
			.get() ?? null
	);
}

function paymentsOf(world: World, documentId: number): PayPage['payments'] {
	return world.db.all(sql`
		select p.date, sum(a.amount) as amount, p.way from allocations a join payments p on p.id = a.payment_id
		where a.document_id = ${documentId}
			and not exists (select 1 from payment_reversals v where v.payment_id = p.id)
		group by p.id having sum(a.amount) > 0 order by p.date, p.id`);
}

function isPending(world: World, documentId: number): boolean {
	const { own, shared } = world.db.get<{ own: number; shared: number }>(sql`
		select exists (select 1 from checkouts where document_id = ${documentId} and state = 'pending') as own,
			exists (select 1 from checkouts, json_each(checkouts.shares) where state = 'pending'
				and json_extract(value, '$.documentId') = ${documentId}) as shared`)!;
	return own + shared > 0;
}

const SAME_VISIT = 10 * 60 * 1000;

/** Notes that the customer opened it, once for each visit. */
export function noteOpened(world: World, token: string, what: 'opened' | 'pdfOpened'): void {
	const row = world.db
		.select({ id: documents.id })
		.from(documents)
		.where(eq(documents.token, token))
		.get();
	if (!row) return;
	const last = world.db
		.select({ at: trail.at })
		.from(trail)
		.where(and(eq(trail.documentId, row.id), eq(trail.what, what)))
		.orderBy(desc(trail.id))
		.get();
	const now = world.clock.now();
	if (last && now - last.at < SAME_VISIT) return;
	note(world.db, { documentId: row.id, at: now, who: 'customer', what });
}

export function payPagePdf(world: World, token: string): { name: string; content: Buffer } {
	if (!isToken(token)) throw new NotFoundError('This page');
	const file = world.db
		.select({ name: documentFiles.name, content: documentFiles.content })
		.from(documentFiles)
		.innerJoin(documents, eq(documents.id, documentFiles.documentId))
		.where(eq(documents.token, token))
		.get();
	if (file) return file;
	const trial = world.db
		.select({ pdf: trials.pdf })
		.from(trials)
		.where(eq(trials.token, token))
		.get();
	if (!trial) throw new NotFoundError('This page');
	return { name: 'Test.pdf', content: trial.pdf };
}

/** A file that goes out with the document behind a link; no other. @throws NotFoundError */
export function fileBehindLink(world: World, token: string, id: number, small: boolean) {
	const documentId = isToken(token)
		? (world.db.select({ id: documents.id }).from(documents).where(eq(documents.token, token)).get()
				?.id ??
			world.db.select({ id: trials.documentId }).from(trials).where(eq(trials.token, token)).get()
				?.id)
		: undefined;
	if (documentId === undefined) throw new NotFoundError('This page');
	const file = loadFile(world, id, small, { to: 'document', id: documentId });
	if (!file.goesOut) throw new NotFoundError('This file');
	return file;
}
