// The press that issues, uses what the payer has in hand, and sends: all of it in the transaction that issues, or none.
import type { Message } from '../../../core/documents/wording';
import { eq } from 'drizzle-orm';
import type { Transaction } from '../../db/connection';
import { documents } from '../../db/schema';
import type { World } from '../../world';
import { issueInvoice } from '../invoices/issue';
import type { Issued } from '../invoices/issuing';
import { queueIssued, readAddresses, readMessage, readOptional } from '../invoices/send';
import { inHandOf } from '../ledger/inHand';
import { openItemOf } from '../ledger/openInvoices';
import { advancesFor, applyInTransaction, moveCorrected } from './useInHand';

export interface IssueWish {
	/** Addresses as typed; null: it is not sent now. */
	sendTo: string | null;
	cc?: string;
	/** The message as the owner made it, with the number it was to have; absent: as documents go out. */
	message?: (Message & { number: string }) | undefined;
	copyToSelf: boolean;
	/** Uses what the payer has in hand for it. */
	useInHand: boolean;
}

/**
 * Issues a draft. A wrong address is said before the number is taken. Pressed again, it gives the same invoice back.
 * @throws FieldError, NotReadyError, ConflictError
 */
export async function issueAndSend(
	world: World,
	id: number,
	version: number,
	{ sendTo, cc, message, copyToSelf, useInHand }: IssueWish
): Promise<Issued> {
	const to = sendTo === null ? null : readAddresses(sendTo);
	const copies = readOptional(cc ?? '', 'cc');
	const words = to !== null && message ? readMessage(message) : undefined;
	const advances = useInHand ? advancesFor : undefined;
	const after = (tx: Transaction) => {
		moveCorrected(tx, world, id);
		const item = openItemOf(tx, id);
		if (useInHand && item && item.toPay > 0 && inHandOf(tx, item.payerId).length > 0)
			applyInTransaction(tx, world, id, `issue:${id}`);
		if (to !== null)
			queueIssued(tx, world, id, {
				key: `send:${id}:with-issue`,
				to,
				cc: copies,
				...(words && message ? { message: withNumber(tx, id, words, message.number) } : {}),
				copyToSelf,
				who: 'you'
			});
	};
	return issueInvoice(world, id, version, { after, ...(advances ? { advances } : {}) });
}

/** The words with the number it really got, where another document took the expected one meanwhile. */
function withNumber(
	tx: Transaction,
	id: number,
	{ subject, text }: Message,
	expected: string
): Message {
	const row = tx
		.select({ number: documents.number })
		.from(documents)
		.where(eq(documents.id, id))
		.get();
	const number = row?.number ?? expected;
	const put = (words: string) => (expected ? words.replaceAll(expected, number) : words);
	return { subject: put(subject), text: put(text) };
}
