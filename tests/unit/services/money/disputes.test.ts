// A card payment disputed, an invoice paid twice, and what a statement says is not due.
import { expect } from 'chai';
import { sql } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { Proposer } from '../../../../src/lib/core/bank/proposer';
import { paidTwice } from '../../../../src/lib/core/settlement/twice';
import { cardDisputes } from '../../../../src/lib/server/db/schema';
import type { DisputeEvent } from '../../../../src/lib/server/gateways/card';
import { documentDetail } from '../../../../src/lib/server/services/desk/documents';
import { londonMoment } from '../../../../src/lib/core/calendar/conversion';
import { NotFoundError } from '../../../../src/lib/core/refusals';
import { nextMoves } from '../../../../src/lib/server/services/desk/moves';
import { inHandOf } from '../../../../src/lib/server/services/ledger/inHand';
import { acceptLine } from '../../../../src/lib/server/services/money/bank/accept';
import { bankPage } from '../../../../src/lib/server/services/money/bank/lines';
import {
	answerDispute,
	disputeEvidence,
	receiveDispute
} from '../../../../src/lib/server/services/money/cardDisputes';
import { noteOpened } from '../../../../src/lib/server/services/money/payPage';
import { openCheckout } from '../../../../src/lib/server/services/money/checkouts';
import { prepareSending, sendByMail } from '../../../../src/lib/server/services/invoices/send';
import { deliverDue } from '../../../../src/lib/server/clockwork/delivery';
import {
	buildStatement,
	readStatementOptions
} from '../../../../src/lib/server/services/owed/statements';
import { bringIn } from '../../../support/bank';
import { expectSoundBooks } from '../../../support/books';
import { FIRM, itemOf, oneLine, payByHand } from '../../../support/money';
import { unzip } from '../../../support/unzip';
import {
	CONTRACTOR,
	issued,
	line,
	makeWorld,
	receive,
	settledEvent,
	type TestWorld
} from '../../../support/world';

let world: TestWorld;
let invoice: { id: number; number: string; customerId: number };
beforeEach(async () => {
	world = makeWorld();
	invoice = await issued(world, FIRM, oneLine('100'));
	const { token } = world.db.get<{ token: string }>(
		sql`select token from documents where id = ${invoice.id}`
	)!;
	await openCheckout(world, token, 'k');
	receive(world, settledEvent('chk-1', 120_00));
});
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

let count = 0;
const news = (type: DisputeEvent['type'], more: Partial<DisputeEvent> = {}) =>
	receiveDispute(
		world,
		{
			id: `d-${count++}`,
			type,
			checkout: 'chk-1',
			dispute: 'dsp-1',
			amount: 120_00,
			reason: 'Not known to me',
			respondBy: '2026-12-01',
			...more
		},
		'{}'
	);
const dispute = () => world.db.select().from(cardDisputes).get()!;
const move = () => nextMoves(world).find(({ id }) => id.startsWith('dispute:'));

