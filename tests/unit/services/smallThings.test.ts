// What saves a minute: an invoice out of one line, and back with what was removed.
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { quickLine, quickWords } from '../../../src/lib/core/quick';
import { asActor } from '../../../src/lib/server/actor';
import { bin, documents, jobLines, visits } from '../../../src/lib/server/db/schema';
import { bringBack } from '../../../src/lib/server/services/business/bin';
import { keepView, viewsOf, removeView } from '../../../src/lib/server/services/business/views';
import { addCustomer } from '../../../src/lib/server/services/customers/customers';
import { loadDraft, saveDraft } from '../../../src/lib/server/services/invoices/drafts';
import { beginQuick, quickOffers } from '../../../src/lib/server/services/invoices/quick';
import { addJob, removeJob } from '../../../src/lib/server/services/jobs/jobs';
import { removeVisit, saveVisit } from '../../../src/lib/server/services/jobs/visits';
import { FIRM } from '../../support/money';
import { HOUSEHOLD, makeWorld, type TestWorld } from '../../support/world';

let world: TestWorld;
let dairy: number;
let home: number;
beforeEach(() => {
	world = makeWorld();
	dairy = addCustomer(world, FIRM);
	home = addCustomer(world, { ...HOUSEHOLD, name: 'Ida Corvane' });
});
afterEach(() => world.end());

describe('one line', () => {
	it('is read as quantity, unit, words and price, as far as it has them', () => {
		const read = (typed: string) => {
			const { what: _what, ...line } = quickLine('invoice', typed.split(' ').filter(Boolean));
			return Object.values(line).join(' | ');
		};
		expect(read('3 h repair 45')).to.equal('3 | hour | Repair | 45');
		expect(read('2.5h lime wash at £38.50')).to.equal('2.5 | hour | Lime wash | 38.50');
		expect(read('12 m² skim @9')).to.equal('12 | m² | Skim | 9');
		expect(read('4 bags 6')).to.equal('4 | bag |  | 6');
		expect(read('damp survey 180')).to.equal('1 |  | Damp survey | 180');
		expect(read('3 windows')).to.equal('3 |  | Windows | ');
		expect(read('')).to.equal('1 |  |  | ');
	});

	it('begins with what it begins, and is none otherwise', () => {
		expect(quickWords(' Invoice corvane 3 ')).to.deep.equal({
			what: 'invoice',
			words: ['corvane', '3']
		});
		expect(quickWords('job x')!.what).to.equal('job');
		for (const typed of ['', 'invoice', 'invoices due', 'corvane invoice'])
			expect(quickWords(typed), typed).to.equal(null);
	});

	it('names its customer by the longest beginning that fits somebody, each word by its beginning', () => {
		const offers = quickOffers(world, 'invoice corv dairy 3 h repair 45');
		expect(offers.map(({ customerId }) => customerId)).to.deep.equal([dairy]);
		expect(offers[0]).to.deep.include({
			quantity: '3',
			unit: 'hour',
			description: 'Repair',
			unitPrice: '45'
		});
		const both = quickOffers(world, 'invoice corvane dusting 20');
		expect(both.map(({ customerId }) => customerId)).to.have.members([dairy, home]);
		expect(quickOffers(world, 'invoice orvane 20')).to.deep.equal([]);
		expect(quickOffers(world, "invoice %' 20")).to.deep.equal([]);
	});

	it('begins an invoice once, with VAT in the price for a household', () => {
		const typed = 'invoice ida corvane 3 h repair 45';
		const press = { key: 'quick-press', customerId: home, typed };
		const href = beginQuick(world, press);
		const id = Number(href.split('/').at(-1));
		const { sheet, total, version } = world.db
			.select()
			.from(documents)
			.where(eq(documents.id, id))
			.get()!;
		expect([sheet.pricesIncludeVat, total]).to.deep.equal([true, 135_00]);
		saveDraft(world, id, version, { ...sheet, note: 'Changed since' });
		expect(beginQuick(world, press)).to.equal(href);
		expect(loadDraft(world.db, id).sheet.note).to.equal('Changed since');
		expect(() => beginQuick(world, { ...press, customerId: dairy })).to.throw();
	});

	it('begins a job with its line, or with its title alone', () => {
		const job = (typed: string, key: string) =>
			Number(beginQuick(world, { key, customerId: dairy, typed }).split('/').at(-1));
		const lines = (id: number) =>
			world.db.select().from(jobLines).where(eq(jobLines.jobId, id)).all();
		expect(lines(job('job corvane dairy 2 d render 320', 'quick-j1'))).to.have.length(1);
		expect(lines(job('job corvane dairy gutters', 'quick-j2'))).to.have.length(0);
	});
});

