// Backups as their page shows them, and one of them as a file.
import { must } from '../../actor';
import { existsSync, statSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { readBackupName } from '../../../core/keep/names';
import { NotFoundError } from '../../../core/refusals';
import { folderOf } from '../../db/fileStore';
import { secretOf } from '../../db/secrets';
import type { World } from '../../world';
import { backupsIn } from './place';
import {
	ownPlace,
	SEAL_SECRET,
	backupSetting,
	lastBackup,
	lastWhole,
	isMaking,
	backupTrouble
} from './backups';

/** A backup that lies here, by its name. @throws NotFoundError */
export function backupFile(world: World, name: string): { path: string; bytes: number } {
	must('owner');
	const path = join(ownPlace(folderOf(world.db)), name);
	if (!readBackupName(name) || !existsSync(path)) throw new NotFoundError('This backup');
	return { path, bytes: statSync(path).size };
}

/** What the page of backups shows. */
export async function keepPage(world: World) {
	must('owner');
	const { db } = world;
	const { folder, sealed } = backupSetting(db);
	return {
		last: lastBackup(db) ?? null,
		whole: lastWhole(db) ?? null,
		trouble: backupTrouble(world),
		making: isMaking(),
		folder,
		sealed,
		keyLost: sealed && secretOf(db, SEAL_SECRET) === null,
		place: resolve(ownPlace(folderOf(world.db))),
		here: await backupsIn(ownPlace(folderOf(world.db)))
	};
}
