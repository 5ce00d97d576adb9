// The audit of the night: a process of its own, once a night, and a next move while it finds anything.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../src/lib/core/calendar/conversion';
import { auditNow, runNightlyAudit } from '../../../src/lib/server/clockwork/nightlyAudit';
import { audits } from '../../../src/lib/server/db/schema';
import { keepAudit, lastAudit } from '../../../src/lib/server/services/business/audits';
import { nextMoves } from '../../../src/lib/server/services/desk/moves';
import { FIRM, oneLine } from '../../support/money';
import { issued, makeWorld, type TestWorld } from '../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => world.end());
const at = (moment: string) => world.clock.set(londonMoment(moment));
const moves = () => nextMoves(world).filter((move) => move.id === 'audit');

describe('the audit of the night', () => {
	it('finds what differs in the file itself, and says where in a next move until it is gone', async () => {
		const { number } = await issued(world, FIRM, oneLine('100'));
		await auditNow(world);
		expect(lastAudit(world.db)).to.include({ day: '2026-11-24', found: 0 });
		expect(moves()).to.deep.equal([]);
		const { $client: file } = world.db;
		file.exec('drop trigger documents_issued_no_update; update documents set total = total + 1');
		at('2026-11-25T02:00');
		await runNightlyAudit(world);
		const { found, words } = lastAudit(world.db)!;
		expect(found).to.be.above(0);
		expect(words.join()).to.include(number);
		expect(moves()[0]).to.include({ late: true, href: '/settings#audit' });
		file.exec('update documents set total = total - 1');
		await auditNow(world);
		expect(moves()).to.deep.equal([]);
		expect(world.db.select().from(audits).all()).to.have.length(2);
	}).timeout(60_000);

	it('is done once a night, by day only where no night was there for two days', async () => {
		const ran = () =>
			world.db
				.select()
				.from(audits)
				.all()
				.map((one) => one.day);
		for (const moment of ['2026-11-25T01:59', '2026-11-25T05:00', '2026-11-25T12:00']) {
			at(moment);
			await runNightlyAudit(world);
		}
		expect(ran()).to.deep.equal([]);
		keepAudit(world, []);
		at('2026-11-26T12:00');
		await runNightlyAudit(world);
		expect(ran()).to.deep.equal(['2026-11-25']);
		at('2026-11-27T12:00');
		const first = runNightlyAudit(world);
		expect(runNightlyAudit(world)).to.equal(first);
		await first;
		expect(ran()).to.deep.equal(['2026-11-25', '2026-11-27']);
	}).timeout(60_000);
});
