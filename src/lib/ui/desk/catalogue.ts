// Every place and everything that can be begun, by name: for the box that finds them and for the page More.
// Over 300 lines: one entry for each place.

export interface Entry {
	label: string;
	href: string;
	/** Other words somebody may look for it by. */
	words: string;
	/** Begun by posting to its address. */
	post?: Readonly<Record<string, string>>;
	/** Stands on the page More too. */
	more?: true;
}

export interface Group {
	name: string;
	entries: readonly Entry[];
}

export const CATALOGUE: readonly Group[] = [
	{
		name: 'Begin',
		entries: [
			{
				label: 'New invoice',
				href: '/billing/new',
				post: {},
				words: 'bill write create deposit advance request'
			},
			{
				label: 'New job',
				href: '/work/new',
				words: 'work add price enquiry booking visit appointment',
				more: true
			},
			{ label: 'New customer', href: '/customers/new', words: 'add client person', more: true },
			{
				label: 'New repeat',
				href: '/billing/repeats/new',
				words: 'recurring monthly regular subscription standing schedule'
			},
			{
				label: 'Record a payment',
				href: '/money/record',
				words: 'paid money in cash cheque transfer received enter mark as',
				more: true
			},
			{
				label: 'New cost',
				href: '/costs/new',
				words: 'expense receipt bill purchase bought mileage photo supplier',
				more: true
			},
			{
				label: 'Bring in jobs',
				href: '/work/import',
				words: 'import upload csv spreadsheet file work list',
				more: true
			},
			{
				label: 'Bring in a bank statement',
				href: '/money#bring-in',
				words: 'import upload csv ofx camt xml file bank lines transactions',
				more: true
			},
			{
				label: 'Remind who is late',
				href: '/owed/chasing',
				words: 'chase chasing reminders overdue letter text dunning',
				more: true
			},
			{
				label: 'Send statements',
				href: '/owed/statements',
				words: 'account balance everyone monthly',
				more: true
			},
			{
				label: 'Credit an invoice',
				href: '/billing?view=unpaid',
				words: 'credit note cancel wrong mistake correct put right reduce void'
			},
			{
				label: 'Give money back',
				href: '/money/record?back=1',
				words: 'refund return repay overpaid overpayment too much'
			},
			{
				label: 'Record a self-billed invoice',
				href: '/billing/new',
				post: { selfBilled: '1' },
				words: 'self billing contractor remittance their own'
			},
			{
				label: 'Enter a deduction statement',
				href: '/tax',
				words: 'cis certificate withheld payment and deduction contractor'
			}
		]
	},
	{
		name: 'Work',
		entries: [
			{ label: 'Jobs', href: '/work', words: 'work list visits today' },
			{
				label: 'What waits, from asking to billing',
				href: '/work/way',
				words: 'way waits whose turn days since answer share won lost forecast likely',
				more: true
			},
			{
				label: 'Answers by text',
				href: '/work/replies',
				words: 'texts sms replies answers stop messages in',
				more: true
			},
			{
				label: 'Diary',
				href: '/work/diary',
				words: 'calendar schedule week visits plan book appointments holiday',
				more: true
			},
			{
				label: 'Enquiries',
				href: '/lists/enquiries',
				words: 'leads requests asks callers prospects',
				more: true
			},
			{
				label: 'Visits, as a list',
				href: '/lists/visits',
				words: 'visits appointments list calls untold done',
				more: true
			},
			{
				label: 'Job sheets',
				href: '/lists/sheets',
				words: 'job sheets signed signature worksheets done service report',
				more: true
			},
			{
				label: 'New enquiry',
				href: '/work/enquiries/new',
				words: 'enquiry lead call request somebody asks'
			},
			{
				label: 'Quotes',
				href: '/lists/quotes',
				words: 'quotes estimates offers proposals accepted declined won lost',
				more: true
			},
			{
				label: 'New quote',
				href: '/work/quotes/new',
				post: {},
				words: 'quote estimate offer proposal price write'
			},
			{
				label: 'To bill',
				href: '/work/bill',
				words: 'run finished jobs batch invoice many unbilled time',
				more: true
			},
			{
				label: 'Price list',
				href: '/work/prices',
				words: 'prices kits materials items products catalogue services',
				more: true
			},
			{
				label: 'New price',
				href: '/work/prices/new',
				words: 'add item entry kit material product'
			},
			{ label: 'Raise prices', href: '/work/prices/raise', words: 'increase percent change' },
			{
				label: 'Bring in prices',
				href: '/work/prices/import',
				words: 'import csv file upload supplier list'
			},
			{
				label: 'Price list as a file',
				href: '/work/prices/export',
				words: 'export csv download spreadsheet'
			},
			{
				label: 'Margins',
				href: '/work/margins',
				words: 'profit cost earned jobs',
				more: true
			}
		]
	},
	{
		name: 'Billing',
		entries: [
			{ label: 'Invoices', href: '/billing', words: 'billing documents all list' },
			{ label: 'Drafts', href: '/billing?view=draft', words: 'unfinished not issued invoices' },
			{
				label: 'Unpaid invoices',
				href: '/billing?view=unpaid',
				words: 'open owed outstanding due'
			},
			{ label: 'Late invoices', href: '/billing?view=late', words: 'overdue past due' },
			{ label: 'Paid invoices', href: '/billing?view=paid', words: 'settled done receipts' },
			{
				label: 'Repeats',
				href: '/billing/repeats',
				words: 'recurring monthly regular subscription standing again',
				more: true
			},
			{
				label: 'Starting points',
				href: '/billing/start',
				words: 'template copy model standard invoice',
				more: true
			}
		]
	},
	{
		name: 'Money',
		entries: [
			{ label: 'Owed', href: '/owed', words: 'what is owed money rule late payers debtors' },
			{
				label: 'Chasing',
				href: '/owed/chasing',
				words: 'reminders remind late messages',
				more: true
			},
			{
				label: 'Chasing plans',
				href: '/owed/chasing/plans',
				words: 'reminder steps wording schedule'
			},
			{ label: 'Statements', href: '/owed/statements', words: 'account balance send', more: true },
			{
				label: 'Money in',
				href: '/money',
				words: 'bank lines payments matching reconcile'
			},
			{
				label: 'All jobs',
				href: '/lists/jobs',
				words: 'table list filter columns csv export billed kind of work labels'
			},
			{
				label: 'All customers',
				href: '/lists/customers',
				words: 'table list filter columns csv export owing archive labels'
			},
			{
				label: 'Payments',
				href: '/lists/payments',
				words: 'table list filter columns csv export received in hand fees',
				more: true
			},
			{
				label: 'Costs',
				href: '/lists/costs',
				words: 'expenses receipts bills purchases mileage unpaid table csv',
				more: true
			},
			{
				label: 'Suppliers',
				href: '/costs/suppliers',
				words: 'vendors merchants subcontractors'
			},
			{
				label: 'Messages',
				href: '/lists/messages',
				words: 'outbox sent e-mails texts failed bounced waiting again',
				more: true
			},
			{
				label: 'Card payouts',
				href: '/money/payouts',
				words: 'fees processor settled',
				more: true
			},
			{
				label: 'Charts',
				href: '/money/charts',
				words: 'graphs income by month owed by age days to pay likely cash flow report',
				more: true
			},
			{
				label: 'Reports',
				href: '/reports',
				words: 'profit loss income expenses by customer kind of work tax year quarter',
				more: true
			},
			{
				label: 'VAT period',
				href: '/reports/vat',
				words: 'vat return boxes quarter due reclaim'
			},
			{
				label: 'Tax',
				href: '/tax',
				words: 'vat cis deductions withheld months hmrc return'
			}
		]
	},
	{
		name: 'Customers and settings',
		entries: [
			{
				label: 'Customers',
				href: '/customers',
				words: 'clients contractors households people addresses'
			},
			{
				label: 'Bring in customers',
				href: '/customers/import',
				words: 'import csv contacts vcard file upload address book'
			},
			{
				label: 'Customers as a file',
				href: '/customers/export',
				words: 'export csv download spreadsheet contacts'
			},
			{
				label: 'Settings',
				href: '/settings',
				words: 'business details address preferences light dark theme password'
			},
			{
				label: 'Backups and your data',
				href: '/settings/keep',
				words:
					'settings backup restore export zip download everything stick passphrase lost stolen',
				more: true
			},
			{
				label: 'You',
				href: '/you',
				words: 'password sign out sessions second factor dark light profile account'
			},
			{
				label: 'People',
				href: '/settings/people',
				words: 'settings users helpers accountant office invite role access staff'
			},
			{
				label: 'Your visits',
				href: '/site',
				words: 'on site today diary appointments'
			},
			{
				label: 'Letterheads',
				href: '/settings/letterheads',
				words: 'settings look logo colour font typeface template design paper pdf columns margins'
			},
			{
				label: 'Kinds of work',
				href: '/settings/kinds',
				words: 'settings category trade labels list'
			},
			{
				label: 'Income categories and cost centres',
				href: '/settings/categories',
				words: 'settings analysis codes departments tags lines reports list'
			},
			{
				label: 'How people ask you',
				href: '/settings/enquiries',
				words: 'settings enquiry page link qr code questions form website'
			},
			{
				label: 'Moving in',
				href: '/settings/moving',
				words:
					'settings bring in import open invoices opening balances deposits repeats spreadsheet csv other program take back'
			},
			{
				label: 'Exchange rates',
				href: '/settings/exchange',
				words: 'settings currency money euro dollar foreign table monthly abroad'
			},
			{
				label: 'Wordings',
				href: '/settings/wordings',
				words: 'settings messages templates e-mail text greeting salutation receipt fields'
			},
			{
				label: 'Change your bank details',
				href: '/settings?change=bank',
				words: 'settings account sort code transfer',
				more: true
			},
			{
				label: 'Change VAT and CIS',
				href: '/settings?change=tax',
				words: 'settings number utr register deregister registration',
				more: true
			},
			{
				label: 'Change terms and numbers',
				href: '/settings?change=invoices',
				words: 'settings pattern series days due copy card fees',
				more: true
			},
			{
				label: 'Keys',
				href: '/more/keys',
				words: 'keyboard shortcuts help',
				more: true
			},
			{
				label: 'Sign out',
				href: '/sign-out',
				post: {},
				words: 'leave log off lock'
			}
		]
	}
];