describe('a disputed card payment', () => {
	it('says by when it is to be answered, and is answered once', () => {
		news('dispute.opened');
		expect(move()!.detail).to.equal(`${invoice.number}: answer by 1 Dec 2026, in 7 days`);
		expect(itemOf(world, invoice.id).state).to.equal('paid');
		answerDispute(world, dispute().id);
		answerDispute(world, dispute().id);
		expect(move()).to.equal(undefined);
		expect(documentDetail(world, invoice.id).cardDisputes[0]!.state).to.equal('answered');
	});

	it('is a move until its last day, late from two days before it, and says when that is past', () => {
		news('dispute.opened');
		const on = (day: string) => {
			world.clock.set(londonMoment(`${day}T09:00`));
			const { detail, late, amount, title } = move()!;
			expect([amount, title]).to.deep.equal([
				120_00n,
				'Corvane Dairy Ltd disputes a card payment of £120.00'
			]);
			return [detail.replace(`${invoice.number}: `, ''), late];
		};
		expect(on('2026-11-28')).to.deep.equal(['answer by 1 Dec 2026, in 3 days', false]);
		expect(on('2026-11-29')).to.deep.equal(['answer by 1 Dec 2026, in 2 days', true]);
		expect(on('2026-11-30')).to.deep.equal(['answer by 1 Dec 2026, tomorrow', true]);
		expect(on('2026-12-01')).to.deep.equal(['answer by 1 Dec 2026, today', true]);
		expect(on('2026-12-02')).to.deep.equal(['the time to answer ended on 1 Dec 2026', true]);
	});

	it('leaves one word on the invoice for each piece of news, told once or twice', () => {
		const words = () =>
			documentDetail(world, invoice.id)
				.trail.filter(({ what }) => what.startsWith('dispute'))
				.map(({ who, what, detail }) => [who, what, detail]);
		news('dispute.opened', { id: 'same' });
		news('dispute.opened', { id: 'same' });
		answerDispute(world, dispute().id);
		news('dispute.won');
		const told = [
			['customer', 'disputeOpened', '£120.00, to answer by 1 Dec 2026'],
			['you', 'disputeAnswered', ''],
			['customer', 'disputeWon', '£120.00']
		];
		expect(words()).to.deep.include.members(told);
		expect(words()).to.have.length(3);
		expect(dispute()).to.include({ state: 'won', endedAt: world.clock.now(), amount: 120_00 });
		expect(() => answerDispute(world, 99)).to.throw(NotFoundError);
	});

	it('takes the money back when it is lost, once, and changes nothing when it is won', () => {
		news('dispute.opened');
		news('dispute.lost');
		news('dispute.lost');
		news('dispute.opened');
		expect([itemOf(world, invoice.id).outstanding, dispute().state]).to.deep.equal([
			120_00,
			'lost'
		]);
		expect(() => answerDispute(world, dispute().id)).to.throw('has ended');
		news('dispute.won', { dispute: 'dsp-2' });
		expect(itemOf(world, invoice.id).outstanding).to.equal(120_00);
	});

	it('may be told late or alone, and of a checkout nobody knows it is told again', () => {
		news('dispute.won');
		news('dispute.opened');
		expect(dispute().state).to.equal('won');
		expect(() => news('dispute.opened', { checkout: 'nobody', id: 'x' })).to.throw();
	});

	it('has its evidence in one file: the paper, what was sent, what happened; no link that opens a page', async () => {
		sendByMail(world, invoice.id, {
			...prepareSending(world, invoice.id),
			key: 'send',
			to: FIRM.email,
			copyToSelf: false
		});
		await deliverDue(world);
		news('dispute.opened');
		const { name, body } = await disputeEvidence(world, dispute().id);
		expect(name).to.equal(`Evidence-${invoice.number}.zip`);
		const files = await unzip(Buffer.from(await new Response(body).arrayBuffer()));
		expect([...files.keys()].sort()).to.deep.equal([
			`${invoice.number}.pdf`,
			'Messages.txt',
			'Summary.pdf',
			'What happened.csv'
		]);
		expect(files.get('Summary.pdf')!.toString())
			.to.contain('Not known to me')
			.and.to.contain('£120.00 on 24 Nov 2026');
		const summary = files.get('Summary.pdf')!.toString();
		for (const words of ['dsp-1', 'chk-1', '1 Dec 2026', FIRM.name, `${invoice.number} of 24 Nov`])
			expect(summary).to.contain(words);
		expect(summary).to.contain('£120.00').and.to.contain('Sent').and.not.to.contain('Opened by');
		const asked = JSON.parse(summary.slice(summary.indexOf('{')))['summary'] as {
			parts: { title: string; rows: [string, string][] }[];
		};
		expect(asked.parts.map(({ title, rows }) => [title, rows.map(([what]) => what)])).to.deep.equal(
			[
				[
					'The dispute',
					[
						'The processor’s name for it',
						'Payment',
						'Disputed',
						'What the customer says',
						'To answer by'
					]
				],
				[
					'The sale',
					[
						'Invoice',
						'Customer',
						'Where the work was done',
						'Work finished',
						'It comes to',
						'Paid by card'
					]
				],
				['That the customer had it', asked.parts[2]!.rows.map(([what]) => what)]
			]
		);
		expect(asked.parts[2]!.rows[0]![0]).to.match(/^Sent/);
		// Where nothing is said of a site, the work was done where the customer is.
		expect(summary).to.contain(FIRM.address.split('\n').join(', '));
		const happened = files.get('What happened.csv')!.toString().split('\n');
		expect(happened[0]).to.equal('When,Who,What,Detail');
		expect(happened.filter((row) => row.includes(`,sent,`))).to.have.length(1);
		expect(happened.find((row) => row.includes(',disputeOpened,'))).to.match(
			/^"?24 Nov 2026.*,customer,disputeOpened,"£120\.00, to answer by 1 Dec 2026"$/
		);
		noteOpened(world, documentDetail(world, invoice.id).link.split('/').at(-1)!, 'opened');
		world.db.update(cardDisputes).set({ reason: '' }).run();
		const seen = await unzip(
			Buffer.from(
				await new Response((await disputeEvidence(world, dispute().id)).body).arrayBuffer()
			)
		);
		expect(seen.get('Summary.pdf')!.toString())
			.to.contain('Opened by the customer')
			.and.to.contain('nothing');
		expect(await disputeEvidence(world, 99).catch((problem: unknown) => problem)).to.be.instanceOf(
			NotFoundError
		);
		const messages = files.get('Messages.txt')!.toString();
		expect(messages).to.match(/^24 Nov 2026/);
		expect(messages).to.contain(FIRM.email).and.to.contain('(link)').and.to.not.contain('/p/');
	});
});

