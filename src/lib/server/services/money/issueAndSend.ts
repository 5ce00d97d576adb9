// The press that issues, uses what the payer has in hand, and sends: all of it in the transaction that issues, or none.
import { FieldError } from '../../../core/refusals';
import type { Transaction } from '../../db/connection';
import type { World } from '../../world';
import { issueInvoice } from '../invoices/issue';
import type { Issued } from '../invoices/issuing';
import { queueIssued, readAddresses } from '../invoices/send';
import { inHandOf } from '../ledger/inHand';
import { openItemOf } from '../ledger/openInvoices';
import { advancesFor, applyInTransaction, moveCorrected } from './useInHand';

export interface IssueWish {
	/** Addresses as typed; null: it is not sent now. */
	sendTo: string | null;
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
	{ sendTo, copyToSelf, useInHand }: IssueWish
): Promise<Issued> {
	const to = sendTo === null ? null : readAddresses(sendTo);
	if (to === '') throw new FieldError({ to: 'Who should get it?' });
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
				copyToSelf,
				who: 'you'
			});
	};
	return issueInvoice(world, id, version, { after, ...(advances ? { advances } : {}) });
}
