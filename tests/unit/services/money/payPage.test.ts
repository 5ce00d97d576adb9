// What a customer's page says of an invoice: whether it is late, what is left to pay, and that it was opened.
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../../src/lib/core/calendar/conversion';
import { NotFoundError } from '../../../../src/lib/core/refusals';
import { documents, trail } from '../../../../src/lib/server/db/schema';
import { addFile, changeFile } from '../../../../src/lib/server/services/files/files';
import { creditInvoice } from '../../../../src/lib/server/services/invoices/creditNote';
import { issueInvoice } from '../../../../src/lib/server/services/invoices/issue';
import { tryOut } from '../../../../src/lib/server/services/invoices/trial';
import {
	fileBehindLink,
	noteOpened,
	payPage,
	payPagePdf
} from '../../../../src/lib/server/services/money/payPage';
import { writeOff } from '../../../../src/lib/server/services/money/writeOffs';
import { FIRM, oneLine, payByHand } from '../../../support/money';
import { draftOf, issued, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => world.end());
const tokenOf = (id: number) =>
	world.db.select().from(documents).where(eq(documents.id, id)).get()!.token!;
const at = (moment: string) => world.clock.set(londonMoment(moment));
/** 120.00, issued on 24 November and due 14 days later. */
const invoice = () => issued(world, { ...FIRM, termsDays: 14 }, oneLine('100'));

describe('the page of an invoice', () => {
	it('calls it late from the day after it was due, and no longer once it is paid', async () => {
		const { id } = await invoice();
		const page = () => payPage(world, tokenOf(id));
		expect(page().due).to.deep.equal({ date: '2026-12-08', late: false });
		at('2026-12-08T23:00');
		expect(page()).to.deep.include({ toPay: 120_00, state: 'open' });
		expect(page().due!.late).to.equal(false);
		at('2026-12-09T00:30');
		expect(page().due!.late).to.equal(true);
		payByHand(world, id, '20', { date: '2026-12-08' });
		expect(page()).to.deep.include({ toPay: 100_00, paid: 20_00, state: 'open' });
		payByHand(world, id, '100', { date: '2026-12-08' });
		expect(page()).to.deep.include({ toPay: 0, paid: 120_00, state: 'paid' });
		expect(page().due!.late).to.equal(false);
	});

	it('is opened once a visit: again after ten minutes it is another', async () => {
		const { id } = await invoice();
		const opened = () =>
			world.db
				.select()
				.from(trail)
				.where(eq(trail.documentId, id))
				.all()
				.filter(({ what }) => what === 'opened').length;
		noteOpened(world, tokenOf(id), 'opened');
		at('2026-11-24T09:09');
		noteOpened(world, tokenOf(id), 'opened');
		expect(opened()).to.equal(1);
		at('2026-11-24T09:11');
		noteOpened(world, tokenOf(id), 'opened');
		expect(opened()).to.equal(2);
	});

	it('says that nothing is left where it was credited, or given up', async () => {
		const { id } = await invoice();
		await creditInvoice(world, id, 'Wrong house', 'credit');
		expect(payPage(world, tokenOf(id))).to.deep.include({
			toPay: 0,
			credited: 120_00,
			state: 'credited'
		});
		const note = world.db.select().from(documents).where(eq(documents.kind, 'creditNote')).get()!;
		expect(payPage(world, note.token!)).to.deep.include({
			kind: 'creditNote',
			state: 'credited',
			total: 0,
			due: null,
			mayBearFee: false
		});
		const other = await issued(world, FIRM, oneLine('50'));
		writeOff(world, other.id, 'They are gone', 'k');
		expect(payPage(world, tokenOf(other.id))).to.deep.include({ toPay: 0, state: 'paid' });
	});

	it('has its paper, that of a test while nothing is issued, and no other', async () => {
		const { id, number } = await invoice();
		const paper = payPagePdf(world, tokenOf(id));
		expect(paper.name).to.equal(`${number}.pdf`);
		const draft = draftOf(world, FIRM, oneLine('30'));
		const { link } = await tryOut(world, draft.id, 'try');
		const token = link.split('/').at(-1)!;
		expect(payPagePdf(world, token).name).to.equal('Test.pdf');
		expect(payPage(world, token)).to.deep.include({ trial: true, toPay: 36_00 });
		for (const wrong of ['', 'x', `${token.slice(1)}${token[0] === 'a' ? 'b' : 'a'}`]) {
			expect(() => payPagePdf(world, wrong), wrong).to.throw(NotFoundError);
			expect(() => fileBehindLink(world, wrong, 1, false), wrong).to.throw(NotFoundError);
		}
	});

	it('gives out the files that go with it, and those alone', async () => {
		const draft = draftOf(world, FIRM, oneLine('30'));
		const file = async (name: string) =>
			addFile(world, { to: 'document', id: draft.id }, name, Buffer.from(name));
		const [goes, stays] = [await file('goes.txt'), await file('stays.txt')];
		changeFile(world, goes, { goesOut: true });
		const { id } = await issueInvoice(world, draft.id, draft.version);
		const other = await invoice();
		expect(String(fileBehindLink(world, tokenOf(id), goes, false).content)).to.contain('goes.txt');
		expect(() => fileBehindLink(world, tokenOf(id), stays, false)).to.throw(NotFoundError);
		expect(() => fileBehindLink(world, tokenOf(other.id), goes, false)).to.throw(NotFoundError);
		expect(payPage(world, tokenOf(id)).files.map(({ name }) => name)).to.deep.equal(['goes.txt']);
	});

	it('is nobody’s for a link that is not exactly right', async () => {
		const token = tokenOf((await invoice()).id);
		for (const wrong of ['', token.slice(1), `${token}x`, token.toUpperCase() + token.slice(1)])
			expect(() => payPage(world, wrong)).to.throw(NotFoundError);
	});
});
