// Enquiries: by hand and by the page, never lost, never doubled; robots and floods; from there to a job or a quote with all of it.
import { expect } from 'chai';
import sharp from 'sharp';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../../src/lib/core/calendar/conversion';
import { FieldError, RefusedError } from '../../../../src/lib/core/refusals';
import { enquiries, files, mails } from '../../../../src/lib/server/db/schema';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import {
	addEnquiry,
	answerEnquiry,
	closeEnquiry,
	enquiryToJob,
	eraseOldEnquiries,
	loadEnquiry,
	reopenEnquiry
} from '../../../../src/lib/server/services/enquiries/enquiries';
import { enquiryMoves } from '../../../../src/lib/server/services/enquiries/moves';
import {
	addQuestion,
	askByPage,
	pageSettings,
	publicEnquiry,
	renewPage,
	savePage
} from '../../../../src/lib/server/services/enquiries/page';
import { filesOf } from '../../../../src/lib/server/services/files/files';
import { loadJob } from '../../../../src/lib/server/services/jobs/jobs';
import { acceptQuote } from '../../../../src/lib/server/services/quotes/accept';
import {
	loadQuote,
	quoteOfEnquiry,
	saveQuote
} from '../../../../src/lib/server/services/quotes/quotes';
import { sendQuote } from '../../../../src/lib/server/services/quotes/send';
import { HOUSEHOLD, line, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => world.end());

const ASKED = { name: 'Hazel', email: 'hazel@post.example', what: 'The gable is damp. It smells.' };
const open = () => {
	savePage(world, { on: true, intro: 'Ask', next: '' });
	return pageSettings(world.db).token;
};
const ask = (token: string, more: object = {}, photos: { name: string; bytes: Buffer }[] = []) =>
	askByPage(world, token, { key: 'a', opened: 0, ...ASKED, ...more }, [], photos);
const count = () => world.db.select().from(enquiries).all().length;

describe('the page', () => {
	it('takes what a stranger writes once, with photos made anew, and tells the owner', async () => {
		const token = open();
		const photo = await sharp({
			create: { width: 40, height: 30, channels: 3, background: '#888' }
		})
			.jpeg()
			.withExif({ IFD0: { Copyright: 'secret place' } })
			.toBuffer();
		const sent = [
			{ name: 'wall.jpg', bytes: photo },
			{ name: 'virus.exe', bytes: Buffer.from('MZ not a picture') }
		];
		const id = (await ask(token, {}, sent))!;
		expect(await ask(token, {}, sent)).to.equal(id);
		expect(loadEnquiry(world.db, id)).to.include({ came: 'page', state: 'open', name: 'Hazel' });
		expect(filesOf(world.db, { to: 'enquiry', id }).map(({ name }) => name)).to.deep.equal([
			'wall.jpg'
		]);
		expect(
			world.db
				.select()
				.from(mails)
				.all()
				.map(({ kind }) => kind)
		).to.deep.equal(['enquiryNews']);
		expect(enquiryMoves(world)[0]!.title).to.equal('Hazel asks: The gable is damp');
	});

	it('swallows robots, wants a way to answer, and stops a flood', async () => {
		const token = open();
		expect(await ask(token, { website: 'http://spam.example' })).to.equal(null);
		expect(await ask(token, { opened: world.clock.now() - 100 })).to.equal(null);
		expect(count()).to.equal(0);
		const refused = (work: Promise<unknown>) =>
			work.then(
				() => null,
				(error: Error) => error
			);
		expect(await refused(ask(token, { email: '', phone: '' }))).to.be.instanceOf(FieldError);
		expect(await refused(ask(token, { what: '' }))).to.be.instanceOf(FieldError);
		for (let n = 0; n < 200; n++) await ask(token, { key: `n${n}` });
		expect(await refused(ask(token, { key: 'more' }))).to.be.instanceOf(RefusedError);
		expect(count()).to.equal(200);
	});

	it('keeps script as the words they are, asks the owner’s questions, and closes', async () => {
		const question = addQuestion(world, { question: 'How high?', kind: 'number', unit: 'm' });
		expect(() =>
			addQuestion(world, { question: 'Which?', kind: 'choice', options: 'one' })
		).to.throw(FieldError);
		const token = open();
		expect(publicEnquiry(world, token).questions[0]).to.include({
			question: 'How high?',
			unit: 'm'
		});
		const id = (await askByPage(
			world,
			token,
			{ key: 's', ...ASKED, name: '<script>alert(1)</script>' },
			[
				{ id: question, answer: '4' },
				{ id: 99, answer: 'x' }
			],
			[]
		))!;
		expect(loadEnquiry(world.db, id).answers).to.deep.equal([
			{ question: 'How high?', answer: '4 m' }
		]);
		expect(world.db.select().from(mails).get()!.html).to.not.contain('<script>');
		renewPage(world);
		expect(() => publicEnquiry(world, token)).to.throw(/not here/);
		savePage(world, { on: false, intro: '', next: '' });
		expect(() => publicEnquiry(world, pageSettings(world.db).token)).to.throw(/not here/);
	});
});

