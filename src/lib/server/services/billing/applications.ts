// An application for payment as a document: it asks, and says that it is no VAT invoice (`tax-gb.md` 2).
import { must } from '../../actor';
import { eq, and, sql } from 'drizzle-orm';
import { displayDate } from '../../../core/calendar/conversion';
import { dueDate } from '../../../core/calendar/terms';
import type { DocumentView } from '../../../core/documents/viewTypes';
import { viewDocument } from '../../../core/documents/view';
import { displayPounds } from '../../../core/money/display';
import { contractPosition, type Stage } from '../../../core/jobs/stages';
import { stageParts, stages, documents } from '../../db/schema';
import type { World } from '../../world';
import { sheetContext } from '../invoices/context';
import { NotFoundError, RefusedError, FieldError } from '../../../core/refusals';
import { applicationMisses } from '../../../core/regimes/gb/kindLaw';
import { previewDraft } from '../invoices/freeze';
import { contractLines } from '../jobs/stageBooks';
import { stageSheet, stageForm, previewStage, insertStage, draftStage } from './stages';
import { z } from 'zod';
import { divideRounded, formatMoney, parseMoney } from '../../../core/money/decimal';
import { readTypedNumber } from '../../../core/money/typed';
import { shareOut } from '../../../core/money/sharing';
import { writeAtOnce } from '../../db/connection';
import { parseForm, day, text } from '../business/fields';
import { computeDraft } from '../invoices/drafts';
import { noteJob } from '../trail/jobs';

/** What the application looks like; its figures are those the invoice will have. @throws NotFoundError, RefusedError */
export function applicationView(world: World, jobId: number, stageId: number): DocumentView {
	const row = world.db.select().from(stages).where(eq(stages.id, stageId)).get();
	if (!row?.applicationNumber || row.jobId !== jobId) throw new NotFoundError('This application');
	const parts = world.db
		.select()
		.from(stageParts)
		.where(eq(stageParts.stageId, stageId))
		.all()
		.map((part) => ({
			lineId: part.lineId,
			amount: BigInt(part.amount),
			cost: part.cost === null ? null : BigInt(part.cost)
		}));
	const before = contractPosition(contractLines(world.db, jobId, stageId));
	const stage = { parts, amount: BigInt(row.amount), basis: row.basis };
	const sheet = stageSheet(world.db, jobId, stageId, row.kind, stage, before);
	const appliedOn = row.appliedOn ?? world.clock.today();
	const context = sheetContext(world.db, { ...sheet, issueDate: appliedOn }, appliedOn);
	const preview = previewDraft({ ...sheet, issueDate: appliedOn }, context);
	if (!preview) throw new RefusedError('There is nothing on this application.');
	const view = viewDocument(preview.frozen, preview.figures, row.applicationNumber, 'issued');
	const terms = context.customer?.terms ?? context.seller.terms;
	const due = dueDate(appliedOn, { days: 0, endOfMonth: false });
	const final = dueDate(appliedOn, terms);
	const missing = applicationMisses({
		sum: preview.figures.payable,
		basis: row.basis,
		due,
		finalDate: final
	});
	if (missing.length)
		throw new RefusedError(`An application for payment says ${missing.join(', ')}.`);
	const { look } = view;
	return {
		...view,
		title: look.words.application?.title.trim() || 'Application for payment',
		above: [look.words.application?.above, look.above]
			.map((words) => words?.trim() ?? '')
			.filter(Boolean),
		below: [look.words.application?.below, look.below, look.conditions]
			.map((words) => words?.trim() ?? '')
			.filter(Boolean),
		banner: 'This is not a VAT invoice: one follows when this is approved or paid',
		facts: [
			{ id: 'issued', label: 'Applied on', value: displayDate(appliedOn) },
			{ id: 'due', label: 'Due date', value: displayDate(due) },
			{ id: 'final', label: 'Final date for payment', value: displayDate(final) },
			...view.facts.filter(({ id }) => id !== 'issued' && id !== 'due' && id !== 'taxPoint')
		],
		statements: [
			`The sum applied for is ${displayPounds(preview.figures.payable)}. Basis: ${row.basis}.`,
			...view.statements
		],
		terms: '',
		bank: view.bank && { ...view.bank, reference: row.applicationNumber },
		due: displayDate(final)
	};
}

