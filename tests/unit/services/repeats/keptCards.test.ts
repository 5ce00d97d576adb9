// Whoever opens a pay link sees no kept card and takes none back: that takes a code from the customer's mail.
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { documents, mails, savedCards } from '../../../../src/lib/server/db/schema';
import { FieldError, NotFoundError } from '../../../../src/lib/core/refusals';
import { renewAllLinks, tokenBehind } from '../../../../src/lib/server/services/business/links';
import {
	cardByCode,
	cardOf,
	mailCardCode,
	revokeByCustomer
} from '../../../../src/lib/server/services/repeats/keptCards';
import { expectSoundBooks } from '../../../support/books';
import { HOUSEHOLD, issued, makeWorld, NOW, type TestWorld } from '../../../support/world';

let world: TestWorld;
let token: string;
let customerId: number;
beforeEach(async () => {
	world = makeWorld();
	const invoice = await issued(world, HOUSEHOLD);
	({ customerId } = invoice);
	token = world.db.select().from(documents).where(eq(documents.id, invoice.id)).get()!.token!;
});
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});
const keep = () =>
	world.db
		.insert(savedCards)
		.values({ customerId, token: 'tok', lastDigits: '0005', consentAt: NOW })
		.run();
const codes = () =>
	world.db
		.select()
		.from(mails)
		.where(eq(mails.kind, 'notice'))
		.all()
		.map(({ subject, to }) => [/^\d{6}/.exec(subject)![0], to]);
const later = (ms: number) => world.clock.set(world.clock.now() + ms);
const wrong = (code: string) => (code === '123456' ? '654321' : '123456');

describe('a kept card, from the customer’s link', () => {
	it('is shown and taken back with the code that was mailed, which is kept as a hash', async () => {
		keep();
		mailCardCode(world, token);
		const [[code, to]] = codes() as [[string, string]];
		expect(to).to.equal(HOUSEHOLD.email);
		const row = world.db.$client.prepare('select * from card_codes').get() as object;
		expect(JSON.stringify(row)).to.not.include(code);
		expect(cardByCode(world, token, ` ${code} `).lastDigits).to.equal('0005');
		await revokeByCustomer(world, token, code);
		expect(cardOf(world.db, customerId)).to.equal(null);
		expect(() => cardByCode(world, token, code)).to.throw(FieldError);
	});

	it('stays hidden and kept without it: five tries, fifteen minutes, one code a minute', async () => {
		keep();
		mailCardCode(world, token);
		mailCardCode(world, token);
		const [[code]] = codes() as [[string, string]];
		expect(codes()).to.have.length(1);
		const refused = await revokeByCustomer(world, token, wrong(code)).catch(
			(error: unknown) => error
		);
		expect(refused).to.be.instanceOf(FieldError);
		for (let n = 0; n < 4; n++)
			expect(() => cardByCode(world, token, wrong(code))).to.throw(FieldError);
		expect(() => cardByCode(world, token, code), 'after five tries').to.throw(FieldError);
		later(60_001);
		mailCardCode(world, token);
		const second = codes()[1]![0]!;
		later(15 * 60_000 + 1);
		expect(() => cardByCode(world, token, second), 'after fifteen minutes').to.throw(FieldError);
		expect(cardOf(world.db, customerId)!.lastDigits).to.equal('0005');
	});

	it('is no other customer’s, by no other link, and where none is kept nothing is mailed', async () => {
		mailCardCode(world, token);
		expect(codes()).to.deep.equal([]);
		keep();
		mailCardCode(world, token);
		const [[code]] = codes() as [[string, string]];
		const other = await issued(world, { ...HOUSEHOLD, name: 'Other' });
		const theirs = world.db.select().from(documents).where(eq(documents.id, other.id)).get()!
			.token!;
		expect(() => cardByCode(world, theirs, code)).to.throw(FieldError);
		expect(() => mailCardCode(world, 'nonsense')).to.throw(NotFoundError);
	});
});

describe('links that are renewed', () => {
	it('open by the new one alone, however often; rehearsals by none', () => {
		const renew = () => world.db.transaction((tx) => renewAllLinks(tx, NOW));
		const today = () =>
			world.db.$client
				.prepare('select now from links where token = ?')
				.pluck()
				.get(token) as string;
		expect(tokenBehind(world.db, token)).to.equal(token);
		expect(renew()).to.equal(1);
		const first = today();
		expect([tokenBehind(world.db, token), tokenBehind(world.db, first)]).to.deep.equal([
			null,
			token
		]);
		expect(renew()).to.equal(1);
		// The one in between is nobody’s any more: it names nothing.
		expect([token, first, today()].map((one) => tokenBehind(world.db, one))).to.deep.equal([
			null,
			first,
			token
		]);
	});
});
