// What each list asks, shows, begins with and does: written out, so that a field that is lost, turned or misnamed is seen.
// Over 300 lines: it is one table.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { ACTIONS } from '../../../../src/lib/core/lists/actions';
import { LISTS, pathOfList } from '../../../../src/lib/core/lists/all';
import { LIST_NAMES, type ListField, type ListSpec } from '../../../../src/lib/core/lists/types';

const WRITTEN = [
	`
invoices: one document, two documents; by -issued; actions
  customer: customer | Customer | text names
  number: number | Number | text
  kind: kind | Kind | choice (invoice, creditNote=credit note)
  state: state | State | choice (draft, open, partPaid=part paid, paid, credited, writtenOff=written off, creditNote=credit note) no order
  issued: issued | Issued | day
  due: due | Due | day
  late: days late | Days late | number
  total: amount | Amount, £ | money sum
  open: open | Open, £ | money sum
  toPay: still to pay | To pay, £ | money sum
  money: in other money | In other money | text no order
  paidOn: settled | Settled on | day
  settled: settlement | Settled | text no filter no order
  sent: sent | Sent | yes
  opened: opened | Opened | day moment
  reminded: reminded | Reminded | day moment
  disputed: disputed | Disputed | yes
  promised: promised | Promised for | day
  workKind: kind of work | Kind of work | text
  income: income category | Income category | text no order
  centre: cost centre | Cost centre | text no order
  label: label | Labels | text no order
  customerLabel: customer’s label | Customer’s labels | text no order
  reference: reference | Reference | text
  order: order number | Order number | text
  selfBilled: self-billed | Self-billed | yes no column
  shown: customer number issued total settled state
  view all, All:
  view draft, Drafts: state.is.draft
  view unpaid, Unpaid: state.is.open,partPaid by due
  view late, Late: state.is.open,partPaid late.least.1 by due
  view unsent, Not sent yet: state.is.open,partPaid sent.no
  view paid, Paid: state.is.paid
  view credited, Credited: state.is.credited,creditNote
  can remind, Remind: Remind about 3 of them; reminded
  can send, Send: Send 3 of them by e-mail; sent
  can markSent, Mark as sent: Mark 3 of them as sent; marked as sent
  can pay (asks day, way), Record as paid: Record that 3 of them were paid in full; recorded as paid; Each payment can be taken back on its invoice.
  can moveDue (asks day), Change the due day: Make 3 of them due on that day; given that due day
  can label (asks label), Label: Label 3 of them; labelled
  can unlabel (asks label), Take a label off: Take it off 3 of them; freed of it
  can discard, Delete drafts: Delete 3 of them; deleted; Each can be brought back from its own page.
`,
	`
jobs: one job, two jobs; by -number; actions
  title: title | Job | text names
  number: number | Number | text
  customer: customer | Customer | text
  site: site | Site | text
  standing: state | State | choice (enquiry=Enquiry, toBook=To book, booked=Booked, underWay=Under way, finished=Finished, billed=Billed, paid=Paid, dropped=Cancelled) no order
  workKind: kind of work | Kind of work | text
  label: label | Labels | text no order
  begun: begun | Begun | day moment
  visit: next visit | Next visit | day
  finished: finished | Finished | day
  billed: billed, without VAT | Billed, without VAT, £ | money sum
  fixed: priced as agreed | Price agreed | yes
  shown: title customer workKind standing finished billed
  view all, All: standing.not.dropped
  view going, Going on: standing.is.toBook,booked,underWay
  view toBill, Finished, not billed: standing.is.finished by finished
  view done, Billed: standing.is.billed,paid
  can label (asks label), Label: Label 3 of them; labelled
  can unlabel (asks label), Take a label off: Take it off 3 of them; freed of it
`,
	`
customers: one customer, two customers; by name; actions
  name: name | Name | text names
  kind: kind | Kind | choice (household, business, contractor)
  email: e-mail | E-mail | text
  phone: phone | Phone | text
  address: address | Address | text
  label: label | Labels | text no order
  open: open | Open, £ | money sum
  late: late | Late, £ | money sum
  billed: billed, without VAT | Billed, without VAT, £ | money sum
  last: last invoice | Last invoice | day
  added: added | Added | day moment
  archived: archived | Archived | yes
  shown: name kind phone open late last
  view all, All: archived.no
  view owing, Owing: archived.no open.least.1 by -open
  view late, Late: archived.no late.least.1 by -late
  view archived, Archived: archived.yes
  can label (asks label), Label: Label 3 of them; labelled
  can unlabel (asks label), Take a label off: Take it off 3 of them; freed of it
  can archive, Archive: Archive 3 of them; archived
  can bringBack, Take back into use: Take 3 of them back; in use again
`,
	`
payments: one payment, two payments; by -date
  payer: payer | From | text names
  date: date | Date | day
  amount: amount | Amount, £ | money sum
  way: way | How | choice (bank=bank transfer, cash, cheque, card)
  reference: reference | Reference | text
  paid: paid for | For | text no order
  inHand: not used yet | In hand, £ | money sum
  fee: fee | Fee, £ | money sum
  given: given back | Given back, £ | money sum
  recorded: recorded | Recorded | day moment
  shown: payer date way paid amount inHand
  view all, All:
  view card, By card: way.is.card
  view inHand, Not used yet: inHand.least.1
  view given, Given back: given.least.1
`,
	`
costs: one cost, two costs; by -date; actions
  what: what | What | text names
  date: date | Date | day
  supplier: supplier | From | text
  number: their number | Their number | text
  kind: kind | Kind | choice (bill, credit, mileage)
  category: for | For | choice (goods=goods and materials, subcontractors=subcontractors (construction), wages=wages and staff, travel=car, van and travel, premises=rent, rates, power and insurance, repairs=repairs of property and equipment, office=phone, stationery and office, advertising, interest=interest on loans, charges=bank and card charges, professional=accountant and other fees, other=everything else)
  centre: cost centre | Cost centre | text
  job: job | Job | text
  net: without VAT | Without VAT, £ | money sum
  vat: VAT | VAT, £ | money sum
  gross: in all | In all, £ | money sum
  reclaim: VAT reclaimed | VAT reclaimed | yes
  paid: paid | Paid | day
  unpaid: not paid yet | Not paid yet | yes no column
  receipt: receipt | Receipt | yes
  charged: charged on | Charged on | yes
  shown: what date supplier category job gross paid
  view all, All:
  view unpaid, Not paid yet: unpaid.yes by date
  view bare, Without a receipt: receipt.no kind.not.mileage
  view mileage, Mileage: kind.is.mileage
  can costPaid (asks day), Mark as paid: Say that 3 of them were paid; marked as paid
  can removeCost, Delete: Delete 3 of them; deleted; Each can be brought back from its own page.
`,
	`
prices: one entry, two entries; by name; actions
  name: name | Entry | text names
  code: code | Code | text
  kind: kind | Kind | choice (labour, travel, other, materials, consumables, plantHire=plant hire, fuel=fuel for plant, prefabrication, levy=CITB levy)
  category: category | Category | text
  unit: unit | Unit | text
  price: price | Price, £ | money
  withVat: price with VAT | With VAT | yes
  cost: cost | Costs you, £ | money
  vat: VAT | VAT | choice (standard, reduced, zero=0 %, exempt, outside=outside UK, noSupply=no VAT)
  kit: a kit | Kit | yes
  used: times used | Used | number
  changed: changed | Changed | day moment
  archived: archived | Archived | yes
  shown: name code category unit price cost used
  view all, All: archived.no
  view kits, Kits: archived.no kit.yes
  view unused, Never used: archived.no used.most.0
  view archived, Archived: archived.yes
  can archive, Archive: Archive 3 of them; archived
  can bringBack, Take back into use: Take 3 of them back; in use again
`,
	`
messages: one message, two messages; by -written; actions
  to: to | To | text names
  written: written | Written | day moment
  subject: subject | Subject | text
  as: as | As | choice (mail=e-mail, text)
  kind: about | About | choice (invoice=an invoice, creditNote=a credit note, statement=a statement, reminder=a reminder, receipt=a receipt, quote=a quote, deposit=a deposit, visit=a visit, jobSheet=a job sheet, enquiry=an enquiry, paidNotice=news of a payment, quoteNews=news of a quote, enquiryNews=news of an enquiry, signed=news of a signature, textReply=an answer by text, notice=a notice to you, trial=a test)
  state: state | State | choice (queued=waiting, sending=going out, sent, failed=not arrived, unsure=perhaps sent, withdrawn=taken back)
  went: sent | Sent | day moment
  document: document | Document | text no order
  trouble: what went wrong | What went wrong | text
  shown: to subject kind state written
  view all, All:
  view waiting, Waiting: state.is.queued,sending
  view failed, Not arrived: state.is.failed,unsure
  view texts, Texts: as.is.text
  can again, Send again: Send 3 of them again; queued again
`,
	`
quotes: one quote, two quotes; by -sent
  title: what | What | text names
  number: number | Number | text
  customer: customer | Customer | text
  state: state | State | choice (draft, sent=out, expired, accepted, declined, withdrawn, cancelled)
  total: amount | Amount, £ | money sum
  lowest: at the least | At the least, £ | money sum
  highest: at the most | At the most, £ | money sum
  sent: sent | Sent | day moment
  opened: opened | Opened | day moment
  until: holds until | Holds until | day
  answered: answered | Answered | day moment
  acceptedBy: accepted by | Accepted by | text
  way: accepted how | Accepted how | choice (page=on its page, spot=on the spot, byHand=written down)
  agreed: agreed on | Agreed on | day
  question: question open | Question open | yes
  reason: reason | Reason | text no order
  workKind: kind of work | Kind of work | text
  source: how they found us | How they found us | text
  job: job | Job | text
  shown: title number customer total sent until state
  view all, All:
  view draft, Drafts: state.is.draft
  view out, Out: state.is.sent by until
  view accepted, Accepted: state.is.accepted
  view lost, Not taken: state.is.declined,expired,withdrawn,cancelled
`,
	`
enquiries: one enquiry, two enquiries; by -came
  name: who | Who | text names
  what: what | What | text no order
  place: where | Where | text
  wanted: by when | By when | text
  source: how they found us | How they found us | text
  workKind: kind of work | Kind of work | text
  came: came | Came | day moment
  moved: last answer | Last answer | day moment
  way: through | Through | choice (hand=your hand, page=your page)
  state: state | State | choice (open=not answered, answered, visit=to look at, quoted, job=a job, closed=came to nothing)
  reason: reason | Reason | text no order
  shown: name what workKind source came state
  view live, Going on: state.is.open,answered,visit,quoted
  view all, All:
  view open, Not answered: state.is.open
  view closed, Came to nothing: state.is.closed
`,
	`
visits: one visit, two visits; by -date
  title: job | What | text names
  date: day | Day | day
  from: from | From | text no order
  to: to | To | text no order
  person: who goes | Who goes | text
  customer: customer | Customer | text
  place: where | Where | text
  number: job number | Job | text
  done: done | Done | yes
  pencil: pencilled in | Pencilled in | yes
  told: customer told | Customer told | yes
  confirmed: confirmed by the customer | Confirmed | yes
  note: note | Note | text no order
  shown: title date from person customer place done
  view all, All:
  view coming, To come: done.no by date
  view untold, Nobody told: done.no told.no by date
`,
	`
sheets: one job sheet, two job sheets; by -finished
  number: number | Number | text names
  title: job | Job | text
  customer: customer | Customer | text
  finished: finished | Finished | day
  signed: signed | Signed | yes
  signedBy: signed by | Signed by | text
  signedAt: signed on | Signed on | day moment
  sent: sent | Sent | yes
  shown: number title customer finished signedBy sent
  view all, All:
  view unsigned, Not signed: signed.no
`
];

