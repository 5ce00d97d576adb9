/** The pages of the place Billing. */
export const BILLING_PAGES = [
	{ href: '/billing', label: 'Invoices' },
	{ href: '/billing/repeats', label: 'Repeats' },
	{ href: '/billing/start', label: 'Starting points' }
];
