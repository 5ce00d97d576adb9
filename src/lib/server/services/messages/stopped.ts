// Numbers that asked for no more texts; and the name a text has at its gateway.
import { eq } from 'drizzle-orm';
import { homeNumber } from '../../../core/regimes/gb/checks';
import type { Reader } from '../../db/connection';
import { texts, textStops } from '../../db/schema';

/** Why a text to such a number does not go. */
export const STOPPED = 'They asked for no more texts';

export const hasStopped = (db: Reader, number: string): boolean =>
	db
		.select({ at: textStops.at })
		.from(textStops)
		.where(eq(textStops.number, homeNumber(number)))
		.get() !== undefined;

/** Each round in which it went and did not arrive is another message to the gateway. */
export const gatewayKey = ({
	key,
	round
}: Pick<typeof texts.$inferSelect, 'key' | 'round'>): string =>
	round === 0 ? key : `${key}~${round}`;
