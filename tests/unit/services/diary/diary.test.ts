// The diary: placed once though two drag, repeated with "all from here", what stands in the way, and what customers are told.
// Over 300 lines: one case for each thing that is done in it.
import { expect } from 'chai';
import ICAL from 'ical.js';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../../src/lib/core/calendar/conversion';
import {
	arrivalOf,
	conflictsOf,
	takesDay,
	travelTo
} from '../../../../src/lib/core/diary/conflicts';
import type { DiaryVisit } from '../../../../src/lib/core/diary/types';
import { ConflictError, FieldError } from '../../../../src/lib/core/refusals';
import { deliverDue } from '../../../../src/lib/server/clockwork/delivery';
import {
	diaryFeeds,
	jobLines,
	mails,
	people,
	told,
	visits
} from '../../../../src/lib/server/db/schema';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import {
	blocksBetween,
	toBook,
	visitsBetween
} from '../../../../src/lib/server/services/diary/diary';
import {
	addBlock,
	removeBlock,
	saveDiaryWays
} from '../../../../src/lib/server/services/diary/ways';
import {
	bookJob,
	placeVisit,
	repeatVisit,
	saveVisitDetail
} from '../../../../src/lib/server/services/diary/placing';
import { callOff, chargeJourney } from '../../../../src/lib/server/services/diary/calledOff';
import {
	feedFile,
	ownFeed,
	renewFeed,
	revokeFeed
} from '../../../../src/lib/server/services/diary/feed';
import { addJob } from '../../../../src/lib/server/services/jobs/jobs';
import {
	addMaterial,
	materialsOf,
	moveMaterial
} from '../../../../src/lib/server/services/jobs/materials';
import { removeVisit } from '../../../../src/lib/server/services/jobs/visits';
import {
	proposeTelling,
	setVisitNews,
	tellCustomer,
	tellOfTomorrow
} from '../../../../src/lib/server/services/telling/telling';
import {
	answerVisit,
	toldCalendar,
	toldPage
} from '../../../../src/lib/server/services/telling/told';
import { HOUSEHOLD, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
let job: number;
beforeEach(() => {
	world = makeWorld();
	job = addJob(world, 'j', {
		title: 'Gable',
		customerId: addCustomer(world, HOUSEHOLD),
		lines: []
	});
});
afterEach(() => world.end());

const book = (date: string, from = '09:00', to = '12:00') =>
	bookJob(world, job, { date, from, to, personId: 0 });
const visit = (id: number) =>
	world.db
		.select()
		.from(visits)
		.all()
		.find((one) => one.id === id)!;
const days = () =>
	visitsBetween(world.db, '2026-01-01', '2027-12-31').map(({ date, from }) => `${date} ${from}`);
const place = (id: number, more: object) =>
	placeVisit(world, id, { ...visit(id), endDate: '', personId: 0, ...more });
const tell = (
	id: number,
	kind: 'booked' | 'moved' | 'cancelled' | 'onTheWay' = 'booked',
	more: object = {}
) => tellCustomer(world, id, { ...proposeTelling(world, id, kind), ...more });

describe('a visit', () => {
	it('is booked once however often it is pressed, and its job waits for a day no more', () => {
		expect(toBook(world.db, '2026-11-24').map(({ title }) => title)).to.deep.equal(['Gable']);
		const id = book('2026-12-01');
		expect(book('2026-12-01')).to.equal(id);
		expect(toBook(world.db, '2026-11-24')).to.deep.equal([]);
		expect(() => book('')).to.throw(FieldError);
		expect(() => book('2026-12-02', '12:00', '09:00')).to.not.throw();
	});

	it('is moved by the first of two who drag it; the second is told, and undo puts it back', () => {
		const id = book('2026-12-01');
		const first = place(id, { date: '2026-12-03' });
		expect(first).to.deep.include({ sequence: 1, moved: true });
		expect(() => place(id, { date: '2026-12-04', sequence: 0 })).to.throw(ConflictError);
		place(id, { ...first.before, sequence: first.sequence });
		expect(days()).to.deep.equal(['2026-12-01 09:00']);
		// A later end alone is nothing a customer would notice.
		expect(place(id, { to: '15:00' })).to.deep.include({ moved: false, sequence: 2 });
	});

	it('repeats on working days; moved with all from here, those before stay', () => {
		const id = book('2026-12-18');
		expect(repeatVisit(world, id, { every: 1, unit: 'week', times: 4 })).to.equal(4);
		// Christmas Day and New Year’s Day are Fridays: the next working days are 29 Dec and 4 Jan.
		expect(days()).to.deep.equal([
			'2026-12-18 09:00',
			'2026-12-29 09:00',
			'2027-01-04 09:00',
			'2027-01-08 09:00'
		]);
		const third = visitsBetween(world.db, '2027-01-04', '2027-01-04')[0]!.id;
		place(third, { date: '2027-01-05', from: '10:00', to: '11:00' });
		place(third, { date: '2027-01-06', from: '08:00', to: '11:00', all: true });
		expect(days()).to.deep.equal([
			'2026-12-18 09:00',
			'2026-12-29 09:00',
			'2027-01-06 08:00',
			'2027-01-09 08:00'
		]);
		expect(() => repeatVisit(world, id, { every: 1, unit: 'week', times: 4 })).to.throw(FieldError);
	});

	it('called off is done and says why', () => {
		const id = book('2026-11-24');
		callOff(world, id, { why: 'nobodyIn' });
		const jobId = chargeJourney(world, id);
		expect(chargeJourney(world, id)).to.equal(jobId);
		const added = world.db.select().from(jobLines).all().at(-1)!;
		expect(added).to.include({ kind: 'travel', quantity: '1', extra: true });
		expect(
			world.db
				.select()
				.from(jobLines)
				.all()
				.filter(({ kind }) => kind === 'travel')
		).to.have.length(1);
		expect(visit(id)).to.include({ done: true, note: 'Nobody was in.' });
	});
});

describe('what stands in the way', () => {
	const one = (more: Partial<DiaryVisit>) => ({
		id: 1,
		title: 'A',
		date: '2026-11-24',
		endDate: '2026-11-24',
		weekend: false,
		from: '09:00',
		to: '12:00',
		people: [1],
		needs: 1,
		mayBegin: null,
		lookAt: false,
		done: false,
		address: 'Same place',
		travel: 15,
		awaited: [],
		...more
	});
	const day = { from: '08:00', to: '17:00' };
	const said = (
		visitsOf: ReturnType<typeof one>[],
		blocks: Parameters<typeof conflictsOf>[1] = []
	) => Object.fromEntries(conflictsOf(visitsOf, blocks, day, '2026-11-24'));

	it('is two at once, to the minute, of the same person alone', () => {
		const b = (more: Partial<DiaryVisit>) => one({ id: 2, title: 'B', ...more });
		expect(said([one({}), b({ from: '11:59', to: '13:00' })])).to.deep.equal({
			1: ['at the same time as “B”'],
			2: ['at the same time as “A”']
		});
		expect(said([one({}), b({ from: '12:00', to: '13:00' })])).to.deep.equal({});
		expect(said([one({}), b({ people: [2] })])).to.deep.equal({});
		expect(said([one({ people: [0] }), b({ people: [0] })])).to.deep.equal({});
		expect(said([one({}), b({ done: true })])).to.deep.equal({});
	});

	it('is an own day, a weekend, a bank holiday, an hour outside work, too few people', () => {
		const block = { id: 1, personId: null, from: '2026-11-23', to: '2026-11-24', title: 'Holiday' };
		expect(said([one({})], [block])[1]).to.deep.equal(['Holiday on that day']);
		expect(said([one({})], [{ ...block, personId: 2 }])).to.deep.equal({});
		expect(said([one({ date: '2026-12-25', endDate: '2026-12-25' })])[1]).to.deep.equal([
			'not a working day'
		]);
		expect(said([one({ from: '07:59' })])[1]).to.deep.equal(['outside 08:00 to 17:00']);
		expect(said([one({ needs: 2 })])[1]).to.deep.equal(['alone, 2 needed']);
		expect(said([one({ mayBegin: '2026-11-25' })])[1]![0]).to.match(/^before 25 Nov 2026/);
		expect(said([one({ mayBegin: '2026-11-24' })])).to.deep.equal({});
		expect(said([one({ mayBegin: '2026-11-25', lookAt: true })])).to.deep.equal({});
	});

	it('over several days leaves out the weekend and holidays, unless it goes on over them', () => {
		// From Thursday to Monday; Good Friday and Easter Monday of 2027 are holidays.
		const long = { date: '2026-11-26', endDate: '2026-11-30', weekend: false };
		const taken = (more: object = {}) =>
			['25', '26', '27', '28', '29', '30'].filter((day) =>
				takesDay({ ...long, ...more }, `2026-11-${day}`)
			);
		expect(taken()).to.deep.equal(['26', '27', '30']);
		expect(taken({ weekend: true })).to.deep.equal(['26', '27', '28', '29', '30']);
		// It begins and ends where it was put.
		expect(taken({ date: '2026-11-28', endDate: '2026-11-29' })).to.deep.equal(['28', '29']);
		expect(
			takesDay({ date: '2027-03-25', endDate: '2027-03-31', weekend: false }, '2027-03-26')
		).to.equal(false);
		const away = { id: 1, personId: null, from: '2026-11-28', to: '2026-11-29', title: 'Away' };
		expect(said([one(long)], [away])).to.deep.equal({});
		expect(said([one({ ...long, weekend: true })], [away])[1]).to.deep.equal(['Away on that day']);
		const id = book('2026-11-26');
		place(id, { endDate: '2026-11-30' });
		saveVisitDetail(world, id, { arriveFrom: '', arriveTo: '', weekend: true });
		expect(visitsBetween(world.db, '2026-11-28', '2026-11-28')[0]).to.include({ weekend: true });
	});

	it('is too little time to get from one place to the next, to the minute', () => {
		const b = (more: Partial<DiaryVisit>) =>
			one({ id: 2, title: 'B', address: 'Elsewhere', from: '12:14', to: '13:00', ...more });
		expect(said([one({}), b({})])).to.deep.equal({
			2: ['14 minutes after “A”, 15 needed to get there']
		});
		expect(said([b({}), one({})])).to.have.keys('2');
		expect(said([one({}), b({ from: '12:15' })])).to.deep.equal({});
		expect(said([one({}), b({ from: '12:15', travel: 30 })])).to.have.keys('2');
		expect(said([one({}), b({ address: 'Same place' })])).to.deep.equal({});
		expect(said([one({}), b({ people: [2] })])).to.deep.equal({});
		expect(said([one({}), b({ date: '2026-11-25', endDate: '2026-11-25' })])).to.deep.equal({});
		const day = [one({}), b({ from: '14:00' })] as DiaryVisit[];
		expect(travelTo(day[1]!, day)).to.deep.include({ minutes: 15 });
		expect(travelTo(day[0]!, day)).to.equal(undefined);
		// From the one before it, not from the first.
		const third = one({ id: 3, title: 'C', from: '16:00', to: '17:00' }) as DiaryVisit;
		expect(travelTo(third, [...day, third])!.from.title).to.equal('B');
	});

	it('is what is not there yet: without a day, to come after it, or late already', () => {
		const waits = (expectedOn: string | null, more: Partial<DiaryVisit> = {}) =>
			said([
				one({
					date: '2026-11-26',
					endDate: '2026-11-26',
					awaited: [{ what: 'Laths', expectedOn }],
					...more
				})
			]);
		expect(waits(null)).to.deep.equal({ 1: ['not there yet: Laths'] });
		expect(waits('2026-11-27')).to.deep.equal({
			1: ['not there yet: Laths (to come 27 Nov 2026)']
		});
		expect(waits('2026-11-23')).to.deep.equal({
			1: ['not there yet: Laths (was to come 23 Nov 2026)']
		});
		for (const day of ['2026-11-24', '2026-11-26']) expect(waits(day), day).to.deep.equal({});
		expect(waits(null, { lookAt: true })).to.deep.equal({});
		addMaterial(world, job, { key: 'm', what: 'Lime', expectedOn: '' });
		addMaterial(world, job, { key: 'm', what: 'Lime', expectedOn: '' });
		const id = book('2026-12-01');
		const awaited = () => visitsBetween(world.db, '2026-12-01', '2026-12-01')[0]!.awaited;
		expect(awaited()).to.deep.equal([{ what: 'Lime', expectedOn: null }]);
		const [lime] = materialsOf(world.db, job);
		moveMaterial(world, job, { id: lime!.id, to: 'here' });
		expect(awaited()).to.deep.equal([]);
		expect(materialsOf(world.db, job)[0]!.hereOn).to.equal('2026-11-24');
		moveMaterial(world, job, { id: lime!.id, to: 'awaited' });
		expect(awaited()).to.have.length(1);
		moveMaterial(world, job, { id: lime!.id, to: 'gone' });
		expect(() => moveMaterial(world, job, { id: lime!.id, to: 'here' })).to.throw(/not here/);
		expect(() => addMaterial(world, job, { key: 'n', what: ' ', expectedOn: '' })).to.throw(
			FieldError
		);
		expect(visit(id).jobId).to.equal(job);
	});

	it('the minutes to get there are the visit’s own, or as the diary has them', () => {
		const id = book('2026-12-01');
		const travel = () => {
			const { travel, ownTravel } = visitsBetween(world.db, '2026-12-01', '2026-12-01')[0]!;
			return [travel, ownTravel];
		};
		expect(travel()).to.deep.equal([15, null]);
		saveDiaryWays(world, { from: '08:00', to: '17:00', arrivalMinutes: '60', travelMinutes: '25' });
		expect(travel()).to.deep.equal([25, null]);
		saveVisitDetail(world, id, { arriveFrom: '', arriveTo: '', travel: '0' });
		expect(travel()).to.deep.equal([0, 0]);
		saveVisitDetail(world, id, { arriveFrom: '', arriveTo: '', travel: '' });
		expect(travel()).to.deep.equal([25, null]);
		expect(() =>
			saveVisitDetail(world, id, { arriveFrom: '', arriveTo: '', travel: '-5' })
		).to.throw(FieldError);
	});

	it('an arrival time is as wide as the owner says', () => {
		const own = { from: '', to: '' };
		expect(arrivalOf('13:00', 120, own)).to.equal('between 13:00 and 15:00');
		expect(arrivalOf('23:00', 120, own)).to.equal('between 23:00 and 23:59');
		expect(arrivalOf('13:00', 0, own)).to.equal('at 13:00');
		expect(arrivalOf('', 120, own)).to.equal('');
		expect(arrivalOf('13:00', 120, { from: '12:30', to: '14:00' })).to.equal(
			'between 12:30 and 14:00'
		);
	});

	it('blocks come and go', () => {
		const id = addBlock(world, { title: 'Training', from: '2026-11-26', to: '' });
		expect(blocksBetween(world.db, '2026-11-26', '2026-11-26')).to.have.length(1);
		removeBlock(world, id);
		expect(blocksBetween(world.db, '2026-11-26', '2026-11-26')).to.deep.equal([]);
		expect(() => addBlock(world, { title: 'x', from: '2026-11-26', to: '2026-11-25' })).to.throw(
			FieldError
		);
	});
});

describe('telling the customer', () => {
	it('goes once for a visit as it stands; once it has moved, what waits is taken back', async () => {
		const id = book('2026-12-01', '13:00', '16:00');
		expect(tell(id)).to.equal(true);
		expect(tell(id)).to.equal(false);
		const [mail] = world.db.select().from(mails).all();
		expect(mail!.text).to.contain('1 Dec').and.contain('between 13:00 and 15:00');
		const read = proposeTelling(world, id, 'moved');
		place(id, { date: '2026-12-02' });
		await deliverDue(world);
		expect(world.sent).to.have.length(0);
		expect(() => tellCustomer(world, id, read)).to.throw(ConflictError);
		tell(id, 'moved');
		await deliverDue(world);
		expect(world.sent.map(({ subject }) => subject)).to.deep.equal([
			'Gable: now on Wednesday 2 December'
		]);
		expect(visitsBetween(world.db, '2026-12-02', '2026-12-02')[0]).to.include({ told: true });
	});

	it('is confirmed, or another time asked for, by its link; its calendar file keeps its name', () => {
		const id = book('2026-12-01', '09:00', '10:00');
		tell(id);
		const { token } = world.db.select().from(told).get()!;
		const event = () => {
			const file = new ICAL.Component(ICAL.parse(toldCalendar(world, token)));
			return new ICAL.Event(file.getFirstSubcomponent('vevent')!);
		};
		const before = event();
		expect(before.startDate.toString()).to.equal('2026-12-01T09:00:00');
		place(id, { date: '2026-12-03' });
		expect(event().uid).to.equal(before.uid);
		expect(event().sequence).to.equal(1);
		expect(event().startDate.toString()).to.equal('2026-12-03T09:00:00');
		answerVisit(world, token, { answer: 'confirmed', words: '' });
		expect(toldPage(world, token)).to.include({ answer: 'confirmed', date: '2026-12-03' });
		expect(() => answerVisit(world, token, { answer: 'other', words: '' })).to.throw(FieldError);
		answerVisit(world, token, { answer: 'other', words: 'After four' });
		expect(world.db.select().from(mails).all().at(-1)!.text).to.contain('After four');
		removeVisit(world, job, id);
		expect(toldPage(world, token).off).to.equal(true);
		expect(toldCalendar(world, token)).to.contain('CANCELLED').and.contain('METHOD:CANCEL');
		expect(() => toldPage(world, `${token}x`)).to.throw(/not here/);
	});

	it('takes the visit along as a calendar file, as it stands when the mail goes, and a cancelled one as such', async () => {
		const id = book('2026-12-01', '13:00', '16:00');
		tell(id);
		await deliverDue(world);
		const [file] = world.sent[0]!.attachments;
		expect(file).to.include({ filename: 'visit.ics' });
		expect(file!.contentType).to.match(/method=PUBLISH$/);
		const read = (content: Buffer) =>
			new ICAL.Component(ICAL.parse(content.toString()) as unknown[]).getFirstSubcomponent(
				'vevent'
			)!;
		const event = new ICAL.Event(read(file!.content));
		expect([event.startDate.toString(), event.sequence ?? 0]).to.deep.equal([
			'2026-12-01T13:00:00',
			0
		]);
		place(id, { date: '2026-12-02' });
		tell(id, 'moved');
		await deliverDue(world);
		const moved = new ICAL.Event(read(world.sent[1]!.attachments[0]!.content));
		expect([moved.uid, moved.sequence]).to.deep.equal([event.uid, 1]);
		tell(id, 'onTheWay');
		await deliverDue(world);
		expect(world.sent[2]!.attachments).to.deep.equal([]);
	});

	it('goes by text where that is wished, once, as short as it is, and is taken back when the visit moves', async () => {
		const id = book('2026-12-01', '13:00', '16:00');
		world.db.$client.exec("update customers set phone = '07700 900123'");
		const read = proposeTelling(world, id, 'booked');
		expect(read).to.include({ by: 'mail', mobile: '07700 900123' });
		expect(read.words).to.equal(
			'Orrell Lime & Plaster: we come on Tuesday 1 December, between 13:00 and 15:00. {link}'
		);
		for (const [wrong, box] of [
			[{ mobile: '01632 960001' }, 'mobile'],
			[{ words: ' ' }, 'words'],
			[{ words: 'x'.repeat(766) }, 'words'],
			// Its link makes it longer than it looks.
			[{ words: `${'x'.repeat(750)} {link}` }, 'words']
		] as const)
			try {
				tell(id, 'booked', { by: 'text', ...wrong });
				expect.fail(box);
			} catch (problem) {
				expect((problem as FieldError).fields, box).to.have.keys(box);
			}
		expect(tell(id, 'booked', { by: 'text' })).to.equal(true);
		expect(tell(id, 'booked', { by: 'text' })).to.equal(false);
		await deliverDue(world);
		expect(world.texts.map(({ to }) => to)).to.deep.equal(['07700900123']);
		expect(world.texts[0]!.text).to.match(/15:00\. http.*\/v\/[\w-]{20,}$/);
		expect(world.sent).to.deep.equal([]);
		// From then on that is how they are told, by itself too.
		expect(proposeTelling(world, id, 'moved').by).to.equal('text');
		tell(id, 'moved', { by: 'text' });
		place(id, { date: '2026-12-03' });
		await deliverDue(world);
		expect(world.texts).to.have.length(1);
		saveDiaryWays(world, { from: '08:00', to: '17:00', arrivalMinutes: '60', dayBefore: true });
		world.clock.set(londonMoment('2026-12-02T08:00'));
		tellOfTomorrow(world);
		await deliverDue(world);
		expect(world.texts.at(-1)!.text).to.contain('we come tomorrow, Thursday 3 December');
		expect(world.sent).to.deep.equal([]);
	});

	it('the day before goes by itself, by day, once, not to who wants none nor of what is pencilled in', () => {
		const id = book('2026-12-02');
		const pencilled = book('2026-12-02', '14:00', '15:00');
		saveVisitDetail(world, pencilled, { pencil: true, arriveFrom: '', arriveTo: '' });
		saveDiaryWays(world, { from: '08:00', to: '17:00', arrivalMinutes: '60', dayBefore: true });
		const count = () => world.db.select().from(told).all().length;
		world.clock.set(londonMoment('2026-12-01T07:59'));
		tellOfTomorrow(world);
		expect(count()).to.equal(0);
		setVisitNews(world, pencilled, { quiet: true });
		expect(proposeTelling(world, id, 'booked')).to.include({ quiet: true });
		world.clock.set(londonMoment('2026-12-01T08:00'));
		tellOfTomorrow(world);
		expect(count()).to.equal(0);
		setVisitNews(world, id, { quiet: false });
		expect(proposeTelling(world, id, 'finished')).to.include({ quiet: false });
		tellOfTomorrow(world);
		tellOfTomorrow(world);
		expect(world.db.select().from(told).all()).to.have.length(1);
		expect(world.db.select().from(told).get()).to.include({ visitId: id, kind: 'dayBefore' });
	});
});

describe('the calendar link', () => {
	it('holds visits over the change of clock at their own times, and opens nothing once it is taken back', () => {
		book('2027-03-28', '09:00', '12:00');
		book('2027-03-27', '', '');
		world.db
			.insert(people)
			.values({ id: 1, name: 'Tamsin', email: 't@x.example', role: 'owner', createdAt: 0 })
			.onConflictDoNothing()
			.run();
		expect(ownFeed(world)).to.equal(null);
		renewFeed(world);
		const token = () => world.db.select().from(diaryFeeds).get()!.token;
		const first = token();
		const file = new ICAL.Component(ICAL.parse(feedFile(world, first)));
		expect(
			file
				.getAllSubcomponents('vevent')
				.map((one) => new ICAL.Event(one).startDate.toString())
				.sort()
		).to.deep.equal(['2027-03-27', '2027-03-28T09:00:00']);
		renewFeed(world);
		expect(() => feedFile(world, first)).to.throw(/not here/);
		revokeFeed(world);
		expect(() => feedFile(world, token())).to.throw();
	});
});
