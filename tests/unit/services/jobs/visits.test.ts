import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { FieldError, NotFoundError } from '../../../../src/lib/core/refusals';
import {
	addCustomer,
	customerDetail
} from '../../../../src/lib/server/services/customers/customers';
import { addJob, loadJob } from '../../../../src/lib/server/services/jobs/jobs';
import { removeVisit, saveVisit, visitsOn } from '../../../../src/lib/server/services/jobs/visits';
import { HOUSEHOLD, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
let customerId: number;
beforeEach(() => {
	world = makeWorld();
	customerId = addCustomer(world, {
		...HOUSEHOLD,
		sites: [
			{ name: 'Mill', address: 'Mill Yard\nOrme', accessNotes: 'Key at the lodge' },
			{ name: 'Flat', address: '', accessNotes: '' }
		]
	});
});
afterEach(() => world.end());

let keys = 0;
const job = (state: 'booked' | 'enquiry' = 'booked', more: object = {}) =>
	addJob(world, `j${keys++}`, { title: 'Gable', customerId, lines: [], ...more }, state);
const VISIT = {
	date: '2026-11-26',
	from: '09:00',
	to: '11:00',
	person: 'Jude',
	note: '',
	done: false
};
const refused = (input: object): string[] => {
	try {
		saveVisit(world, job(), null, { ...VISIT, ...input });
	} catch (problem) {
		if (problem instanceof FieldError) return Object.keys(problem.fields);
		throw problem;
	}
	return [];
};

describe('a visit', () => {
	it('stands on its day with where it leads: the site’s address, or else the customer’s', () => {
		const { sites } = customerDetail(world, customerId);
		const [mill, flat] = [
			sites.find((one) => one.name === 'Mill')!,
			sites.find((one) => one.name === 'Flat')!
		];
		saveVisit(world, job('booked', { siteId: mill.id }), null, { ...VISIT, from: '10:00', to: '' });
		saveVisit(world, job('booked', { siteId: flat.id }), null, VISIT);
		saveVisit(world, job(), null, { ...VISIT, date: '2026-11-27' });
		const day = visitsOn(world, '2026-11-26');
		// By the hour they begin at.
		expect(day.map((one) => [one.from, one.address, one.accessNotes])).to.deep.equal([
			['09:00', 'Lantern House\nHarrowmere', ''],
			['10:00', 'Mill Yard\nOrme', 'Key at the lodge']
		]);
		expect(visitsOn(world, '2026-11-28')).to.deep.equal([]);
	});

	it('needs a day, reads hours as they are written, and ends after it begins', () => {
		expect(refused({ date: '' })).to.deep.equal(['date']);
		expect(refused({ date: '2026-02-30' })).to.deep.equal(['date']);
		expect(refused({ from: 'soon' })).to.deep.equal(['from']);
		expect(refused({ from: '09:00', to: '08:59' })).to.deep.equal(['to']);
		expect(refused({ from: '09:00', to: '09:00' })).to.deep.equal([]);
		expect(refused({ from: '', to: '08:00' })).to.deep.equal([]);
	});

	it('books a job that was only asked for; one under way stays so', () => {
		const asked = job('enquiry');
		saveVisit(world, asked, null, VISIT);
		expect(loadJob(world.db, asked).state).to.equal('booked');
		const version = loadJob(world.db, asked).version;
		saveVisit(world, asked, null, VISIT);
		expect(loadJob(world.db, asked).version).to.equal(version);
	});

	it('is changed by its own number and job alone', () => {
		const [own, other] = [job(), job()];
		const id = saveVisit(world, own, null, VISIT);
		expect(saveVisit(world, own, id, { ...VISIT, done: true })).to.equal(id);
		expect(visitsOn(world, VISIT.date)[0]).to.include({ id, done: true });
		expect(() => saveVisit(world, other, id, VISIT)).to.throw(NotFoundError);
		expect(() => saveVisit(world, own, 999, VISIT)).to.throw(NotFoundError);
		expect(() => saveVisit(world, 999, null, VISIT)).to.throw(NotFoundError);
		removeVisit(world, other, id);
		expect(visitsOn(world, VISIT.date)).to.have.length(1);
		removeVisit(world, own, id);
		expect(visitsOn(world, VISIT.date)).to.deep.equal([]);
	});
});
