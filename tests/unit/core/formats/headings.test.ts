// What the columns of people's files are called, and what of it they are taken for: one heading by itself, as it stands in a file.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { BANK_COLUMNS, directionOf, stateOf } from '../../../../src/lib/core/formats/bank/headings';
import { readContacts } from '../../../../src/lib/core/formats/contacts';
import { matchColumns, type Column } from '../../../../src/lib/core/formats/table';
import { DEPOSIT_COLUMNS } from '../../../../src/lib/core/moving/deposits';
import { INVOICE_COLUMNS } from '../../../../src/lib/core/moving/columns';

const words = (list: string) => list.split(',').map((one) => one.trim());
/** Each heading of a list by itself is this field. */
function means(columns: readonly Column<string>[], lists: Record<string, string>): void {
	for (const [field, list] of Object.entries(lists))
		it(`the ${field}`, () => {
			for (const heading of words(list))
				expect(matchColumns([heading], columns), heading).to.deep.equal({ [field]: 0 });
		});
}

describe('a column of a bank’s file is', () => {
	means(BANK_COLUMNS, {
		date: 'Completed Date, Date completed, Completed on, Booking date, Booked on, BOOKED, Posting Date, Posted date, Posted on, Date posted, Transaction Date, Date of transaction, Entry date, Buchungstag, Datum, Date, Value Date, Posted, When, Day',
		direction:
			'DR/CR, CR/DR, Debit/Credit, Credit/Debit, Credit or Debit, Debit or credit, Dr or Cr, In/Out, In or out, Direction, Credit Debit Indicator, CdtDbtInd, Debit credit indicator, Soll/Haben, D/C, C/D, Sign, Indicator, DC, DRCR, CRDR, S/H',
		currency: 'Currency, Currency code, CCY, Account currency, Transaction currency, Curr',
		state: 'Transaction status, Transaction State, Payment status, Status, Booking status, State',
		fee: 'Fee, Fees, Transaction fee, Bank charge, Bank charges, Commission, Charges, Charge',
		in: 'Money In, Paid in, Credit amount, Amount credited, Credit, Credits, Deposits, Deposit, Received, Receipts, Lodgement, Lodgements, Haben, In, Amount in, CR, In (GBP)',
		out: 'Money out, Paid Out, Debit amount, Amount debited, Debit, Debits, Withdrawals, Withdrawal, Spent, Payments out, Soll, Out, Amount out, DR, Out (GBP)',
		amount:
			'Amount (GBP), Amount in GBP, GBP, Amount, Transaction amount, Net amount, Gross, Gross amount, Value, Betrag, Total, Sum, Net, Money',
		account:
			'Account Number, Account no., IBAN, Account, Account ID, Account name, Account holder, Account owner, Own account',
		payer:
			'Payer, Payer name, Paid by, Counterparty name, Counter party name, Counterparty, Counter-party, Name of counterparty, Sender name, Sender, Debtor name, Debtor, Payee name, Payee, Beneficiary name, Beneficiary, Recipient name, Recipient, Merchant name, Merchant, Other party, Customer name, Customer, Name, From, Who, To, Party',
		text: 'Transaction Description, Description, Narrative, Narration, Particulars, Transaction details, Details, Text, Memo, Remittance information, Purpose, Verwendungszweck, Information, Message',
		reference:
			'Payment reference, Customer reference, Payer reference, Your reference, End to end ID, End-to-end, Reference, Transaction reference, Bank reference, Ref, Reference number',
		more: 'Notes, Note, Further details, Additional information, Additional details, Transaction type, Payment type, Comment, Type, Extra, Method'
	});

	it('nothing where it is something else that has the word in it', () => {
		for (const heading of words(
			'Start date, Balance, Running total balance, Original amount, Local currency amount, Credit limit, Debit card number, VAT amount, Exchange rate, Sort code, Count, Bank name, Statement date, Due date'
		)) {
			const found = matchColumns([heading], BANK_COLUMNS);
			for (const field of ['date', 'amount', 'in', 'out', 'payer'] as const)
				expect(found[field], `${heading}: ${field}`).to.equal(undefined);
		}
	});

	it('told apart from its neighbours, the nearest name first', () => {
		const columns = (list: string) => matchColumns(words(list), BANK_COLUMNS);
		expect(
			columns(
				'Type, Started Date, Completed Date, Description, Amount, Fee, Currency, State, Balance'
			)
		).to.deep.equal({ more: 0, date: 2, text: 3, amount: 4, fee: 5, currency: 6, state: 7 });
		expect(columns('Value date, Date, Paid out, Paid in, Description, Memo')).to.deep.equal({
			date: 1,
			out: 2,
			in: 3,
			text: 4,
			more: 5
		});
	});
});