const sorted = ({ field, down }: ListSpec['sort']) => `by ${down ? '-' : ''}${field}`;
/** id: its name in a sentence | at the head of its column | its type, its choices, what it is not. */
const fieldWords = (field: ListField) =>
	[
		`  ${field.id}: ${field.label}`,
		field.head ?? '-',
		[
			field.type,
			field.moment && 'moment',
			field.choices &&
				`(${Object.entries(field.choices)
					.map(([value, words]) => (value === words ? value : `${value}=${words}`))
					.join(', ')})`,
			field.column === false && 'no column',
			field.filter === false && 'no filter',
			field.sort === false && 'no order',
			field.sum && 'sum',
			field.names && 'names'
		]
			.filter(Boolean)
			.join(' ')
	].join(' | ');

const listWords = ({ name, words, sort, actions, fields, columns, views }: ListSpec) => [
	`${name}: one ${words[0]}, two ${words[1]}; ${sorted(sort)}${actions ? '; actions' : ''}`,
	...fields.map(fieldWords),
	`  shown: ${columns.join(' ')}`,
	...views.map(({ id, label, filters, sort: order }) =>
		[
			`  view ${id}, ${label}:`,
			...filters.map(({ field, how, value }) => `${field}.${how}${value && `.${value}`}`),
			...(order ? [sorted(order)] : [])
		].join(' ')
	),
	...ACTIONS[name].map(
		({ id, asks, label, does, done, undo }) =>
			`  can ${id}${asks ? ` (asks ${asks.join(', ')})` : ''}, ${label}: ${does('3 of them')}; ${done}${undo ? `; ${undo}` : ''}`
	)
];

