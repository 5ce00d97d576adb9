// What every table and column of the data file means, for whoever reads an export without Axiometer. Long because the data are; a test holds it against
// the schema: a column without words, or words without a column, fails.
// Over 300 lines: the words of every column.

/** A table's meaning, and that of its columns where `COMMON` does not say it. */
export interface Explained {
	what: string;
	columns: Readonly<Record<string, string>>;
}

/** Columns that mean the same wherever they stand. */
export const COMMON: Readonly<Record<string, string>> = {
	id: 'number of the row, to which other tables refer',
	key: 'names what caused the row, so that it happens once',
	created_at: 'when it was made',
	updated_at: 'when it was last changed',
	recorded_at: 'when it was written down',
	archived_at: 'when it was put away; empty while it is in use',
	version: 'counts its changes',
	customer_id: 'the customer: id in customers',
	payer_id: 'who pays: id in customers',
	contractor_id: 'the contractor: id in customers',
	bill_to_id: 'who gets the bill instead: id in customers',
	document_id: 'the document: id in documents',
	job_id: 'the job: id in jobs',
	site_id: 'where the work is: id in sites',
	visit_id: 'the visit: id in visits',
	item_id: 'the entry of the price list: id in price_items',
	payment_id: 'the payment: id in payments',
	payout_id: 'the payout: id in payouts',
	statement_id: 'the statement: id in statements',
	chase_message_id: 'the reminder: id in chase_messages',
	quote_id: 'the quote: id in quotes',
	enquiry_id: 'the enquiry: id in enquiries',
	trial_id: 'the rehearsal: id in trials',
	repeat_id: 'the repeat: id in repeats',
	run_id: 'the run it belongs to',
	position: 'place in the order, from 0',
	amount: 'the amount',
	currency: 'the currency of the amounts',
	reference: 'the reference that came with it',
	way: 'how it was paid',
	state: 'how far it has come',
	note: 'a note',
	labels: 'the owner’s labels, as JSON',
	terms_days: 'days until it is due; empty: as the owner’s standard',
	terms_end_of_month: 'due at the end of the month in which those days are over (1: yes)',
	vat_reason: 'why the VAT treatment is not the standard one',
	unit: 'the unit of the quantity',
	quantity: 'how many',
	description: 'what it is',
	day: 'the day it is for',
	date: 'the day it counts for',
	attempts: 'how often it was tried',
	next_attempt_at: 'when it is tried again',
	last_error: 'why the last try failed',
	sent_at: 'when it went',
	text: 'the words',
	subject: 'the subject line',
	sheet: 'what was typed, as JSON',
	token: 'left out: it would open a page or charge a card',
	content: 'left out of the table: it lies as a file in this export',
	pdf: 'left out of the table: it lies as a file in this export',
	withheld_stated: 'how much of it is a CIS deduction that was stated',
	device: 'the browser it was done from'
};

const lines = (more: Record<string, string>): Record<string, string> => ({
	kind: 'labour, materials, hire and so on, as CIS tells them apart',
	unit_price: 'price of one, as written',
	vat: 'VAT treatment',
	cost: 'the owner’s own cost',
	...more
});

