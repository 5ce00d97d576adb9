// Delivery joined to what may overtake it: a reminder goes out only as long as chasing says that it stands.
import { itemsOf, stillStands, withdraw } from '../services/chasing/messages';
import { deliverAll } from '../services/messages/deliver';
import { calendarOf } from '../services/telling/told';
import type { World } from '../world';

let delivering: Promise<void> | null = null;

/** Sends what is due. Called again while it runs, it joins the run that goes on. */
export function deliverDue(world: World): Promise<void> {
	delivering ??= deliverAll(world, { stillStands, withdraw, itemsOf, calendarOf }).finally(
		() => (delivering = null)
	);
	return delivering;
}

/** Sends what is due without anybody waiting for it. What fails is due still, and the clockwork tries it again. */
export function deliverSoon(world: World): void {
	deliverDue(world).catch(() => undefined);
}

/** So long a press waits to be able to say that it has gone. */
const PATIENCE_MS = 1500;

/** Sends what is due; behind a long run, or with a mail server that hangs, nobody waits for it: it is queued, and said to be on its way. */
export async function deliverOrLeave(world: World): Promise<void> {
	let timer: ReturnType<typeof setTimeout> | undefined;
	const enough = new Promise<void>((resolve) => {
		timer = setTimeout(resolve, PATIENCE_MS);
	});
	await Promise.race([deliverDue(world).catch(() => undefined), enough]);
	clearTimeout(timer);
}