describe('an invoice paid twice', () => {
	it('is noticed with both payments where all of the second is too much', () => {
		payByHand(world, invoice.id, '120', { date: '2026-11-24' });
		const { twice } = documentDetail(world, invoice.id);
		expect(twice!.map(({ way }) => way)).to.deep.equal(['card', 'bank']);
		expect(paidTwice([{ amount: 5n }, { amount: 7n }], 7n)).to.equal(null);
		expect(paidTwice([{ amount: 7n }, { amount: 7n }], 6n)).to.equal(null);
		expect(paidTwice([{ amount: 7n }, { amount: 7n }], 0n)).to.equal(null);
	});

	it('from the bank is proposed with its reason, never surely, and accepted it is in hand', async () => {
		const file = `Date,Description,Amount\n25/11/2026,CORVANE ${invoice.number},120.00\n`;
		world.clock.set(Date.UTC(2026, 10, 26, 9));
		bringIn(world, 'bank.csv', new TextEncoder().encode(file));
		const [bankLine] = bankPage(world, 'open').lines;
		const [best] = bankLine!.proposals;
		expect([best!.sure, best!.shares, best!.over]).to.deep.equal([false, [], 120_00n]);
		expect(best!.reasons.at(-1)).to.equal(
			`${invoice.number} was paid by card on 24 Nov 2026 already: perhaps they paid twice, and want it back`
		);
		acceptLine(world, bankLine!.id, { payerId: best!.payerId, shares: [] });
		expect(inHandOf(world.db, invoice.customerId)[0]!.amount).to.equal(120_00);
		expect(itemOf(world, invoice.id).state).to.equal('paid');
	});

	it('is not thought of where the sum, the name or the time is another', () => {
		const settled = {
			number: 'INV-0007',
			payerId: 1,
			payer: 'Corvane Dairy',
			payable: 120_00n,
			paidOn: '2026-11-24',
			how: 'by card'
		};
		const propose = (amount: bigint, text: string, date = '2026-11-30') =>
			new Proposer({ invoices: [], learned: [], recorded: [], settled: [settled] }).propose({
				id: 1,
				date,
				amount,
				text,
				payer: ''
			});
		expect(propose(120_00n, 'CORVANE DAIRY')).to.have.length(1);
		expect(propose(119_00n, 'INV-0007')).to.deep.equal([]);
		expect(propose(120_00n, 'SOMEBODY')).to.deep.equal([]);
		expect(propose(120_00n, 'INV-0007', '2027-02-01')).to.deep.equal([]);
	});
});

describe('a statement', () => {
	it('names what the payer holds back as not due, from the day of its invoice', async () => {
		const { customerId, number } = await issued(world, CONTRACTOR, {
			retention: '5',
			rows: [line('a', 'Render', '1000')]
		});
		const notes = (asOf: string) =>
			buildStatement(world, customerId, readStatementOptions({ asOf })).view.notes.join('\n');
		expect(notes('2026-11-24')).to.contain(
			`Not due, and not in the balance: £50.00 of retention that you hold on ${number}.`
		);
		expect(notes('2026-11-23')).to.not.contain('retention');
	});
});
