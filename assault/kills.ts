// The server is killed at random moments: while it issues, takes a payment, works off a run, repeats, or sends statements.
import { createHmac } from 'node:crypto';
import { addCustomer } from '../src/lib/server/services/customers/customers';
import { startBillRun } from '../src/lib/server/services/billing/billRun';
import { addJob, moveJob } from '../src/lib/server/services/jobs/jobs';
import { openCheckout } from '../src/lib/server/services/money/checkouts';
import { startStatements } from '../src/lib/server/services/owed/statementRuns';
import { addRepeat } from '../src/lib/server/services/repeats/repeats';
import type { World } from '../src/lib/server/world';
import { draftOf, HOUSEHOLD, issued, line } from '../tests/support/world';
import { Ground, type Outcome } from './ground';

type Chance = () => number;
const household = (n: number) => ({
	...HOUSEHOLD,
	name: `Household ${n}`,
	email: `household-${n}@post.example`
});
const oneLine = { rows: [line('a', 'Render', '100')] };
const CARD_SECRET = 'stand-in-card-secret';

/** News as the card processor signs them. */
export function signed(body: string, secret = CARD_SECRET, time = Math.floor(Date.now() / 1000)) {
	return {
		'content-type': 'application/json',
		'card-time': String(time),
		'card-signature': createHmac('sha256', secret).update(`${time}.${body}`).digest('hex')
	};
}

export async function whileIssuing(rounds: number, chance: Chance): Promise<Outcome> {
	const drafts: { id: number; version: number }[] = [];
	const ground = await Ground.laidOut(async (world) => {
		for (let n = 0; n < rounds * 2; n++) drafts.push(draftOf(world, household(n), oneLine));
	});
	const issue = ({ id, version }: { id: number; version: number }) =>
		ground.json(`/billing/${id}/api`, {
			action: 'issue',
			version,
			sendTo: `after-${id}@post.example`,
			copyToSelf: false
		});
	const wrong: string[] = [];
	try {
		for (let round = 0; round < rounds; round++) {
			const two = drafts.slice(round * 2, round * 2 + 2).map(issue);
			await ground.killed(chance() * 250);
			await Promise.all(two);
			wrong.push(...ground.audit());
		}
		for (const draft of drafts) {
			const answer = await issue(draft);
			if (answer?.status !== 200) wrong.push(`draft ${draft.id} answers ${answer?.status}`);
		}
		const numbers = ground.read<string>(
			"select number from documents where kind = 'invoice' and state = 'issued' order by running"
		);
		const expected = drafts.map((_, n) => `INV-${String(7 + n).padStart(4, '0')}`);
		if (numbers.join() !== expected.join()) wrong.push(`numbers are ${numbers.join(' ')}`);
		const mails = await ground.mails();
		return {
			what: 'killed while issuing and sending',
			tries: rounds,
			lost: Math.max(0, drafts.length - numbers.length) + mails.lost,
			doubled: Math.max(0, numbers.length - drafts.length) + mails.doubled,
			wrong: [...wrong, ...mails.which, ...ground.audit()]
		};
	} finally {
		await ground.end();
	}
}

export async function whileWebhook(rounds: number, chance: Chance): Promise<Outcome> {
	const invoices: number[] = [];
	const ground = await Ground.laidOut(async (world) => {
		for (let n = 0; n < rounds; n++) {
			const { id } = await issued(world, household(n), oneLine);
			const token = world.db.$client
				.prepare('select token from documents where id = ?')
				.pluck()
				.get(id) as string;
			await openCheckout(world, token, `k${n}`);
			invoices.push(id);
		}
	});
	const tell = (n: number) => {
		const body = JSON.stringify({
			id: `evt-${n}`,
			type: 'payment.settled',
			checkout: `chk-k${n}`,
			amount: 120_00,
			fee: 188
		});
		return fetch(`${ground.app.origin}/webhooks/card`, {
			method: 'POST',
			body,
			headers: signed(body)
		}).catch(() => null);
	};
	const wrong: string[] = [];
	try {
		for (let n = 0; n < rounds; n++) {
			const three = [tell(n), tell(n), tell(n)];
			await ground.killed(chance() * 60);
			await Promise.all(three);
			wrong.push(...ground.audit());
		}
		// The processor tells again until it is acknowledged, and once more for good measure.
		for (let n = 0; n < rounds; n++)
			for (let again = 0; again < 2; again++) {
				const answer = await tell(n);
				if (answer?.status !== 200) wrong.push(`news ${n} answer ${answer?.status}`);
			}
		const counts = ground.read<number>('select count(*) from payments group by reference');
		const mails = await ground.mails();
		return {
			what: 'killed while a payment is told',
			tries: rounds,
			lost: rounds - counts.length + mails.lost,
			doubled: counts.filter((count) => count > 1).length + mails.doubled,
			wrong: [...wrong, ...mails.which, ...ground.audit()]
		};
	} finally {
		await ground.end();
	}
}

