// The messages that have words of their own, the fields each offers, and what it says until the owner changes it.
// Over 300 lines: one entry for each message, with its words.
import { LINK_PLACEHOLDER, type Values, type Words } from './fill';

export const WORDING_KINDS = [
	'invoice',
	'text',
	'creditNote',
	'receipt',
	'statement',
	'chargeFailed',
	'quote',
	'quoteReminder',
	'quoteExpires',
	'accepted',
	'depositRequest',
	'visitBooked',
	'visitMoved',
	'visitCancelled',
	'visitDayBefore',
	'visitOnTheWay',
	'visitFinished',
	'visitText',
	'jobSheet'
] as const;
export type WordingKind = (typeof WORDING_KINDS)[number];

/** In every message. */
const ALWAYS = {
	greeting:
		'the customer’s own salutation; without one “Hello Joan Marrow”, and “Hello” for a firm',
	customer: 'the customer’s name',
	owner: 'your own name',
	from: 'your trading name, or your own without one',
	business: 'your trading name; nothing where it is your own',
	phone: 'your telephone',
	link: 'the link to see it, and to pay it'
} as const;

const DOCUMENT = {
	...ALWAYS,
	document: '“invoice”, “debit note” or “credit note”',
	number: 'its number',
	order: '“, your order 4711”; nothing without one',
	site: 'where the work was',
	due: 'the day it is due',
	amount: 'what it comes to',
	left: 'what is still to pay',
	short: '“£240.00, due 3 Nov 2026”, or what is left of it',
	sum: 'the same as a sentence',
	why: 'of a correction: what it stands in place of or adds to, and why',
	pay: '“and pay” while something is to pay'
} as const;

const QUOTE = {
	...ALWAYS,
	link: 'the link to see it, choose and accept',
	document: '“quote” or “estimate”',
	number: 'its number',
	title: 'what it is for',
	site: 'where the work is',
	until: 'the day until which it holds',
	amount: 'what it comes to, or from what to what',
	binds: 'of an estimate: that it does not bind'
} as const;

const VISIT = {
	...ALWAYS,
	link: 'the link to confirm it, or to ask for another time',
	title: 'what it is about',
	place: 'where',
	date: 'the day, such as Monday 7 December',
	arrival: '“between 13:00 and 15:00”; nothing where no time is said',
	who: 'who comes',
	minutes: 'in how many minutes, when somebody is on the way'
} as const;

export interface WordingOf {
	title: string;
	/** When it goes out. */
	when: string;
	fields: Readonly<Record<string, string>>;
	standard: Words;
}

const END = 'Kind regards\n{owner}';

