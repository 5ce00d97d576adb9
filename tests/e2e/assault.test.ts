// The assault of `npm run assault`, a few rounds of each: whatever is killed, forged, flooded or fed, nothing is lost or doubled.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { chance, type Outcome } from '../../assault/ground';
import { whileAll } from '../../assault/kills';
import { floods, forgedNews, hostileFiles } from '../../assault/strangers';

const ROUNDS = 5;
const ASSAULTS: Record<string, () => Promise<Outcome>> = {
	'kills at random moments': () => whileAll(ROUNDS, chance(20261127)),
	'forged and repeated news': forgedNews,
	'floods @long': floods,
	'hostile files @long': hostileFiles
};

describe('an assault', () => {
	for (const [name, assault] of Object.entries(ASSAULTS))
		it(`loses and doubles nothing: ${name}`, async () => {
			const { lost, doubled, wrong } = await assault();
			expect({ lost, doubled, wrong }).to.deep.equal({ lost: 0, doubled: 0, wrong: [] });
		});
});
