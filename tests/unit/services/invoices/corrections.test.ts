// An invoice put right in one step: credit note and replacement together, the money and its deduction move, the work too.
// Over 300 lines: one case for each thing that moves with a correction.
import { expect } from 'chai';
import { eq, sql } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../../src/lib/core/calendar/conversion';
import { differences } from '../../../../src/lib/core/documents/differences';
import { frozenFigures } from '../../../../src/lib/core/documents/frozen';
import { FieldError, RefusedError } from '../../../../src/lib/core/refusals';
import { readSheet } from '../../../../src/lib/core/sheet/read';
import type { Sheet, SheetLine } from '../../../../src/lib/core/sheet/types';
import { documents, openItems, retentions } from '../../../../src/lib/server/db/schema';
import { billJob } from '../../../../src/lib/server/services/billing/toBill';
import { billStage } from '../../../../src/lib/server/services/billing/stages';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { documentDetail } from '../../../../src/lib/server/services/desk/documents';
import { jobPage } from '../../../../src/lib/server/services/desk/jobPage';
import {
	correctAsDraft,
	debitAsDraft
} from '../../../../src/lib/server/services/invoices/corrections';
import {
	copyAsDraft,
	discardDraft,
	loadDraft,
	saveDraft
} from '../../../../src/lib/server/services/invoices/drafts';
import { sheetContext } from '../../../../src/lib/server/services/invoices/context';
import { NotReadyError } from '../../../../src/lib/server/services/invoices/freeze';
import { issueInvoice } from '../../../../src/lib/server/services/invoices/issue';
import { addJob, loadJob } from '../../../../src/lib/server/services/jobs/jobs';
import { moveJob } from '../../../../src/lib/server/services/jobs/states';
import { deliverDue } from '../../../../src/lib/server/clockwork/delivery';
import { issueAndSend } from '../../../../src/lib/server/services/money/issueAndSend';
import { withheldByMonth } from '../../../support/deductions';
import { expectSoundBooks } from '../../../support/books';
import { itemOf, payByHand } from '../../../support/money';
import {
	CONTRACTOR,
	HOUSEHOLD,
	issued,
	line,
	makeWorld,
	type TestWorld
} from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const change = (id: number, edit: (sheet: Sheet) => Partial<Sheet>, reason = 'Too many hours') => {
	const { sheet, version } = loadDraft(world.db, id);
	return saveDraft(world, id, version, {
		...sheet,
		about: { ...sheet.about!, reason },
		...edit(sheet)
	});
};
const priced = (unitPrice: string) => (sheet: Sheet) => ({
	rows: sheet.rows.map((row) =>
		row.type === 'line' ? ({ ...row, unitPrice } satisfies SheetLine) : row
	)
});
const press = (id: number, sendTo: string | null = null) =>
	issueAndSend(world, id, loadDraft(world.db, id).version, {
		sendTo,
		copyToSelf: false,
		useInHand: false
	});
const frozen = (id: number) =>
	world.db.select().from(documents).where(eq(documents.id, id)).get()!.frozen!;

