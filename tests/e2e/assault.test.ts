// The assault of `npm run assault`, a few rounds of each: whatever is killed, forged, flooded or fed, nothing is lost or doubled.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { chance } from '../../assault/ground';
import { whileAll, whileIssuing, whileWebhook } from '../../assault/kills';
import { floods, forgedNews, hostileFiles } from '../../assault/strangers';

const ROUNDS = 5;

describe('an assault', () => {
	for (const assault of [whileIssuing, whileWebhook, whileAll, forgedNews, floods, hostileFiles])
		it(`of the sort ${assault.name} loses and doubles nothing`, async () => {
			const { lost, doubled, wrong } = await assault(ROUNDS, chance(20261127));
			expect({ lost, doubled, wrong }).to.deep.equal({ lost: 0, doubled: 0, wrong: [] });
		});
});