describe('the lists', () => {
	for (const written of WRITTEN) {
		const lines = written.trim().split('\n');
		const name = lines[0]!.split(':')[0] as keyof typeof LISTS;
		it(`of ${name} are what is written here`, () =>
			expect(listWords(LISTS[name])).to.deep.equal(lines));
	}

	it('are all of them, each at its place', () => {
		expect(WRITTEN).to.have.length(LIST_NAMES.length);
		expect(Object.keys(LISTS)).to.deep.equal([...LIST_NAMES]);
		expect(pathOfList('invoices')).to.equal('/billing');
		expect(pathOfList('jobs')).to.equal('/lists/jobs');
	});

	it('ask, show and put in order only what they have, and one field names the row', () => {
		for (const { name, fields, columns, views, sort } of Object.values(LISTS)) {
			const ids = fields.map((field) => field.id);
			const columned = fields.filter((field) => field.column !== false).map((field) => field.id);
			expect(new Set(ids).size, name).to.equal(ids.length);
			expect(columned, name).to.include.members([...columns]);
			for (const view of [{ filters: [], sort }, ...views]) {
				expect(ids, name).to.include.members(view.filters.map(({ field }) => field));
				if (view.sort) expect(columned, name).to.include(view.sort.field);
			}
			expect(
				fields.filter((field) => field.names).map((field) => field.id),
				name
			).to.deep.equal([columns[0]]);
		}
	});
});
