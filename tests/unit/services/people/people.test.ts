// People: invited by a link that holds seven days and opens once, each with a role, out at once when removed; second factors.
// Over 300 lines: one case for each thing a role may do.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { and, eq, isNull } from 'drizzle-orm';
import { Secret, TOTP } from 'otpauth';
import { ACCESS } from '../../../../src/lib/server/access';
import { asActor, may, type Actor } from '../../../../src/lib/server/actor';
import { RIGHTS, ROLE_RIGHTS, ROLES, type Role } from '../../../../src/lib/core/people/roles';
import {
	FieldError,
	ForbiddenError,
	NotFoundError,
	RefusedError
} from '../../../../src/lib/core/refusals';
import { mails, people, timeEntries, trail, visits } from '../../../../src/lib/server/db/schema';
import {
	proposeFactor,
	turnOffFactor,
	turnOnFactor
} from '../../../../src/lib/server/services/business/factor';
import {
	setPassword,
	signIn,
	signInPage
} from '../../../../src/lib/server/services/business/signIn';
import { openSession, whoIsSignedIn } from '../../../../src/lib/server/services/business/sessions';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { addFile, filesOf, loadFile } from '../../../../src/lib/server/services/files/files';
import { removeCost, saveCost } from '../../../../src/lib/server/services/jobs/costs';
import { addJob, loadJob } from '../../../../src/lib/server/services/jobs/jobs';
import { moveJob } from '../../../../src/lib/server/services/jobs/states';
import {
	addMaterial,
	addSiteTime,
	finishFromSite,
	noteVisit,
	ownVisits,
	siteJob
} from '../../../../src/lib/server/services/jobs/site';
import {
	removeTime,
	runningClock,
	saveTime,
	startClock,
	stopClock
} from '../../../../src/lib/server/services/jobs/time';
import { saveVisit } from '../../../../src/lib/server/services/jobs/visits';
import {
	changeRole,
	invite,
	inviteAgain,
	invitedBy,
	join,
	listPeople,
	removePerson
} from '../../../../src/lib/server/services/people/people';
import { noteHandedOver } from '../../../../src/lib/server/services/invoices/send';
import { paperTrail } from '../../../../src/lib/server/services/trail/documents';
import { HOUSEHOLD, issued, makeWorld, type TestWorld } from '../../../support/world';

const PASSWORD = 'lime-and-plaster';
const OWN = 'a hod of warm bricks';
const HERE = { source: '127.0.0.1' };
let world: TestWorld;
beforeEach(async () => {
	world = makeWorld();
	await setPassword(world, PASSWORD);
});
afterEach(() => world.end());

const JOSS = { name: 'Joss Amadi', email: 'Joss@site.example', role: 'onSite' };
const tokenOf = () =>
	/\/join\/([\w-]+)/.exec(world.db.select().from(mails).all().at(-1)!.text)![1]!;
const actorOf = (id: number): Actor => {
	const { name, role, seesPrices } = world.db.select().from(people).where(eq(people.id, id)).get()!;
	return { id, name, role, seesPrices };
};
async function joined(more: object = {}): Promise<Actor> {
	const id = invite(world, { ...JOSS, ...more });
	await join(world, tokenOf(), OWN);
	return actorOf(id);
}
const fieldsOf = async (work: () => unknown): Promise<string[]> => {
	try {
		await work();
	} catch (error) {
		if (error instanceof FieldError) return Object.keys(error.fields);
		throw error;
	}
	return [];
};

