// Who may do what: four roles, and the rights each of them has.

export const ROLES = ['owner', 'office', 'onSite', 'accountant'] as const;
export type Role = (typeof ROLES)[number];

export const RIGHTS = [
	/** One's own visits, and the jobs they are on. */
	'site',
	/** All jobs, customers, prices and costs. */
	'work',
	/** Writing documents, sending, chasing, repeats. */
	'bill',
	/** Payments and bank lines. */
	'money',
	/** Reading documents, money and reports. */
	'books',
	/** The tax pages, the journal, and the pack for the accountant. */
	'tax',
	/** What documents and messages look like and say. */
	'settings',
	/** Bank details, numbers, VAT and passwords of the business; backups; people. */
	'owner'
] as const;
export type Right = (typeof RIGHTS)[number];

export const ROLE_RIGHTS: Readonly<Record<Role, readonly Right[]>> = {
	owner: RIGHTS,
	office: ['site', 'work', 'bill', 'money', 'books', 'settings'],
	onSite: ['site'],
	accountant: ['books', 'tax']
};

export const ROLE_NAMES: Readonly<Record<Role, { name: string; may: string }>> = {
	owner: { name: 'Owner', may: 'everything' },
	office: {
		name: 'Office',
		may: 'everything but your bank details, people, backups and the accountant’s pack'
	},
	onSite: {
		name: 'On site',
		may: 'their own visits and those jobs: times, materials, photos, notes; no margins and no pay rates'
	},
	accountant: {
		name: 'Accountant',
		may: 'reads documents, money, tax and reports; no private notes and no photos'
	}
};

export const mayDo = (role: Role, right: Right): boolean => ROLE_RIGHTS[role].includes(right);

/** Where somebody of this role begins. */
export const startOf = (role: Role): string =>
	role === 'onSite' ? '/site' : role === 'accountant' ? '/billing' : '/';
