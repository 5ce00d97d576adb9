// The places of the app, in the order of the strip.
import { mayDo, type Right, type Role } from '$lib/core/people/roles';

export interface Place {
	href: string;
	label: string;
	/** Who may open it. */
	right: Right;
}

export const PLACES = [
	{ href: '/', label: 'Today', right: 'work' },
	{ href: '/work', label: 'Work', right: 'work' },
	{ href: '/billing', label: 'Billing', right: 'books' },
	{ href: '/owed', label: 'Owed', right: 'books' },
	{ href: '/money', label: 'Money in', right: 'books' },
	{ href: '/tax', label: 'Tax', right: 'tax' },
	{ href: '/customers', label: 'Customers', right: 'work' }
] as const satisfies Place[];

/** Where somebody on site is, who has none of the others. */
const ON_SITE: readonly Place[] = [{ href: '/site', label: 'Your visits', right: 'site' }];

/** The places somebody of this role may open. */
export function placesOf(role: Role): readonly Place[] {
	const open = PLACES.filter(({ right }) => mayDo(role, right));
	return open.length ? open : ON_SITE;
}