describe('an invitation', () => {
	it('holds for seven days, opens once, and is for one address', async () => {
		const id = invite(world, JOSS);
		const first = tokenOf();
		expect(invitedBy(world, first)).to.deep.equal({ id, name: 'Joss Amadi' });
		expect(
			await fieldsOf(() => invite(world, { ...JOSS, email: 'joss@SITE.example' }))
		).to.deep.equal(['email']);
		expect(
			await fieldsOf(() => invite(world, { ...JOSS, email: 'x', role: 'king' }))
		).to.deep.equal(['email', 'role']);
		inviteAgain(world, id);
		expect(invitedBy(world, first)).to.equal(null);
		world.clock.set(world.clock.now() + 7 * 86_400_000);
		expect(invitedBy(world, tokenOf())).to.equal(null);
		expect(listPeople(world)[1]).to.include({ state: 'lapsed' });
		inviteAgain(world, id);
		const token = tokenOf();
		expect(await fieldsOf(() => join(world, token, 'short'))).to.deep.equal(['password']);
		await join(world, token, OWN);
		await join(world, token, OWN).then(
			() => expect.fail('joined twice'),
			(error) => expect(error).to.be.instanceOf(NotFoundError)
		);
		expect(() => inviteAgain(world, id)).to.throw(RefusedError);
	});

	it('ends in signing in by address and password: who is not here takes the same answer', async () => {
		expect(signInPage(world.db)).to.deep.equal({
			several: false,
			factors: false,
			passkeys: false
		});
		expect((await signIn(world, PASSWORD, HERE)).session).to.be.a('string');
		const joss = await joined();
		expect(signInPage(world.db).several).to.equal(true);
		expect(await fieldsOf(() => signIn(world, PASSWORD, HERE))).to.deep.equal(['email']);
		const { session } = await signIn(world, { email: 'JOSS@site.example', password: OWN }, HERE);
		expect(whoIsSignedIn(world, session)).to.deep.equal(joss);
		for (const given of [
			{ email: 'joss@site.example', password: PASSWORD },
			{ email: 'nobody@site.example', password: OWN }
		])
			expect(await fieldsOf(() => signIn(world, given, HERE))).to.deep.equal(['password']);
	});
});

describe('a role', () => {
	it('changes at once, and the last owner stays', async () => {
		const joss = await joined();
		const session = openSession(world, '', joss.id);
		changeRole(world, joss.id, { role: 'owner', seesPrices: true });
		expect(whoIsSignedIn(world, session)).to.include({ role: 'owner', seesPrices: false });
		changeRole(world, 1, { role: 'office', seesPrices: false });
		expect(() => changeRole(world, joss.id, { role: 'office', seesPrices: false })).to.throw(
			RefusedError
		);
		expect(() => removePerson(world, joss.id)).to.throw(RefusedError);
		removePerson(world, 1);
		expect(listPeople(world).map(({ id }) => id)).to.deep.equal([joss.id]);
	});

	it('removed is out at once: visits to come wait to be booked anew, what was done stays', async () => {
		const joss = await joined();
		const session = openSession(world, '', joss.id);
		const job = addJob(world, 'j', { title: 'Hall', customerId: addCustomer(world, HOUSEHOLD) });
		const visit = (date: string, done = false) =>
			saveVisit(world, job, null, { date, personId: joss.id, person: joss.name, done });
		visit('2026-11-20', true);
		visit('2026-11-24');
		visit('2026-12-01');
		const { id } = await issued(world, HOUSEHOLD);
		asActor({ ...joss, role: 'office' }, () => noteHandedOver(world, id, 'handedOver'));
		removePerson(world, joss.id);
		expect(whoIsSignedIn(world, session)).to.equal(null);
		expect(
			world.db
				.select({ date: visits.date })
				.from(visits)
				.where(and(isNull(visits.personId), eq(visits.person, '')))
				.all()
				.map(({ date }) => date)
		).to.deep.equal(['2026-11-24', '2026-12-01']);
		expect(paperTrail(world, id).at(-1)).to.include({ what: 'handedOver', by: 'Joss Amadi' });
		expect(
			await fieldsOf(() => signIn(world, { email: joss.name, password: OWN }, HERE))
		).to.have.length(1);
		// The address is free for somebody else.
		expect(invite(world, JOSS)).to.be.greaterThan(joss.id);
	});

	it('opens what the table says and nothing else; every right is somebody’s, and the owner has them all', () => {
		const opened = (role: Role) =>
			Object.entries(ACCESS)
				.filter(
					([, { who, looks }]) => who === 'person' && looks && ROLE_RIGHTS[role].includes(looks)
				)
				.map(([route]) => route);
		expect(opened('onSite')).to.deep.equal([
			'/(desk)/files',
			'/(desk)/files/[id]',
			'/(desk)/site',
			'/(desk)/site/[job]',
			'/(desk)/work/sheets/[id]',
			'/(desk)/work/sheets/[id]/api',
			'/(desk)/work/sheets/[id]/pdf',
			'/(desk)/work/sheets/[id]/sign'
		]);
		const accountant = opened('accountant');
		expect(accountant).to.include.members(['/(desk)/billing/[id]', '/(desk)/tax', '/(desk)/owed']);
		for (const closed of [
			'/(desk)',
			'/(desk)/customers',
			'/(desk)/work',
			'/(desk)/files/[id]',
			'/(desk)/settings'
		])
			expect(accountant).to.not.include(closed);
		const office = opened('office');
		for (const closed of [
			'/(desk)/tax',
			'/(desk)/settings',
			'/(desk)/settings/people',
			'/(desk)/settings/keep/export'
		])
			expect(office).to.not.include(closed);
		expect(opened('owner')).to.have.length(
			Object.values(ACCESS).filter(({ who, looks }) => who === 'person' && looks).length
		);
		// Whoever only reads does nothing: every press takes a right that the accountant has not.
		for (const [route, { who, acts, does }] of Object.entries(ACCESS))
			if (who === 'person' && acts && does.some((one) => one !== 'GET'))
				expect(ROLE_RIGHTS.accountant.includes(acts), route).to.equal(false);
		expect(
			RIGHTS.every((right) => ROLES.some((role) => ROLE_RIGHTS[role].includes(right)))
		).to.equal(true);
		expect(may('owner')).to.equal(true);
	});

	it('is asked in the services too', async () => {
		for (const role of ['office', 'onSite', 'accountant'] as const) {
			const who = { id: 9, name: '', role, seesPrices: false };
			for (const work of [
				() => listPeople(world),
				() => invite(world, JOSS),
				() => changeRole(world, 1, { role: 'office', seesPrices: false }),
				() => removePerson(world, 1)
			])
				expect(() => asActor(who, work), role).to.throw(ForbiddenError);
		}
	});
});

