// What the link in a reminder about several invoices shows and takes: all of them, paid together or one by one.
import { eq } from 'drizzle-orm';
import { NotFoundError } from '../../../core/refusals';
import { chaseMessages, customers } from '../../db/schema';
import type { World } from '../../world';
import { linkToday } from '../business/links';
import { loadBusiness } from '../business/settings';
import { isToken } from '../business/keys';
import { openTogether, payTogether, type Together, type TogetherPage } from '../owed/together';

export interface ReminderPage extends TogetherPage {
	/** Who asks, and whom. */
	business: string;
	payer: string;
	/** How many invoices the reminder was about. */
	asked: number;
}

function byToken(world: World, token: string) {
	const row = isToken(token)
		? world.db.select().from(chaseMessages).where(eq(chaseMessages.token, token)).get()
		: undefined;
	if (!row) throw new NotFoundError('This page');
	const link: Together = {
		payerId: row.payerId,
		documentIds: new Set(row.items.map((one) => one.documentId)),
		path: `/r/${linkToday(world.db, token)}`,
		of: { chaseMessageId: row.id }
	};
	return { row, link };
}

/** @throws NotFoundError for every link that is not exactly right */
export function reminderPage(world: World, token: string): ReminderPage {
	const { row, link } = byToken(world, token);
	const owner = loadBusiness(world.db);
	const payer = world.db.select().from(customers).where(eq(customers.id, row.payerId)).get()!;
	return {
		business: owner.tradingName || owner.ownerName,
		payer: payer.name,
		asked: row.items.length,
		...openTogether(world, link)
	};
}

/** As `payTogether`, for the invoices of a reminder. */
export const payReminder = async (
	world: World,
	token: string,
	key: string,
	chosen: readonly number[],
	amount?: number,
	way: 'card' | 'bank' = 'card'
): Promise<string> => payTogether(world, byToken(world, token).link, key, chosen, amount, way);