/** Asks for a payment without being a VAT invoice; it takes its part of the contract. @throws as `billStage` */
export function applyForPayment(world: World, jobId: number, key: string, input: unknown): number {
	must('bill');
	const now = world.clock.now();
	return writeAtOnce(world.db, (tx) => {
		const same = tx.select().from(stages).where(eq(stages.key, key)).get();
		if (same) return same.id;
		const { stage } = previewStage(tx, jobId, input);
		const kind = parseForm(stageForm, input).kind;
		const id = insertStage(tx, jobId, key, kind, stage, now, 'applied');
		const { n } = tx.get<{ n: number }>(
			sql`select count(*) + 1 as n from stages where application_number is not null`
		);
		const number = `A-${String(n).padStart(4, '0')}`;
		tx.update(stages)
			.set({ applicationNumber: number, appliedOn: world.clock.today() })
			.where(eq(stages.id, id))
			.run();
		noteJob(tx, jobId, now, 'applied', `${number}, ${displayPounds(stage.amount)}`);
		return id;
	});
}

const approvalForm = z.object({ amount: text(30), paidOn: day });

/**
 * An application approved or paid becomes its VAT invoice, over what was approved: the application's amount or less.
 * Paid already, the payment made the tax point (reg. 93). The same stage again gives the same draft back.
 */
export function approveApplication(world: World, stageId: number, input: unknown): number {
	must('bill');
	const form = parseForm(approvalForm, input);
	const today = world.clock.today();
	if (form.paidOn > today) throw new FieldError({ paidOn: 'That day has not come yet.' });
	return writeAtOnce(world.db, (tx) => {
		const row = tx.select().from(stages).where(eq(stages.id, stageId)).get();
		if (!row) throw new NotFoundError('This application');
		if (row.documentId) return row.documentId;
		if (row.state !== 'applied') throw new RefusedError('This application has been withdrawn.');
		const approved = form.amount
			? readTypedNumber(form.amount, { decimals: 2 })
			: { ok: true as const, text: formatMoney(BigInt(row.amount)) };
		const amount = approved.ok ? parseMoney(approved.text)! : 0n;
		if (amount <= 0n || amount > BigInt(row.amount))
			throw new FieldError({
				amount: `From 0.01 to ${formatMoney(BigInt(row.amount))}, what was applied for.`
			});
		const parts = tx.select().from(stageParts).where(eq(stageParts.stageId, stageId)).all();
		const shares = shareOut(
			amount,
			parts.map((part) => BigInt(part.amount))
		);
		const stage: Stage = {
			amount,
			basis:
				amount === BigInt(row.amount)
					? `${row.basis} (application ${row.applicationNumber})`
					: `${displayPounds(amount)} approved of application ${row.applicationNumber}`,
			parts: parts.map((part, index) => ({
				lineId: part.lineId,
				amount: shares[index]!,
				cost:
					part.cost === null
						? null
						: divideRounded(BigInt(part.cost) * shares[index]!, BigInt(part.amount))
			}))
		};
		for (const part of stage.parts)
			tx.update(stageParts)
				.set({
					amount: Number(part.amount),
					cost: part.cost === null ? null : Number(part.cost)
				})
				.where(and(eq(stageParts.stageId, stageId), eq(stageParts.lineId, part.lineId)))
				.run();
		tx.update(stages)
			.set({ amount: Number(amount), basis: stage.basis })
			.where(eq(stages.id, stageId))
			.run();
		const before = contractPosition(contractLines(tx, row.jobId, stageId));
		const id = draftStage(tx, world, row.jobId, stageId, row.kind, stage, before);
		if (form.paidOn && form.paidOn < today) {
			const draft = tx.select().from(documents).where(eq(documents.id, id)).get()!;
			const sheet = { ...draft.sheet, paidOn: form.paidOn };
			tx.update(documents).set({ sheet }).where(eq(documents.id, id)).run();
			computeDraft(tx, id, sheet, today);
		}
		return id;
	});
}

export function withdrawApplication(world: World, stageId: number): void {
	must('bill');
	world.db
		.update(stages)
		.set({ state: 'dropped' })
		.where(and(eq(stages.id, stageId), eq(stages.state, 'applied')))
		.run();
}