describe('a helper on site', () => {
	it('sees and writes on the jobs of their own visits, and is kept from every other', async () => {
		const joss = await joined();
		const customerId = addCustomer(world, HOUSEHOLD);
		const lines = [
			{
				kind: 'labour',
				description: 'Render',
				quantity: '2',
				unit: 'h',
				unitPrice: '45',
				vat: 'standard',
				vatReason: '',
				discount: '',
				cost: ''
			}
		];
		const own = addJob(world, 'own', {
			title: 'Hall',
			customerId,
			lines,
			privateNote: 'Pays late',
			hourlyCost: '18'
		});
		const other = addJob(world, 'other', { title: 'Stairs', customerId });
		const visit = saveVisit(world, own, null, {
			date: '2026-11-24',
			from: '09:00',
			personId: joss.id
		});
		saveVisit(world, other, null, { date: '2026-11-24' });
		const photo = Buffer.from('%PDF-1.7 plan');
		const secret = await addFile(world, { to: 'job', id: other }, 'other.pdf', photo);
		const contract = await addFile(world, { to: 'customer', id: customerId }, 'c.pdf', photo);
		await asActor(joss, async () => {
			expect(ownVisits(world).map(({ jobId }) => jobId)).to.deep.equal([own]);
			const seen = siteJob(world, own);
			expect(seen.lines).to.deep.equal([
				{ id: seen.lines[0]!.id, description: 'Render', quantity: '2', unit: 'h' }
			]);
			for (const hidden of ['Pays late', '45', '18'])
				expect(JSON.stringify(seen), hidden).to.not.include(hidden);
			await addFile(world, { to: 'job', id: own }, 'wall.pdf', photo);
			addSiteTime(world, own, 't', { hours: '2:30', note: 'First coat' });
			addMaterial(world, own, 'm', { description: 'Lime putty', quantity: '3', unit: 'bag' });
			expect(
				await fieldsOf(() => addMaterial(world, own, 'm2', { description: '', quantity: 'x' }))
			).to.deep.equal(['description', 'quantity']);
			noteVisit(world, own, visit, { note: 'Key under the pot' }, true);
			for (const work of [
				() => siteJob(world, other),
				() => addSiteTime(world, other, 'x', { hours: '1', note: '' }),
				() => addMaterial(world, other, 'y', { description: 'x', quantity: '1' }),
				() => finishFromSite(world, other),
				() => saveCost(world, other, 'z', null, {}),
				() => removeCost(world, other, 1),
				() => saveTime(world, other, 'z', null, {}),
				() => removeTime(world, other, 1),
				() => moveJob(world, other, 'finished'),
				() => loadFile(world, secret, false),
				() => loadFile(world, contract, false)
			])
				expect(work).to.throw(ForbiddenError);
			await addFile(world, { to: 'job', id: other }, 'x', photo).then(
				() => expect.fail('a file on another’s job'),
				(error) => expect(error).to.be.instanceOf(ForbiddenError)
			);
			finishFromSite(world, own);
		});
		expect(loadJob(world.db, own).state).to.equal('finished');
		expect(filesOf(world.db, { to: 'job', id: own })).to.have.length(1);
		expect(world.db.select().from(timeEntries).get()).to.include({
			personId: joss.id,
			person: 'Joss Amadi',
			minutes: 150
		});
		const seeing = asActor({ ...joss, seesPrices: true }, () => siteJob(world, own));
		expect(seeing.lines[0]).to.include({ unitPrice: '45' });
	});

	it('has a clock of their own beside the owner’s', async () => {
		const joss = await joined();
		const customerId = addCustomer(world, HOUSEHOLD);
		const [a, b] = ['a', 'b'].map((key) => addJob(world, key, { title: key, customerId })) as [
			number,
			number
		];
		startClock(world, 'mine', a);
		expect(() => asActor(joss, () => startClock(world, 'his', b))).to.throw(ForbiddenError);
		saveVisit(world, b, null, { date: '2026-11-24', personId: joss.id });
		asActor(joss, () => startClock(world, 'his', b));
		expect(runningClock(world)?.jobId).to.equal(a);
		expect(asActor(joss, () => runningClock(world))?.jobId).to.equal(b);
		world.clock.set(world.clock.now() + 600_000);
		expect(stopClock(world)).to.equal(a);
		expect(asActor(joss, () => runningClock(world))?.jobId).to.equal(b);
	});
});

