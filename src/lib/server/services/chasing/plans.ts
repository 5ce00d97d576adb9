// Chase plans, when they may write, and who is chased by which of them.
import { must } from '../../actor';
import { and, asc, eq, isNull, ne, sql } from 'drizzle-orm';
import { z } from 'zod';
import { CHANNELS, TONES, type ChaseStep } from '../../../core/chasing/types';
import { FIRST_PLAN, MERGE_FIELDS } from '../../../core/chasing/wording';
import { fieldProblem } from '../../../core/wordings/fill';
import { writeAtOnce, type Database, type Reader } from '../../db/connection';
import { chasePlans, customerChasing } from '../../db/schema';
import type { World } from '../../world';
import { parseForm } from '../business/fields';
import { ConflictError, FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { newToken } from '../business/keys';
import { labels } from '../business/fields';

export type ChasePlanRow = typeof chasePlans.$inferSelect;

/** A new data file begins with one plan; nothing goes out by it before chasing is turned on. */
export function layFirstPlan(db: Database, now: number): void {
	if (db.select({ id: chasePlans.id }).from(chasePlans).get()) return;
	db.insert(chasePlans)
		.values({ ...FIRST_PLAN, standard: true, updatedAt: now })
		.run();
}

export function loadPlans(db: Reader): ChasePlanRow[] {
	return db
		.select()
		.from(chasePlans)
		.where(isNull(chasePlans.archivedAt))
		.orderBy(asc(chasePlans.id))
		.all();
}

/** @throws NotFoundError */
export function loadPlan(db: Reader, id: number): ChasePlanRow {
	const row = db.select().from(chasePlans).where(eq(chasePlans.id, id)).get();
	if (!row || row.archivedAt !== null) throw new NotFoundError('This plan');
	return row;
}

const step = z.object({
	id: z.string().max(60).default(''),
	offset: z.coerce
		.number({ error: 'Give the days as a whole number.' })
		.int('Whole days, please.')
		.min(-60, 'At most 60 days before.')
		.max(365, 'At most a year after.'),
	channel: z.enum(CHANNELS),
	tone: z.enum(TONES),
	subject: z.string().trim().max(200, 'At most 200 characters.'),
	text: z.string().trim().min(1, 'Write what it says.').max(10_000, 'At most 10,000 characters.'),
	byHand: z.boolean()
});

const planForm = z.object({
	name: z.string().trim().min(1, 'Give the plan a name.').max(60, 'At most 60 characters.'),
	steps: z.array(step).min(1, 'A plan needs a step.').max(20, 'At most 20 steps.'),
	labels,
	standard: z.boolean(),
	chargeAfter: z.coerce
		.number({ error: 'Give the days as a whole number.' })
		.int('Whole days, please.')
		.min(1, 'At least a day after.')
		.max(365, 'At most a year after.')
		.nullable()
});

/** What a text message can carry in one piece or two. */
const TEXT_LENGTH = 300;

function readPlan(input: unknown): z.output<typeof planForm> & { steps: ChaseStep[] } {
	const form = parseForm(planForm, input);
	const problems: Record<string, string> = {};
	const seen = new Set<string>();
	const steps = form.steps.map((one, index) => {
		for (const box of ['subject', 'text'] as const) {
			const wrong = fieldProblem(one[box], MERGE_FIELDS);
			if (wrong) problems[`steps.${index}.${box}`] = `${wrong} The fields are listed beside.`;
		}
		if (one.channel !== 'text' && one.subject === '')
			problems[`steps.${index}.subject`] = 'A subject is needed.';
		if (one.channel === 'text' && one.text.length > TEXT_LENGTH)
			problems[`steps.${index}.text`] = `A text message has at most ${TEXT_LENGTH} characters.`;
		if (form.steps.some((other, at) => at < index && other.offset === one.offset))
			problems[`steps.${index}.offset`] = 'Another step is on this day already.';
		const id = one.id && !seen.has(one.id) ? one.id : newToken().slice(0, 12);
		seen.add(id);
		return { ...one, id };
	});
	if (Object.keys(problems).length) throw new FieldError(problems);
	return { ...form, steps: steps.sort((a, b) => a.offset - b.offset) };
}

/**
 * Changes a plan, or adds one where `id` is null. What was sent keeps what it said.
 * @throws FieldError, NotFoundError; ConflictError where another tab was first
 */
export function savePlan(world: World, id: number | null, version: number, input: unknown): number {
	must('bill');
	const form = readPlan(input);
	return writeAtOnce(world.db, (tx) => {
		const before = id === null ? null : loadPlan(tx, id);
		if (before && before.version !== version) throw new ConflictError();
		if (before?.standard && !form.standard)
			throw new RefusedError('One plan must be the standard one: make another one so first.');
		const values = { ...form, updatedAt: world.clock.now(), version: version + 1 };
		const saved = before
			? tx.update(chasePlans).set(values).where(eq(chasePlans.id, before.id)).returning().get()
			: tx.insert(chasePlans).values(values).returning().get();
		if (form.standard)
			tx.update(chasePlans).set({ standard: false }).where(ne(chasePlans.id, saved!.id)).run();
		return saved!.id;
	});
}

/** Puts a plan away; who chose it goes by label or the standard plan, until it is back. @throws RefusedError for the standard one */
export function archivePlan(world: World, id: number): void {
	must('bill');
	writeAtOnce(world.db, (tx) => {
		if (loadPlan(tx, id).standard)
			throw new RefusedError('The standard plan cannot be put away: make another one so first.');
		tx.update(chasePlans).set({ archivedAt: world.clock.now() }).where(eq(chasePlans.id, id)).run();
	});
}

/** Takes an archived plan back into use, for whoever had it. */
export function restorePlan(world: World, id: number): void {
	must('bill');
	world.db.update(chasePlans).set({ archivedAt: null }).where(eq(chasePlans.id, id)).run();
}

/** How a payer is chased where that differs from the rest. */
export interface PayerChasing {
	planId: number | null;
	never: boolean;
	onHold: boolean;
	note: string;
}

export const LIKE_ALL: PayerChasing = { planId: null, never: false, onHold: false, note: '' };

/** Picks each payer's plan: its own, else the first with one of its labels, else the standard one. */
export function planPicker(
	db: Reader
): (
	payerId: number,
	labelsOf: readonly string[]
) => { plan: ChasePlanRow | null; onHold: boolean } {
	const plans = loadPlans(db);
	const own = new Map(
		db
			.select()
			.from(customerChasing)
			.all()
			.map((row) => [row.customerId, row])
	);
	const standard = plans.find((plan) => plan.standard) ?? null;
	return (payerId, labelsOf) => {
		const { planId, never, onHold } = own.get(payerId) ?? LIKE_ALL;
		const plan = never
			? null
			: (plans.find((one) => one.id === planId) ??
				plans.find((one) => one.labels.some((label) => labelsOf.includes(label))) ??
				standard);
		return { plan, onHold };
	};
}

/** Every label in use, for choosing. */
export function labelsInUse(db: Reader): string[] {
	return db
		.all<{ label: string }>(
			sql`select distinct value as label from customers, json_each(customers.labels) where archived_at is null order by 1`
		)
		.map((row) => row.label);
}

/** How many payers have a plan of their own choosing, by plan. */
export function choosers(db: Reader): Map<number, number> {
	return new Map(
		db
			.select({ planId: customerChasing.planId, n: sql<number>`count(*)` })
			.from(customerChasing)
			.where(and(sql`${customerChasing.planId} is not null`, eq(customerChasing.never, false)))
			.groupBy(customerChasing.planId)
			.all()
			.map((row) => [row.planId!, row.n])
	);
}
