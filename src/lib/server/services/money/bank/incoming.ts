// Statements as they come in through the screen: small ones are a matter of a blink, large ones go to a thread, so that nobody waits for
// somebody else's file.
import { eq, sql } from 'drizzle-orm';
import { must } from '../../../actor';
import { bankImports } from '../../../db/schema';
import type { World } from '../../../world';
import { onBankThread } from './bankThreads';
import { forgetColumns, lookInto, takeIn, type Changed } from './bringIn';
import { lookPage } from './lookPage';

/** Below this, in bytes, a file is read and kept in a blink. */
const SMALL = 60_000;

/** The size of what waits is known without reading it. */
const isLarge = (world: World, importId: number): boolean =>
	(world.db
		.select({ size: sql<number | null>`length(${bankImports.content})` })
		.from(bankImports)
		.where(eq(bankImports.id, importId))
		.get()?.size ?? 0) >= SMALL;

/** `lookInto` of whichever size. */
export async function fileIn(world: World, name: string, bytes: Uint8Array): Promise<number> {
	must('money');
	if (bytes.length < SMALL) return lookInto(world, name, bytes);
	return (await onBankThread('files', world, {
		job: 'lookInto',
		given: [name, bytes]
	})) as number;
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
