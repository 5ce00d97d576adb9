// What a contractor wrote in our name: recorded under its number, settled as any invoice, and sent to nobody.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { FieldError, RefusedError } from '../../../../src/lib/core/refusals';
import { deliverDue } from '../../../../src/lib/server/clockwork/delivery';
import { loadSeries } from '../../../../src/lib/server/services/business/series';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { documentDetail } from '../../../../src/lib/server/services/desk/documents';
import { correctAsDraft } from '../../../../src/lib/server/services/invoices/corrections';
import { creditInvoice } from '../../../../src/lib/server/services/invoices/creditNote';
import {
	beginInvoice,
	beginSelfBilled,
	copyAsDraft,
	loadDraft,
	saveDraft
} from '../../../../src/lib/server/services/invoices/drafts';
import { NotReadyError } from '../../../../src/lib/server/services/invoices/freeze';
import { issueInvoice } from '../../../../src/lib/server/services/invoices/issue';
import { sendByMail } from '../../../../src/lib/server/services/invoices/send';
import { expectSoundBooks } from '../../../support/books';
import { itemOf, payByHand } from '../../../support/money';
import {
	CONTRACTOR,
	HOUSEHOLD,
	issued,
	line,
	makeWorld,
	type TestWorld
} from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

function theirs(number: string, customer: object = CONTRACTOR, key = number): number {
	const id = beginSelfBilled(world, `sb-${key}`);
	const { sheet } = loadDraft(world.db, id);
	saveDraft(world, id, 1, {
		...sheet,
		customerId: addCustomer(world, customer as typeof CONTRACTOR),
		contract: 'construction',
		issueDate: '20 Nov 2026',
		selfBilled: { number, agreedOn: '1 Apr 2026' },
		rows: [line('a', 'Render', '1000')]
	});
	return id;
}
const issue = (id: number) => issueInvoice(world, id, loadDraft(world.db, id).version);

describe('a self-billed invoice', () => {
	it('has their number and takes none of ours', async () => {
		const next = loadSeries(world.db, 'invoice').next;
		const { id, number } = await issue(theirs('SB/2026/14'));
		expect([number, loadSeries(world.db, 'invoice').next]).to.deep.equal(['SB/2026/14', next]);
		const { view, figures } = documentDetail(world, id);
		expect([view.title, view.bank, view.banner]).to.deep.equal([
			'Self-billed invoice',
			null,
			`Our record of what ${CONTRACTOR.name} wrote: not a VAT invoice of ours`
		]);
		expect([figures.vatReverseCharged, figures.cis?.deduction]).to.deep.equal([200_00n, 200_00n]);
		payByHand(world, id, '800.00');
		expect(itemOf(world, id)).to.include({ state: 'paid', withheld: 200_00, reached: true });
		expect((await issued(world, HOUSEHOLD)).number).to.equal('INV-0007');
	});

	it('may have a number of ours, and one of another contractor’s, but of one contractor each once', async () => {
		await issue(theirs('INV-0007'));
		expect((await issued(world, HOUSEHOLD)).number).to.equal('INV-0007');
		const other = theirs('INV-0007', { ...CONTRACTOR, name: 'Quarrel & Sons Ltd' }, 'other');
		await issue(other);
		const again = beginSelfBilled(world, 'again');
		const { customerId } = loadDraft(world.db, other);
		saveDraft(world, again, 1, { ...loadDraft(world.db, other).sheet, customerId });
		const problem = await issue(again).catch((error: unknown) => error);
		expect(problem).to.be.instanceOf(RefusedError);
		expect(String(problem)).to.include('recorded already');
	});

	it('goes out to nobody, and is not ours to correct; a copy of it is an ordinary invoice', async () => {
		const { id } = await issue(theirs('SB-1'));
		expect(() =>
			sendByMail(world, id, {
				key: 'k',
				to: 'a@b.example',
				subject: 's',
				text: 't',
				copyToSelf: false
			})
		).to.throw(RefusedError);
		await deliverDue(world);
		expect(world.sent).to.deep.equal([]);
		expect(() => correctAsDraft(world, id, 'c')).to.throw(RefusedError);
		expect(loadDraft(world.db, copyAsDraft(world, id, 'copy')).sheet.selfBilled).to.equal(
			undefined
		);
		expect((await creditInvoice(world, id, 'Their credit note SB-2', 'x')).number).to.equal(
			'CN-0001'
		);
	});

	it('wants their number, is no household’s, and what is ours never becomes theirs', async () => {
		const blank = await issue(theirs(' ')).catch((error: unknown) => error);
		expect((blank as NotReadyError).problems.map(({ path }) => path)).to.deep.equal([
			'selfBilled.number'
		]);
		const home = await issue(theirs('H', HOUSEHOLD)).catch((error: unknown) => error);
		expect((home as NotReadyError).problems.map(({ path }) => path)).to.include('customer');
		const own = beginInvoice(world, 'own');
		const { sheet } = loadDraft(world.db, own);
		expect(() =>
			saveDraft(world, own, 1, { ...sheet, selfBilled: { number: 'X', agreedOn: '' } })
		).to.throw(FieldError);
	});
});
