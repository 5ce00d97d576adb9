// The clockwork: everything that is due happens by itself, once, and what fails stops nothing else.
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../src/lib/core/calendar/conversion';
import { startClockwork } from '../../../src/lib/server/clockwork/ticking';
import { deliverDue } from '../../../src/lib/server/clockwork/delivery';
import { documents, mails, repeatOccurrences } from '../../../src/lib/server/db/schema';
import { saveChaseSettings } from '../../../src/lib/server/services/chasing/settings';
import { sendByMail } from '../../../src/lib/server/services/invoices/send';
import { addRepeat } from '../../../src/lib/server/services/repeats/repeats';
import { oneLine } from '../../support/money';
import { HOUSEHOLD, issued, makeWorld, type TestWorld } from '../../support/world';

let world: TestWorld;
let stop: () => void;
let errors: unknown[];
beforeEach(() => {
	world = makeWorld();
	errors = [];
	stop = () => undefined;
});
afterEach(() => {
	stop();
	world.end();
});
const start = () => (stop = startClockwork(world, (error) => errors.push(error)));
async function until(check: () => boolean): Promise<void> {
	for (let n = 0; n < 400 && !check(); n++) await new Promise((done) => setTimeout(done, 10));
	expect(check(), 'happened').to.equal(true);
}
const send = (id: number, key = 'send') =>
	sendByMail(world, id, {
		key,
		to: 'odile@post.example',
		subject: 'Your invoice',
		text: 'Hello',
		copyToSelf: false
	});
const mailsNow = () => world.db.select().from(mails).all();

describe('the clockwork', () => {
	it('sends what waits as soon as it starts', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		send(id);
		expect(world.sent).to.have.length(0);
		start();
		await until(() => world.sent.length === 1);
		expect(errors).to.deep.equal([]);
	});

	it('makes and sends a repeat that is due, once however often it is started', async () => {
		const first = await issued(world, HOUSEHOLD, oneLine('25'));
		addRepeat(world, 'r', first.id, {
			name: 'Care',
			start: '2026-11-24',
			every: 1,
			unit: 'month',
			action: 'send'
		});
		start();
		await until(() => mailsNow().length === 1);
		stop();
		// What was made is sent with the next turn.
		start();
		await until(() => mailsNow().every((mail) => mail.state === 'sent'));
		expect(world.db.select().from(repeatOccurrences).all()).to.have.length(1);
		expect(world.sent).to.have.length(1);
	});

	it('reminds by plan in its hours', async () => {
		const { id } = await issued(world, HOUSEHOLD, { ...oneLine('25'), dueDate: '2026-11-24' });
		send(id);
		await deliverDue(world);
		saveChaseSettings(world, {
			on: true,
			from: '09:00',
			to: '17:00',
			quietHours: '24',
			gapDays: '5'
		});
		world.clock.set(londonMoment('2026-12-01T10:00'));
		start();
		await until(() => world.sent.length === 2);
		expect(world.sent[1]!.text).to.contain('INV-0007');
	});

	it('marks what a crash interrupted as perhaps gone, and does not send it again', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		send(id);
		world.db.update(mails).set({ state: 'sending' }).run();
		start();
		await until(() => mailsNow()[0]!.state === 'unsure');
		await new Promise((done) => setTimeout(done, 50));
		expect(world.sent).to.have.length(0);
	});

	it('says what failed and goes on with the rest', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		send(id);
		const gone = await issued(world, { ...HOUSEHOLD, name: 'Ruben Achterberg' }, oneLine('25'));
		addRepeat(world, 'r', gone.id, {
			name: 'Care',
			start: '2026-11-24',
			every: 1,
			unit: 'month',
			action: 'send'
		});
		// A sheet nobody can read: what is made from it fails.
		world.db.$client.prepare(`update repeats set sheet = '{"rows":7}'`).run();
		start();
		await until(() => errors.length > 0 && world.sent.length === 1);
		expect(
			world.db.select().from(documents).where(eq(documents.state, 'draft')).all()
		).to.deep.equal([]);
	});

	it('stops when told: nothing moves after that', async () => {
		start();
		stop();
		const { id } = await issued(world, HOUSEHOLD);
		send(id);
		await new Promise((done) => setTimeout(done, 60));
		expect(world.sent).to.have.length(0);
	});
});

describe('delivery', () => {
	it('called twice at once sends each message once', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		send(id);
		send(id);
		await Promise.all([deliverDue(world), deliverDue(world)]);
		expect(world.sent).to.have.length(1);
		send(id, 'again');
		await deliverDue(world);
		expect(world.sent).to.have.length(2);
	});
});