describe('correcting an invoice in one step', () => {
	it('moves what a contractor paid, with its deduction and the month it was made in', async () => {
		const wrong = await issued(world, CONTRACTOR, { rows: [line('a', 'Render', '1000')] });
		payByHand(world, wrong.id, '800.00', { date: '2026-11-05' });
		world.clock.set(londonMoment('2026-12-20T09:00'));
		const draft = correctAsDraft(world, wrong.id, 'k');
		expect(correctAsDraft(world, wrong.id, 'other')).to.equal(draft);
		change(draft, priced('900'));
		const right = await press(draft);
		expect(await press(draft)).to.deep.equal(right);
		const credit = documentDetail(world, wrong.id).creditedBy;
		expect(credit.map((note) => frozenFigures(note.frozen).total)).to.deep.equal([1000_00n]);
		expect(itemOf(world, wrong.id)).to.include({
			state: 'credited',
			cash: 80_00,
			withheld: 20_00,
			overpaid: 100_00,
			inHand: 80_00
		});
		expect(itemOf(world, right.id)).to.include({
			state: 'paid',
			cash: 720_00,
			withheld: 180_00,
			outstanding: 0
		});
		// All of it was paid in November, whatever was corrected since.
		expect(withheldByMonth(world.db)).to.deep.equal({ '2026-11-05': 200_00 });
	});

	it('keeps the tax point of the supply, and says in whose place it stands', async () => {
		const wrong = await issued(world, HOUSEHOLD, { rows: [line('a', 'Ceiling', '500')] });
		world.clock.set(londonMoment('2027-01-20T09:00'));
		const draft = correctAsDraft(world, wrong.id, 'k');
		change(draft, priced('450'));
		const right = await press(draft);
		expect(frozen(right.id)).to.include({ taxPoint: '2026-11-24', issueDate: '2027-01-20' });
		expect(documentDetail(world, right.id).view.facts).to.deep.include({
			id: 'corrects',
			label: 'In place of',
			value: `${wrong.number} of 24 Nov 2026`
		});
		expect(frozen(documentDetail(world, wrong.id).creditedBy[0]!.id).corrects!.reason).to.equal(
			'Too many hours'
		);
	});

	it('decides the VAT anew: wrongly charged to a contractor, it is reverse charged', async () => {
		const wrong = await issued(world, CONTRACTOR, {
			contract: 'none',
			contractReason: 'A survey',
			rows: [line('a', 'Render', '1000')]
		});
		expect(frozenFigures(frozen(wrong.id)).vatCharged).to.equal(200_00n);
		const draft = correctAsDraft(world, wrong.id, 'k');
		change(draft, () => ({ contract: 'construction' }), 'VAT was charged');
		const right = await press(draft);
		expect([
			frozenFigures(frozen(right.id)).vatCharged,
			frozenFigures(frozen(right.id)).vatReverseCharged
		]).to.deep.equal([0n, 200_00n]);
		const vat = world.db.get<{ sum: number }>(
			sql`select coalesce(sum(amount), 0) as sum from journal_lines where account = 'vatOutput'`
		)!;
		expect(vat.sum).to.equal(0);
	});

	it('moves no money where somebody else has to pay', async () => {
		const wrong = await issued(world, HOUSEHOLD, { rows: [line('a', 'Ceiling', '500')] });
		payByHand(world, wrong.id, '600.00');
		const other = addCustomer(world, { ...HOUSEHOLD, name: 'Sorrel Quint' });
		const draft = correctAsDraft(world, wrong.id, 'k');
		change(draft, () => ({ customerId: other }), 'Wrong customer');
		const right = await press(draft);
		expect([itemOf(world, right.id).cash, itemOf(world, wrong.id).inHand]).to.deep.equal([
			0, 600_00
		]);
	});

	it('wants a reason, keeps to its invoice, and is refused when that was credited meanwhile', async () => {
		const wrong = await issued(world, HOUSEHOLD, { rows: [line('a', 'Ceiling', '500')] });
		const draft = correctAsDraft(world, wrong.id, 'k');
		change(draft, () => ({}), ' ');
		const problem = await press(draft).catch((error: unknown) => error);
		expect((problem as NotReadyError).problems.map(({ path }) => path)).to.deep.equal([
			'about.reason'
		]);
		expect(() =>
			change(draft, (sheet) => ({ about: { ...sheet.about!, invoiceId: 99 } }))
		).to.throw(FieldError);
		expect(documentDetail(world, wrong.id).creditedBy).to.deep.equal([]);
		change(draft, () => ({}), 'x');
		// A second draft, after the first was thrown away, corrects it first.
		discardDraft(world, draft, true);
		const second = correctAsDraft(world, wrong.id, 'again');
		change(second, priced('400'), 'y');
		await press(second);
		discardDraft(world, draft, false);
		expect(await press(draft).catch((error: unknown) => error)).to.be.instanceOf(RefusedError);
		expect(() => correctAsDraft(world, wrong.id, 'third')).to.throw(RefusedError);
		expect(loadDraft(world.db, copyAsDraft(world, second, 'copy')).sheet.about).to.equal(undefined);
	});

	it('goes out as one message with both papers', async () => {
		const wrong = await issued(world, CONTRACTOR);
		const draft = correctAsDraft(world, wrong.id, 'k');
		change(draft, priced('10'));
		const right = await press(draft, 'accounts@beacon-lathe.example');
		await deliverDue(world);
		const [mail] = world.sent.filter(({ to }) => to.includes('beacon'));
		const credit = documentDetail(world, wrong.id).creditedBy[0]!;
		expect(mail!.attachments.map(({ filename }) => filename).sort()).to.deep.equal(
			[`${credit.number}.pdf`, `${right.number}.pdf`].sort()
		);
		expect(mail!.text).to.include(`in place of ${wrong.number}`);
	});

	it('takes over the work of its job, whole lines and a stage, with what is held back', async () => {
		const customerId = addCustomer(world, CONTRACTOR);
		const job = (title: string, retention: string) =>
			addJob(world, title, {
				title,
				customerId,
				contract: 'construction',
				pricesIncludeVat: false,
				retention,
				lines: [{ kind: 'labour', description: 'Render', quantity: '1', unitPrice: '1000' }]
			});
		const whole = job('Whole', '');
		moveJob(world, whole, 'finished', '2026-11-20');
		const bill = billJob(world, whole, 'lines', 'b');
		const first = await issueInvoice(world, bill, loadDraft(world.db, bill).version);
		const fix = correctAsDraft(world, first.id, 'k');
		change(fix, priced('950'));
		await press(fix);
		expect(loadJob(world.db, whole).state).to.equal('billed');
		expect(jobPage(world, whole).billed.map(({ documentId }) => documentId)).to.deep.equal([fix]);

		const staged = job('Stage', '5');
		const stage = billStage(world, staged, 's', {
			kind: 'stage',
			by: 'percent',
			percent: '40',
			amount: '',
			done: {}
		});
		const second = await issueInvoice(world, stage, loadDraft(world.db, stage).version);
		const more = correctAsDraft(world, second.id, 'm');
		change(more, priced('500'));
		const right = await press(more);
		expect(jobPage(world, staged).position!.left).to.equal(500_00n);
		expect(
			world.db
				.select()
				.from(retentions)
				.all()
				.map(({ documentId, amount }) => [documentId, amount])
		).to.deep.equal([[right.id, 25_00]]);
		const toomuch = correctAsDraft(world, right.id, 'n');
		change(toomuch, priced('1001'));
		expect(await press(toomuch).catch((error: unknown) => error)).to.be.instanceOf(RefusedError);
		expect(itemOf(world, right.id).state).to.equal('open');
	});

	it('marks what differs, and nothing else', async () => {
		const wrong = await issued(world, CONTRACTOR, {
			rows: [
				line('a', 'Render', '45', { quantity: '10', unit: 'hour' }),
				line('b', 'Lime', '100', { kind: 'materials', cost: '80' })
			]
		});
		const draft = correctAsDraft(world, wrong.id, 'k');
		const compare = () => {
			const { sheet } = loadDraft(world.db, draft);
			return differences(
				frozen(wrong.id),
				sheet,
				readSheet(sheet, sheetContext(world.db, sheet, '2026-11-24'))
			);
		};
		expect(compare()).to.deep.equal([]);
		change(draft, (sheet) => ({
			rows: [
				{ ...(sheet.rows[0] as SheetLine), quantity: '8' },
				line('c', 'Skip', '50', { kind: 'other' })
			]
		}));
		expect(compare().map(({ what, before, now }) => [what, before, now])).to.deep.equal([
			[
				'Line 1',
				'Render · 10 hour × 45 · Labour · VAT Standard · £450.00',
				'Render · 8 hour × 45 · Labour · VAT Standard · £360.00'
			],
			['Line 2', '', 'Skip · 1 × 50 · Other · VAT Standard · £50.00'],
			['Taken out', 'Lime · 1 × 100 · Materials · VAT Standard · cost 80 · £100.00', ''],
			['Without VAT', '£550.00', '£410.00'],
			['VAT they account for', '£110.00', '£82.00'],
			['Total', '£550.00', '£410.00'],
			['CIS deduction', '£94.00', '£82.00'],
			['To pay', '£456.00', '£328.00']
		]);
	});
});

describe('a debit note', () => {
	it('raises a price: taxed as its invoice, at its tax point, with its reason', async () => {
		const first = await issued(world, CONTRACTOR, { rows: [line('a', 'Render', '1000')] });
		world.clock.set(londonMoment('2027-02-01T09:00'));
		const draft = debitAsDraft(world, first.id, 'k');
		change(
			draft,
			() => ({ rows: [line('a', 'A further coat', '200')] }),
			'A further coat was asked for'
		);
		const note = await press(draft);
		expect(frozen(note.id)).to.include({
			taxPoint: '2026-11-24',
			issueDate: '2027-02-01',
			reverseCharge: true
		});
		const { view } = documentDetail(world, note.id);
		expect(view.title).to.equal('Debit note');
		expect(view.facts).to.deep.include({
			id: 'corrects',
			label: 'In addition to',
			value: `${first.number} of 24 Nov 2026`
		});
		expect(view.facts).to.deep.include({
			id: 'reason',
			label: 'Reason',
			value: 'A further coat was asked for'
		});
		expect(world.db.select().from(openItems).all()).to.have.length(2);
		expect(documentDetail(world, first.id).trail.map(({ what }) => what)).to.include('raisedBy');
	});
});
