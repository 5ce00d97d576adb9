// The accountant's pack by a link: sent once a press, opened by nobody else's token, until it ends or is taken back.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { FieldError, ForbiddenError } from '../../../../src/lib/core/refusals';
import { asActor } from '../../../../src/lib/server/actor';
import { deliverDue } from '../../../../src/lib/server/clockwork/delivery';
import {
	notePackTaken,
	openPackLinks,
	packBehind,
	revokePackLink,
	sendPack,
	usualAccountant
} from '../../../../src/lib/server/services/reports/packLinks';
import { invite } from '../../../../src/lib/server/services/people/people';
import { makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => world.end());

const PERIOD = { from: '2026-04-06', to: '2026-10-05' };
const DAY = 24 * 3_600_000;
const send = (more: object = {}) =>
	sendPack(world, PERIOD, 'cash', { key: 'p', to: 'oakes@ledger.example', words: '', ...more });
async function token(): Promise<string> {
	await deliverDue(world);
	return /\/k\/([\w-]+)/.exec(world.sent.at(-1)!.text)![1]!;
}

describe('the pack by a link', () => {
	it('goes out once, and opens its own period for thirty days', async () => {
		send();
		send();
		const own = await token();
		expect(world.sent.map(({ to }) => to)).to.deep.equal(['oakes@ledger.example']);
		expect(world.sent[0]!.text)
			.to.include('6 Apr 2026 to 5 Oct 2026')
			.and.to.include('24 Dec 2026');
		expect(packBehind(world, own)).to.include({ ...PERIOD, basis: 'cash', takenAt: null });
		const altered = own.slice(0, -1) + (own.endsWith('x') ? 'y' : 'x');
		expect(packBehind(world, altered)).to.equal(null);
		notePackTaken(world, 1);
		expect(openPackLinks(world)[0]!.takenAt).to.equal(world.clock.now());
		world.clock.set(world.clock.now() + 30 * DAY - 1);
		expect(packBehind(world, own)).to.not.equal(null);
		world.clock.set(world.clock.now() + 1);
		expect(packBehind(world, own)).to.equal(null);
		expect(openPackLinks(world)).to.deep.equal([]);
	});

	it('is taken back, and lies nowhere to be read', async () => {
		send({ words: 'As you asked, Oakes.' });
		const own = await token();
		expect(world.sent[0]!.text).to.match(/^As you asked, Oakes\./);
		const row = JSON.stringify(world.db.$client.prepare('select * from pack_links').all());
		expect(row).to.not.include(own);
		revokePackLink(world, 1);
		expect(packBehind(world, own)).to.equal(null);
		expect(openPackLinks(world)).to.deep.equal([]);
	});

	it('goes to an address, from somebody who may see the taxes; the accountant is known', () => {
		expect(() => send({ to: 'nobody' })).to.throw(FieldError);
		const office = { id: 9, name: '', role: 'office', seesPrices: true } as const;
		expect(() => asActor(office, () => send())).to.throw(ForbiddenError);
		expect(usualAccountant(world)).to.equal('');
		invite(world, { name: 'Oakes', email: 'oakes@ledger.example', role: 'accountant' });
		expect(usualAccountant(world)).to.equal('oakes@ledger.example');
		send({ to: 'other@ledger.example' });
		expect(usualAccountant(world)).to.equal('other@ledger.example');
	});
});
