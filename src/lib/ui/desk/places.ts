// The places of the app, in the order of the strip.
export interface Place {
	href: string;
	label: string;
}

export const PLACES = [
	{ href: '/', label: 'Today' },
	{ href: '/work', label: 'Work' },
	{ href: '/billing', label: 'Billing' },
	{ href: '/owed', label: 'Owed' },
	{ href: '/money', label: 'Money in' },
	{ href: '/tax', label: 'Tax' },
	{ href: '/customers', label: 'Customers' }
] as const satisfies Place[];
