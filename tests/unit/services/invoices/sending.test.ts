import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { documentText, textParts } from '../../../../src/lib/core/documents/wording';
import { FieldError } from '../../../../src/lib/core/refusals';
import { deliverDue } from '../../../../src/lib/server/clockwork/delivery';
import { documents, mails, openItems, texts, trail } from '../../../../src/lib/server/db/schema';
import { nextMoves } from '../../../../src/lib/server/services/desk/moves';
import { linkToday } from '../../../../src/lib/server/services/business/links';
import {
	prepareSending,
	renewDocumentLink,
	sendByMail,
	sendByText
} from '../../../../src/lib/server/services/invoices/send';
import { draftMessage } from '../../../../src/lib/server/services/invoices/sheetPage';
import {
	sendAgain,
	sendDocumentTextAgain
} from '../../../../src/lib/server/services/messages/outbox';
import { issueAndSend } from '../../../../src/lib/server/services/money/issueAndSend';
import { expectSoundBooks } from '../../../support/books';
import { oneLine, payByHand } from '../../../support/money';
import { draftOf, HOUSEHOLD, issued, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

function fieldsOf(work: () => unknown): string[] {
	try {
		work();
	} catch (problem) {
		if (problem instanceof FieldError) return Object.keys(problem.fields);
		throw problem;
	}
	return [];
}
const MAIL = { key: 'k', to: 'a@post.example', subject: 'S', text: 'T {link}', copyToSelf: false };
const MOBILE = { ...HOUSEHOLD, phone: '07700 900 123' };

describe('a message that waits', () => {
	it('goes with the link of today, where it was renewed meanwhile', async () => {
		const { id } = await issued(world, MOBILE, oneLine('100'));
		sendByMail(world, id, MAIL);
		sendByText(world, id, { key: 't', mobile: '07700900123', words: 'See {link}' });
		const before = world.db.select({ token: documents.token }).from(documents).get()!.token!;
		renewDocumentLink(world, id);
		const now = linkToday(world.db, before);
		expect(now).to.not.equal(before);
		const [mail] = world.db.select().from(mails).all();
		const [text] = world.db.select().from(texts).all();
		for (const words of [mail!.text, mail!.html, text!.text]) {
			expect(words).to.include(now);
			expect(words).to.not.include(before);
		}
		// What has gone is as it went.
		await deliverDue(world);
		renewDocumentLink(world, id);
		expect(world.db.select().from(mails).get()!.text).to.include(now);
	});
});

describe('how many parts a text has', () => {
	it('160 letters fit into one, 153 into each of several; some letters take two places, others make all wide', () => {
		for (const [text, parts] of [
			['', 1],
			['a'.repeat(160), 1],
			['a'.repeat(161), 2],
			['a'.repeat(306), 2],
			['a'.repeat(307), 3],
			['€'.repeat(80), 1],
			['€'.repeat(81), 2],
			['£'.repeat(160), 1],
			['’' + 'a'.repeat(69), 1],
			['’' + 'a'.repeat(70), 2],
			['’' + 'a'.repeat(134), 3]
		] as const)
			expect(textParts(text), `${text.slice(0, 2)} × ${text.length}`).to.equal(parts);
	});
});

describe('an e-mail to several', () => {
	const missing =
		(forGood: boolean, ...addresses: string[]) =>
		(message: { to: string; cc: string }) => {
			const missed = addresses
				.filter((address) => `${message.to},${message.cc}`.includes(address))
				.map((address) => ({ address, reason: 'the mail server answered 550', forGood }));
			return missed.length ? { state: 'sent' as const, missed } : { state: 'sent' as const };
		};
	const row = () => world.db.select().from(mails).orderBy(mails.id).all().at(-1)!;
	const TWO = { ...MAIL, to: 'a@post.example, b@post.example', cc: 'c@post.example' };

	it('of whom one was refused has not reached them all: that is said, and only that one gets it again', async () => {
		const { id } = await issued(world, MOBILE, oneLine('100'));
		world.mailAnswer = missing(true, 'b@post.example');
		sendByMail(world, id, TWO);
		await deliverDue(world);
		expect(row()).to.include({ state: 'failed', missed: 'b@post.example' });
		expect(nextMoves(world).map(({ title }) => title)).to.include(
			'INV-0007 did not reach b@post.example'
		);
		expect(
			world.db.select({ what: trail.what, detail: trail.detail }).from(trail).all().slice(-2)
		).to.deep.equal([
			{ what: 'delivered', detail: 'invoice:a@post.example' },
			{ what: 'notDelivered', detail: 'b@post.example: the mail server answered 550' }
		]);
		world.mailAnswer = () => ({ state: 'sent' });
		sendAgain(world, row().id);
		await deliverDue(world);
		expect(world.sent.at(-1)).to.include({ to: 'b@post.example', cc: '', bcc: '' });
		expect(row()).to.include({ state: 'sent', missed: '', lastError: '' });
	});

	it('of whom one was put off is tried again for that one', async () => {
		const { id } = await issued(world, MOBILE, oneLine('100'));
		world.mailAnswer = missing(false, 'a@post.example');
		sendByMail(world, id, TWO);
		await deliverDue(world);
		expect(row()).to.include({ state: 'queued', missed: 'a@post.example' });
		world.mailAnswer = () => ({ state: 'sent' });
		world.clock.set(world.clock.now() + 60_000);
		await deliverDue(world);
		expect(world.sent.at(-1)).to.include({ to: 'a@post.example', cc: '' });
		expect(row()).to.include({ state: 'sent', missed: '' });
	});

	it('whose copy alone was refused has gone; the copy is said, and can go again', async () => {
		const { id } = await issued(world, MOBILE, oneLine('100'));
		world.mailAnswer = missing(true, 'c@post.example');
		sendByMail(world, id, TWO);
		await deliverDue(world);
		expect(row()).to.include({ state: 'sent', missed: 'c@post.example' });
		world.mailAnswer = () => ({ state: 'sent' });
		sendAgain(world, row().id);
		await deliverDue(world);
		expect(world.sent.at(-1)).to.include({ to: 'c@post.example' });
		expect(row()).to.include({ state: 'sent', missed: '' });
	});

	it('a receipt that did not arrive is a next move, though nothing is to pay', async () => {
		const { id } = await issued(world, MOBILE, oneLine('100'));
		payByHand(world, id, '120', { receipt: true });
		world.mailAnswer = () => ({ state: 'refused', reason: 'the mail server answered 550' });
		await deliverDue(world);
		expect(nextMoves(world).map(({ title }) => title)).to.include(
			`The receipt for INV-0007 did not reach ${HOUSEHOLD.email}`
		);
	});
});

describe('sending an invoice', () => {
	it('names what is left to pay once something came in, and that nothing is', async () => {
		const { id } = await issued(world, MOBILE, oneLine('100'));
		const said = () => {
			const { subject, text, words } = prepareSending(world, id);
			return [subject, /[^\n]*£[^\n]*|[^\n]*settled[^\n]*/.exec(text)![0], words];
		};
		expect(said()).to.deep.equal([
			'Invoice INV-0007 from Orrell Lime & Plaster: £120.00, due 8 Dec 2026',
			'Here is invoice INV-0007. £120.00 is due by 8 Dec 2026.',
			'Invoice INV-0007 from Orrell Lime & Plaster: £120.00, due 8 Dec 2026. {link}'
		]);
		payByHand(world, id, '50.01');
		expect(said()).to.deep.equal([
			'Invoice INV-0007 from Orrell Lime & Plaster: £69.99 still to pay',
			'Here is invoice INV-0007. Of its £120.00, £69.99 is still to pay; it is due by 8 Dec 2026.',
			'Invoice INV-0007 from Orrell Lime & Plaster: £69.99 still to pay. {link}'
		]);
		payByHand(world, id, '69.99');
		expect(said()).to.deep.equal([
			'Invoice INV-0007 from Orrell Lime & Plaster: settled',
			'Here is invoice INV-0007. It is settled: nothing is left to pay.',
			'Invoice INV-0007 from Orrell Lime & Plaster: settled. {link}'
		]);
	});

	it('goes to several, with copies in the open; each box says what is wrong with it', async () => {
		const { id } = await issued(world, HOUSEHOLD, oneLine('100'));
		const wrong = (change: object) => fieldsOf(() => sendByMail(world, id, { ...MAIL, ...change }));
		expect(wrong({ cc: 'nobody' })).to.deep.equal(['cc']);
		expect(wrong({ to: '' })).to.deep.equal(['to']);
		expect(wrong({ to: 'x@post.example, nobody' })).to.deep.equal(['to']);
		expect(wrong({ cc: Array(11).fill('a@post.example').join() })).to.deep.equal(['cc']);
		sendByMail(world, id, {
			...MAIL,
			to: 'a@post.example; b@post.example',
			cc: 'site@post.example'
		});
		await deliverDue(world);
		expect(world.sent[0]).to.include({
			to: 'a@post.example, b@post.example',
			cc: 'site@post.example',
			bcc: ''
		});
		const said = world.db.select().from(trail).where(eq(trail.what, 'sent')).get()!;
		expect(said.detail).to.equal('a@post.example, b@post.example, site@post.example');
	});

	it('with its issue, in the words it was given, with the number it really got', async () => {
		const draft = draftOf(world, HOUSEHOLD, oneLine('100'));
		const shown = draftMessage(world, draft.id)!;
		expect(shown.number).to.equal('INV-0007');
		expect(shown.subject).to.contain('INV-0007').and.to.contain('£120.00');
		// Another one takes the number that was expected.
		await issued(world, { ...HOUSEHOLD, name: 'First' }, oneLine('5'));
		await issueAndSend(world, draft.id, draft.version, {
			sendTo: 'a@post.example',
			cc: 'b@post.example',
			message: { ...shown, text: `Dear Odile, ${shown.number} is here: {link}` },
			copyToSelf: false,
			useInHand: false
		});
		const mail = world.db.select().from(mails).where(eq(mails.documentId, draft.id)).get()!;
		expect(mail.subject).to.contain('INV-0008').and.not.to.contain('INV-0007');
		expect(mail.text).to.contain('Dear Odile, INV-0008 is here: http');
		expect(mail.cc).to.equal('b@post.example');
	});

	it('is not issued where a copy’s address or the message is wrong', async () => {
		const draft = draftOf(world, HOUSEHOLD, oneLine('100'));
		const wish = { sendTo: 'a@post.example', copyToSelf: false, useInHand: false };
		const message = { subject: ' ', text: 'x', number: 'INV-0007' };
		for (const [change, field] of [
			[{ cc: 'nobody' }, 'cc'],
			[{ message }, 'subject']
		] as const) {
			const problem = await issueAndSend(world, draft.id, draft.version, {
				...wish,
				...change
			}).then(
				() => null,
				(error: FieldError) => error
			);
			expect(Object.keys(problem!.fields)).to.deep.equal([field]);
		}
		expect(world.db.select().from(documents).get()!.state).to.equal('draft');
	});

	it('by text: the link goes to the mobile once, is reached by it, and said to be where it is refused', async () => {
		const { id, number } = await issued(world, MOBILE, oneLine('100'));
		const { mobile, words } = prepareSending(world, id);
		expect(mobile).to.equal('07700 900 123');
		expect(words).to.equal(
			`Invoice ${number} from Orrell Lime & Plaster: £120.00, due 8 Dec 2026. {link}`
		);
		const wrong = (change: object) =>
			fieldsOf(() => sendByText(world, id, { key: 'k', mobile, words, ...change }));
		expect(wrong({ mobile: '01632 960001' })).to.deep.equal(['mobile']);
		expect(wrong({ words: 'without its link' })).to.deep.equal(['words']);
		expect(wrong({ words: `${'a'.repeat(800)} {link}` })).to.deep.equal(['words']);
		world.textAnswer = { state: 'refused', reason: 'no such number' };
		sendByText(world, id, { key: 'k', mobile, words });
		sendByText(world, id, { key: 'k', mobile, words });
		await deliverDue(world);
		expect(world.db.select().from(texts).all()).to.have.length(1);
		const move = () => nextMoves(world).find((one) => one.title.includes('07700900123'));
		expect(move()).to.include({ amount: 120_00n, brings: `invoice:${id}` });
		world.textAnswer = { state: 'sent' };
		sendDocumentTextAgain(world, id, world.db.select().from(texts).get()!.id);
		await deliverDue(world);
		expect(world.texts.at(-1)!.text).to.match(/£120\.00, due 8 Dec 2026\. http\S+\/p\/[\w-]{32}$/);
		expect(move()).to.equal(undefined);
		expect(world.db.select().from(openItems).get()!.reached).to.equal(true);
	});
});

it('a text about a credit note asks for nothing', async () => {
	const { id } = await issued(world, HOUSEHOLD, oneLine('100'));
	const { frozen } = world.db.select().from(documents).where(eq(documents.id, id)).get()!;
	expect(documentText({ ...frozen!, kind: 'creditNote' }, 'CN-1', 120_00n)).to.equal(
		'Credit note CN-1 from Orrell Lime & Plaster: £120.00. {link}'
	);
});
