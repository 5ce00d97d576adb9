// Runs of our statements: made, sent, and gone on with after a crash, once each.
import { must } from '../../actor';
import { and, asc, count, desc, eq, inArray, sql } from 'drizzle-orm';
import { type StatementView } from '../../../core/documents/statementView';
import { statementMessage } from '../../../core/documents/wording';
import { writeAtOnce } from '../../db/connection';
import { customers, mails, statementRuns, statements } from '../../db/schema';
import { payerOf, voiceFor } from '../wordings/voice';
import type { World } from '../../world';
import { linkToday } from '../business/links';
import { loadBusiness } from '../business/settings';
import { mailAddresses } from '../customers/parts';
import { NotFoundError, RefusedError } from '../../../core/refusals';
import { newToken } from '../business/keys';
import { paperOf } from '../letterheads/dress';
import { queueMail } from '../messages/outbox';
import { note } from '../trail/documents';
import { readStatementOptions, statementAddresses, buildStatement } from './statements';
import { turn } from '../../turn';

/** Begins a run. The same key again gives that one back. @throws FieldError, RefusedError */
export function startStatements(
	world: World,
	key: string,
	input: unknown,
	payerIds: readonly number[],
	action: 'send' | 'make'
): number {
	must('bill');
	const options = readStatementOptions(input);
	const wanted = [...new Set(payerIds)];
	if (wanted.length === 0) throw new RefusedError('Choose at least one payer.');
	return writeAtOnce(world.db, (tx) => {
		const same = tx
			.select({ id: statementRuns.id })
			.from(statementRuns)
			.where(eq(statementRuns.key, key))
			.get();
		if (same) return same.id;
		const known = tx
			.select({ id: customers.id })
			.from(customers)
			.where(inArray(customers.id, wanted))
			.all();
		if (known.length < wanted.length) throw new NotFoundError('This customer');
		const { id } = tx
			.insert(statementRuns)
			.values({ key, options, action, state: 'running', createdAt: world.clock.now() })
			.returning({ id: statementRuns.id })
			.get();
		for (let start = 0; start < wanted.length; start += 500)
			tx.insert(statements)
				.values(
					wanted
						.slice(start, start + 500)
						.map((payerId) => ({ runId: id, payerId, state: 'waiting' as const }))
				)
				.run();
		return id;
	});
}

let running: Promise<void> | null = null;

/** Goes on with what is not finished. Safe to call again, and from anywhere. */
export function continueStatements(world: World): Promise<void> {
	running ??= finishRuns(world).finally(() => (running = null));
	return running;
}

/** So many are read at once. */
const AT_ONCE = 40;
/** So many are under way: drawn on other threads, while the next is worked out. */
const LANES = 4;

async function finishRuns(world: World): Promise<void> {
	for (;;) {
		const run = world.db
			.select()
			.from(statementRuns)
			.where(eq(statementRuns.state, 'running'))
			.orderBy(asc(statementRuns.id))
			.get();
		if (!run) return;
		const next = world.db
			.select()
			.from(statements)
			.where(and(eq(statements.runId, run.id), eq(statements.state, 'waiting')))
			.orderBy(asc(statements.id))
			.limit(AT_ONCE)
			.all();
		if (next.length === 0) {
			world.db
				.update(statementRuns)
				.set({ state: 'done', finishedAt: world.clock.now() })
				.where(eq(statementRuns.id, run.id))
				.run();
			continue;
		}
		const lane = async () => {
			for (let one = next.shift(); one; one = next.shift()) {
				await turn();
				await makeOne(world, run, one);
			}
		};
		await Promise.all(Array.from({ length: LANES }, lane));
	}
}

async function makeOne(
	world: World,
	run: typeof statementRuns.$inferSelect,
	row: typeof statements.$inferSelect
): Promise<void> {
	const token = newToken();
	const now = world.clock.now();
	const link = `${world.origin}/s/${token}`;
	const { view, balance, documentIds } = buildStatement(world, row.payerId, run.options);
	const pdf = await world.press.statements(
		[view],
		[{ payUrl: balance > 0 ? link : null, madeAt: now, ...paperOf(world.db, row.payerId) }]
	);
	await turn();
	writeAtOnce(world.db, (tx) => {
		const still = tx.select().from(statements).where(eq(statements.id, row.id)).get();
		if (still?.state !== 'waiting') return;
		const to =
			run.action === 'send'
				? statementAddresses(tx, [row.payerId]).get(row.payerId) ||
					mailAddresses(tx, row.payerId)[0]
				: undefined;
		const sending = run.action === 'send' && to;
		tx.update(statements)
			.set({
				state: sending ? 'sent' : run.action === 'make' ? 'made' : 'skipped',
				note: sending
					? to
					: run.action === 'send'
						? 'There is no e-mail address to send it to.'
						: '',
				token,
				view,
				balance,
				pdf,
				madeAt: now
			})
			.where(eq(statements.id, row.id))
			.run();
		if (!sending) return;
		const owner = loadBusiness(tx);
		queueMail(tx, world, {
			key: `statement:${row.id}`,
			kind: 'statement',
			statementId: row.id,
			to,
			bcc: owner.copyToSelf ? owner.email : '',
			...statementMessage(view, owner, payerOf(tx, row.payerId), voiceFor(tx, row.payerId)),
			link,
			attachPdf: true
		});
		for (const documentId of documentIds)
			note(tx, { documentId, at: now, who: 'axiometer', what: 'onStatement', detail: to });
	});
}

/** A run with how far it is, and who got what. @throws NotFoundError */
export function statementRun(world: World, id: number) {
	const run = world.db.select().from(statementRuns).where(eq(statementRuns.id, id)).get();
	if (!run) throw new NotFoundError('This run');
	const rows = world.db
		.select({
			id: statements.id,
			payerId: statements.payerId,
			payer: customers.name,
			state: statements.state,
			note: statements.note,
			balance: statements.balance,
			openedAt: statements.openedAt,
			mail: mails.state,
			mailId: mails.id,
			mailError: mails.lastError
		})
		.from(statements)
		.innerJoin(customers, eq(customers.id, statements.payerId))
		.leftJoin(mails, eq(mails.statementId, statements.id))
		.where(eq(statements.runId, id))
		.orderBy(asc(statements.id))
		.all();
	return { run, rows, done: rows.filter((row) => row.state !== 'waiting').length };
}

export function listStatementRuns(world: World) {
	return world.db
		.select({
			id: statementRuns.id,
			action: statementRuns.action,
			state: statementRuns.state,
			createdAt: statementRuns.createdAt,
			statements: count(statements.id)
		})
		.from(statementRuns)
		.leftJoin(statements, eq(statements.runId, statementRuns.id))
		.groupBy(statementRuns.id)
		.orderBy(desc(statementRuns.id))
		.limit(10)
		.all();
}

/** The statements of a run in one, to print. */
export function runViews(
	world: World,
	id: number
): { view: StatementView; token: string; payerId: number }[] {
	return world.db
		.select({ view: statements.view, token: statements.token, payerId: statements.payerId })
		.from(statements)
		.where(and(eq(statements.runId, id), sql`${statements.view} is not null`))
		.orderBy(asc(statements.id))
		.all()
		.map((row) => ({
			view: row.view!,
			token: linkToday(world.db, row.token!),
			payerId: row.payerId
		}));
}

/** The PDF of one statement as it was made. */
export function statementPdf(world: World, id: number): Buffer {
	const row = world.db.select().from(statements).where(eq(statements.id, id)).get();
	if (!row?.pdf) throw new NotFoundError('This statement');
	return row.pdf;
}
