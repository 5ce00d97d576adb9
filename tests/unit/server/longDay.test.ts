// A whole day without mail server, text gateway, card processor: everything waits, nothing is lost, and once they are back each thing goes once.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { londonMoment } from '../../../src/lib/core/calendar/conversion';
import { deliverDue } from '../../../src/lib/server/clockwork/delivery';
import { savedCards } from '../../../src/lib/server/db/schema';
import {
	prepareSending,
	sendByMail,
	sendByText
} from '../../../src/lib/server/services/invoices/send';
import { nextMoves } from '../../../src/lib/server/services/desk/moves';
import { runRepeats } from '../../../src/lib/server/services/repeats/making';
import { addRepeat } from '../../../src/lib/server/services/repeats/repeats';
import { expectSoundBooks } from '../../support/books';
import { oneLine } from '../../support/money';
import { HOUSEHOLD, issued, makeWorld, NOW } from '../../support/world';

const MINUTES = 60_000;
const INVOICES = 6;

describe('a whole day without anything outside', () => {
	it('keeps what is to go, asks no service to death, and sends each once when they are back', async function () {
		this.timeout(60_000);
		const world = makeWorld({ copyToSelf: false });
		let asked = 0;
		const mails: string[] = [];
		for (let n = 0; n < INVOICES; n++) {
			const { id } = await issued(
				world,
				{ ...HOUSEHOLD, name: `H${n}`, email: `h${n}@post.example` },
				oneLine('100')
			);
			sendByMail(world, id, {
				...prepareSending(world, id),
				key: `m${n}`,
				to: `h${n}@post.example`,
				copyToSelf: false
			});
			sendByText(world, id, {
				key: `t${n}`,
				mobile: `0770090010${n}`,
				words: 'Your invoice: {link}'
			});
			mails.push(`h${n}@post.example`);
		}
		const first = await issued(world, { ...HOUSEHOLD, name: 'Kept' }, oneLine('25'));
		world.db
			.insert(savedCards)
			.values({ customerId: first.customerId, token: 'tok', lastDigits: '1', consentAt: NOW })
			.run();
		addRepeat(world, 'r', first.id, {
			name: 'Care',
			start: '2026-11-24',
			every: 1,
			unit: 'month',
			action: 'charge'
		});

		world.mailAnswer = () => (
			asked++,
			{ state: 'later', reason: 'the mail server could not be reached' }
		);
		world.textAnswer = { state: 'later', reason: 'could not be reached' };
		world.cardDown = true;
		const tick = async (from: number, until: number, step: number) => {
			for (let at = from; at <= until; at += step) {
				world.clock.set(at);
				await runRepeats(world);
				await deliverDue(world);
			}
		};
		const back = londonMoment('2026-11-25T09:00');
		await tick(NOW, back, 5 * MINUTES);
		expect(world.sent).to.deep.equal([]);
		expect(world.texts).to.deep.equal([]);
		expect(world.charges).to.deep.equal([]);
		// Seven mails, an hour between tries in the end: some thirty tries each, not three hundred.
		expect(asked).to.be.within(7 * 24, 7 * 34);
		const titles = nextMoves(world).map(({ title }) => title);
		expect(titles).to.include('7 mails wait to go since 24 Nov 2026, 09:00');
		expect(titles).to.include('6 texts wait to go since 24 Nov 2026, 09:00');

		world.mailAnswer = () => ({ state: 'sent' });
		world.textAnswer = { state: 'sent' };
		world.cardDown = false;
		await tick(back + MINUTES, back + 90 * MINUTES, 5 * MINUTES);
		const went = world.sent.map(({ to }) => to).filter((to) => mails.includes(to));
		expect(went.sort()).to.deep.equal(mails.sort());
		expect(world.texts.map(({ to }) => to).sort()).to.have.length(INVOICES);
		expect(new Set(world.texts.map(({ to }) => to)).size).to.equal(INVOICES);
		expect(world.charges).to.have.length(1);
		expect(nextMoves(world).filter(({ id }) => id.endsWith('waiting'))).to.deep.equal([]);
		expectSoundBooks(world.db);
		world.end();
	});
});