/** The groups with the entries in which every typed word begins a word of the label or of its other words. */
export function entriesFor(typed: string): Group[] {
	const wanted = wordsOf(typed);
	return CATALOGUE.map(({ name, entries }) => ({
		name,
		entries: entries.filter((entry) => {
			const has = wordsOf(`${entry.label} ${entry.words} ${name}`);
			return wanted.every((word) => has.some((one) => one.startsWith(word)));
		})
	})).filter((group) => group.entries.length > 0);
}

const wordsOf = (text: string): string[] => text.toLowerCase().match(/[a-z0-9]+/g) ?? [];

/** What an address that leads nowhere was probably meant to be: the entries its words begin, in the order of those words. */
export function meantBy(path: string): Entry[] {
	const found = wordsOf(decode(path))
		.filter((word) => /[a-z]{3}/.test(word))
		.flatMap((word) => [word, word.replace(/s$/, ''), word.slice(0, 5)])
		.flatMap((word) => entriesFor(word).flatMap(({ entries }) => entries))
		.filter((entry) => !entry.post && !entry.href.endsWith('/export'));
	return [...new Map(found.map((entry) => [entry.href, entry])).values()].slice(0, 5);
}

function decode(path: string): string {
	try {
		return decodeURIComponent(path);
	} catch {
		return path;
	}
}
