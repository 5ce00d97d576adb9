// The server is killed at random moments: while it issues, takes a payment, works off a run, repeats, sends statements, or acts on many rows.
import { createHmac } from 'node:crypto';
import { addCustomer } from '../src/lib/server/services/customers/customers';
import { startBillRun } from '../src/lib/server/services/billing/billRun';
import { addJob } from '../src/lib/server/services/jobs/jobs';
import { moveJob } from '../src/lib/server/services/jobs/states';
import { openCheckout } from '../src/lib/server/services/money/checkouts';
import { startStatements } from '../src/lib/server/services/owed/statementRuns';
import { beginRun, chooseRows } from '../src/lib/server/services/many/runs';
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

/** Something the server is killed in. */
interface Work {
	what: string;
	prepare: (world: World, many: number) => Promise<void>;
	/** Presses a part of it, again where it was pressed before; what goes on by itself needs none. */
	press?: (ground: Ground, part: number) => Promise<Response | null>[];
	/** Answers 1 once it is done. */
	done: (many: number) => string;
	/** How often each of it was made. */
	made: string;
	/** What else must be so at the end. */
	check?: (ground: Ground, many: number) => string[];
}

/** Households below a thousand are those whose drafts are issued. */
const OURS = "cast(substr(c.name, length('Household ') + 1) as integer) < 1000";

/** Drafts that are issued and sent, two at once. */
const ISSUING: Work = {
	what: 'issuing',
	async prepare(world, many) {
		for (let n = 0; n < many; n++) draftOf(world, household(n), oneLine);
	},
	press: (ground, part) =>
		ground
			.read<string>(
				`select d.id || ' ' || d.version from documents d join customers c on c.id = d.customer_id
				 where d.key like 'draft-%' and ${OURS} order by d.id limit 2 offset ${part * 2}`
			)
			.map((one) => one.split(' ').map(Number) as [number, number])
			.map(([id, version]) =>
				ground.json(`/billing/${id}/api`, {
					action: 'issue',
					version,
					sendTo: `after-${id}@post.example`,
					copyToSelf: false
				})
			),
	done: () => 'select 1',
	made: `select count(*) from documents d join customers c on c.id = d.customer_id where d.state = 'issued' and ${OURS} group by c.id`,
	check: (ground) => {
		const numbers = ground.read<number>(
			"select running from documents where kind = 'invoice' and state = 'issued' order by running"
		);
		return numbers.every((one, n) => one === 7 + n) ? [] : [`numbers are ${numbers.join(' ')}`];
	}
};

/** Payments that the card processor tells of, three times at once. */
const WEBHOOKS: Work = {
	what: 'webhooks',
	async prepare(world, many) {
		for (let n = 0; n < many; n++) {
			const { id } = await issued(world, household(3000 + n), oneLine);
			const token = world.db.$client
				.prepare('select token from documents where id = ?')
				.pluck()
				.get(id) as string;
			await openCheckout(world, token, `k${n}`);
		}
	},
	press: (ground, part) => {
		const body = JSON.stringify({
			id: `evt-${part}`,
			type: 'payment.settled',
			checkout: `chk-k${part}`,
			amount: 120_00,
			fee: 188
		});
		const tell = () =>
			fetch(`${ground.app.origin}/webhooks/card`, {
				method: 'POST',
				body,
				headers: signed(body)
			}).catch(() => null);
		return [tell(), tell(), tell()];
	},
	done: () => 'select 1',
	made: 'select count(*) from payments group by reference'
};

const BILL_RUN: Work = {
	what: 'a bill run',
	async prepare(world, many) {
		for (let n = 0; n < many; n++) {
			const customerId = addCustomer(world, household(4000 + n));
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

/** An action on many rows of a list at once. */
const MANY: Work = {
	what: 'an action on many rows',
	async prepare(world, many) {
		const ids: number[] = [];
		for (let n = 0; n < many; n++) ids.push((await issued(world, household(5000 + n), oneLine)).id);
		const run = chooseRows(world, 'many', 'invoices', { ids });
		beginRun(world, run, 'send');
	},
	done: () => "select count(*) = 0 from many_runs where state = 'running'",
	made: `select count(*) from mails m join documents d on d.id = m.document_id join customers c on c.id = d.customer_id
		where c.name like 'Household 5___' group by d.id`
};

/** The server is killed until it has been killed often enough, and then let be; what is pressed is pressed once more at the end. */
async function whileWorking(
	works: readonly Work[],
	rounds: number,
	chance: Chance
): Promise<Outcome> {
	const many = Math.min(200, Math.max(6, rounds * 2));
	const pressed = works.some(({ press }) => press);
	const ground = await Ground.laidOut(
		async (world) => {
			for (const { prepare } of works) await prepare(world, many);
		},
		['app', 'mail']
	);
	const wrong: string[] = [];
	try {
		for (let round = 0; round < rounds; round++) {
			const presses = works.flatMap(({ press }) => press?.(ground, round) ?? []);
			await ground.killed(chance() * (pressed ? 250 : 700));
			await Promise.all(presses);
			wrong.push(...ground.audit());
		}
		for (const { what, press, done } of works) {
			for (let part = 0; press && part < many; part++)
				for (const answer of await Promise.all(press(ground, part)))
					if (answer?.status !== 200) wrong.push(`${what} ${part} answers ${answer?.status}`);
			if (!(await ground.until(done(many), 120))) wrong.push(`${what} did not come to its end`);
		}
		const mails = await ground.mails();
		let { lost, doubled } = mails;
		for (const { made, check } of works) {
			const counts = ground.read<number>(made);
			lost += many - counts.length;
			doubled += counts.filter((count) => count > 1).length;
			wrong.push(...(check?.(ground, many) ?? []));
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
const killedIn =
	(...works: Work[]): Assault =>
	(rounds, chance) =>
		whileWorking(works, rounds, chance);
export const whileIssuing = killedIn(ISSUING);
export const whileWebhook = killedIn(WEBHOOKS);
export const whileRunning = killedIn(BILL_RUN);
export const whileTicking = killedIn(REPEATS);
export const whileStating = killedIn(STATEMENTS);
export const whileMany = killedIn(MANY);
/** All of it at once, in the time of one. */
export const whileAll = killedIn(ISSUING, WEBHOOKS, BILL_RUN, REPEATS, STATEMENTS, MANY);
