// Statements and their lines as they come to the screen: small ones are a matter of a blink, large ones go to a thread, so that nobody
// waits for somebody else's file.
import { eq, sql, type SQL } from 'drizzle-orm';
import type { Cursor } from '../../../../core/paging';
import { must } from '../../../actor';
import { bankImports } from '../../../db/schema';
import type { World } from '../../../world';
import { onBankThread } from './bankThreads';
import { forgetColumns, lookInto, takeIn, type Changed } from './bringIn';
import { bankPage, type LineState } from './lines';
import { lookPage } from './lookPage';

/** Below this, in bytes, a file is read and kept in a blink. */
const SMALL = 60_000;

/** From so many open invoices on, looking for what a line may pay takes long enough to be noticed. */
const MANY_INVOICES = 300;
/** From so many lines on, counting them does. */
const MANY_LINES = 5000;

/** Whether a table has so many rows, or more: found without counting them all. */
const atLeast = (world: World, rows: SQL, many: number): boolean =>
	world.db.get<{ n: number }>(sql`select count(*) as n from (${rows} limit ${many})`).n === many;

/** `bankPage` of whichever books. */
export async function linesShown(
	world: World,
	state: LineState,
	cursor: Cursor | null
): Promise<ReturnType<typeof bankPage>> {
	const open = sql`select 1 from open_items where state in ('open', 'partPaid')`;
	if (
		!atLeast(world, open, MANY_INVOICES) &&
		!atLeast(world, sql`select 1 from bank_lines`, MANY_LINES)
	)
		return bankPage(world, state, cursor);
	return (await onBankThread('files', world, {
		job: 'bankPage',
		given: [state, cursor]
	})) as ReturnType<typeof bankPage>;
}

/** The size of what waits is known without reading it. */
const isLarge = (world: World, importId: number): boolean =>
	(world.db
		.select({ size: sql<number | null>`length(${bankImports.content})` })
		.from(bankImports)
		.where(eq(bankImports.id, importId))
		.get()?.size ?? 0) >= SMALL;

/** `lookInto` of whichever size. The bytes are handed over. */
export async function fileIn(
	world: World,
	name: string,
	bytes: Uint8Array<ArrayBuffer>
): Promise<number> {
	must('money');
	if (bytes.length < SMALL) return lookInto(world, name, bytes);
	const job = { job: 'lookInto', given: [name, bytes] } as const;
	return (await onBankThread('files', world, job, { transfer: [bytes.buffer] })) as number;
}

/** `lookPage` of whichever size. */
export async function fileShown(
	world: World,
	importId: number,
	changed: Changed | null,
	from: number
): Promise<ReturnType<typeof lookPage>> {
	must('money');
	if (!isLarge(world, importId)) return lookPage(world, importId, changed, from);
	return (await onBankThread('files', world, {
		job: 'lookPage',
		given: [importId, changed, from]
	})) as ReturnType<typeof lookPage>;
}

/** `takeIn` of whichever size. */
export async function fileTaken(
	world: World,
	importId: number,
	changed: Changed | null
): Promise<void> {
	must('money');
	if (!isLarge(world, importId)) takeIn(world, importId, changed);
	else await onBankThread('files', world, { job: 'takeIn', given: [importId, changed] });
}

/** `forgetColumns` of whichever size. */
export async function columnsForgotten(world: World, importId: number): Promise<void> {
	must('money');
	if (!isLarge(world, importId)) forgetColumns(world, importId);
	else await onBankThread('files', world, { job: 'forgetColumns', given: [importId] });
}
