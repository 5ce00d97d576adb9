// How the owner speaks to a customer, read when a message is made.
import { eq } from 'drizzle-orm';
import type { Frozen } from '../../../core/documents/types';
import type { Voice } from '../../../core/wordings/kinds';
import type { Reader } from '../../db/connection';
import { customers, wordings } from '../../db/schema';

/** Who gets the bill is who is greeted. Null: nobody in particular. */
export function voiceFor(db: Reader, customerId: number | null): Voice {
	const words = Object.fromEntries(
		db
			.select()
			.from(wordings)
			.all()
			.map(({ kind, subject, text }) => [kind, { subject, text }])
	);
	const greeted = customerId === null ? undefined : salutationOf(db, customerId);
	return { words, salutation: greeted ?? '' };
}

/** Who a document's messages greet. */
export const greetedOf = ({ customer }: Pick<Frozen, 'customer'>): number =>
	customer.billTo?.id ?? customer.id;

/** A payer as a greeting needs it. */
export function payerOf(db: Reader, payerId: number): { name: string; household: boolean } {
	const { name, kind } = db
		.select({ name: customers.name, kind: customers.kind })
		.from(customers)
		.where(eq(customers.id, payerId))
		.get()!;
	return { name, household: kind === 'household' };
}

function salutationOf(db: Reader, customerId: number): string | undefined {
	return db
		.select({ salutation: customers.salutation })
		.from(customers)
		.where(eq(customers.id, customerId))
		.get()?.salutation;
}
