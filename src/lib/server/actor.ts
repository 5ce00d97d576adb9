// Who asks: known to every service without being handed from one to the next. Outside of a request of somebody signed in (the
// clockwork, a customer's page, a service's news) it is nobody, and what is done is the house's own doing.
import { AsyncLocalStorage } from 'node:async_hooks';
import { mayDo, type Right, type Role } from '../core/people/roles';
import { ForbiddenError } from '../core/refusals';

export interface Actor {
	id: number;
	name: string;
	role: Role;
	/** On site: sees what is charged. */
	seesPrices: boolean;
}

const asking = new AsyncLocalStorage<Actor | null>();

/** Whatever `work` does, this person does. */
export const asActor = <T>(actor: Actor | null, work: () => T): T => asking.run(actor, work);

export const actor = (): Actor | null => asking.getStore() ?? null;

/** Whether whoever asks has a right; the house itself has every one. */
/** Whoever asks may know what things are sold at: on site only whom the owner lets. */
export function seesPrices(): boolean {
	const who = actor();
	return who === null || who.role !== 'onSite' || who.seesPrices;
}

export function may(right: Right): boolean {
	const who = actor();
	return who === null || mayDo(who.role, right);
}

/** @throws ForbiddenError where whoever asks has none of these rights */
export function must(...rights: readonly Right[]): void {
	if (!rights.some(may)) throw new ForbiddenError();
}
