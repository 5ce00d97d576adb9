// How VAT is returned, as the settings say: the cash basis since a day, which what came before does not follow.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../../src/lib/core/calendar/conversion';
import { FieldError } from '../../../../src/lib/core/refusals';
import {
	businessSettings,
	savePart,
	vatWays
} from '../../../../src/lib/server/services/business/settings';
import { vatPeriod } from '../../../../src/lib/server/services/reports/reports';
import { writeOff } from '../../../../src/lib/server/services/money/writeOffs';
import { badDebts } from '../../../../src/lib/server/services/tax/badDebts';
import { payByHand } from '../../../support/money';
import { HOUSEHOLD, issued, line, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => world.end());

const YEAR = { from: '2026-01-01', to: '2026-12-31' };
const tax = (more: object) =>
	savePart(world, 'tax', { ...businessSettings(world), ...more } as Record<string, unknown>);

describe('how VAT is returned', () => {
	it('is by tax point until something else is said, and keeps its periods', () => {
		expect(vatWays(world.db)).to.deep.equal({ basis: 'invoice', cashFrom: null, stagger: '' });
		tax({ vatBasis: 'cash', vatStagger: 'may' });
		expect(vatWays(world.db)).to.deep.equal({ basis: 'cash', cashFrom: null, stagger: 'may' });
		tax({ vatCashFrom: '2026-11-01' });
		expect(vatWays(world.db).cashFrom).to.equal('2026-11-01');
		expect(() => tax({ vatCashFrom: 'soon' })).to.throw(FieldError);
		tax({ vatBasis: 'invoice', vatCashFrom: '' });
		expect(vatWays(world.db)).to.deep.equal({ basis: 'invoice', cashFrom: null, stagger: 'may' });
	});

	it('on the cash basis counts what was invoiced before it began by its tax point', async () => {
		tax({ vatBasis: 'cash', vatCashFrom: '2026-11-24' });
		const old = await issued(world, HOUSEHOLD, {
			issueDate: '23 Nov 2026',
			rows: [line('a', 'Repair', '100')]
		});
		const since = await issued(world, HOUSEHOLD, { rows: [line('a', 'Repair', '200')] });
		expect((await vatPeriod(world, YEAR, 'cash')).box1).to.equal(20_00n);
		payByHand(world, old.id, '120.00');
		payByHand(world, since.id, '120.00');
		expect((await vatPeriod(world, YEAR, 'cash')).box1).to.equal(40_00n);
		expect((await vatPeriod(world, YEAR, 'invoice')).box1).to.equal(60_00n);
	});

	it('on the cash basis a debt that is given up gives no VAT back, unless it was due by its tax point', async () => {
		const sheet = { issueDate: '1 Mar 2026', rows: [line('a', 'Repair', '100')] };
		const late = await issued(world, HOUSEHOLD, sheet);
		writeOff(world, late.id, 'Gone', 'w');
		world.clock.set(londonMoment('2026-12-01T09:00'));
		const states = () => badDebts(world).map(({ vat, state }) => [vat, state]);
		expect(states()).to.deep.equal([[20_00, 'claimable']]);
		tax({ vatBasis: 'cash' });
		expect(states()).to.deep.equal([]);
		// It was invoiced before cash accounting began.
		tax({ vatCashFrom: '2026-03-02' });
		expect(states()).to.deep.equal([[20_00, 'claimable']]);
		tax({ vatCashFrom: '2026-03-01' });
		expect(states()).to.deep.equal([]);
	});
});
