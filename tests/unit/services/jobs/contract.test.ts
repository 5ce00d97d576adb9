// What a job's contract is for VAT and CIS: never decided by nobody, and its own end-user statement reaches what bills it.
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { frozenFigures } from '../../../../src/lib/core/documents/frozen';
import { FieldError } from '../../../../src/lib/core/refusals';
import { documents } from '../../../../src/lib/server/db/schema';
import { choiceForm, fullPlan } from '../../../../src/lib/server/services/billing/runPlan';
import { releaseRetention } from '../../../../src/lib/server/services/billing/retentions';
import { billStage } from '../../../../src/lib/server/services/billing/stages';
import { billJob } from '../../../../src/lib/server/services/billing/toBill';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { loadDraft } from '../../../../src/lib/server/services/invoices/drafts';
import { issueInvoice } from '../../../../src/lib/server/services/invoices/issue';
import { addJob } from '../../../../src/lib/server/services/jobs/jobs';
import { moveJob } from '../../../../src/lib/server/services/jobs/states';
import { expectSoundBooks } from '../../../support/books';
import { CONTRACTOR, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
let customerId: number;
beforeEach(() => {
	world = makeWorld();
	customerId = addCustomer(world, CONTRACTOR);
});
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const LABOUR = [{ kind: 'labour', description: 'Render', quantity: '1', unitPrice: '1000' }];
const jobOf = (key: string, more: object) =>
	addJob(world, key, {
		title: key,
		customerId,
		contract: 'construction',
		pricesIncludeVat: false,
		lines: LABOUR,
		...more
	});
const SAID = { endUserStatement: 'Plot 4 is our own', endUserDate: '2026-11-01' };
const issue = (id: number) => issueInvoice(world, id, loadDraft(world.db, id).version);
const vat = (id: number) => {
	const { frozen } = world.db.select().from(documents).where(eq(documents.id, id)).get()!;
	const { vatCharged, vatReverseCharged } = frozenFigures(frozen!);
	return [vatCharged, vatReverseCharged];
};

describe('the class of a new job', () => {
	it('that would charge VAT to a firm registered for both is given with a reason', () => {
		const refused = (more: object) => {
			try {
				jobOf(JSON.stringify(more), more);
				return [];
			} catch (error) {
				return Object.keys((error as FieldError).fields);
			}
		};
		expect(refused({ contract: 'none', lines: [] })).to.deep.equal(['contractReason']);
		expect(refused({ contract: 'minor', lines: [] })).to.deep.equal(['contractReason']);
		expect(refused({ contract: 'none' })).to.deep.equal(['contractReason']);
		expect(refused({ contract: 'none', lines: [], contractReason: 'A survey' })).to.deep.equal([]);
		expect(refused({ contract: 'construction', lines: [] })).to.deep.equal([]);
		const goods = [{ kind: 'materials', description: 'Sand', quantity: '1', unitPrice: '10' }];
		expect(refused({ contract: 'none', lines: goods })).to.deep.equal([]);
		customerId = addCustomer(world, {
			...CONTRACTOR,
			name: 'Unregistered',
			standing: { ...CONTRACTOR.standing, vatRegistered: false, vatNumber: '' }
		});
		expect(refused({ contract: 'none', lines: [] })).to.deep.equal([]);
	});
});

describe('an end-user statement for one job', () => {
	it('counts for what bills this job, whole, in stages and with what was held back, and for no other', async () => {
		const said = jobOf('said', SAID);
		const other = jobOf('other', {});
		for (const job of [said, other]) moveJob(world, job, 'finished', '2026-11-20');
		expect(vat((await issue(billJob(world, said, 'lines', 'a'))).id)).to.deep.equal([200_00n, 0n]);
		expect(vat((await issue(billJob(world, other, 'lines', 'b'))).id)).to.deep.equal([0n, 200_00n]);
		const staged = jobOf('staged', { ...SAID, retention: '5' });
		const stage = billStage(world, staged, 's', {
			kind: 'stage',
			by: 'rest',
			percent: '',
			amount: '',
			done: {}
		});
		expect(vat((await issue(stage)).id)).to.deep.equal([190_00n, 0n]);
		expect(vat((await issue(releaseRetention(world, staged, 'r'))).id)).to.deep.equal([10_00n, 0n]);
	});

	it('without its day is none', async () => {
		const job = jobOf('half', { ...SAID, endUserDate: '' });
		moveJob(world, job, 'finished', '2026-11-20');
		expect(vat((await issue(billJob(world, job, 'lines', 'a'))).id)).to.deep.equal([0n, 200_00n]);
	});

	it('keeps jobs apart in a run', () => {
		for (const [key, more] of [
			['one', SAID],
			['two', {}],
			['three', SAID]
		] as const)
			moveJob(world, jobOf(key, more), 'finished', '2026-11-20');
		const { planned } = fullPlan(world, choiceForm.parse({ from: '', to: '' }));
		expect(planned.map(({ jobIds }) => jobIds.length).sort()).to.deep.equal([1, 2]);
	});
});
