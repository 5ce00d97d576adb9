// Pay-by-bank: the payer approves a transfer at their own bank; signed news say what became of it.
import { z } from 'zod';
import { asker, newsSince, UnavailableError } from './asking';

export interface TransferRequest {
	/** Names the attempt: asked twice, the service answers with the same transfer. */
	key: string;
	/** Pence. */
	amount: number;
	/** At most 18 characters; it stands in both banks' statements. */
	reference: string;
	description: string;
	returnUrl: string;
	webhookUrl: string;
}

export class BankUnavailableError extends UnavailableError {}

export interface BankGateway {
	/** @throws BankUnavailableError where the service cannot be reached; then nothing was begun. */
	openTransfer(request: TransferRequest): Promise<{ id: string; url: string }>;
	/** What it has said since a moment (milliseconds), for books that come from a backup. @throws BankUnavailableError */
	newsSince(moment: number): Promise<unknown[]>;
}

const answer = z.object({ id: z.string().min(1), url: z.url() });

export function httpBankGateway(base: string, secret: string): BankGateway {
	const ask = asker(
		base,
		secret,
		(reason) => new BankUnavailableError(`the pay-by-bank service ${reason}`)
	);
	return {
		openTransfer: ({ key, ...body }) =>
			ask('/transfers', key, { ...body, currency: 'GBP' }, answer),
		newsSince: (moment) => newsSince(ask, moment)
	};
}

export const bankEvent = z.object({
	id: z.string().min(1).max(100),
	type: z.enum(['transfer.pending', 'transfer.settled', 'transfer.failed']),
	transfer: z.string().min(1),
	/** Pence. */
	amount: z.number().int().positive()
});
export type BankEvent = z.output<typeof bankEvent>;
