import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { readConfig } from '../../../src/lib/server/config';
import { backupSettings } from '../../../src/lib/server/db/schema';
import { setPassword } from '../../../src/lib/server/services/business/signIn';
import { unsafe } from '../../../src/lib/server/unsafe';
import { makeWorld, type TestWorld } from '../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => world.end());

const SECRETS = {
	AXIOMETER_STAND_INS: '0',
	AXIOMETER_CARD_SECRET: 'a-secret-of-one’s-own',
	AXIOMETER_TEXT_SECRET: 'a-secret-of-one’s-own',
	AXIOMETER_BANK_SECRET: 'a-secret-of-one’s-own'
};
const said = (env: Record<string, string>) =>
	unsafe(world, readConfig(env)).map((line) => line.split(/[ :,]/).slice(0, 3).join(' '));

describe('what is unsafe', () => {
	it('is open to the network, without TLS, and known secrets once there is an owner', async () => {
		expect(said({})).to.deep.equal([]);
		expect(
			said({ AXIOMETER_ORIGIN: 'http://bills.example', AXIOMETER_HOST: '0.0.0.0' })
		).to.deep.equal(['It is reached', 'It listens at']);
		expect(
			said({
				AXIOMETER_ORIGIN: 'https://bills.example',
				AXIOMETER_HOST: '0.0.0.0',
				AXIOMETER_PROXIES: '1'
			})
		).to.deep.equal([]);
		await setPassword(world, 'lime-and-plaster');
		expect(said({})).to.deep.equal(['Mail  texts', 'Backups lie beside']);
		world.db.insert(backupSettings).values({ id: 1, folder: '/media/stick', updatedAt: 0 }).run();
		expect(said(SECRETS)).to.deep.equal([]);
		expect(said({ AXIOMETER_DEMO: '1', AXIOMETER_HOST: '0.0.0.0' })).to.deep.equal([]);
	});
});
