// Next moves: what every room says needs doing, most money first, each one press from done.
import { mostMoneyFirst, type Move } from '../../../core/moves';
import { whileUnchanged } from '../../db/unchanged';
import type { World } from '../../world';
import { applicationMoves, retentionMoves, workMoves } from '../billing/moves';
import { auditMoves } from '../business/audits';
import { detailMoves } from '../business/moves';
import { lastLetters } from '../chasing/day';
import { chasingMoves } from '../chasing/moves';
import { loadChaseSettings } from '../chasing/settings';
import { draftMoves, unsentMoves } from '../invoices/moves';
import { documentsNotReached, othersNotReached, waitingMoves } from '../messages/moves';
import { replyMoves } from '../messages/replies';
import { disputeMoves } from '../money/cardDisputes';
import { bankMoves, overpaidMoves } from '../money/moves';
import { watchedMoves } from '../messages/watched';
import { oddNewsMoves } from '../money/oddNews';
import { depositMoves } from '../money/deposits';
import { promptMoves } from '../money/promptPayment';
import { latePayerMoves, oldDebtMoves, statementsNotReached } from '../owed/moves';
import { keepMoves } from '../keep/moves';
import { enquiryMoves } from '../enquiries/moves';
import { quoteMoves } from '../quotes/moves';
import { repeatMoves } from '../repeats/moves';
import { deductionMoves } from '../tax/moves';

/** What needs doing now. Asked again before anything changed, it is not worked out anew. */
export function nextMoves(world: World): Move[] {
	const minute = Math.floor(world.clock.now() / 60_000);
	return whileUnchanged(world.db, `moves ${minute}`, () => workedOut(world));
}

function workedOut(world: World): Move[] {
	const letters = loadChaseSettings(world.db).on ? lastLetters(world) : [];
	return mostMoneyFirst([
		...documentsNotReached(world),
		...waitingMoves(world),
		...statementsNotReached(world),
		...chasingMoves(world, letters),
		...unsentMoves(world),
		...oldDebtMoves(world),
		...latePayerMoves(world, new Set(letters.map((one) => one.payerId))),
		...watchedMoves(world),
		...replyMoves(world),
		...othersNotReached(world),
		...oddNewsMoves(world),
		...bankMoves(world),
		...overpaidMoves(world),
		...disputeMoves(world),
		...promptMoves(world),
		...depositMoves(world),
		...draftMoves(world),
		...enquiryMoves(world),
		...quoteMoves(world),
		...workMoves(world),
		...retentionMoves(world),
		...applicationMoves(world),
		...repeatMoves(world),
		...deductionMoves(world),
		...auditMoves(world),
		...keepMoves(world),
		...detailMoves(world)
	]);
}
