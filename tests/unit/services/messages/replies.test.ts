// What comes back by text: read once, STOP kept until START, a dead number a next move and another message when it is tried again.
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { FieldError } from '../../../../src/lib/core/refusals';
import { deliverDue } from '../../../../src/lib/server/clockwork/delivery';
import { customers, mails, texts, told } from '../../../../src/lib/server/db/schema';
import { textEvent } from '../../../../src/lib/server/gateways/text';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { mobileOf } from '../../../../src/lib/server/services/customers/parts';
import { nextMoves } from '../../../../src/lib/server/services/desk/moves';
import { visitsBetween } from '../../../../src/lib/server/services/diary/diary';
import { bookJob } from '../../../../src/lib/server/services/diary/placing';
import { addJob } from '../../../../src/lib/server/services/jobs/jobs';
import { messageAgain } from '../../../../src/lib/server/services/messages/outbox';
import {
	readReply,
	receiveTextEvent,
	replies
} from '../../../../src/lib/server/services/messages/replies';
import { proposeTelling, tellCustomer } from '../../../../src/lib/server/services/telling/telling';
import { HOUSEHOLD, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
let customerId: number;
let job: number;
let visit: number;
beforeEach(async () => {
	world = makeWorld();
	customerId = addCustomer(world, { ...HOUSEHOLD, phone: '07700 900123' });
	job = addJob(world, 'j', { title: 'Gable', customerId, lines: [] });
	visit = bookJob(world, job, { date: '2026-12-01', from: '09:00', to: '', personId: 0 });
	tell();
	await deliverDue(world);
	expect(world.texts.map(({ key }) => key)).to.deep.equal(['told:1']);
});
afterEach(() => world.end());

const tell = (kind: 'booked' | 'onTheWay' = 'booked') =>
	tellCustomer(world, visit, { ...proposeTelling(world, visit, kind), by: 'text' });
const reply = (text: string, id = `e${text}`, from = '+44 7700 900123') =>
	receiveTextEvent(world, textEvent.parse({ id, type: 'reply', from, text }));
const ownerHears = () =>
	world.db
		.select()
		.from(mails)
		.where(eq(mails.kind, 'textReply'))
		.all()
		.map(({ subject }) => subject);
const moves = () =>
	nextMoves(world)
		.map(({ title }) => title)
		.filter((title) => /by text|did not reach/.test(title));

describe('an answer by text', () => {
	it('reaches the owner once, beside what it answers, and is a next move until it is read', () => {
		reply('Could it be after four?', 'e1');
		reply('Could it be after four?', 'e1');
		expect(replies(world.db)).to.have.length(1);
		const [one] = replies(world.db);
		expect(one).to.include({
			customer: HOUSEHOLD.name,
			from: '07700900123',
			text: 'Could it be after four?',
			jobId: job,
			seen: false,
			stopped: false
		});
		expect(one!.about).to.contain('we come on Tuesday 1 December');
		expect(ownerHears()).to.deep.equal([`${HOUSEHOLD.name} answered by text`]);
		expect(moves()).to.deep.equal([`${HOUSEHOLD.name} answered by text`]);
		readReply(world, one!.id);
		expect(moves()).to.deep.equal([]);
		// Reminders keep a number as it stands with the customer.
		world.db.update(texts).set({ to: '+44 7700 900123' }).run();
		reply('Or five?', 'e3');
		expect(replies(world.db)[0]).to.include({ text: 'Or five?', jobId: job });
		reply('Who is this?', 'e2', '07700 900999');
		expect(replies(world.db)[0]).to.include({ customer: '', customerId: null, about: '' });
	});

	it('of STOP is kept: no text goes there, written or waiting, until START', async () => {
		tell('onTheWay');
		reply('Stop');
		const waiting = world.db.select().from(texts).all().at(-1)!;
		expect(waiting).to.include({ state: 'failed', lastError: 'They asked for no more texts' });
		await deliverDue(world);
		expect(world.texts).to.have.length(1);
		expect(replies(world.db)[0]).to.include({ seen: true, stopped: true });
		expect(ownerHears()).to.deep.equal([`${HOUSEHOLD.name} wants no more texts`]);
		// Nobody offers that number any more, and whoever types it is told.
		expect(mobileOf(world.db, customerId)).to.equal('');
		expect(proposeTelling(world, visit, 'moved')).to.include({ by: 'mail', mobile: '' });
		expect(() =>
			tellCustomer(world, visit, {
				...proposeTelling(world, visit, 'moved'),
				by: 'text',
				mobile: '+447700900123'
			})
		)
			.to.throw(FieldError)
			.with.nested.property('fields.mobile');
		reply('START');
		expect(mobileOf(world.db, customerId)).to.equal('07700 900123');
		expect(ownerHears()).to.have.length(1);
	});

	it('that a number is dead is a next move; tried again it is another message, and old news of it count for nothing', async () => {
		const lost = () =>
			receiveTextEvent(
				world,
				textEvent.parse({ id: 'x', type: 'undelivered', key: 'told:1', reason: 'Not in use' })
			);
		lost();
		const text = () => world.db.select().from(texts).get()!;
		expect(text()).to.include({ state: 'failed', round: 1, lastError: 'Not in use' });
		expect(moves()).to.deep.equal(['News of the visit for “Gable” did not reach 07700900123']);
		messageAgain(world, { text: text().id });
		await deliverDue(world);
		expect(world.texts.map(({ key }) => key)).to.deep.equal(['told:1', 'told:1~1']);
		lost();
		expect(text()).to.include({ state: 'sent', round: 1 });
		expect(moves()).to.deep.equal([]);
	});
});

describe('who is at the site', () => {
	it('hears of the visit instead of the customer, by name; the customer does where nothing is known of them', () => {
		const [site] = world.db.$client
			.prepare(
				`insert into sites (customer_id, name, address, contact_name, contact_email, contact_phone)
				 values (?, 'Flat 2', 'Quay Row', 'Wren Ashdown', 'wren@post.example', '') returning id`
			)
			.pluck()
			.all(customerId) as number[];
		world.db.$client.prepare('update jobs set site_id = ? where id = ?').run(site, job);
		world.db.delete(texts).run();
		world.db.delete(told).run();
		const said = proposeTelling(world, visit, 'booked');
		expect(said).to.include({ to: 'wren@post.example', mobile: '', by: 'mail' });
		expect(said.text).to.match(/^Hello Wren Ashdown/);
		const tenant = (change: string) => world.db.$client.exec(`update sites set ${change}`);
		tenant("contact_email = '', contact_phone = '07700 900555'");
		expect(proposeTelling(world, visit, 'booked')).to.include({
			to: '',
			mobile: '07700 900555',
			by: 'text'
		});
		tenant("contact_phone = '01632 960001'");
		expect(proposeTelling(world, visit, 'booked')).to.include({
			to: HOUSEHOLD.email,
			mobile: '07700 900123'
		});
		expect(world.db.select().from(customers).get()!.name).to.equal(HOUSEHOLD.name);
		expect(visitsBetween(world.db, '2026-12-01', '2026-12-01')).to.have.length(1);
	});
});