export const WORDINGS: Readonly<Record<WordingKind, WordingOf>> = {
	invoice: {
		title: 'Invoice',
		when: 'with every invoice and debit note that goes out by e-mail',
		fields: DOCUMENT,
		standard: {
			subject: '{document} {number} from {from}: {short}',
			text: `{greeting}\n\nHere is {document} {number}{order}. {why} {sum}\n\nSee it {pay} here: {link}\n\nThe PDF is attached.\n\n${END}\n{business}`
		}
	},
	text: {
		title: 'Text message with the link',
		when: 'when you send a document to a mobile number',
		fields: DOCUMENT,
		standard: { subject: '', text: '{document} {number} from {from}: {short}. {link}' }
	},
	creditNote: {
		title: 'Credit note',
		when: 'with every credit note that goes out by e-mail',
		fields: { ...DOCUMENT, corrects: 'the number of the invoice it corrects' },
		standard: {
			subject: '{document} {number} from {from}',
			text: `{greeting}\n\nHere is {document} {number} for {amount}, which corrects invoice {corrects}.\n\nSee it here: {link}\n\n${END}`
		}
	},
	receipt: {
		title: 'Receipt',
		when: 'after a payment, if you send receipts',
		fields: {
			...ALWAYS,
			paid: 'what came in',
			what: '“for invoice INV-0007”, or the numbers of several',
			rest: 'what is still open, as a sentence'
		},
		standard: {
			subject: 'Receipt: {paid} {what}',
			text: `{greeting}\n\nWe received {paid} {what}. {rest}\n\nSee it here: {link}\n\n${END}`
		}
	},
	statement: {
		title: 'Statement',
		when: 'with every statement of a customer’s open invoices',
		fields: {
			...ALWAYS,
			asof: 'the day it is for',
			amount: 'what is to pay',
			sum: 'the same as a sentence',
			pay: '“, and pay all or some of it,” while something is to pay'
		},
		standard: {
			subject: 'Statement from {from} as of {asof}',
			text: `{greeting}\n\nHere is your statement as of {asof}. {sum} See it{pay} here: {link}\n\nIf you have paid in the last days, thank you: it may not show yet.\n\nThe PDF is attached.\n\n${END}`
		}
	},
	quote: {
		title: 'Quote or estimate',
		when: 'with every quote that goes out by e-mail',
		fields: QUOTE,
		standard: {
			subject: '{document} {number} from {from}: {title}',
			text: `{greeting}\n\nHere is our {document} for {title}: {amount}, with all taxes that apply. {binds}\n\nLook at it, choose and accept here: {link}\n\nIt holds until {until}. If anything is unclear, ask: there is a place for it on that page.\n\nThe PDF is attached.\n\n${END}\n{business}`
		}
	},
	quoteReminder: {
		title: 'Reminder of a quote',
		when: 'some days after a quote went out',
		fields: QUOTE,
		standard: {
			subject: 'Our {document} {number}: {title}',
			text: `{greeting}\n\nA week or so ago we sent you our {document} for {title}. It holds until {until}.\n\nIt is here: {link}\n\nIf it is not for you, a word why would help us: there is a button for that too.\n\n${END}`
		}
	},
	quoteExpires: {
		title: 'A quote is about to expire',
		when: 'some days before a quote expires',
		fields: QUOTE,
		standard: {
			subject: 'Until {until}: {title}',
			text: `{greeting}\n\nOur {document} {number} for {title} holds until {until}. After that we have to look at its prices again.\n\nIt is here: {link}\n\nIf you need more time, tell us. And if it is not for you, a word why would help us.\n\n${END}`
		}
	},
	accepted: {
		title: 'A quote was accepted',
		when: 'when a customer accepts, with the record attached',
		fields: {
			...QUOTE,
			amount: 'what was agreed',
			deposit: 'what is asked for now; nothing where no deposit is',
			cancel: 'until when it can be cancelled; nothing where it cannot'
		},
		standard: {
			subject: 'Agreed: {title}, {amount}',
			text: `{greeting}\n\nThank you. You accepted our {document} {number} for {title}, at {amount}. What exactly was agreed is attached; please keep it.\n\n{cancel}\n\nEverything about it is here: {link}\n\n${END}`
		}
	},
	visitBooked: {
		title: 'A visit is booked',
		when: 'when you tell a customer of a visit',
		fields: VISIT,
		standard: {
			subject: '{title}: we come on {date}',
			text: `{greeting}\n\nWe come on {date}, {arrival}, for {title}.\n\nPlease confirm it, or ask for another time, here: {link}\n\n${END}`
		}
	},
	visitMoved: {
		title: 'A visit has moved',
		when: 'when you move a visit and tell the customer',
		fields: VISIT,
		standard: {
			subject: '{title}: now on {date}',
			text: `{greeting}\n\nOur visit for {title} has moved: we now come on {date}, {arrival}.\n\nPlease confirm it, or ask for another time, here: {link}\n\n${END}`
		}
	},
	visitCancelled: {
		title: 'A visit falls away',
		when: 'when you take a visit away and tell the customer',
		fields: VISIT,
		standard: {
			subject: '{title}: we do not come on {date}',
			text: `{greeting}\n\nWe do not come on {date} for {title} after all, and get in touch about another day.\n\nIt is here: {link}\n\n${END}`
		}
	},
	visitDayBefore: {
		title: 'The day before a visit',
		when: 'the day before, if the diary is set so',
		fields: VISIT,
		standard: {
			subject: 'Tomorrow: {title}',
			text: `{greeting}\n\nA reminder: tomorrow, {date}, {arrival}, we come for {title}.\n\nIf that does not suit you any more, say so here: {link}\n\n${END}`
		}
	},
	visitOnTheWay: {
		title: 'On the way',
		when: 'when you press “on the way”',
		fields: VISIT,
		standard: {
			subject: 'On the way: {title}',
			text: `{greeting}\n\nWe are on the way to you and arrive in about {minutes} minutes.\n\nIt is here: {link}\n\n${END}`
		}
	},
	visitFinished: {
		title: 'A visit is finished',
		when: 'when you press “finished” and tell the customer',
		fields: { ...VISIT, link: 'the link to what was said of the visit' },
		standard: {
			subject: 'Finished: {title}',
			text: `{greeting}\n\nWe have finished what we came for today: {title}.\n\nIf anything is not as it should be, please tell us. It is here: {link}\n\n${END}`
		}
	},
	visitText: {
		title: 'Text message about a visit',
		when: 'when a customer is told of a visit by text',
		fields: { ...VISIT, news: '“we come on Monday 7 December, between 13:00 and 15:00”' },
		standard: { subject: '', text: '{from}: {news}. {link}' }
	},
	jobSheet: {
		title: 'Job sheet',
		when: 'with every job sheet that goes out by e-mail',
		fields: {
			...ALWAYS,
			link: 'the link to see it, and to sign it',
			title: 'what it is about',
			number: 'its number',
			place: 'where the work was; nothing where that is the customer’s own address',
			signed: 'who signed it, or that it is to be signed'
		},
		standard: {
			subject: 'What was done: {title}',
			text: `{greeting}\n\nHere is what we did for {title}. {signed}\n\nSee it here: {link}\n\nThe PDF is attached.\n\n${END}\n{business}`
		}
	},
	depositRequest: {
		title: 'Deposit request',
		when: 'right after a quote with a deposit was accepted',
		fields: { ...QUOTE, amount: 'what was agreed', deposit: 'what is asked for now' },
		standard: {
			subject: 'Deposit for {title}: {deposit}',
			text: `{greeting}\n\nAs agreed, please pay the deposit of {deposit} for {title}. This is no VAT invoice: that follows on the day your money comes.\n\nPay it here, by card or from your bank: {link}\n\n${END}`
		}
	},
	chargeFailed: {
		title: 'A kept card could not be charged',
		when: 'when a repeat’s card is declined',
		fields: DOCUMENT,
		standard: {
			subject: 'Invoice {number}: your card could not be charged',
			text: `{greeting}\n\nYour card could not be charged for invoice {number}. {amount} is still open, due {due}.\n\nPlease pay it here, with another card if you like: {link}\n\nThe PDF is attached.\n\n${END}`
		}
	}
};

