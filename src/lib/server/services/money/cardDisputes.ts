// A card payment that its customer disputes: its deadline, the evidence in one file, and how it ended.
import { and, asc, desc, eq, inArray, sql } from 'drizzle-orm';
import { stringify } from 'csv-stringify/sync';
import { displayDate, displayMoment } from '../../../core/calendar/conversion';
import { daysBetween } from '../../../core/calendar/queries';
import { safeCell } from '../../../core/formats/cells';
import { displayPounds } from '../../../core/money/display';
import { MOST_MOVES, type Move } from '../../../core/moves';
import { NotFoundError, RefusedError } from '../../../core/refusals';
import { must } from '../../actor';
import { archiveBody } from '../../archive';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { cardDisputes, documentFiles, documents, mails, payments, texts } from '../../db/schema';
import type { DisputeEvent } from '../../gateways/card';
import type { World } from '../../world';
import { loadBusiness } from '../business/settings';
import { filesOf, loadFile } from '../files/files';
import { note, paperTrail } from '../trail/documents';
import { noteEvent, take } from './cardEvents';

/**
 * Takes the news of a dispute. Twice, or out of order: what has ended stays ended.
 * @throws NotFoundError for a checkout that is not known (yet): the processor tries again.
 */
export function receiveDispute(world: World, event: DisputeEvent, body: string): void {
	writeAtOnce(world.db, (tx) => {
		const { checkout, fresh } = noteEvent(tx, world, event, body);
		const at = world.clock.now();
		if (!fresh || checkout.trialId !== null) return;
		const documentId = checkout.documentId ?? checkout.shares?.[0]?.documentId ?? null;
		tx.insert(cardDisputes)
			.values({
				dispute: event.dispute,
				checkout: event.checkout,
				documentId,
				amount: event.amount,
				reason: event.reason,
				respondBy: event.respondBy,
				state: 'open',
				openedAt: at
			})
			.onConflictDoNothing()
			.run();
		const row = tx
			.select()
			.from(cardDisputes)
			.where(eq(cardDisputes.dispute, event.dispute))
			.get()!;
		if (row.state === 'won' || row.state === 'lost') return;
		const tell = (what: 'disputeOpened' | 'disputeWon' | 'disputeLost', detail: string) => {
			if (documentId !== null) note(tx, { documentId, at, who: 'customer', what, detail });
		};
		if (event.type === 'dispute.opened')
			return tell(
				'disputeOpened',
				`${displayPounds(event.amount)}, to answer by ${displayDate(event.respondBy)}`
			);
		const lost = event.type === 'dispute.lost';
		end(tx, row.id, lost ? 'lost' : 'won', at);
		tell(lost ? 'disputeLost' : 'disputeWon', displayPounds(event.amount));
		// What the processor takes back is booked as any money that goes back to a card.
		if (lost)
			take(
				tx,
				world,
				checkout,
				{
					id: event.id,
					type: 'refund.settled',
					checkout: event.checkout,
					amount: event.amount,
					fee: 0,
					refund: `dispute ${event.dispute}`
				},
				body
			);
	});
}

const end = (tx: Transaction, id: number, state: 'won' | 'lost', at: number) =>
	tx.update(cardDisputes).set({ state, endedAt: at }).where(eq(cardDisputes.id, id)).run();

/** The evidence was handed in at the processor. A second press changes nothing. @throws NotFoundError, RefusedError */
export function answerDispute(world: World, id: number): void {
	must('money');
	writeAtOnce(world.db, (tx) => {
		const row = tx.select().from(cardDisputes).where(eq(cardDisputes.id, id)).get();
		if (!row) throw new NotFoundError('This dispute');
		if (row.state === 'answered') return;
		if (row.state !== 'open') throw new RefusedError('This dispute has ended.');
		tx.update(cardDisputes).set({ state: 'answered' }).where(eq(cardDisputes.id, id)).run();
		if (row.documentId !== null)
			note(tx, {
				documentId: row.documentId,
				at: world.clock.now(),
				who: 'you',
				what: 'disputeAnswered'
			});
	});
}

export type DisputeRow = Pick<
	typeof cardDisputes.$inferSelect,
	'id' | 'amount' | 'reason' | 'respondBy' | 'state'
>;

/** The disputes about an invoice, the newest first. */
export const disputesOf = (db: Reader, documentId: number): DisputeRow[] =>
	db
		.select({
			id: cardDisputes.id,
			amount: cardDisputes.amount,
			reason: cardDisputes.reason,
			respondBy: cardDisputes.respondBy,
			state: cardDisputes.state
		})
		.from(cardDisputes)
		.where(eq(cardDisputes.documentId, documentId))
		.orderBy(desc(cardDisputes.id))
		.all();

/** Disputes nobody has answered, the one to answer first, first. */
export function disputeMoves(world: World): Move[] {
	const today = world.clock.today();
	return world.db
		.select({ row: cardDisputes, number: documents.number, customer: documents.customerName })
		.from(cardDisputes)
		.innerJoin(documents, eq(documents.id, cardDisputes.documentId))
		.where(eq(cardDisputes.state, 'open'))
		.orderBy(asc(cardDisputes.respondBy))
		.limit(MOST_MOVES)
		.all()
		.map(({ row, number, customer }) => {
			const days = daysBetween(today, row.respondBy);
			return {
				id: `dispute:${row.id}`,
				amount: BigInt(row.amount),
				late: days < 3,
				title: `${customer} disputes a card payment of ${displayPounds(row.amount)}`,
				detail:
					days < 0
						? `${number}: the time to answer ended on ${displayDate(row.respondBy)}`
						: `${number}: answer by ${displayDate(row.respondBy)}, ${days === 0 ? 'today' : days === 1 ? 'tomorrow' : `in ${days} days`}`,
				action: 'See the evidence',
				href: `/billing/${row.documentId}#dispute`
			};
		});
}

