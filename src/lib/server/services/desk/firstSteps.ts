// What new books begin with, until the first invoice is out.
import { isNotNull, sql } from 'drizzle-orm';
import { customers, documents, priceItems } from '../../db/schema';
import type { World } from '../../world';

export interface FirstStep {
	title: string;
	detail: string;
	action: string;
	href: string;
	/** Begun by posting to its address. */
	post?: true;
	done: boolean;
}

/** The first steps, with what is done of them; null once a document has been issued. */
export function firstSteps(world: World): FirstStep[] | null {
	const has = (table: typeof customers | typeof priceItems) =>
		world.db
			.select({ one: sql`1` })
			.from(table)
			.limit(1)
			.get() !== undefined;
	const issued = world.db
		.select({ id: documents.id })
		.from(documents)
		.where(isNotNull(documents.number))
		.limit(1)
		.get();
	if (issued) return null;
	return [
		{
			title: 'Write your first invoice',
			detail: 'A name and a line are enough; what the law wants is asked on the way.',
			action: 'Write it',
			href: '/billing/new',
			post: true,
			done: false
		},
		{
			title: 'Bring in your customers',
			detail: 'From a spreadsheet or your phone’s contacts. Or add each as you bill it.',
			action: 'Bring them in',
			href: '/customers/import',
			done: has(customers)
		},
		{
			title: 'Put your prices in',
			detail: 'Your rates and materials, typed or from a merchant’s file.',
			action: 'Put them in',
			href: '/work/prices',
			done: has(priceItems)
		}
	];
}