describe('a cell', () => {
	it('says which way money went, in many ways', () => {
		for (const cell of words(
			'CR, c, Credit, CRDT, In, Money in, paid in, Incoming, received, H, +, Credited, Deposit, Cr.'
		))
			expect(directionOf(cell), cell).to.equal(1);
		for (const cell of words(
			'DR, d, Debit, DBIT, Out, Money out, paid out, Outgoing, sent, S, -, Debited, Withdrawal, Dr.'
		))
			expect(directionOf(cell), cell).to.equal(-1);
		for (const cell of words('x, , Card payment, BACS, 12'))
			expect(directionOf(cell)).to.equal(null);
	});

	it('says how far it is: booked, not yet, or never', () => {
		for (const cell of words(
			'Pending, PROCESSING, In progress, authorised, authorized, Uncleared, Scheduled, On hold, Awaiting, Created, PDNG, FUTR'
		))
			expect(stateOf(cell), cell).to.equal('pending');
		for (const cell of words(
			'Reverted, DECLINED, Failed, Cancelled, Rejected, Refused, Reversed, Void, Returned, Expired, Refunded, Unpaid, Deleted, Blocked, Not completed'
		))
			expect(stateOf(cell), cell).to.equal('void');
		for (const cell of words(
			'Completed, BOOK, Booked, Posted, Settled, Cleared, Executed, Success, Paid, Done, Processed, Received, Sent, Approved, Final, OK'
		))
			expect(stateOf(cell), cell).to.equal('booked');
		expect(stateOf('okay?')).to.equal(null);
	});
});

describe('a column of an address book is', () => {
	const one = (headings: string, cells: string) =>
		readContacts(new TextEncoder().encode(`${headings}\n${cells}\n`)).people[0]!;
	it('the name, whole or in its parts', () => {
		for (const heading of words(
			'Name, Full name, Display Name, Customer, Customer name, Client, Contact, Contact name'
		))
			expect(one(heading, 'Odile Brancaster').name, heading).to.equal('Odile Brancaster');
		for (const given of words('First Name, Given name, Forename, Firstname'))
			for (const family of words('Last Name, Family name, Surname, Lastname'))
				expect(one(`${given},${family}`, 'Odile,Brancaster').name, `${given}, ${family}`).to.equal(
					'Odile Brancaster'
				);
	});
	it('the firm, which makes it a business', () => {
		for (const heading of words(
			'Company, Organisation, Organization, Company name, Organisation Name, Organization Name, Firm, Business name, Business'
		))
			expect(one(`Name,${heading}`, 'Odile,Corvane'), heading).to.deep.include({
				organisation: 'Corvane',
				kind: 'business'
			});
		expect(one('Name,Company type', 'Odile,Limited').organisation).to.equal('');
	});
	it('a part of the address', () => {
		for (const heading of words(
			'Address, Home address, Business Address, Postal address, Billing address, Address 1 - Formatted, Mailing address, Address line 1, Address 1, Street, Home Street, Business street, Street address, Address 1 - Street, Line 1, Address line 2, Address 2, Street 2, Home Street 2, Business street 2, Line 2, Extended address, Town, City, Home City, Business city, Address 1 - City, Post town, Locality, County, Region, Home State, Business state, Address 1 - Region, State, Postcode, Post code, Postal code, ZIP, Zip code, Home Postal Code, Business postal code, Address 1 - Postal Code, Country, Home Country, Business country, Address 1 - Country'
		))
			expect(one(`Name,${heading}`, 'Odile,Harrowmere').address, heading).to.equal('Harrowmere');
		const whole =
			'Name,Street,Street 2,City,County,Postcode,Country\nOdile,1 Kiln Lane,Rear,Harrowmere,Wessex,ZZ1 1ZZ,Wales\n';
		expect(readContacts(new TextEncoder().encode(whole)).people[0]!.address).to.equal(
			'1 Kiln Lane\nRear\nHarrowmere\nWessex\nZZ1 1ZZ\nWales'
		);
	});
	it('a way to reach it, words it is grouped by, and a note', () => {
		for (const heading of words('E-mail, Email 1 - Value, Mail, Mail address'))
			expect(one(`Name,${heading}`, 'Odile,o@post.example').emails, heading).to.deep.equal([
				'o@post.example'
			]);
		for (const heading of words('Phone, Telephone, Tel, Mobile phone, Cell, Landline'))
			expect(one(`Name,${heading}`, 'Odile,01632 960001').phones, heading).to.deep.equal([
				'01632 960001'
			]);
		for (const heading of words('Fax phone, Phone 1 - Type, Pager phone, Email opt in'))
			expect(one(`Name,${heading}`, 'Odile,01632 960001'), heading).to.deep.include({
				phones: [],
				emails: []
			});
		for (const heading of words('Labels, Tags, Groups, Group Membership, Categories, Group'))
			expect(one(`Name,${heading}`, 'Odile,* Family ::: Friends').labels, heading).to.deep.equal([
				'Family',
				'Friends'
			]);
		for (const heading of words('Private note, Note, Notes, Comment, Comments, Remarks'))
			expect(one(`Name,${heading}`, 'Odile,Rings twice').note, heading).to.equal('Rings twice');
	});
});

