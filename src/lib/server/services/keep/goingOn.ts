// After a restore: what may have happened between the backup and now, and from where the books go on. Until then nothing goes out by itself.
import { must } from '../../actor';
import { eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { NotFoundError, FieldError } from '../../../core/refusals';
import { formatNumber } from '../../../core/documents/numbers';
import { writeAtOnce } from '../../db/connection';
import { mails, restores, texts, webhookEvents } from '../../db/schema';
import { lostSecrets } from '../../db/secrets';
import { bankEvent } from '../../gateways/bank';
import { cardEvent, payoutEvent } from '../../gateways/card';
import { UnavailableError } from '../../gateways/asking';
import type { World } from '../../world';
import { restingSince, type Restore } from '../business/resting';
import { goOnFrom, loadSeries } from '../business/series';
import { receiveBankEvent, receiveCardEvent } from '../money/cardEvents';
import { setAsideUnknown } from '../money/oddNews';
import { receivePayout } from '../money/payouts';

export const SERIES = ['invoice', 'creditNote'] as const;
type Kind = (typeof SERIES)[number];

export interface AfterRestore {
	restore: Restore;
	series: { kind: Kind; next: number; written: string; pattern: string }[];
	/** Messages that waited to go when the backup was made. */
	waiting: number;
	/** Reminders, repeats and charges that are due, and go once it is started. */
	due: { repeats: number; charges: number };
	/** Secrets that are to be entered again. */
	secrets: string[];
}

/** @throws NotFoundError where the books do not rest */
export function afterRestore(world: World): AfterRestore {
	must('owner');
	const { db } = world;
	const restore = restingSince(db);
	if (!restore) throw new NotFoundError('This page');
	const year = world.clock.today().slice(0, 4);
	const count = (query: string, ...values: string[]) =>
		db.$client
			.prepare(query)
			.pluck()
			.get(...values) as number;
	return {
		restore,
		series: SERIES.map((kind) => {
			const { next, pattern } = loadSeries(db, kind);
			return { kind, next, pattern, written: formatNumber(pattern, next, year) };
		}),
		waiting:
			count("select count(*) from mails where state in ('queued', 'sending')") +
			count("select count(*) from texts where state = 'queued'"),
		due: {
			repeats: count("select count(*) from repeats where state = 'active'"),
			charges: count("select count(*) from repeats where state = 'active' and action = 'charge'")
		},
		secrets: lostSecrets(db)
	};
}

/** What card and bank gateways have said since the backup. */
export interface Heard {
	/** News that were taken now. */
	taken: number;
	/** News that the books knew. */
	known: number;
	/** News of payments that the books do not know: asked about under Payouts. */
	aside: number;
	/** Who could not be reached. */
	silent: string[];
}

/** Asks them again for everything since the backup, and takes it as if it came now; what is known changes nothing. */
export async function askSince(world: World): Promise<Heard> {
	must('owner');
	const { restore } = afterRestore(world);
	const heard: Heard = { taken: 0, known: 0, aside: 0, silent: [] };
	const gateways = [
		{
			name: 'the card processor',
			news: () => world.card.newsSince(restore.madeAt),
			take: takeCard
		},
		{ name: 'the bank gateway', news: () => world.bank.newsSince(restore.madeAt), take: takeBank }
	];
	for (const { name, news, take } of gateways) {
		let all: unknown[];
		try {
			all = await news();
		} catch (error) {
			if (!(error instanceof UnavailableError)) throw error;
			heard.silent.push(name);
			continue;
		}
		for (const one of all) heard[takeOne(world, one, take)]++;
	}
	return heard;
}

type Told = { id: string; type: string; amount: number };
type Take = (world: World, news: unknown, body: string) => Told;

const takeCard: Take = (world, news, body) => {
	const payout = payoutEvent.safeParse(news);
	if (payout.success) {
		receivePayout(world, payout.data, body);
		return payout.data;
	}
	const event = cardEvent.parse(news);
	return told(event, () => receiveCardEvent(world, event, body));
};

const takeBank: Take = (world, news, body) => {
	const event = bankEvent.parse(news);
	return told(event, () => receiveBankEvent(world, event, body));
};

/** What is not known here says so with the news themselves. */
class UnknownError extends Error {
	constructor(readonly news: Told) {
		super();
	}
}
function told<T extends Told>(news: T, take: () => void): T {
	try {
		take();
	} catch (error) {
		if (error instanceof NotFoundError) throw new UnknownError(news);
		throw error;
	}
	return news;
}

function takeOne(world: World, news: unknown, take: Take): 'taken' | 'known' | 'aside' {
	const body = JSON.stringify(news);
	const { id } = named.parse(news);
	if (isKnown(world, id)) return 'known';
	try {
		take(world, news, body);
	} catch (error) {
		if (!(error instanceof UnknownError)) throw error;
		// Only money that came or went is worth a question.
		if (!/settled/.test(error.news.type)) return 'known';
		setAsideUnknown(world, error.news, body);
		return 'aside';
	}
	return isKnown(world, id) ? 'taken' : 'known';
}

const named = z.object({ id: z.string() });
const isKnown = (world: World, id: string): boolean =>
	world.db
		.select({ id: webhookEvents.id })
		.from(webhookEvents)
		.where(eq(webhookEvents.id, id))
		.get() !== undefined;

/**
 * The books go on: numbers from where the owner says, and what waited either goes or is taken to have gone.
 * @throws FieldError for a number that was taken; NotFoundError where they do not rest
 */
export function goOn(
	world: World,
	given: { next: Record<Kind, number>; waiting: 'gone' | 'send' }
): void {
	must('owner');
	writeAtOnce(world.db, (tx) => {
		const restore = restingSince(tx);
		if (!restore) throw new NotFoundError('This page');
		const wrong: Record<string, string> = {};
		for (const kind of SERIES) {
			const series = loadSeries(tx, kind);
			const next = given.next[kind];
			if (!Number.isSafeInteger(next) || next < 1 || next > 99_999_999)
				wrong[kind] = 'A whole number, at least 1.';
			else if (next < series.next)
				wrong[kind] = `${series.next} comes next in the backup: lower numbers have been taken.`;
		}
		if (Object.keys(wrong).length) throw new FieldError(wrong);
		for (const kind of SERIES) goOnFrom(tx, kind, given.next[kind]);
		if (given.waiting === 'gone') {
			const why = 'It waited when the backup was made, and may have gone before the restore';
			tx.update(mails)
				.set({ state: 'unsure', lastError: why })
				.where(inArray(mails.state, ['queued', 'sending']))
				.run();
			tx.update(texts)
				.set({ state: 'failed', lastError: why })
				.where(eq(texts.state, 'queued'))
				.run();
		}
		tx.update(restores)
			.set({ startedAt: world.clock.now() })
			.where(eq(restores.id, restore.id))
			.run();
	});
}