/** What fields become as long as there is nothing real to show them with. */
export const EXAMPLE: Values = {
	greeting: 'Hello Joan Marrow',
	customer: 'Joan Marrow',
	owner: 'your own name',
	from: 'your trading name',
	business: 'your trading name',
	phone: '07700 900123',
	link: LINK_PLACEHOLDER,
	document: 'invoice',
	number: 'INV-0007',
	order: ', your order 4711',
	site: '12 Kiln Lane',
	due: '3 Nov 2026',
	amount: '£240.00',
	left: '£240.00',
	short: '£240.00, due 3 Nov 2026',
	sum: '£240.00 is due by 3 Nov 2026.',
	why: '',
	pay: 'and pay',
	corrects: 'INV-0006',
	paid: '£240.00',
	what: 'for invoice INV-0007',
	rest: 'The invoice is paid in full. Thank you.',
	asof: '3 Nov 2026',
	title: 'the front room ceiling',
	until: '1 Dec 2026',
	binds: '',
	place: '12 Kiln Lane',
	date: 'Monday 7 December',
	arrival: 'between 13:00 and 15:00',
	who: 'Tamsin',
	minutes: '20',
	news: 'we come on Monday 7 December, between 13:00 and 15:00',
	signed: 'Joan Marrow signed it.',
	deposit: '£60.00',
	cancel: 'You can cancel until the end of 17 Nov 2026.'
};

/** How the owner speaks to a customer: words of the owner’s own by kind of message, and the customer’s salutation. */
export interface Voice {
	words: Partial<Readonly<Record<WordingKind, Words>>>;
	/** Empty: greeted as everybody is. */
	salutation: string;
}

/** As a message goes out before anybody changed a word. */
export const PLAIN_VOICE: Voice = { words: {}, salutation: '' };

export const wordsOf = (voice: Voice, kind: WordingKind): Words =>
	voice.words[kind] ?? WORDINGS[kind].standard;

/** People are greeted by name; a firm’s name is no person’s. */
export const greetingOf = (voice: Voice, household: boolean, name: string): string =>
	voice.salutation || (household ? `Hello ${name}` : 'Hello');
