// Next moves: what every room says needs doing, most money first, each one press from done.
import { mostMoneyFirst, type Move } from '../../../core/moves';
import type { World } from '../../world';
import { applicationMoves, retentionMoves, workMoves } from '../billing/moves';
import { detailMoves } from '../business/moves';
import { lastLetters } from '../chasing/day';
import { chasingMoves } from '../chasing/moves';
import { loadChaseSettings } from '../chasing/settings';
import { draftMoves, unsentMoves } from '../invoices/moves';
import { documentsNotReached } from '../messages/moves';
import { overpaidMoves } from '../money/moves';
import { latePayerMoves, statementsNotReached } from '../owed/moves';
import { repeatMoves } from '../repeats/moves';
import { deductionMoves } from '../tax/moves';

export function nextMoves(world: World): Move[] {
	const letters = loadChaseSettings(world.db).on ? lastLetters(world) : [];
	return mostMoneyFirst([
		...documentsNotReached(world),
		...statementsNotReached(world),
		...chasingMoves(world, letters),
		...unsentMoves(world),
		...latePayerMoves(world, new Set(letters.map((one) => one.payerId))),
		...overpaidMoves(world),
		...draftMoves(world),
		...workMoves(world),
		...retentionMoves(world),
		...applicationMoves(world),
		...repeatMoves(world),
		...deductionMoves(world),
		...detailMoves(world)
	]);
}
