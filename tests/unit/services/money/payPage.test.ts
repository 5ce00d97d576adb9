// What a customer's page says of an invoice: whether it is late, what is left to pay, and that it was opened.
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../../src/lib/core/calendar/conversion';
import { NotFoundError } from '../../../../src/lib/core/refusals';
import { documents, trail } from '../../../../src/lib/server/db/schema';
import { noteOpened, payPage } from '../../../../src/lib/server/services/money/payPage';
import { FIRM, oneLine, payByHand } from '../../../support/money';
import { issued, makeWorld, type TestWorld } from '../../../support/world';

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

	it('is nobody’s for a link that is not exactly right', async () => {
		const token = tokenOf((await invoice()).id);
		for (const wrong of ['', token.slice(1), `${token}x`, token.toUpperCase() + token.slice(1)])
			expect(() => payPage(world, wrong)).to.throw(NotFoundError);
	});
});
