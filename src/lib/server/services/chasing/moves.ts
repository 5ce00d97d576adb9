// Next moves of chasing: last letters to decide about, letters to post, reminders that did not arrive.
import { eq, inArray, sql } from 'drizzle-orm';
import { lateMoney, MOST_MOVES, notReached, type Move } from '../../../core/moves';
import { chaseMessages, mails, texts } from '../../db/schema';
import type { World } from '../../world';
import { claimMoves } from './claimLetter';
import type { lastLetters } from './day';

/** Last letters that wait for a decision, letters to post, and reminders that did not arrive. */
export function chasingMoves(world: World, toDecide: ReturnType<typeof lastLetters>): Move[] {
	const troubled = world.db
		.select({
			id: mails.id,
			to: mails.to,
			state: mails.state,
			error: mails.lastError,
			amount: chaseMessages.amount,
			payerId: chaseMessages.payerId
		})
		.from(mails)
		.innerJoin(chaseMessages, eq(chaseMessages.id, mails.chaseMessageId))
		.where(inArray(mails.state, ['failed', 'unsure']))
		.union(
			world.db
				.select({
					id: texts.id,
					to: texts.to,
					state: sql<'failed'>`${texts.state}`,
					error: texts.lastError,
					amount: chaseMessages.amount,
					payerId: chaseMessages.payerId
				})
				.from(texts)
				.innerJoin(chaseMessages, eq(chaseMessages.id, texts.chaseMessageId))
				.where(eq(texts.state, 'failed'))
		)
		.limit(MOST_MOVES)
		.all();
	const letters = world.db
		.select({
			id: chaseMessages.id,
			to: chaseMessages.to,
			amount: chaseMessages.amount,
			payerId: chaseMessages.payerId
		})
		.from(chaseMessages)
		.where(eq(chaseMessages.state, 'toPost'))
		.all();
	return [
		...claimMoves(world),
		...troubled.map((row) => ({
			id: `reminder:${row.to}:${row.id}`,
			amount: BigInt(row.amount),
			brings: lateMoney(row.payerId),
			late: false,
			title: notReached(row.state as 'failed' | 'unsure', 'A reminder', row.to),
			detail: row.error,
			action: 'Check it and send again',
			href: '/owed/chasing#sent'
		})),
		...letters.map((row) => ({
			id: `letter:${row.id}`,
			amount: BigInt(row.amount),
			brings: lateMoney(row.payerId),
			late: false,
			title: `Print and post the letter to ${row.to.split('\n')[0]}`,
			detail: 'it is made, and waits for its stamp',
			action: 'Print it',
			href: '/owed/chasing#sent'
		})),
		...toDecide.map((one) => ({
			id: `decide:${one.payerId}`,
			amount: one.amount,
			brings: lateMoney(one.payerId),
			late: true,
			title: `A last letter to ${one.payer}?`,
			detail: 'earlier reminders brought nothing; you decide whether it goes',
			action: 'Read and decide',
			href: `/owed/chasing/${one.payerId}`
		}))
	];
}