describe('what was removed', () => {
	const visit = () => {
		const job = addJob(world, 'j', { title: 'Hall', customerId: dairy });
		saveVisit(world, job, null, { date: '2026-11-30', from: '09:30', note: 'Key next door' });
		return { job, row: world.db.select().from(visits).get()! };
	};

	it('comes back as it was, once', () => {
		const { job, row } = visit();
		const place = removeVisit(world, job, row.id)!;
		expect(world.db.select().from(visits).all()).to.deep.equal([]);
		bringBack(world, place);
		expect(world.db.select().from(visits).all()).to.deep.equal([row]);
		expect(() => bringBack(world, place)).to.throw();
		expect(removeVisit(world, job, 999)).to.equal(null);
	});

	it('comes back for nobody else, not after half a day, and not where it fits no more', () => {
		const { job, row } = visit();
		const place = removeVisit(world, job, row.id)!;
		expect(() =>
			asActor({ id: 2, role: 'office' } as never, () => bringBack(world, place))
		).to.throw();
		removeJob(world, job);
		expect(() => bringBack(world, place)).to.throw('fits no more');
		keepView(world, 'jobs', 'Late ones', 'state=late');
		const [view] = viewsOf(world.db, 'jobs');
		removeView(world, 'jobs', view!.id);
		expect(world.db.select().from(bin).all()).to.have.length(2);
		world.clock.set(world.clock.now() + 13 * 3_600_000);
		keepView(world, 'jobs', 'Others', 'state=late');
		removeView(world, 'jobs', viewsOf(world.db, 'jobs')[0]!.id);
		expect(world.db.select().from(bin).all()).to.have.length(1);
	});
});

describe('a view that was kept', () => {
	const as = <T>(id: number, role: 'owner' | 'office', work: () => T): T =>
		asActor({ id, name: 'Joss', role, seesPrices: false }, work);
	const seen = (id: number, role: 'owner' | 'office') =>
		as(id, role, () => viewsOf(world.db, 'jobs').map(({ name, mine }) => [name, mine]));

	it('is one’s own unless it is shared; only who kept it, or the owner, takes it away', () => {
		as(2, 'office', () => {
			keepView(world, 'jobs', 'Mine', 'a=1');
			keepView(world, 'jobs', 'Ours', 'b=1', true);
		});
		// The same name is somebody else's own.
		as(3, 'office', () => keepView(world, 'jobs', 'Mine', 'c=1'));
		expect(seen(2, 'office')).to.deep.equal([
			['Mine', true],
			['Ours', true]
		]);
		expect(seen(3, 'office')).to.deep.equal([
			['Ours', false],
			['Mine', true]
		]);
		expect(seen(1, 'owner')).to.deep.equal([['Ours', true]]);
		const id = (name: string) =>
			(
				world.db.$client.prepare('select id from list_views where name = ?').get(name) as {
					id: number;
				}
			).id;
		as(3, 'office', () => expect(removeView(world, 'jobs', id('Ours'))).to.equal(null));
		as(1, 'owner', () => expect(removeView(world, 'jobs', id('Mine'))).to.equal(null));
		as(1, 'owner', () => expect(removeView(world, 'jobs', id('Ours'))).to.be.a('number'));
		// Kept again by who shared it, it is no longer shared where that is not ticked.
		as(2, 'office', () => keepView(world, 'jobs', 'Ours', 'b=1', true));
		as(2, 'office', () => keepView(world, 'jobs', 'Ours', 'b=2'));
		expect(seen(3, 'office')).to.deep.equal([['Mine', true]]);
	});
});