/** Work that goes on by itself after each start. */
interface Work {
	what: string;
	prepare: (world: World, many: number) => Promise<void>;
	/** Answers 1 once it is done. */
	done: (many: number) => string;
	/** How often each of it was made. */
	made: string;
}

const BILL_RUN: Work = {
	what: 'a bill run',
	async prepare(world, many) {
		for (let n = 0; n < many; n++) {
			const customerId = addCustomer(world, household(n));
			const id = addJob(world, `j${n}`, {
				title: `Gable ${n}`,
				customerId,
				pricesIncludeVat: false,
				lines: [{ kind: 'labour', description: 'Render', quantity: '1', unitPrice: '100' }]
			});
			moveJob(world, id, 'finished', '2026-11-20');
		}
		startBillRun(world, 'run', 'send', { split: 'job' });
	},
	done: () => "select count(*) = 0 from bill_runs where state = 'running'",
	made: 'select count(*) from billed_parts group by job_id'
};

const REPEATS: Work = {
	what: 'repeats',
	async prepare(world, many) {
		for (let n = 0; n < many; n++) {
			const { id } = await issued(world, household(1000 + n), oneLine);
			addRepeat(world, `r${n}`, id, {
				name: `Care ${n}`,
				start: '2026-11-24',
				every: 1,
				unit: 'month',
				action: 'send'
			});
		}
	},
	done: (many) =>
		`select count(*) >= ${many} from repeat_occurrences where state in ('sent', 'issued')`,
	made: "select count(*) from documents where origin = 'repeat' and state = 'issued' group by customer_id"
};

const STATEMENTS: Work = {
	what: 'a run of statements',
	async prepare(world, many) {
		const payers: number[] = [];
		for (let n = 0; n < many; n++)
			payers.push((await issued(world, household(2000 + n), oneLine)).customerId);
		startStatements(world, 'run', { asOf: '2026-11-24' }, payers, 'send');
	},
	done: () => "select count(*) = 0 from statement_runs where state = 'running'",
	made: 'select count(*) from mails where statement_id is not null group by statement_id'
};

/** The server is killed until it has been killed often enough, and then let be. */
async function whileWorking(
	works: readonly Work[],
	rounds: number,
	chance: Chance
): Promise<Outcome> {
	const many = Math.min(200, 10 + rounds * 2);
	const ground = await Ground.laidOut(async (world) => {
		for (const { prepare } of works) await prepare(world, many);
	});
	const wrong: string[] = [];
	try {
		for (let round = 0; round < rounds; round++) {
			await ground.killed(chance() * 700);
			wrong.push(...ground.audit());
		}
		for (const { what, done } of works)
			if (!(await ground.until(done(many), 120))) wrong.push(`${what} did not come to its end`);
		const mails = await ground.mails();
		let { lost, doubled } = mails;
		for (const { made } of works) {
			const counts = ground.read<number>(made);
			lost += many - counts.length;
			doubled += counts.filter((count) => count > 1).length;
		}
		return {
			what: `killed in ${works.map(({ what }) => what).join(', ')}`,
			tries: rounds,
			lost,
			doubled,
			wrong: [...wrong, ...mails.which, ...ground.audit()]
		};
	} finally {
		await ground.end();
	}
}

type Assault = (rounds: number, chance: Chance) => Promise<Outcome>;
export const whileRunning: Assault = (rounds, chance) => whileWorking([BILL_RUN], rounds, chance);
export const whileTicking: Assault = (rounds, chance) => whileWorking([REPEATS], rounds, chance);
export const whileStating: Assault = (rounds, chance) => whileWorking([STATEMENTS], rounds, chance);
/** All of it at once, in the time of one. */
export const whileAll: Assault = (rounds, chance) =>
	whileWorking([BILL_RUN, REPEATS, STATEMENTS], rounds, chance);
