// An application for payment as a document: it asks, and says that it is no VAT invoice (`tax-gb.md` 2).
import { eq } from 'drizzle-orm';
import { displayDate } from '../../../core/calendar/conversion';
import { dueDate } from '../../../core/calendar/terms';
import type { DocumentView } from '../../../core/documents/view';
import { viewDocument } from '../../../core/documents/view';
import { displayPounds } from '../../../core/money/display';
import { contractPosition } from '../../../core/jobs/stages';
import { stageParts, stages } from '../../db/schema';
import type { World } from '../../world';
import { sheetContext } from '../invoices/drafts';
import { NotFoundError, RefusedError } from '../../../core/refusals';
import { previewDraft } from '../invoices/freeze';
import { contractLines } from '../jobs/stageBooks';
import { stageSheet } from './stages';

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
	return {
		...view,
		title: 'Application for payment',
		banner: 'This is not a VAT invoice: one follows when this is approved or paid',
		facts: [
			{ label: 'Applied on', value: displayDate(appliedOn) },
			{ label: 'Due date', value: displayDate(due) },
			{ label: 'Final date for payment', value: displayDate(final) },
			...view.facts.filter(({ label }) => !['Invoice date', 'Due', 'Tax point'].includes(label))
		],
		statements: [
			`The sum applied for is ${displayPounds(preview.figures.payable)}. Basis: ${row.basis}.`,
			...view.statements.filter((text) => !text.startsWith('Terms:'))
		],
		bank: view.bank && { ...view.bank, reference: row.applicationNumber },
		due: displayDate(final)
	};
}
