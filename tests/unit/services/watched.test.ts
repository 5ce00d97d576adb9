import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { FieldError, RefusedError } from '../../../src/lib/core/refusals';
import { businessSettings, giveMissing } from '../../../src/lib/server/services/business/settings';
import { setPassword, signIn } from '../../../src/lib/server/services/business/signIn';
import { isSignedIn } from '../../../src/lib/server/services/business/sessions';
import { deliverDue } from '../../../src/lib/server/clockwork/delivery';
import { nextMoves } from '../../../src/lib/server/services/desk/moves';
import {
	changeWatchedPassword,
	saveWatchedPart
} from '../../../src/lib/server/services/messages/watched';
import { BUSINESS, makeWorld, type TestWorld } from '../../support/world';

let world: TestWorld;
const FROM = { source: 'here', device: 'Firefox on Linux' };
const PASSWORD = 'lime-and-plaster';
const OTHER = {
	bankSortCode: '11-22-33',
	bankAccountNumber: '87654321',
	bankAccountName: 'T Orrell'
};
beforeEach(async () => {
	world = makeWorld();
	await setPassword(world, PASSWORD);
});
afterEach(() => world.end());

const save = (part: string, given: object, current = '') =>
	saveWatchedPart(world, part, { ...given }, current, FROM).then(
		() => null,
		(error) => error as unknown
	);
const moves = () =>
	nextMoves(world)
		.filter(({ id }) => id.startsWith('watched:'))
		.map(({ title, detail }) => `${title}: ${detail}`);
const DAY = 86_400_000;

describe('another bank account', () => {
	it('takes the password, is told to the owner, and stands on Today for a week', async () => {
		for (const current of ['', 'not the password']) {
			const refused = await save('bank', OTHER, current);
			expect(refused).to.be.instanceOf(FieldError);
			expect(Object.keys((refused as FieldError).fields)).to.deep.equal(['current']);
		}
		expect(businessSettings(world)).to.include({ bankAccountNumber: BUSINESS.bankAccountNumber });
		expect(await save('bank', OTHER, PASSWORD)).to.equal(null);
		expect(businessSettings(world)).to.include({ bankAccountNumber: '87654321' });
		await deliverDue(world);
		expect(world.sent).to.have.length(1);
		expect(world.sent[0]).to.include({
			to: BUSINESS.email,
			subject: 'Your bank details were changed'
		});
		expect(world.sent[0]!.text)
			.to.include('to 11-22-33 …4321')
			.and.include('with Firefox on Linux');
		// Neither the mail nor Today shows a whole account.
		expect(world.sent[0]!.text + moves().join()).not.to.include('87654321');
		expect(moves()).to.have.length(1);
		world.clock.set(world.clock.now() + 7 * DAY - 1000);
		expect(moves()).to.have.length(1);
		world.clock.set(world.clock.now() + 1000);
		expect(moves()).to.deep.equal([]);
	});

	it('guesses at the password are slowed down', async () => {
		for (let guess = 0; guess < 5; guess++) await save('bank', OTHER, `guess ${guess}`);
		expect(await save('bank', OTHER, PASSWORD)).to.be.instanceOf(RefusedError);
	});

	it('the same one, and everything else, takes none', async () => {
		const { bankSortCode, bankAccountNumber } = businessSettings(world);
		expect(
			await save('bank', { bankSortCode, bankAccountNumber, bankAccountName: 'Other words' })
		).to.equal(null);
		expect(await save('you', { ownerName: 'T', address: 'A', email: BUSINESS.email })).to.equal(
			null
		);
		expect(moves()).to.deep.equal([]);
	});

	it('does not come in by the way of what a document was the first to need', () => {
		expect(() => giveMissing(world, 'bank', OTHER)).to.throw(RefusedError);
	});
});

it('another e-mail address is told to the one before', async () => {
	const you = { ownerName: 'Tamsin Orrell', address: 'Kiln Cottage' };
	expect(await save('you', { ...you, email: 'thief@post.example' })).to.equal(null);
	await deliverDue(world);
	expect(world.sent.map(({ to }) => to)).to.deep.equal([BUSINESS.email]);
	expect(moves()[0]).to.match(/^Your e-mail address was changed: from .* to thief@post.example/);
});

it('another password is told, and ends every session', async () => {
	const { session } = await signIn(world, PASSWORD, FROM);
	await changeWatchedPassword(world, PASSWORD, 'scratch-coat-first', FROM);
	expect(isSignedIn(world, session)).to.equal(false);
	await deliverDue(world);
	expect(world.sent[0]!.subject).to.equal('Your password was changed');
	expect(moves()).to.have.length(1);
});
