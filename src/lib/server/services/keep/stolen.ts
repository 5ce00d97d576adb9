// A device is lost or stolen: whoever has it is out, and what lies on it opens nothing any more.
import { must } from '../../actor';
import { ne } from 'drizzle-orm';
import { writeAtOnce } from '../../db/connection';
import { knownBrowsers, passkeys, sessions } from '../../db/schema';
import type { World } from '../../world';
import { sha256 } from '../business/keys';
import { renewAllLinks } from '../business/links';
import { loadBusiness } from '../business/settings';
import type { Guesser } from '../business/signIn';
import { tell } from '../messages/watched';

/** What was done. */
export interface Anew {
	sessions: number;
	links: number;
}

/** Ends all sessions but the one it is asked from, forgets all browsers and passkeys, renews all links of customers. `current`: the token of this session. */
export function shutOut(world: World, current: string, guesser: Guesser): Anew {
	must('owner');
	const done = writeAtOnce(world.db, (tx) => {
		const ended = tx
			.delete(sessions)
			.where(ne(sessions.tokenHash, sha256(current)))
			.run().changes;
		tx.delete(knownBrowsers).run();
		// One of them may lie on it.
		tx.delete(passkeys).run();
		return { sessions: ended, links: renewAllLinks(tx, world.clock.now()) };
	});
	tell(world, 'stolen', '', loadBusiness(world.db).email, guesser);
	return done;
}
