// Who helps the demo business: Joss on site, Corin in the office one day a week, and the accountant. Each signs in with the demo's password.
import { eq } from 'drizzle-orm';
import { mails, people } from '../src/lib/server/db/schema';
import { hashOf } from '../src/lib/server/services/business/signIn';
import { invite } from '../src/lib/server/services/people/people';
import type { World } from '../src/lib/server/world';

const HELPERS = [
	{ name: 'Joss Amadi', email: 'joss@orrell-lime.example', role: 'onSite' },
	{ name: 'Corin Vale', email: 'office@orrell-lime.example', role: 'office' },
	{ name: 'Oakes & Merrow', email: 'books@oakes-merrow.example', role: 'accountant' }
] as const;

export async function layOutPeople(world: World): Promise<void> {
	for (const helper of HELPERS) {
		const id = invite(world, helper);
		// They joined on the day they were asked.
		world.db
			.update(people)
			.set({
				passwordHash: await hashOf('lime-and-plaster'),
				invitedHash: null,
				invitedUntil: null
			})
			.where(eq(people.id, id))
			.run();
	}
	world.db
		.update(mails)
		.set({ state: 'sent', sentAt: world.clock.now() })
		.where(eq(mails.kind, 'notice'))
		.run();
}

/** Joss, by whose name visits are booked. */
export const helperId = (world: World, name: string): number | null =>
	world.db.select({ id: people.id }).from(people).where(eq(people.name, name)).get()?.id ?? null;