describe('a column of open invoices is', () => {
	means(INVOICE_COLUMNS, {
		number: 'Number, Invoice number, Invoice No., Invoice, No, Document number',
		customer: 'Customer, Client, Customer name, Client name, Name, Company, Contact',
		issued: 'Issued, Issue date, Invoice date, Date, Dated',
		due: 'Due, Due date, Due on, Pay by',
		taxPoint: 'Tax point, Supply date, Date of supply',
		reversed: 'Reverse charge, DRC, Reverse',
		returned: 'VAT returned, VAT returned already, VAT filed, Returned',
		rate: 'VAT rate, Tax rate, Rate of VAT, VAT code',
		vat: 'VAT, VAT amount, Tax, Tax amount',
		net: 'Net, Net amount, Subtotal, Sub-total, Amount without VAT, Excl. VAT',
		open: 'Still open, Open, Outstanding, Balance, Balance due, Amount due, Owed',
		paidOn: 'Paid on, Date paid, Payment date',
		paid: 'Paid, Paid so far, Amount paid, Payments, Received',
		withheld: 'Withheld, CIS withheld, Deducted so far, CIS suffered',
		deduction: 'Expected deduction, CIS deduction, Deduction, CIS',
		retentionDue: 'Retention due, Retention date, Release date',
		retention: 'Retention, Retention held, Held back',
		total: 'Total, Gross, Total amount, Invoice total, Amount, Incl. VAT',
		description: 'Description, Details, What, Work, Subject',
		job: 'Job, Job title, Project',
		order: 'Order number, PO, PO number, Order',
		reference: 'Reference, Ref, Your reference',
		currency: 'Currency, Currency code',
		exchange: 'Exchange rate, Rate to GBP, FX rate'
	});
});

describe('a column of money held is', () => {
	means(DEPOSIT_COLUMNS, {
		customer: 'Customer, Client, Name',
		amount: 'Amount, Deposit, Credit, Held, Balance, Total',
		date: 'Date, Received, Received on, Paid on, Day',
		number: 'Deposit invoice, Invoice number, Invoice, Number',
		rate: 'VAT rate, Tax rate, Rate of VAT',
		vat: 'VAT, VAT amount, Tax',
		reference: 'Reference, Ref, Description, For, What, Details'
	});
});
