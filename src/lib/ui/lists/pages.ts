// What stands at the head of each list, and where it belongs.
import type { ListName } from '$lib/core/lists/types';

interface Words {
	title: string;
	back: { href: string; label: string };
	search: string;
	/** What is summed up beside the count. */
	head?: { field: string; words: string };
	empty: string;
	first: string;
}

export const LIST_PAGES: Readonly<Record<ListName, Words>> = {
	invoices: {
		title: 'Billing',
		back: { href: '/billing', label: 'Billing' },
		search: 'Name, number, amount, or a word on it',
		empty: 'Your invoices will stand here',
		first: 'Write the first one.'
	},
	jobs: {
		title: 'All jobs',
		back: { href: '/work', label: 'Work' },
		search: 'Number, title, customer, site',
		head: { field: 'billed', words: 'billed, without VAT' },
		empty: 'Your jobs will stand here',
		first: 'Begin the first one under Work.'
	},
	customers: {
		title: 'All customers',
		back: { href: '/customers', label: 'Customers' },
		search: 'Name, e-mail, phone, address',
		head: { field: 'open', words: 'open' },
		empty: 'Your customers will stand here',
		first: 'A name is enough to begin.'
	},
	payments: {
		title: 'Payments',
		back: { href: '/money', label: 'Money in' },
		search: 'Payer, reference, number, amount',
		head: { field: 'amount', words: 'came in' },
		empty: 'What you are paid will stand here',
		first: 'Bring in a bank statement, or record a payment.'
	},
	costs: {
		title: 'Costs',
		back: { href: '/work', label: 'Work' },
		search: 'What, supplier, number, amount',
		head: { field: 'gross', words: 'in all' },
		empty: 'What you buy will stand here',
		first: 'A photo of the receipt is enough to begin.'
	},
	prices: {
		title: 'Price list as a table',
		back: { href: '/work/prices', label: 'Price list' },
		search: 'Name, code, category',
		empty: 'Your price list is empty',
		first: 'Add the first entry, or bring in a file.'
	},
	messages: {
		title: 'Messages',
		back: { href: '/more', label: 'More' },
		search: 'Address or subject',
		empty: 'No message has gone out yet',
		first: 'Invoices, receipts and reminders that you send stand here.'
	},
	quotes: {
		title: 'Quotes',
		back: { href: '/work', label: 'Work' },
		search: 'What, number, customer, amount',
		head: { field: 'total', words: 'as first chosen, or as agreed' },
		empty: 'What you quote will stand here',
		first: 'Write the first one: your customer chooses and accepts it on the phone.'
	},
	enquiries: {
		title: 'Enquiries',
		back: { href: '/work', label: 'Work' },
		search: 'Who, what, where',
		empty: 'Who asks will stand here',
		first: 'Write one down, or open your page for them under Settings.'
	},
	visits: {
		title: 'Visits',
		back: { href: '/work/diary', label: 'Diary' },
		search: 'Job, customer, where, who goes',
		empty: 'No visit is booked yet',
		first: 'Book one in the diary, or on its job.'
	},
	sheets: {
		title: 'Job sheets',
		back: { href: '/work', label: 'Work' },
		search: 'Number, job, customer, who signed',
		empty: 'What was done will stand here, signed',
		first: 'Press “Job sheet” on a job.'
	}
};
