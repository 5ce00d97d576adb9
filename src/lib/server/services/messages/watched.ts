// Changes a thief would make: the account that money goes to, the address that news go to, the password. They take the password again, are told to the address
// that was known before, and stand on Today for a week.
import { desc, gt } from 'drizzle-orm';
import { displayMoment } from '../../../core/calendar/conversion';
import type { Move } from '../../../core/moves';
import { writeAtOnce } from '../../db/connection';
import { watchedChanges } from '../../db/schema';
import type { World } from '../../world';
import { loadBusiness, savePart } from '../business/settings';
import { changePassword, confirmPassword, type Guesser } from '../business/signIn';
import { queueMail } from './outbox';

type What = (typeof watchedChanges.$inferInsert)['what'];
const SAID: Record<What, string> = {
	bank: 'Your bank details were changed',
	email: 'Your e-mail address was changed',
	password: 'Your password was changed',
	stolen: 'Everyone was signed out and all links of customers were renewed',
	people: 'Who may use your books was changed',
	factor: 'A second factor was changed'
};
const WEEK = 7 * 24 * 60 * 60 * 1000;

/** As much of an account as its owner knows it by. */
const accountOf = ({ bankSortCode, bankAccountNumber }: ReturnType<typeof loadBusiness>): string =>
	bankAccountNumber ? `${bankSortCode} …${bankAccountNumber.slice(-4)}` : '';

/**
 * Saves a part of the settings. Another account than the one that was known takes the password.
 * @throws FieldError, RefusedError
 */
export async function saveWatchedPart(
	world: World,
	part: string,
	given: Record<string, unknown>,
	current: string,
	guesser: Guesser
): Promise<void> {
	const before = loadBusiness(world.db);
	const digits = (value: unknown) => String(value ?? '').replace(/\D/g, '');
	const letters = (value: unknown) =>
		String(value ?? '')
			.replace(/\s/g, '')
			.toUpperCase();
	const other =
		part === 'bank' &&
		(before.bankAccountNumber !== '' || before.bankIban !== '') &&
		(digits(given.bankSortCode) !== digits(before.bankSortCode) ||
			digits(given.bankAccountNumber) !== digits(before.bankAccountNumber) ||
			letters(given.bankIban) !== letters(before.bankIban));
	if (other) await confirmPassword(world, current, guesser);
	savePart(world, part, given);
	const after = loadBusiness(world.db);
	if (other)
		tell(
			world,
			'bank',
			`from ${accountOf(before)} to ${accountOf(after) || 'none'}`,
			before.email,
			guesser
		);
	if (before.email && after.email !== before.email)
		tell(world, 'email', `from ${before.email} to ${after.email || 'none'}`, before.email, guesser);
}

/** Changes the password; everyone is signed out. @throws FieldError, RefusedError */
export async function changeWatchedPassword(
	world: World,
	current: string,
	next: string,
	guesser: Guesser
): Promise<void> {
	await changePassword(world, current, next, guesser);
	tell(world, 'password', '', loadBusiness(world.db).email, guesser);
}

export function tell(
	world: World,
	what: What,
	detail: string,
	to: string,
	{ device = '' }: Guesser
): void {
	const at = world.clock.now();
	writeAtOnce(world.db, (tx) => {
		const { id } = tx
			.insert(watchedChanges)
			.values({ at, what, detail, device })
			.returning({ id: watchedChanges.id })
			.get();
		if (!to) return;
		queueMail(tx, world, {
			key: `watched:${id}`,
			kind: 'notice',
			to,
			subject: SAID[what],
			text: [
				`${SAID[what]}${detail ? `, ${detail}` : ''}, on ${displayMoment(at)}${device ? `, with ${device}` : ''}.`,
				'',
				'If that was you, there is nothing to do. If it was not, change your password at once, sign out everywhere else, and look at your bank details:',
				'{link}'
			].join('\n'),
			link: `${world.origin}/settings`
		});
	});
}

export function watchedMoves(world: World): Move[] {
	return world.db
		.select()
		.from(watchedChanges)
		.where(gt(watchedChanges.at, world.clock.now() - WEEK))
		.orderBy(desc(watchedChanges.id))
		.limit(5)
		.all()
		.map(({ id, at, what, detail, device }) => ({
			id: `watched:${id}`,
			amount: null,
			late: false,
			title: SAID[what],
			detail: [
				detail,
				`on ${displayMoment(at)}`,
				device && `with ${device}`,
				'not you? change your password'
			]
				.filter(Boolean)
				.join(', '),
			action: 'Look',
			href: '/settings'
		}));
}
