// The owner's own words: in every message they are for, refused where they could not go out, and the standard had back.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { eq } from 'drizzle-orm';
import { ConflictError, FieldError, NotFoundError } from '../../../../src/lib/core/refusals';
import { WORDINGS } from '../../../../src/lib/core/wordings/kinds';
import { customers, mails } from '../../../../src/lib/server/db/schema';
import { prepareSending, queueIssued } from '../../../../src/lib/server/services/invoices/send';
import { recordPayment } from '../../../../src/lib/server/services/money/payments';
import { queueReceipt } from '../../../../src/lib/server/services/money/receipts';
import { fieldsFor, somethingReal } from '../../../../src/lib/server/services/desk/wordingPreview';
import {
	listWordings,
	loadWording,
	readKind,
	restoreWording,
	saveWording
} from '../../../../src/lib/server/services/wordings/wordings';
import { HOUSEHOLD, issued, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => world.end());

const refused = (kind: Parameters<typeof saveWording>[1], subject: string, text: string) => {
	try {
		saveWording(world, kind, 0, { subject, text });
	} catch (error) {
		if (error instanceof FieldError) return error.fields;
		throw error;
	}
	return {};
};

describe('the owner’s own words', () => {
	it('are what an invoice, its text and its receipt say, greeted as the customer wishes', async () => {
		const { id, customerId } = await issued(world, HOUSEHOLD);
		world.db
			.update(customers)
			.set({ salutation: 'Dear Mrs Brancaster', email: 'odile@brancaster.example' })
			.where(eq(customers.id, customerId))
			.run();
		saveWording(world, 'invoice', 0, {
			subject: 'Your bill {number}',
			text: '{greeting},\n\n{amount}{order}: {link}\n\n{why}'
		});
		saveWording(world, 'text', 0, { subject: '', text: '{from} asks for {left} {link}' });
		saveWording(world, 'receipt', 0, { subject: 'Thanks', text: '{greeting}, {paid} {what}' });
		const sent = prepareSending(world, id);
		expect([sent.subject, sent.text, sent.words]).to.deep.equal([
			'Your bill INV-0007',
			'Dear Mrs Brancaster,\n\n£2,760.00: {link}',
			'Orrell Lime & Plaster asks for £2,760.00 {link}'
		]);
		world.db.transaction((tx) => queueIssued(tx, world, id, { key: 'k', who: 'you' }));
		const payment = recordPayment(world, id, {
			key: 'p',
			amount: '50',
			date: world.clock.today(),
			way: 'bank',
			reference: '',
			withheld: ''
		} as Parameters<typeof recordPayment>[2]);
		world.db.transaction((tx) => queueReceipt(tx, world, payment));
		expect(
			world.db
				.select({ kind: mails.kind, subject: mails.subject, text: mails.text })
				.from(mails)
				.all()
				.map(({ kind, subject, text }) => [kind, subject, text.split('\n')[0]])
		).to.deep.equal([
			['invoice', 'Your bill INV-0007', 'Dear Mrs Brancaster,'],
			['receipt', 'Thanks', 'Dear Mrs Brancaster, £50.00 for invoice INV-0007']
		]);
	});

	it('are refused at their box: no field, no subject, no link in a text', () => {
		expect(refused('invoice', '{price}', 'x')).to.have.all.keys('subject');
		expect(refused('invoice', '', ' ')).to.have.all.keys('subject', 'text');
		expect(refused('invoice', 'See {link}', 'x')).to.have.all.keys('subject');
		expect(refused('statement', 'x', '{number}').text).to.include('{number}');
		expect(refused('text', '', 'no address').text).to.include('Keep {link}');
		expect(refused('receipt', 'x'.repeat(301), 'x'.repeat(20_001))).to.have.all.keys(
			'subject',
			'text'
		);
		expect(listWordings(world.db).some(({ own }) => own)).to.equal(false);
		expect(() => readKind('poem')).to.throw(NotFoundError);
	});

	it('give way to the standard ones, and notice another tab', () => {
		saveWording(world, 'statement', 0, { subject: 'One', text: 'One' });
		expect(() => saveWording(world, 'statement', 0, { subject: 'Two', text: 'Two' })).to.throw(
			ConflictError
		);
		saveWording(world, 'statement', 1, { subject: 'Two', text: 'Two' });
		expect(loadWording(world.db, 'statement')).to.deep.include({ subject: 'Two', version: 2 });
		// Saying what the standard says follows it from then on.
		saveWording(world, 'statement', 2, WORDINGS.statement.standard);
		expect(loadWording(world.db, 'statement').version).to.equal(0);
		saveWording(world, 'statement', 0, { subject: 'Three', text: 'Three' });
		restoreWording(world, 'statement');
		expect(loadWording(world.db, 'statement').text).to.equal(WORDINGS.statement.standard.text);
	});

	it('are seen with something real before they go out, or with an example', async () => {
		expect(fieldsFor(world, 'invoice', null).number).to.equal('INV-0007');
		expect(somethingReal(world.db, 'invoice', '')).to.deep.equal([]);
		const { id, customerId } = await issued(world, HOUSEHOLD);
		const [first] = somethingReal(world.db, 'invoice', 'inv-0007');
		expect(first).to.include({ id, title: 'INV-0007' });
		expect(somethingReal(world.db, 'creditNote', '')).to.deep.equal([]);
		expect(somethingReal(world.db, 'statement', '').map((one) => one.id)).to.deep.equal([
			customerId
		]);
		expect(fieldsFor(world, 'invoice', id)).to.include({ number: 'INV-0007', left: '£2,760.00' });
		expect(fieldsFor(world, 'statement', customerId)).to.include({ sum: '£2,760.00 is to pay.' });
		for (const kind of ['invoice', 'receipt', 'statement'] as const)
			expect(() => fieldsFor(world, kind, 9_999), kind).to.throw(NotFoundError);
	});
});