describe('a second factor', () => {
	const codeAt = (secret: string, timestamp: number) =>
		new TOTP({ secret: Secret.fromBase32(secret), period: 30 }).generate({ timestamp });

	it('is asked for once it was shown to work; no code holds twice, recovery codes hold once', async () => {
		const { secret, address } = proposeFactor('Tamsin Orrell');
		expect(address).to.match(/^otpauth:\/\/totp\/Axiometer:Tamsin%20Orrell\?/);
		const now = () => world.clock.now();
		expect(await fieldsOf(() => turnOnFactor(world, 1, secret, '000000'))).to.deep.equal(['code']);
		const codes = turnOnFactor(world, 1, secret, codeAt(secret, now()));
		expect(new Set(codes).size).to.equal(8);
		expect(signInPage(world.db).factors).to.equal(true);
		const enter = (code?: string) =>
			fieldsOf(() => signIn(world, { password: PASSWORD, ...(code ? { code } : {}) }, HERE));
		expect(await enter()).to.deep.equal(['code']);
		// The one it was turned on with has been used.
		expect(await enter(codeAt(secret, now()))).to.deep.equal(['code']);
		world.clock.set(now() + 30_000);
		const code = codeAt(secret, now());
		expect(await enter(code)).to.deep.equal([]);
		expect(await enter(code)).to.deep.equal(['code']);
		world.clock.set(now() + 120_000);
		expect(await enter(codeAt(secret, now() - 60_000))).to.deep.equal(['code']);
		expect(await enter(codeAt(secret, now() - 30_000))).to.deep.equal([]);
		expect(await enter(codes[3]!.toUpperCase())).to.deep.equal([]);
		expect(await enter(codes[3])).to.deep.equal(['code']);
		expect(
			await fieldsOf(() => signIn(world, { password: 'wrong password', code: codes[4]! }, HERE))
		).to.deep.equal(['password']);
		turnOffFactor(world, 1);
		expect(await enter()).to.deep.equal([]);
	});
});

describe('the trail', () => {
	it('names who did it, to everybody but them', async () => {
		const joss = await joined({ role: 'office' });
		const { id } = await issued(world, HOUSEHOLD);
		asActor(joss, () => noteHandedOver(world, id, 'downloaded'));
		expect(world.db.select().from(trail).all().at(-1)!.personId).to.equal(joss.id);
		expect(paperTrail(world, id).at(-1)!.by).to.equal('Joss Amadi');
		expect(asActor(joss, () => paperTrail(world, id)).at(-1)!.by).to.equal('');
	});
});
