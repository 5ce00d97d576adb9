// How much room is left where the data lie.
import { statfsSync } from 'node:fs';
import type { World } from '../../world';
import { folderOf } from '../../db/fileStore';

/** Below this the owner is told, in bytes. */
export const TIGHT = 300_000_000;

/** Bytes that may still be written; null where the system does not say. */
export function roomLeft(world: World): number | null {
	try {
		const { bavail, bsize } = statfsSync(folderOf(world.db));
		return bavail * bsize;
	} catch {
		return null;
	}
}
