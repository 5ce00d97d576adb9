// What a statement's link shows and takes: that statement, what of it is still open, and payment of all or some.
import { eq } from 'drizzle-orm';
import type { StatementView } from '../../../core/documents/statementView';
import { NotFoundError } from '../../../core/refusals';
import { statements } from '../../db/schema';
import type { World } from '../../world';
import { linkToday } from '../business/links';
import { isToken } from '../business/keys';
import { openTogether, payTogether, type Together, type TogetherPage } from './together';

export interface StatementPage extends TogetherPage {
	view: StatementView;
}

function byToken(world: World, token: string) {
	const row = isToken(token)
		? world.db.select().from(statements).where(eq(statements.token, token)).get()
		: undefined;
	if (!row?.view) throw new NotFoundError('This page');
	const link: Together = {
		payerId: row.payerId,
		documentIds: new Set(row.view.rows.flatMap((one) => one.documentId ?? [])),
		path: `/s/${linkToday(world.db, token)}`,
		of: { statementId: row.id }
	};
	return { ...row, view: row.view, link };
}

/** @throws NotFoundError for every link that is not exactly right */
export function statementPage(world: World, token: string): StatementPage {
	const { view, link } = byToken(world, token);
	return { view, ...openTogether(world, link) };
}

/** Notes that the payer opened it. */
export function noteStatementOpened(world: World, token: string): void {
	const row = byToken(world, token);
	if (row.openedAt === null)
		world.db
			.update(statements)
			.set({ openedAt: world.clock.now() })
			.where(eq(statements.id, row.id))
			.run();
}

export function statementFile(world: World, token: string): Buffer {
	const row = byToken(world, token);
	if (!row.pdf) throw new NotFoundError('This page');
	return row.pdf;
}

/**
 * Opens a payment for chosen invoices of a statement, all of each or a part of the whole.
 * @returns where the payer pays
 * @throws FieldError, RefusedError, UnavailableError
 */
export const payStatement = async (
	world: World,
	token: string,
	key: string,
	chosen: readonly number[],
	amount?: number,
	way: 'card' | 'bank' = 'card'
): Promise<string> => payTogether(world, byToken(world, token).link, key, chosen, amount, way);