export const EXPLAINED: Readonly<Record<string, Explained>> = {
	allocations: {
		what: 'What each payment settles.',
		columns: { applied_on: 'the day on which it settles it' }
	},
	audits: {
		what: 'What the nightly check of the books found.',
		columns: {
			ran_at: 'when it ran',
			found: 'in how many places the books differed from themselves',
			words: 'what differed, as JSON'
		}
	},
	backup_settings: {
		what: 'Where backups go.',
		columns: { folder: 'the second place', sealed: 'written with a passphrase (1: yes)' }
	},
	backups: {
		what: 'Backups that were made or failed.',
		columns: {
			started_at: 'when it was begun',
			ended_at: 'when it was done',
			why: 'by night or by hand',
			name: 'name of the file',
			bytes: 'size in bytes',
			files: 'how many photos and files it is about',
			found: 'in how many places the books in it differed from themselves',
			problem: 'why there is none; empty: it is whole',
			second_at: 'when it lay in the second place',
			second_problem: 'why it does not lie there'
		}
	},
	bank_imports: {
		what: 'Statements of the bank that were brought in.',
		columns: {
			name: 'name of the file',
			format: 'its format',
			added: 'lines that were new',
			known: 'lines that were here already',
			unread: 'lines that could not be read'
		}
	},
	bank_lines: {
		what: 'Lines of the bank’s statements.',
		columns: {
			import_id: 'the file: id in bank_imports',
			account: 'the owner’s account',
			amount: 'above zero came in, below went out',
			text: 'what the bank wrote',
			payer: 'who paid, as the bank wrote it',
			reversal: 'the bank took it back (1: yes)',
			state: 'open, accepted, or not of the business',
			tied: 'it shows a payment that was recorded before (1: yes)',
			times: 'how often it was accepted',
			proposal: 'what was proposed last, as JSON',
			decided_at: 'when the owner decided'
		}
	},
	bill_run_steps: {
		what: 'The bills of a bill run, one by one.',
		columns: {
			customer_name: 'the customer’s name then',
			job_ids: 'the jobs in it, as JSON',
			worked: 'the days on which the work was done',
			total: 'what it came to'
		}
	},
	bill_runs: {
		what: 'Bill runs: many bills made at once.',
		columns: {
			action: 'drafts only, or issue, or send',
			choice: 'what was chosen, as JSON',
			ended_at: 'when it was done'
		}
	},
	billed_parts: {
		what: 'What of a job stands on which document.',
		columns: { type: 'line, time or cost', part_id: 'number of that line, time or cost' }
	},
	list_views: {
		what: 'Views of lists that were kept by a name.',
		columns: {
			list: 'of which list',
			name: 'its name',
			address: 'what it shows: the part of the page’s address after the question mark',
			person_id: 'whose it is: id in people',
			shared: 'everybody has it (1: yes)'
		}
	},
	many_runs: {
		what: 'What was done with many rows of a list at once.',
		columns: {
			list: 'of which list',
			view: 'what was looked at, where all of it was chosen',
			action: 'what was done',
			options: 'with what: a day, a way, a label, as JSON',
			state: 'how far it is',
			ended_at: 'when it was over, or stopped'
		}
	},
	many_rows: {
		what: 'The rows that were chosen for it, and what became of each.',
		columns: {
			run_id: 'for which of them',
			row_id: 'number of the row in its list',
			state: 'what became of it',
			why: 'why it was left out'
		}
	},
	letterheads: {
		what: 'How documents look.',
		columns: {
			name: 'its name',
			look: 'all that is set of it, as JSON',
			standard: 'used where nothing else is chosen (1: yes)',
			version: 'how often it was changed'
		}
	},
	logos: {
		what: 'Logos on letterheads, as PNG.',
		columns: {
			hash: 'SHA-256 of the picture',
			name: 'how its file was called',
			width: 'how wide, in dots',
			height: 'how high, in dots'
		}
	},
	work_kinds: {
		what: 'The owner’s own kinds of work.',
		columns: {
			name: 'its name',
			letterhead_id: 'what documents about it are written on: id in letterheads'
		}
	},
	quotes: {
		what: 'Quotes and estimates, as they are written now.',
		columns: {
			number: 'its number; empty: it never went out',
			running: 'the running number in its series',
			customer_name: 'the customer’s name',
			title: 'what it is for',
			work_kind_id: 'the owner’s kind of work: id in work_kinds',
			for_job_id: 'extra work on this job: id in jobs',
			sent: 'the version that went out last; 0: none',
			valid_until: 'until when it holds',
			quiet: 'it is not reminded of (1: yes)',
			opened_at: 'when the customer first opened what is out',
			answered_at: 'when it was accepted, declined or withdrawn',
			reason: 'why it was declined or withdrawn',
			total: 'what it comes to as first chosen',
			lowest: 'the least it can come to',
			highest: 'the most it can come to'
		}
	},
	quote_plan: {
		what: 'When quotes are reminded of.',
		columns: { steps: 'days after they went out and before they expire, as JSON' }
	},
	quote_versions: {
		what: 'Versions of quotes, as they went out.',
		columns: {
			n: 'which version',
			frozen: 'everything it was made from, as JSON',
			valid_until: 'until when it held when it went out',
			total: 'what it came to as first chosen',
			name: 'name of its PDF',
			sha256: 'SHA-256 of its PDF'
		}
	},
	quote_trail: {
		what: 'What happened to quotes.',
		columns: {
			at: 'when',
			person_id: 'who of those who sign in: id in people; empty: the customer, or by itself',
			what: 'what',
			detail: 'more of it'
		}
	},
	quote_questions: {
		what: 'What customers asked about quotes.',
		columns: {
			at: 'when',
			question: 'the question',
			answer: 'the answer',
			answered_at: 'when it was answered'
		}
	},
	acceptances: {
		what: 'What customers accepted.',
		columns: {
			version_id: 'exactly which version: id in quote_versions',
			way: 'page, on the spot, or written down by hand',
			name: 'who accepted',
			order_number: 'their order number',
			picked: 'what was chosen, as JSON',
			signature: 'left out of the table: it stands in the record',
			at: 'when it was recorded',
			agreed_on: 'the day it was agreed',
			address: 'the network address it came from',
			agent: 'the browser it was done from',
			law: 'what of consumer law held, and what was asked for, as JSON',
			total: 'what was agreed, with VAT',
			deposit: 'the deposit, with VAT',
			record: 'left out of the table: the PDF of what was accepted lies as a file in this export',
			record_sha256: 'SHA-256 of that PDF',
			position: 'what they are in their firm',
			received_on: 'when the last of the materials came',
			cancelled_on: 'the day the customer’s notice to cancel was sent',
			cancelled_how: 'how it came',
			cancelled_at: 'when it was recorded'
		}
	},
	job_sheets: {
		what: 'Job sheets: what was done, for customers.',
		columns: {
			n: 'which of its job’s sheets it is',
			state: 'draft, or finished',
			written: 'what goes on it, as JSON',
			number: 'its number; empty while it is written',
			frozen: 'everything it was made from, as JSON',
			finished_on: 'the day it was finished',
			pdf: 'left out of the table: it lies as a file in this export',
			sha256: 'SHA-256 of its PDF'
		}
	},
	signatures: {
		what: 'Who signed for an invoice or a job sheet.',
		columns: {
			sheet_id: 'the job sheet: id in job_sheets; empty: an invoice',
			what: 'received: the invoice was received; accepted: its work is accepted; done: what the job sheet says was done',
			name: 'who signed',
			position: 'what they are in their firm',
			drawn: 'left out of the table: it stands on the paper with the signature',
			way: 'on the owner’s phone, or on its page',
			at: 'when',
			address: 'the network address it came from',
			agent: 'the browser it was done from',
			of_sha256: 'SHA-256 of the PDF that was signed for',
			record: 'left out of the table: the paper with the signature lies as a file in this export',
			record_sha256: 'SHA-256 of that paper'
		}
	},
	deposit_requests: {
		what: 'Deposits that were asked for.',
		columns: { asked_at: 'when it was asked for', deduction: 'what a contractor keeps back of it' }
	},
	stage_plans: {
		what: 'What was agreed to be paid when.',
		columns: { title: 'when', amount: 'how much, with VAT' }
	},
	enquiries: {
		what: 'Who asked for what.',
		columns: {
			came: 'by hand, or through the owner’s page',
			name: 'who asks',
			email: 'e-mail',
			phone: 'phone',
			place: 'where the work is',
			what: 'what it is about',
			wanted: 'by when',
			source: 'how they found the owner',
			work_kind_id: 'the owner’s kind of work: id in work_kinds',
			answers: 'answers to the owner’s questions, as JSON',
			reason: 'why it came to nothing',
			moved_at: 'when it was last answered in any way'
		}
	},
	enquiry_questions: {
		what: 'The owner’s own questions to who asks.',
		columns: {
			work_kind_id: 'for this kind of work; empty: always',
			question: 'the question',
			kind: 'text, number, choice or yes/no',
			options: 'the answers to choose from, as JSON'
		}
	},
	enquiry_page: {
		what: 'The owner’s public page for enquiries.',
		columns: { on: 'it is open (1: yes)', intro: 'what it says first', next: 'what happens next' }
	},
	visit_people: { what: 'Who goes along to visits.', columns: { person_id: 'who: id in people' } },
	diary_blocks: {
		what: 'Days that are one’s own.',
		columns: {
			person_id: 'whose: id in people; empty: everybody’s',
			from: 'the first day',
			to: 'the last day',
			title: 'what for'
		}
	},
	diary_feeds: {
		what: 'Links by which phones subscribe to visits.',
		columns: { person_id: 'whose visits: id in people' }
	},
	diary_settings: {
		what: 'How the diary is kept.',
		columns: {
			from: 'work begins',
			to: 'work ends',
			travel_minutes: 'minutes from one place to the next',
			arrival_minutes: 'how wide the arrival time is that customers are told',
			day_before: 'customers are told the day before (1: yes)'
		}
	},
	told: {
		what: 'What customers were told of visits.',
		columns: {
			kind: 'booked, moved, cancelled and so on',
			arrival: 'between when and when',
			sequence: 'how often the visit had moved by then',
			to: 'to whom',
			at: 'when',
			answer: 'confirmed, or another time asked for',
			words: 'what they wrote',
			answered_at: 'when they answered'
		}
	},
	line_tags: {
		what: 'The owner’s own income categories and cost centres.',
		columns: { sort: 'income: a category; centre: a cost centre', name: 'its name' }
	},
	wordings: {
		what: 'Messages whose words the owner changed; the others say the standard words.',
		columns: {
			kind: 'which message',
			subject: 'its subject, with fields in braces',
			text: 'its words, with fields in braces',
			version: 'how often it was changed'
		}
	},
	business: {
		what: 'The owner’s business.',
		columns: {
			trading_name: 'trading name',
			owner_name: 'the owner’s own name',
			address: 'address on documents',
			email: 'e-mail address',
			phone: 'phone number',
			utr: 'unique taxpayer reference',
			text_price: 'what a part of a text costs, in pounds',
			cis_subcontractor: 'works under CIS (1: yes)',
			bank_account_name: 'name of the account for transfers',
			bank_sort_code: 'its sort code',
			bank_account_number: 'its number',
			bank_iban: 'its number for payers abroad',
			bank_bic: 'the bank’s own code',
			invoice_note: 'a note on every invoice',
			copy_to_self: 'a copy of all that is sent (1: yes)',
			pass_on_card_fees: 'firms bear the fees of commercial cards (1: yes)',
			vat_stagger: 'the months in which VAT periods end; empty: not said',
			vat_cash_from: 'on the cash basis of VAT since that day; empty: by tax point'
		}
	},
	bin: {
		what: 'What was removed in the last hours, to be brought back.',
		columns: {
			what: 'what it was',
			row: 'its row, as JSON',
			person_id: 'who removed it: id in people',
			at: 'when'
		}
	},
	breathing_spaces: {
		what: 'Breathing spaces of debtors: no interest, fee or reminder on their days.',
		columns: { from: 'first day', to: 'last day', note: 'the notice’s reference' }
	},
	card_disputes: {
		what: 'Card payments that customers disputed with their banks.',
		columns: {
			dispute: 'the processor’s name for it',
			checkout: 'the payment: processor_id in checkouts',
			reason: 'what the customer says',
			respond_by: 'the last day for evidence',
			opened_at: 'when it was told',
			ended_at: 'when it ended'
		}
	},
	call_notes: { what: 'Notes of calls with payers.', columns: { at: 'when' } },
	chase_done: {
		what: 'Steps of chasing that are dealt with, invoice by invoice.',
		columns: {
			step_id: 'the step of the plan',
			offset: 'days after the due date for which it is meant',
			how: 'sent, overtaken or skipped',
			message_id: 'the reminder: id in chase_messages',
			at: 'when'
		}
	},
	chase_messages: {
		what: 'Reminders.',
		columns: {
			plan_id: 'the plan: id in chase_plans',
			step_id: 'the step of the plan',
			tone: 'how firm it is',
			claim: 'a letter of claim, to an individual or a firm; empty: none',
			channel: 'by mail, text, letter or call',
			who: 'the owner, or the clockwork',
			to: 'where it went',
			amount: 'what it asks for',
			items: 'the invoices it asks for, as JSON',
			opened_at: 'when its link was opened'
		}
	},
	chase_plans: {
		what: 'Plans of chasing.',
		columns: {
			name: 'its name',
			about: 'what it is for',
			steps: 'its steps, as JSON',
			standard: 'the one that holds where no other does (1: yes)',
			charge_after: 'days after which the late charge is made'
		}
	},
	chase_settings: {
		what: 'How chasing goes on by itself.',
		columns: {
			on: 'whether it does (1: yes)',
			hours_from: 'not before this time',
			hours_to: 'not after this time',
			quiet_hours: 'hours of quiet after a payment',
			gap_days: 'days between two reminders of one payer'
		}
	},
	chase_wordings: {
		what: 'Wordings of reminders for one payer.',
		columns: { step_id: 'the step of the plan' }
	},
	checkouts: {
		what: 'Payments online that were begun.',
		columns: {
			shares: 'what of it goes to which invoice, as JSON',
			deposit_id: 'the deposit it pays: id in deposit_requests',
			processor_id: 'its number at the processor'
		}
	},
	contacts: {
		what: 'People at a customer’s.',
		columns: { name: 'name', role: 'what they do there', email: 'e-mail', phone: 'phone' }
	},
	credit_returns: {
		what: 'Money in hand that was given back.',
		columns: { payment_id: 'the payment it came from: id in payments' }
	},
	csv_layouts: {
		what: 'How the columns of a bank’s CSV files are to be read.',
		columns: {
			headings: 'the headings of the file',
			layout: 'which column is what, as JSON',
			account: 'the owner’s account'
		}
	},
	customer_chasing: {
		what: 'How a customer is chased.',
		columns: {
			plan_id: 'the plan: id in chase_plans',
			never: 'never (1: yes)',
			on_hold: 'not now (1: yes)'
		}
	},
	customers: {
		what: 'Customers.',
		columns: {
			kind: 'household, business or contractor',
			name: 'name',
			email: 'e-mail',
			phone: 'phone',
			address: 'address',
			order_number_required: 'wants an order number on every invoice (1: yes)',
			in_trade: 'a household that acts in the way of trade: no consumer (1: yes)',
			letterhead_id: 'what its documents are written on: id in letterheads',
			salutation: 'how messages to it begin; empty: as everybody’s',
			private_note: 'the owner’s own note, never on a document',
			no_visit_news: 'wants no news of visits (1: yes)',
			pay_ways: 'how it may pay, as JSON; empty: in every way'
		}
	},
	deduction_statements: {
		what: 'Deduction statements of contractors, month by month.',
		columns: {
			month_end: 'last day of the tax month',
			gross: 'paid, without VAT',
			materials: 'of it materials at cost',
			deduction: 'deducted'
		}
	},
	document_files: {
		what: 'The PDF of each issued document.',
		columns: { name: 'its name', sha256: 'SHA-256 of what it holds' }
	},
	document_labels: {
		what: 'Labels that the owner put on documents.',
		columns: { label: 'the label' }
	},
	document_lines: {
		what: 'Lines of issued documents, as they were computed.',
		columns: lines({
			net: 'net of the line',
			document_discount: 'its share of the document’s discount',
			retention: 'its share of the retention',
			taxable: 'what VAT is computed on',
			without_vat: 'net before VAT was taken out of the price',
			tax_point: 'its tax point'
		})
	},
	documents: {
		what: 'Invoices, credit notes and drafts.',
		columns: {
			kind: 'invoice or credit note',
			origin: 'what it came from',
			about_id: 'what of that: its number',
			corrects_id: 'the document it corrects: id in documents',
			number: 'its number; empty: a draft',
			running: 'the running number in its series',
			issue_date: 'issue date',
			sort_date: 'where it stands in lists',
			tax_point: 'tax point',
			due_date: 'due date',
			work_kind_id: 'the kind of work: id in work_kinds',
			frozen: 'all it was computed from, as JSON',
			customer_name: 'the customer’s name then',
			net: 'net',
			vat_charged: 'VAT that is charged',
			vat_reverse_charged: 'VAT that the customer accounts for',
			total: 'total',
			net_sterling: 'net, in sterling',
			vat_charged_sterling: 'VAT charged, in sterling',
			total_sterling: 'total in sterling',
			deduction: 'CIS deduction that is expected; empty: CIS does not apply',
			issued_at: 'when it was issued',
			seal: 'SHA-256 over the document, its lines and its PDF'
		}
	},
	holds: {
		what: 'Promises and disputes about invoices.',
		columns: { kind: 'promise or dispute', until: 'until when', ended_at: 'when it ended' }
	},
	job_costs: {
		what: 'What jobs cost.',
		columns: {
			kind: 'labour, materials, hire and so on, as CIS tells them apart',
			vat: 'VAT treatment',
			unit_cost: 'cost of one, without VAT',
			mark_up: 'percent on top',
			unit_price: 'price of one, where it is not cost and mark-up',
			chargeable: 'is billed (1: yes)'
		}
	},
	files: {
		what: 'Photos and files of jobs, customers, documents and costs.',
		columns: {
			purchase_id: 'the cost: id in purchases',
			name: 'name',
			type: 'its type',
			size: 'how many bytes are kept',
			sha256: 'SHA-256 of what was added',
			stored: 'SHA-256 of what is kept: a photo is made smaller',
			thumbnail: 'left out: a small picture of it',
			goes_out: 'goes out with its document (1: yes)',
			added_at: 'when it was added',
			removed_at: 'when it was taken away; gone for good a day later'
		}
	},
	suppliers: {
		what: 'Suppliers.',
		columns: {
			name: 'name',
			vat_number: 'VAT number',
			subcontractor: 'does construction work for the owner (1: yes)',
			category: 'what its bills are usually for'
		}
	},
	purchases: {
		what: 'What was bought: bills, suppliers’ credits, mileage.',
		columns: {
			kind: 'bill, credit or mileage',
			supplier_id: 'the supplier: id in suppliers',
			number: 'the supplier’s number',
			description: 'what it was',
			date: 'its date',
			paid_on: 'when it was paid; empty: not yet',
			net: 'without VAT',
			vat: 'VAT on it',
			reclaim: 'the VAT may be reclaimed (1: yes)',
			private_share: 'percent that is private',
			category: 'which box of the self-assessment return',
			centre: 'the owner’s cost centre',
			miles: 'of mileage: how far',
			cost_id: 'what of the job it became: id in job_costs',
			version: 'how often it was changed',
			removed_at: 'when it was taken away; empty: it counts'
		}
	},
	job_lines: {
		what: 'What was agreed for jobs.',
		columns: lines({
			discount: 'discount of the line',
			extra: 'came on top of what was agreed first (1: yes)',
			income: 'the owner’s income category',
			centre: 'the owner’s cost centre'
		})
	},
	job_trail: {
		what: 'What happened to jobs.',
		columns: {
			person_id: 'who of those who sign in: id in people',
			at: 'when',
			what: 'what',
			detail: 'more of it'
		}
	},
	jobs: {
		what: 'Jobs.',
		columns: {
			number: 'number',
			title: 'title',
			contract: 'what kind of work it is under CIS',
			contract_reason: 'why the owner said so',
			work_kind_id: 'the owner’s kind of work: id in work_kinds',
			private_note: 'the owner’s own note, never on a document',
			fixed_price: 'the price is fixed (1: yes)',
			prices_include_vat: 'prices are with VAT (1: yes)',
			hourly_rate: 'rate for an hour',
			hourly_cost: 'own cost of an hour',
			retention: 'percent held back',
			retention_due: 'when it is due',
			finished_on: 'when it was finished',
			worked: 'when the work was done',
			end_user_statement: 'the customer’s statement of being the end user',
			end_user_date: 'its date'
		}
	},
	journal_entries: {
		what: 'The journal: each event that changes what anybody owes.',
		columns: { event: 'what happened' }
	},
	journal_lines: {
		what: 'The postings of each event; those of one entry come to nothing.',
		columns: {
			entry_id: 'the event: id in journal_entries',
			account: 'the account',
			amount: 'debit above zero, credit below',
			sterling: 'the amount in sterling',
			paid_on: 'of a deduction: the day the contractor paid',
			tax_point: 'of VAT: the tax point'
		}
	},
	kit_parts: {
		what: 'What kits of the price list are made of.',
		columns: { kit_id: 'the kit: id in price_items' }
	},
	late_terms: {
		what: 'What customers agreed to for late payment.',
		columns: {
			fee: 'fixed sum',
			rate: 'percent a year',
			after_days: 'after so many days',
			terms: 'the words of the contract'
		}
	},
	links: {
		what: 'Links of customers that were renewed.',
		columns: { now: 'left out: what opens it now', at: 'when it was renewed' }
	},
	mails: {
		what: 'Mails that went or are to go.',
		columns: {
			kind: 'what it is',
			to: 'to whom',
			cc: 'with a copy to',
			bcc: 'with a hidden copy to',
			html: 'the words as a web page',
			file_ids: 'files of the document that go along, as JSON',
			told_id: 'what it tells of a visit: id in told',
			sheet_id: 'the job sheet: id in job_sheets',
			quote_trial_id: 'the test: id in quote_trials',
			attach_pdf: 'with the PDF (1: yes)',
			message_id: 'its name on the way',
			missed: 'who has not got it'
		}
	},
	number_series: {
		what: 'Number series.',
		columns: {
			kind: 'of which documents',
			pattern: 'how a number is written',
			next: 'the next running number',
			starts: 'running numbers at which the owner began anew, as JSON'
		}
	},
	odd_news: {
		what: 'News of the card processor that do not fit the books.',
		columns: {
			event_id: 'number of the news',
			type: 'what they are about',
			why: 'what does not fit',
			body: 'the news, as JSON',
			received_at: 'when they came',
			decision: 'what the owner decided',
			decided_at: 'when'
		}
	},
	open_items: {
		what: 'Where each issued document stands. It follows from the journal.',
		columns: {
			issue_date: 'issue date',
			due_date: 'due date',
			total: 'total',
			total_sterling: 'total in sterling',
			deduction: 'CIS deduction that is expected',
			cash: 'paid',
			withheld: 'withheld under CIS',
			credited: 'credited',
			written_off: 'written off',
			outstanding: 'outstanding',
			to_pay: 'what is still to be paid in money',
			reached: 'whether the customer has got it (1: yes)',
			overpaid: 'paid too much',
			outstanding_sterling: 'outstanding, in sterling',
			to_pay_sterling: 'still to be paid, in sterling',
			overpaid_sterling: 'paid too much, in sterling',
			settled_on: 'the day it was settled',
			in_hand: 'money of it that lies in hand'
		}
	},
	pack_links: {
		what: 'Packs for the accountant that were sent by a link.',
		columns: {
			token_hash: 'of what the link carries, hashed',
			from: 'first day of the period',
			to: 'last day of the period',
			basis: 'how money counts in it: when it came in, or by invoice',
			sent_to: 'to which address',
			person_id: 'who sent it: id in people',
			until: 'until when the link opens',
			taken_at: 'when it was fetched last',
			revoked_at: 'when it was taken back'
		}
	},
	movings: {
		what: 'Files that were carried over from other books.',
		columns: {
			kind: 'what it held: open invoices, deposits or repeats',
			name: 'the file’s name'
		}
	},
	moved_rows: {
		what: 'What each of these files brought.',
		columns: {
			moving_id: 'the file: id in movings',
			what: 'what it is: a document, a payment, a repeat or a job',
			row_id: 'its id there'
		}
	},
	taken_back: {
		what: 'What was carried over and taken back again, because nothing had been built on it.',
		columns: {
			what: 'what it was: a document, a payment or an entry of the journal',
			row_id: 'the id it had',
			name: 'its number, or what it was',
			person_id: 'who did it: id in people',
			at: 'when'
		}
	},
	exchange_rates: {
		what: 'What one of another currency was worth in pounds.',
		columns: {
			from: 'first day',
			to: 'last day',
			rate: 'pounds for one of it',
			source: 'where it is from'
		}
	},
	payer_names: {
		what: 'Names under which payers have paid.',
		columns: { name: 'as the bank wrote it', learned_at: 'when it was learned' }
	},
	payment_reversals: {
		what: 'Payments that were taken back.',
		columns: { reason: 'why' }
	},
	payments: {
		what: 'Payments.',
		columns: {
			amount_sterling: 'the amount in sterling',
			source: 'typed, online, or from the bank’s lines',
			fee: 'fee of the processor',
			fee_on_top: 'what a commercial card bore on top'
		}
	},
	payout_parts: {
		what: 'What payouts are made of.',
		columns: {
			checkout: 'number of the payment at the processor',
			type: 'payment or refund',
			fee: 'fee of the processor'
		}
	},
	payouts: {
		what: 'Payouts of the card processor.',
		columns: { processor_id: 'its number there', seen_on: 'the day it stood in the bank’s lines' }
	},
	price_items: {
		what: 'The price list.',
		columns: lines({
			code: 'code',
			name: 'name',
			unit_price: 'price of one',
			category: 'category',
			income: 'the income category of what is sold',
			kit: 'made of others (1: yes)',
			used: 'how often it was used',
			with_vat: 'the price is with VAT (1: yes)'
		})
	},
	price_pictures: { what: 'Pictures of the price list.', columns: { type: 'its type' } },
	reference_rates: {
		what: 'Base rates of the Bank of England for each half year.',
		columns: { from: 'from this day', rate: 'percent' }
	},
	refunds: {
		what: 'Refunds.',
		columns: { amount_sterling: 'what left the bank, in sterling; empty: the same' }
	},
	relief_claims: { what: 'VAT relief claimed for bad debts.', columns: { vat: 'the VAT' } },
	removals: {
		what: 'Customers of whom all was removed that no law asks to keep.',
		columns: { at: 'when', what: 'what went' }
	},
	repeat_changes: {
		what: 'What a repeat bills from a day on.',
		columns: { from: 'from this day' }
	},
	repeat_occurrences: {
		what: 'Dates of repeats.',
		columns: { nominal: 'the date by the rule', next_attempt_on: 'when the card is tried again' }
	},
	repeats: {
		what: 'Repeats.',
		columns: {
			name: 'name',
			rule: 'when, as JSON',
			action: 'draft, issue, send or charge a card',
			skipped: 'dates left out, as JSON',
			made_from: 'the first day on which it makes anything'
		}
	},
	restores: {
		what: 'Backups these books were restored from.',
		columns: {
			made_at: 'when the backup was made',
			restored_at: 'when it was restored',
			started_at: 'when the owner went on',
			missing: 'files that were nowhere, as JSON'
		}
	},
	retentions: {
		what: 'Money held back under contracts.',
		columns: {
			due_on: 'when it is due',
			released_by_id: 'the invoice that asks for it: id in documents'
		}
	},
	saved_cards: {
		what: 'Cards that customers let be kept.',
		columns: {
			last_digits: 'its last digits',
			consent_at: 'when the customer agreed',
			revoked_at: 'when that ended',
			revoked_by: 'by whom'
		}
	},
	sites: {
		what: 'Where work is done.',
		columns: {
			name: 'name',
			address: 'address',
			access_notes: 'how to get in',
			contact_name: 'who is there, and hears of visits',
			contact_email: 'their e-mail address',
			contact_phone: 'their phone number'
		}
	},
	stage_parts: {
		what: 'What of which line is in a stage.',
		columns: {
			stage_id: 'the stage: id in stages',
			line_id: 'the line: id in job_lines',
			cost: 'its cost'
		}
	},
	stages: {
		what: 'Stages of jobs.',
		columns: {
			kind: 'deposit, stage or application',
			basis: 'how its amount was found, as JSON',
			application_number: 'number of the application for payment',
			applied_on: 'its date'
		}
	},
	starting_points: { what: 'Starting points of invoices.', columns: { name: 'name' } },
	statement_runs: {
		what: 'Runs of statements.',
		columns: {
			options: 'what was chosen, as JSON',
			action: 'what happens to them',
			finished_at: 'when it was done'
		}
	},
	statements: {
		what: 'Statements.',
		columns: {
			view: 'what it shows, as JSON',
			balance: 'what was owed',
			made_at: 'when it was made',
			opened_at: 'when its link was opened'
		}
	},
	tax_points: {
		what: 'What of a document falls on which tax point.',
		columns: {
			rule: 'the rule that decides it',
			because: 'why',
			net: 'net',
			vat_charged: 'VAT that is charged',
			vat_reverse_charged: 'VAT that the customer accounts for',
			vat: 'whether VAT was charged on it at all (1: yes)'
		}
	},
	tax_standings: {
		what: 'Tax standing of customers over time.',
		columns: {
			from: 'from this day',
			vat_registered: 'registered for VAT (1: yes)',
			vat_number: 'VAT number',
			cis_registered: 'a contractor under CIS (1: yes)',
			cis_rate: 'the rate it deducts',
			verification_number: 'verification number',
			end_user: 'the end user (1: yes)',
			end_user_statement: 'its statement of being so',
			end_user_date: 'date of the statement'
		}
	},
	texts: {
		what: 'Text messages.',
		columns: {
			to: 'to which number',
			told_id: 'what it tells of a visit: id in told',
			round: 'how often it went and did not arrive'
		}
	},
	text_replies: {
		what: 'What came back by text.',
		columns: {
			event_id: 'the gateway’s own name of it',
			from: 'from which number',
			at: 'when it came',
			text_id: 'the last text that went there: id in texts',
			seen_at: 'when it was read'
		}
	},
	text_stops: {
		what: 'Numbers whose owner asked for no more texts.',
		columns: { number: 'the number', at: 'since when' }
	},
	job_materials: {
		what: 'What has to be there before the work of a job can be done.',
		columns: {
			what: 'what',
			expected_on: 'the day it is to come',
			here_on: 'the day it came'
		}
	},
	quote_trials: {
		what: 'Quotes the owner sent to itself as a test.',
		columns: {
			token: 'opens its page',
			frozen: 'what it showed, as JSON',
			valid_until: 'until when it would hold'
		}
	},
	time_entries: {
		what: 'Time worked.',
		columns: {
			person_id: 'who of those who sign in: id in people',
			person: 'who worked',
			started_at: 'since when the clock runs',
			minutes: 'minutes',
			rate: 'rate for an hour',
			hourly_cost: 'own cost of an hour',
			chargeable: 'is billed (1: yes)'
		}
	},
	trail: {
		what: 'What happened to documents.',
		columns: {
			at: 'when',
			who: 'the owner, the customer, or Axiometer',
			person_id: 'which of those who may sign in',
			what: 'what',
			detail: 'more of it'
		}
	},
	transfer_reversals: {
		what: 'Moves of money between invoices that were taken back.',
		columns: { transfer_id: 'the move: id in transfers' }
	},
	transfers: {
		what: 'Money moved from one invoice to another.',
		columns: {
			from_id: 'from: id in documents',
			to_id: 'to: id in documents',
			withheld: 'CIS deduction that went along',
			paid_on: 'the day the contractor paid'
		}
	},
	trials: {
		what: 'Rehearsals: documents the owner sent to itself.',
		columns: { frozen: 'what it showed, as JSON', paid_at: 'when it was paid in play' }
	},
	vat_statuses: {
		what: 'The owner’s VAT registration over time.',
		columns: { from: 'from this day', registered: 'registered (1: yes)', number: 'VAT number' }
	},
	visits: {
		what: 'Visits.',
		columns: {
			person_id: 'who goes, of those who sign in: id in people',
			from: 'from this time',
			to: 'to this time',
			person: 'who goes',
			end_date: 'the last day, where it goes over several',
			pencil: 'pencilled in, not agreed yet (1: yes)',
			arrive_from: 'somebody comes from this time, as the customer is told',
			arrive_to: 'and until this time',
			needs: 'how many people it takes',
			travel: 'minutes it takes to get there',
			weekend: 'over several days it goes on over the weekend (1: yes)',
			series: 'what repeats together',
			sequence: 'how often it has moved',
			done: 'it took place (1: yes)'
		}
	},
	watched_changes: {
		what: 'Changes that a thief would make.',
		columns: { at: 'when', what: 'what was changed', detail: 'from what to what' }
	},
	webhook_events: {
		what: 'News of card processor and bank that were taken.',
		columns: {
			type: 'what they are about',
			received_at: 'when they came',
			body: 'the news, as JSON'
		}
	},
	write_offs: { what: 'What was written off.', columns: { reason: 'why' } }
};

/** Tables that say nothing about the business, or that nobody may carry away. */
export const LEFT_OUT: Readonly<Record<string, string>> = {
	card_codes: 'codes that were mailed to customers, as hashes',
	people: 'who may sign in, with hashes of their passwords; what they did is told by the trails',
	sessions: 'who is signed in',
	passkeys: 'keys of devices with which people sign in',
	known_browsers: 'browsers that were signed in from',
	sign_in_failures: 'failed tries to sign in',
	secrets: 'secrets, which a copy must not give away',
	tallies: 'counts of the other tables'
};

/** Columns that are never written out: what opens something, and what lies in the export as a file. */
export const BLANK = new Set([
	'token',
	'token_hash',
	'now',
	'content',
	'pdf',
	'thumbnail',
	'signature',
	'drawn',
	'record'
]);
