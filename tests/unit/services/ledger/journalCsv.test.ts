// The journal as a spreadsheet reads it: a posting a line, debit or credit, in pounds and pence.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { londonMoment } from '../../../../src/lib/core/calendar/conversion';
import { addJob } from '../../../../src/lib/server/services/jobs/jobs';
import { moveJob } from '../../../../src/lib/server/services/jobs/states';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { issueInvoice } from '../../../../src/lib/server/services/invoices/issue';
import { billJob } from '../../../../src/lib/server/services/billing/toBill';
import { journalCsv } from '../../../../src/lib/server/services/ledger/journalCsv';
import { FIRM, oneLine, payByHand } from '../../../support/money';
import { expectSoundBooks } from '../../../support/books';
import { issued, makeWorld } from '../../../support/world';

const HEAD = 'Date,Event,Document,Customer,Job,Account,Debit,Credit,Tax point';

describe('the journal as CSV', () => {
	it('has each posting with its names, to the penny, and no formula', async () => {
		const world = makeWorld();
		// 1.05 and 20 % of it, 0.21.
		const { id } = await issued(world, { ...FIRM, name: '=Corvane' }, oneLine('1.05'));
		world.clock.set(londonMoment('2026-11-26T09:00'));
		payByHand(world, id, '0.05', { date: '2026-11-25', way: 'bank' });
		const rows = [...journalCsv(world.db)].join('').trimEnd().split('\n');
		expect(rows[0]).to.equal(HEAD);
		expect([...rows.slice(1)].sort()).to.deep.equal(
			[
				"2026-11-24,issue,INV-0007,'=Corvane,,receivable,1.26,,",
				"2026-11-24,issue,INV-0007,'=Corvane,,sales,,1.05,",
				"2026-11-24,issue,INV-0007,'=Corvane,,vatOutput,,0.21,2026-11-24",
				"2026-11-25,payment,INV-0007,'=Corvane,,bank,0.05,,",
				"2026-11-25,payment,INV-0007,'=Corvane,,receivable,,0.05,"
			].sort()
		);
		expectSoundBooks(world.db);
		world.end();
	});

	it('names the job of a sale, and keeps to the days it is asked for', async () => {
		const world = makeWorld();
		const jobId = addJob(world, 'j', {
			title: 'Gable',
			customerId: addCustomer(world, FIRM),
			pricesIncludeVat: false,
			lines: [{ kind: 'labour', description: 'Render', quantity: '1', unitPrice: '100' }]
		});
		moveJob(world, jobId, 'finished', '2026-11-20');
		const { id } = await issueInvoice(world, billJob(world, jobId, 'lines', 'b'), 1);
		world.clock.set(londonMoment('2026-11-26T09:00'));
		payByHand(world, id, '120', { date: '2026-11-26' });
		const of = (from: string, to: string) =>
			[...journalCsv(world.db, { from, to })].join('').trimEnd().split('\n').slice(1);
		expect(of('2026-11-24', '2026-11-24').filter((row) => row.includes(',sales,'))).to.deep.equal([
			'2026-11-24,issue,INV-0007,Corvane Dairy Ltd,J-0001,sales,,100.00,'
		]);
		expect(of('2026-11-25', '2026-11-25')).to.deep.equal([]);
		expect(of('2026-11-26', '2026-11-26')).to.have.length(2);
		expect(of('2026-11-24', '2026-11-26')).to.have.length(5);
		world.end();
	});
});
