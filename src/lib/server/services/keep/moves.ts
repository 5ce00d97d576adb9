// Next moves of keeping: books that rest after a restore, a backup that is too old, one that cannot be trusted.
import type { Move } from '../../../core/moves';
import { counted } from '../../../core/words';
import type { World } from '../../world';
import { restingSince } from '../business/resting';
import { roomLeft, TIGHT } from './room';
import { backupSetting, backupTrouble, isOld, lastBackup, lastWhole } from './backups';

const DAY = 24 * 3_600_000;
/** A second place may be away for longer. */
const SECOND_TOO_OLD = 7 * DAY;

export function keepMoves(world: World): Move[] {
	const move = (
		id: string,
		title: string,
		detail: string,
		action: string,
		href: string
	): Move[] => [{ id, amount: null, late: true, title, detail, action, href }];
	if (restingSince(world.db))
		return move(
			'restored',
			'These books come from a backup',
			'Nothing goes out until you have said from where they go on.',
			'Look and go on',
			'/settings/keep/restored'
		);
	const room = roomLeft(world);
	if (room !== null && room < TIGHT)
		return move(
			'room',
			'There is little room left on the disk',
			`${Math.round(room / 1_000_000)} MB: soon nothing can be saved any more.`,
			'See where',
			'/settings/keep'
		);
	const last = lastBackup(world.db);
	if (!last) return [];
	const now = world.clock.now();
	const whole = lastWhole(world.db);
	const trouble = backupTrouble(world);
	const ago = (at: number) => counted(Math.floor((now - at) / DAY), 'day');
	if (!whole || isOld(world, whole))
		return move(
			'backup',
			whole ? `The last backup is ${ago(whole.startedAt)} old` : 'There is no backup yet',
			trouble || 'Axiometer makes one every night while it runs.',
			'Back up',
			'/settings/keep'
		);
	const { folder } = backupSetting(world.db);
	if (folder && last.secondProblem) {
		const second = world.db.$client.prepare('select max(second_at) from backups').pluck().get() as
			number | null;
		if (second === null || now - second > SECOND_TOO_OLD)
			return move(
				'backup-second',
				second === null
					? 'No backup has reached the second place yet'
					: `The second place has had no backup for ${ago(second)}`,
				trouble,
				'See where',
				'/settings/keep'
			);
	}
	if (last.found && !last.problem)
		return move(
			'backup-books',
			'The books in the last backup differ from themselves',
			trouble,
			'See where',
			'/settings#audit'
		);
	return [];
}
