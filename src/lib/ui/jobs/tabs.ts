/** The pages of the place Work. */
export const WORK_PAGES = [
	{ href: '/work', label: 'Jobs' },
	{ href: '/work/way', label: 'What waits' },
	{ href: '/work/diary', label: 'Diary' },
	{ href: '/lists/enquiries', label: 'Enquiries', also: '/work/enquiries' },
	{ href: '/lists/quotes', label: 'Quotes', also: '/work/quotes' },
	{ href: '/work/bill', label: 'To bill', also: '/work/runs' },
	{ href: '/work/prices', label: 'Price list' },
	{ href: '/work/margins', label: 'Margins' },
	{ href: '/lists/costs', label: 'Costs', also: '/costs' }
];
