// Errors put into a data file one at a time, with its guards taken away: the audit finds every one, and says where.
// Over 300 lines: one error for each thing the audit has to find.
import { expect } from 'chai';
import { createHash } from 'node:crypto';
import { after, before, describe, it } from 'mocha';
import { auditBooks } from '../../../scripts/audit/books';
import { richBooks, type RichBooks } from '../../support/richBooks';

let books: RichBooks;
/** `{plain}` and the like stand for the id of a document. */
const ERRORS: [what: string, change: string, named?: RegExp][] = [
	['a total a penny off', 'update documents set total = total + 1 where id = {plain}', /INV-0007/],
	[
		'VAT moved into the net',
		'update documents set net = net + 1, vat_charged = vat_charged - 1 where id = {plain}',
		/INV-0007/
	],
	[
		'VAT the customer accounts for',
		'update documents set vat_reverse_charged = 1 where id = {contract}',
		/INV-0008/
	],
	[
		'a deduction',
		'update documents set deduction = deduction - 1 where id = {contract}',
		/INV-0008/
	],
	[
		'an issue date moved by a year',
		"update documents set issue_date = '2025-11-24' where id = {plain}",
		/INV-0007/
	],
	[
		'a due date moved by a year',
		"update documents set due_date = '2027-12-08' where id = {plain}",
		/INV-0007/
	],
	[
		'a tax point moved by a year',
		"update documents set tax_point = '2025-11-24' where id = {plain}",
		/INV-0007/
	],
	[
		'the place in the lists',
		"update documents set sort_date = '2025-11-24' where id = {plain}",
		/INV-0007/
	],
	[
		'another customer',
		'update documents set customer_id = customer_id + 1 where id = {plain}',
		/INV-0007/
	],
	[
		'another customer’s name',
		"update documents set customer_name = 'Nobody' where id = {plain}",
		/INV-0007/
	],
	['another number', "update documents set number = 'INV-9999' where id = {plain}", /INV-9999/],
	['another running number', 'update documents set running = running + 900 where id = {plain}'],
	['an invoice made a credit note', "update documents set kind = 'creditNote' where id = {plain}"],
	[
		'a correction of another invoice',
		'update documents set corrects_id = {plain} where corrects_id = {credited}'
	],
	['another currency', "update documents set currency = 'EUR' where id = {plain}", /INV-0007/],
	[
		'another sum in sterling',
		'update documents set total_sterling = 1 where id = {plain}',
		/INV-0007/
	],
	['another origin', "update documents set origin = 'copy' where id = {plain}", /INV-0007/],
	[
		'another day of issue',
		'update documents set issued_at = issued_at - 86400000 where id = {plain}',
		/INV-0007/
	],
	['another link', "update documents set token = 'x' where id = {plain}", /INV-0007/],
	['an issued invoice made a draft', "update documents set state = 'draft' where id = {plain}"],
	['a document gone', 'delete from documents where id = {plain}'],
	['a seal gone', 'update documents set seal = null where id = {card}'],
	[
		'the seller’s VAT number',
		"update documents set frozen = json_set(frozen, '$.seller.vatNumber', '123456782') where id = {plain}",
		/INV-0007/
	],
	[
		'the customer’s address',
		"update documents set frozen = json_set(frozen, '$.customer.address', 'Elsewhere') where id = {plain}",
		/INV-0007/
	],
	[
		'a frozen price',
		"update documents set frozen = json_set(frozen, '$.sheet.rows[0].unitPrice', '101') where id = {plain}",
		/INV-0007/
	],
	[
		'the frozen standing',
		"update documents set frozen = json_set(frozen, '$.customer.standing.cisRate', '30') where id = {contract}",
		/INV-0008/
	],
	[
		'two amounts of lines swapped',
		'update document_lines set net = 15000 - net, taxable = 15000 - taxable, without_vat = 15000 - without_vat where document_id = {plain}',
		/INV-0007/
	],
	[
		'two lines swapped',
		'update document_lines set position = 10 - position where document_id = {plain}',
		/INV-0007/
	],
	[
		'a description',
		"update document_lines set description = 'Paint' where document_id = {plain} and position = 0",
		/INV-0007/
	],
	[
		'a quantity',
		"update document_lines set quantity = '2' where document_id = {plain} and position = 0",
		/INV-0007/
	],
	[
		'a unit price',
		"update document_lines set unit_price = '1' where document_id = {plain} and position = 0",
		/INV-0007/
	],
	[
		'a rate',
		"update document_lines set vat = 'zero' where document_id = {plain} and position = 0",
		/INV-0007/
	],
	[
		'a cost',
		'update document_lines set cost = 1 where document_id = {plain} and position = 1',
		/INV-0007/
	],
	[
		'what a line held back',
		'update document_lines set retention = retention + 1 where document_id = {stage} and position = 0',
		/INV-/
	],
	[
		'the job of a line',
		'update document_lines set job_id = 99 where document_id = {stage}',
		/INV-/
	],
	[
		'the tax point of a line',
		"update document_lines set tax_point = '2025-01-01' where document_id = {plain} and position = 0",
		/INV-0007/
	],
	[
		'a line gone',
		'delete from document_lines where document_id = {plain} and position = 1',
		/INV-0007/
	],
	[
		'a PDF replaced, with its hash',
		"update document_files set content = x'2550', sha256 = sha256(x'2550') where document_id = {plain}",
		/INV-0007/
	],
	[
		'a PDF replaced',
		"update document_files set content = x'2550' where document_id = {plain}",
		/INV-0007/
	],
	['a PDF gone', 'delete from document_files where document_id = {plain}', /INV-0007/],
	[
		'VAT posted to sales',
		"update journal_lines set account = 'sales' where document_id = {plain} and account = 'vatOutput'",
		/INV-0007/
	],
	[
		'an invented entry that balances',
		"insert into journal_entries (id, key, event, date, recorded_at) values (9000, 'gift', 'payment', '2026-12-01', 0); insert into journal_lines (entry_id, account, amount, sterling) values (9000, 'bank', 100, 100), (9000, 'sales', -100, -100)",
		/gift/
	],
	[
		'an entry moved by a year',
		"update journal_entries set date = '2025-11-24' where key = 'payment:1'",
		/payment:1/
	],
	[
		'an entry of an issue moved by a year',
		"update journal_entries set date = '2025-11-24' where key = 'issue:' || {plain}",
		/issue:/
	],
	[
		'an entry gone',
		"delete from journal_lines where entry_id = (select id from journal_entries where key = 'payment:1'); delete from journal_entries where key = 'payment:1'",
		/payment/
	],
	[
		'money in another account',
		"update journal_lines set account = 'cash' where account = 'bank' and entry_id = (select id from journal_entries where key = 'payment:1')",
		/payment:1/
	],
	[
		'a payment on another invoice',
		"update journal_lines set document_id = {contract} where account = 'receivable' and entry_id = (select id from journal_entries where key = 'payment:1')",
		/payment:1/
	],
	[
		'a debt on another account',
		"update journal_lines set customer_id = 99 where account = 'receivable' and document_id = {plain}",
		/INV-0007/
	],
	[
		'sales of another job',
		"update journal_lines set job_id = 99 where account = 'sales' and document_id = {stage}",
		/INV-/
	],
	[
		'an entry out of balance',
		"update journal_lines set amount = amount + 1, sterling = sterling + 1 where account = 'bank' and entry_id = (select id from journal_entries where key = 'payment:1')",
		/payment:1/
	],
	[
		'a deduction of another month',
		"update journal_lines set paid_on = '2026-01-05' where account = 'cisWithheld' and document_id = {contract}",
		/INV-0008/
	],
	[
		'an entry that is called something else',
		"update journal_entries set event = 'refund' where key = 'payment:1'",
		/payment:1/
	],
	[
		'what is outstanding',
		'update open_items set outstanding = outstanding - 1 where document_id = {plain}',
		/INV-0007/
	],
	[
		'what was withheld',
		'update open_items set withheld = withheld + 1 where document_id = {contract}',
		/INV-0008/
	],
	[
		'what may be deducted',
		'update open_items set deduction = deduction + 1 where document_id = {contract}',
		/INV-0008/
	],
	['a state', "update open_items set state = 'paid' where document_id = {plain}", /INV-0007/],
	[
		'what is in hand',
		'update open_items set in_hand = in_hand + 1 where document_id = {credited}',
		/INV-/
	],
	[
		'the day it was settled',
		"update open_items set settled_on = '2025-01-01' where document_id = {card}",
		/INV-/
	],
	[
		'a due day among what is open',
		"update open_items set due_date = '2030-01-01' where document_id = {plain}",
		/INV-0007/
	],
	[
		'an issue day among what is open',
		"update open_items set issue_date = '2030-01-01' where document_id = {plain}",
		/INV-0007/
	],
	[
		'another payer',
		'update open_items set payer_id = payer_id + 1 where document_id = {late}',
		/INV-/
	],
	[
		'another total among what is open',
		'update open_items set total = total + 1 where document_id = {plain}',
		/INV-0007/
	],
	['what is open gone', 'delete from open_items where document_id = {plain}', /INV-0007/],
	['a payment a penny off', 'update payments set amount = amount + 1 where id = 1', /payment/],
	[
		'a payment moved by a year',
		"update payments set date = '2025-11-24' where id = 1",
		/payment:1/
	],
	['a payment of somebody else', 'update payments set payer_id = 99 where id = 1', /payment 1/],
	['a payment another way', "update payments set way = 'cash' where id = 1", /payment/],
	['a fee', 'update payments set fee = fee + 1 where fee > 0', /payment/],
	[
		'what a payment settled',
		'update allocations set amount = amount - 1 where payment_id = 1',
		/payment/
	],
	[
		'a payment for another invoice',
		'update allocations set document_id = {contract} where payment_id = 1',
		/INV-/
	],
	[
		'a deduction nobody stated',
		'update allocations set withheld_stated = 1 where document_id = {contract}',
		/INV-0008/
	],
	['an undone payment that stands again', 'delete from payment_reversals', /undo-payment/],
	[
		'a payment undone by nobody',
		'insert into payment_reversals (payment_id, recorded_at) values (1, 0)',
		/INV-0007/
	],
	[
		'money in hand applied on another day',
		"update allocations set applied_on = '2025-01-01' where applied_on is not null",
		/apply:/
	],
	['what was moved', 'update transfers set amount = amount - 1', /apply:/],
	['a deduction left behind', 'update transfers set withheld = 0', /INV-/],
	['the month of what was moved', "update transfers set paid_on = '2026-01-01'", /INV-/],
	['a refund a penny off', 'update refunds set amount = amount + 1', /refund/],
	['a refund gone', 'delete from refunds', /refund/],
	['a loss', 'update write_offs set amount = amount - 1', /INV-/],
	[
		'relief claimed twice',
		"insert into relief_claims (key, document_id, date, vat, recorded_at) select 'again', document_id, date, vat, 0 from relief_claims",
		/relief/
	],
	['money given back from hand', 'update credit_returns set amount = amount + 1', /return/],
	['a part of a payout', 'update payout_parts set amount = amount + 1', /payout/],
	['a payout', 'update payouts set amount = amount + 1', /payout/],
	['more billed than agreed', 'update stage_parts set amount = amount + 30000', /job line/],
	[
		'a stage of another amount',
		'update stages set amount = amount - 1 where document_id = {stage}',
		/stage/
	],
	[
		'what is held back',
		'update retentions set amount = amount + 1 where document_id = {stage}',
		/INV-/
	],
	[
		'a retention released by nothing',
		'update retentions set released_by_id = {plain} where released_by_id is null',
		/INV-/
	],
	[
		'a retention that a credit in part did not lower',
		'update retentions set amount = 2500 where document_id = {parts}',
		/INV-/
	],
	[
		'a retention of what was credited, gone',
		'delete from retentions where document_id = {parts}',
		/INV-/
	],
	[
		'a stage that a credit in part did not lower',
		'update stages set amount = 50000 where document_id = {parts}',
		/stage|INV-/
	],
	[
		'a part of a line credited beyond the line',
		"update documents set frozen = json_set(frozen, '$.corrects.parts[0].net', 99999) where id = {partNote}",
		/credited than it billed/
	],
	[
		'a replaced invoice that is not credited whole',
		'update documents set total = total - 1 where corrects_id = {wrong}',
		/not credited whole/
	],
	[
		'money that moved to a replacement, a penny less',
		'update transfers set amount = amount - 1 where to_id = {right}',
		/INV-/
	],
	['a retention gone', 'delete from retentions where document_id = {stage}', /INV-/],
	[
		'a retention still held that was released',
		'update retentions set released_by_id = null',
		/INV-/
	],
	[
		'a series that begins again',
		"update number_series set next = 8 where kind = 'invoice'",
		/invoice numbers/
	],
	[
		'another rate than it was issued at',
		"update documents set frozen = json_set(frozen, '$.exchange.rate', '0.9') where id = {euro}",
		/not at its rate/
	],
	[
		'other money turned into pounds',
		"update documents set currency = 'GBP' where id = {euro}",
		/not in the money it was frozen in/
	],
	[
		'what it comes to in pounds',
		'update documents set total_sterling = total_sterling + 1 where id = {euro}',
		/pence do not add up/
	],
	[
		'sales in pounds moved to VAT',
		"update journal_lines set sterling = sterling + case account when 'sales' then -1 else 1 end where document_id = {euro} and account in ('sales', 'vatOutput')",
		/other pence of its sales/
	],
	[
		'what is owed at another rate, the difference hidden',
		"update journal_lines set sterling = sterling + case account when 'receivable' then -1 else 1 end where entry_id = (select entry_id from journal_lines where account = 'exchange' and document_id = {euro} limit 1) and account in ('receivable', 'exchange')",
		/not its rate/
	],
	[
		'what the bank gave for other money',
		"update payments set amount_sterling = amount_sterling + 1 where currency = 'EUR'",
		/at the bank/
	],
	[
		'what left the bank for other money',
		'update refunds set amount_sterling = 8999 where document_id = {euro}',
		/at the bank/
	],
	[
		'a payment in euro called one in dollars',
		"update payments set currency = 'USD' where currency = 'EUR'",
		/in other money/
	],
	[
		'what other books had as income called ours',
		"update journal_lines set account = 'sales' where account = 'opening' and document_id = {carried}",
		/OLD-2: the journal/
	],
	[
		'VAT that was returned, to be returned again',
		"update journal_lines set account = 'vatOutput' where account = 'opening' and document_id = {returned} and amount < 0",
		/OLD-1: the journal/
	],
	[
		'what was paid in other books called money at the bank',
		"update journal_lines set account = 'bank' where account = 'opening' and document_id = {returned} and amount > 0",
		/payment/
	],
	[
		'an entry of the journal gone',
		'delete from journal_lines where entry_id = 3; delete from journal_entries where id = 3',
		/journal entries are missing between 2 and 4/
	],
	[
		'the last entry of the journal gone',
		'delete from journal_lines where entry_id = (select max(id) from journal_entries); delete from journal_entries where id = (select max(id) from journal_entries)',
		/journal entries are missing/
	],
	[
		'something taken back that is here',
		"insert into taken_back (what, row_id, name, at) values ('document', {carried}, 'OLD-2', 0)",
		/was taken back, and is here/
	],
	['a text gone', 'delete from texts where document_id = {plain}', /INV-0007/],
	['a message gone', 'delete from mails where document_id = {late}', /INV-/],
	['a message sent at no time', "update mails set sent_at = null where state = 'sent'", /message/]
];

