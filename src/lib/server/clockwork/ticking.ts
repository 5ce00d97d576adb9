// Scheduled work: safe to run twice, and it catches up after a pause.
import type { World } from '../world';
import { continueRuns } from '../services/billing/billRun';
import { runRepeats } from '../services/repeats/making';
import { continueMany } from '../services/many/runs';
import { continueStatements } from '../services/owed/statementRuns';
import { invoiceDeposits } from '../services/money/depositRequests';
import { eraseOldEnquiries } from '../services/enquiries/enquiries';
import { remindOfQuotes } from '../services/quotes/remind';
import { confirmAcceptances } from '../services/quotes/record';
import { billCardFees } from '../services/money/cardFees';
import { runChasing } from '../services/chasing/tick';
import { recordSignatures } from '../services/signing/sign';
import { deliverDue } from './delivery';
import { tellOfTomorrow } from '../services/telling/telling';
import { runNightlyAudit } from './nightlyAudit';
import { restingSince } from '../services/business/resting';
import { runNightlyBackup } from '../services/keep/backups';
import { settleInterrupted } from '../services/messages/deliver';
import { chargeByPlan } from '../services/chasing/chargeByPlan';

const EVERY_MS = 5_000;

let ticked: number | null = null;

/** When it last ticked, by the machine's own time; null where it was never started. */
export const lastTick = (): number | null => ticked;

/** Starts the clockwork; the returned function stops it. */
export function startClockwork(world: World, onError: (error: unknown) => void): () => void {
	settleInterrupted(world);
	const tick = () => {
		ticked = Date.now();
		if (restingSince(world.db)) return;
		runChasing(world)
			.then(() => deliverDue(world))
			.catch(onError);
		chargeByPlan(world).catch(onError);
		billCardFees(world).catch(onError);
		confirmAcceptances(world)
			.then(() => invoiceDeposits(world))
			.catch(onError);
		recordSignatures(world).catch(onError);
		continueRuns(world).catch(onError);
		continueMany(world).catch(onError);
		runRepeats(world).catch(onError);
		continueStatements(world).catch(onError);
		eraseOldEnquiries(world);
		tellOfTomorrow(world);
		remindOfQuotes(world);
		runNightlyAudit(world).catch(onError);
		runNightlyBackup(world).catch(onError);
	};
	tick();
	const timer = setInterval(tick, EVERY_MS);
	timer.unref();
	return () => clearInterval(timer);
}