/** Everything that shows that a card payment was right, as one archive. @throws NotFoundError */
export async function disputeEvidence(
	world: World,
	id: number
): Promise<{ name: string; body: ReadableStream<Uint8Array> }> {
	must('money');
	const { db } = world;
	const row = db.select().from(cardDisputes).where(eq(cardDisputes.id, id)).get();
	const document =
		row?.documentId == null
			? undefined
			: db.select().from(documents).where(eq(documents.id, row.documentId)).get();
	if (!row || !document?.frozen || !document.number) throw new NotFoundError('This dispute');
	const documentId = document.id;
	const { customer, sheet } = document.frozen;
	const paid = db
		.select({ date: payments.date, amount: payments.amount })
		.from(payments)
		.where(and(eq(payments.reference, row.checkout), eq(payments.way, 'card')))
		.get();
	const trail = paperTrail(world, documentId);
	const seen = trail.filter(({ what }) => what === 'opened' || what === 'pdfOpened');
	const owner = loadBusiness(db);
	const summary = await world.press.summary({
		title: 'Evidence in a card dispute',
		of: owner.tradingName || owner.ownerName,
		period: `as of ${displayDate(world.clock.today())}`,
		madeAt: world.clock.now(),
		parts: [
			{
				title: 'The dispute',
				rows: [
					['The processor’s name for it', row.dispute],
					['Payment', row.checkout],
					['Disputed', displayPounds(row.amount)],
					['What the customer says', row.reason || 'nothing'],
					['To answer by', displayDate(row.respondBy)]
				]
			},
			{
				title: 'The sale',
				rows: [
					['Invoice', `${document.number} of ${displayDate(document.issueDate!)}`],
					['Customer', customer.name],
					[
						'Where the work was done',
						customer.sites
							.find((site) => site.id === sheet.siteId)
							?.address.split('\n')
							.join(', ') ||
							customer.address.split('\n').join(', ') ||
							'not said'
					],
					['Work finished', displayDate(document.frozen.workFinished)],
					['It comes to', displayPounds(document.total)],
					...(paid
						? [
								['Paid by card', `${displayPounds(paid.amount)} on ${displayDate(paid.date)}`] as [
									string,
									string
								]
							]
						: [])
				]
			},
			{
				title: 'That the customer had it',
				rows: [
					...trail
						.filter(({ what }) => what === 'sent' || what === 'delivered' || what === 'texted')
						.map((one): [string, string] => [
							`Sent${one.detail ? `, ${one.detail}` : ''}`,
							displayMoment(one.at)
						]),
					...seen.map((one): [string, string] => ['Opened by the customer', displayMoment(one.at)])
				]
			}
		]
	});
	const name = `Evidence-${document.number.replace(/[^\w.-]+/g, '-')}.zip`;
	const body = archiveBody(world.clock.now(), (archive) => {
		archive.bytes('Summary.pdf', () => summary);
		for (const file of db
			.select()
			.from(documentFiles)
			.where(
				inArray(documentFiles.documentId, [
					documentId,
					...db
						.select({ id: documents.id })
						.from(documents)
						.where(eq(documents.correctsId, documentId))
						.all()
						.map((one) => one.id)
				])
			)
			.all())
			archive.bytes(file.name, () => file.content);
		archive.text('Messages.txt', () => messagesOf(db, documentId));
		archive.text('What happened.csv', () => [
			stringify([
				['When', 'Who', 'What', 'Detail'],
				...trail.map(({ at, who, what, detail }) =>
					[displayMoment(at), who, what, detail].map((cell) => safeCell(String(cell)))
				)
			])
		]);
		// What the customer was given with it; nothing that is private.
		for (const file of filesOf(db, { to: 'document', id: documentId }))
			if (file.goesOut)
				archive.bytes(
					`files/${file.name}`,
					() => loadFile(world, file.id, false, { to: 'document', id: documentId }).content
				);
	});
	return { name, body };
}

/** Mails and texts about the document, as they went, without their links: those open a page. */
function* messagesOf(db: Reader, documentId: number): Generator<string> {
	const plain = (words: string) => words.replace(/https?:\/\/\S+/g, '(link)');
	for (const mail of db
		.select()
		.from(mails)
		.where(
			and(eq(mails.documentId, documentId), eq(mails.state, 'sent'), sql`${mails.kind} <> 'trial'`)
		)
		.orderBy(asc(mails.id))
		.all())
		yield `${mail.sentAt ? displayMoment(mail.sentAt) : ''}\nTo: ${mail.to}\nSubject: ${mail.subject}\n\n${plain(mail.text)}\n\n----\n\n`;
	for (const text of db
		.select()
		.from(texts)
		.where(and(eq(texts.documentId, documentId), eq(texts.state, 'sent')))
		.orderBy(asc(texts.id))
		.all())
		yield `Text to ${text.to}\n\n${plain(text.text)}\n\n----\n\n`;
}