describe('an error in a data file', () => {
	before(async () => {
		books = await richBooks();
		const db = books.world.db.$client;
		const triggers = db
			.prepare("select name from sqlite_master where type = 'trigger'")
			.pluck()
			.all();
		for (const name of triggers) db.exec(`drop trigger ${String(name)}`);
		db.pragma('foreign_keys = OFF');
		db.function('sha256', (text) =>
			createHash('sha256')
				.update(text as Buffer)
				.digest('hex')
		);
	});
	after(() => books.world.end());

	it('is none to begin with', () => expect(auditBooks(books.world.db.$client)).to.deep.equal([]));

	for (const [what, change, named = /./] of ERRORS)
		it(`is found: ${what}`, () => {
			const db = books.world.db.$client;
			const text = change.replace(/\{(\w+)\}/g, (_, name: keyof RichBooks['ids']) =>
				String(books.ids[name])
			);
			db.exec('savepoint error');
			try {
				const changes = db.prepare('select total_changes()').pluck();
				const before = changes.get() as number;
				db.exec(text);
				expect(changes.get(), 'it changed nothing').to.be.above(before);
				const found = auditBooks(db);
				expect(found.join('\n'), 'found').to.match(named);
			} finally {
				db.exec('rollback to error; release error');
			}
		});
});
