// Links of customers: what a document was issued with never changes, so a link is renewed beside it.
import { eq, sql } from 'drizzle-orm';
import type { Reader, Transaction } from '../../db/connection';
import { links } from '../../db/schema';
import { newToken } from './keys';

/** The token by which the books know what a link of today names; null where the link was renewed. */
export function tokenBehind(db: Reader, given: string): string | null {
	const renewed = db.select().from(links).where(eq(links.now, given)).get();
	if (renewed) return renewed.token;
	return db.select().from(links).where(eq(links.token, given)).get() ? null : given;
}

/** What opens today what the books know by this token. */
export function linkToday(db: Reader, token: string): string {
	return db.select().from(links).where(eq(links.token, token)).get()?.now ?? token;
}

/** From now on another link opens it, and no earlier one; with `open` false none does. @returns the new one */
export function renewLink(tx: Transaction, token: string, at: number, open = true): string | null {
	const now = open ? newToken() : null;
	if (now) inWhatWaits(tx, linkToday(tx, token), now);
	tx.insert(links)
		.values({ token, now, at })
		.onConflictDoUpdate({ target: links.token, set: { now, at } })
		.run();
	return now;
}

/** A message that was written and has not gone yet goes with the link of today: the one in it opens nothing any more. */
function inWhatWaits(tx: Transaction, before: string, now: string): void {
	tx.run(sql`update mails set text = replace(text, ${before}, ${now}), html = replace(html, ${before}, ${now})
		where state = 'queued' and instr(text, ${before}) > 0`);
	tx.run(
		sql`update texts set text = replace(text, ${before}, ${now}) where state = 'queued' and instr(text, ${before}) > 0`
	);
}

const WITH_LINKS = ['documents', 'statements', 'chase_messages', 'quotes', 'job_sheets'] as const;

/** Renews all of them; rehearsals are opened by none any more. @returns how many were renewed */
export function renewAllLinks(tx: Transaction, at: number): number {
	let count = 0;
	for (const table of WITH_LINKS) {
		const tokens = tx.all<{ token: string }>(
			sql`select token from ${sql.identifier(table)} where token is not null and token not in (select token from links where now is null)`
		);
		for (const { token } of tokens) renewLink(tx, token, at);
		count += tokens.length;
	}
	for (const { token } of tx.all<{ token: string }>(
		sql`select token from trials union all select token from quote_trials`
	))
		renewLink(tx, token, at, false);
	return count;
}