describe('an enquiry', () => {
	it('knows its customer, is answered, waits a week, is closed with a reason and erased after a year', () => {
		const customerId = addCustomer(world, { ...HOUSEHOLD, email: ASKED.email });
		const id = addEnquiry(world, 'k', ASKED);
		expect(addEnquiry(world, 'k', ASKED)).to.equal(id);
		expect(loadEnquiry(world.db, id).customerId).to.equal(customerId);
		const reply = { key: 'r', to: ASKED.email, subject: 'Yes', text: 'We come.' };
		answerEnquiry(world, id, reply);
		answerEnquiry(world, id, reply);
		expect(world.db.select().from(mails).all()).to.have.length(1);
		expect(enquiryMoves(world)).to.deep.equal([]);
		world.clock.set(londonMoment('2026-12-02T09:00'));
		expect(enquiryMoves(world)).to.have.length(1);
		expect(() => closeEnquiry(world, id, { reason: '' })).to.throw(FieldError);
		closeEnquiry(world, id, { reason: 'Too far' });
		reopenEnquiry(world, id);
		closeEnquiry(world, id, { reason: 'Too far' });
		world.clock.set(londonMoment('2027-12-01T23:00'));
		expect(eraseOldEnquiries(world)).to.equal(0);
		world.clock.set(londonMoment('2027-12-03T09:00'));
		expect(eraseOldEnquiries(world)).to.equal(1);
		expect(count()).to.equal(0);
	});

	it('looked at and quoted becomes one job, with its customer, words and photos, and nothing typed twice', async () => {
		const token = open();
		const photo = await sharp({ create: { width: 9, height: 9, channels: 3, background: '#123' } })
			.png()
			.toBuffer();
		const id = (await ask(token, {}, [{ name: 'a.png', bytes: photo }]))!;
		const jobId = enquiryToJob(world, id, 'enquiry', { day: '2026-11-26', from: '09:00' });
		expect(enquiryToJob(world, id, 'enquiry', { day: '2026-11-27', from: '' })).to.equal(jobId);
		expect(loadJob(world.db, jobId)).to.include({ state: 'enquiry', title: 'The gable is damp' });
		const quoteId = quoteOfEnquiry(world, id);
		expect(quoteOfEnquiry(world, id)).to.equal(quoteId);
		const { sheet, version, customerName } = loadQuote(world.db, quoteId);
		expect(customerName).to.equal('Hazel');
		saveQuote(world, quoteId, version, { ...sheet, rows: [line('a', 'Lime render', '900')] });
		await sendQuote(world, quoteId, version + 1, { key: 's', byHand: true });
		acceptQuote(
			world,
			quoteId,
			{ key: 'k', n: 1, total: 900_00, picked: '', name: 'Hazel' },
			{ way: 'page', informed: 'page', from: { address: '', agent: '' } }
		);
		expect(loadQuote(world.db, quoteId).jobId).to.equal(jobId);
		expect(loadJob(world.db, jobId).state).to.equal('booked');
		expect(loadEnquiry(world.db, id)).to.include({ state: 'job', jobId });
		expect(filesOf(world.db, { to: 'job', id: jobId })).to.have.length(1);
		// Its bytes lie there once.
		expect(
			new Set(
				world.db
					.select()
					.from(files)
					.all()
					.map(({ stored }) => stored)
			).size
		).to.equal(1);
		expect(() => closeEnquiry(world, id, { reason: 'x' })).to.throw(RefusedError);
	});
});
