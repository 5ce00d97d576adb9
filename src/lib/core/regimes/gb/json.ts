// The JSON forms of tax points and of a VAT period, in and out.
import { z } from 'zod';
import {
	amount,
	amountAboveZero,
	optional,
	optionalFlag as flag,
	plainDate,
	signedAmount
} from '../../figures/forms';
import { parseOrThrow } from '../../figures/input';
import { formatMoney } from '../../money/decimal';
import { VAT_TREATMENTS } from '../types';
import { TAX_POINT_RULES, type SupplyPoint, type TaxPointsInput } from './taxPoints';
import { totalOf, type ReturnInput, type VatReturn } from './vatReturn';

type Path = (string | number)[];

const taxPointsInput = z
	.strictObject({
		rule: z.enum(TAX_POINT_RULES),
		workFinished: optional(plainDate),
		issued: optional(plainDate),
		total: amountAboveZero,
		payments: optional(z.array(z.strictObject({ date: plainDate, amount: amountAboveZero }))),
		registered: optional(
			z
				.strictObject({ from: plainDate, until: optional(plainDate) })
				.refine(({ from, until }) => until === null || until >= from, {
					message: 'expected an end that is not before the beginning',
					path: ['until']
				})
		)
	})
	.refine(({ rule, workFinished }) => rule === 'work' || workFinished === null, {
		message: 'expected no end of the work, which plays no part in this rule',
		path: ['workFinished']
	});

/** @throws FiguresError with the path of the first thing that is wrong. */
export function readTaxPointsInput(value: unknown): TaxPointsInput {
	const { payments, ...input } = parseOrThrow(taxPointsInput, value);
	return { ...input, payments: payments ?? [] };
}

export const writeTaxPoints = (points: readonly SupplyPoint[]) => ({
	points: points.map((point) => ({ ...point, amount: formatMoney(point.amount) }))
});

const id = z.string().min(1, 'expected an id');
const group = z
	.strictObject({
		treatment: z.enum(VAT_TREATMENTS),
		net: signedAmount,
		vat: signedAmount,
		reverseCharge: flag
	})
	.superRefine(({ treatment, vat, reverseCharge }, context) => {
		if (treatment === 'standard' || treatment === 'reduced') return;
		const refuse = (message: string, field: string) =>
			context.addIssue({ code: 'custom', message, path: [field] });
		if (vat !== 0n) refuse('expected no VAT under this treatment', 'vat');
		if (reverseCharge) refuse('expected no reverse charge under this treatment', 'reverseCharge');
	});

const documentInput = z.strictObject({
	id,
	type: z.enum(['invoice', 'credit']),
	against: optional(z.string()),
	taxPoint: optional(plainDate),
	issued: plainDate,
	due: optional(plainDate),
	inAdvance: optional(z.boolean()),
	advances: optional(z.array(z.strictObject({ date: plainDate, amount: amountAboveZero }))),
	groups: z.array(group).min(1, 'expected at least one group')
});
type DocumentInput = z.output<typeof documentInput>;

const returnInput = z
	.strictObject({
		basis: z.enum(['invoice', 'cash']),
		cashFrom: optional(plainDate),
		from: plainDate,
		to: plainDate,
		documents: z.array(documentInput),
		entries: optional(
			z.array(
				z.strictObject({
					invoice: z.string(),
					date: plainDate,
					type: z.enum(['payment', 'refund']),
					amount: amountAboveZero,
					withheld: optional(amount)
				})
			)
		),
		reliefs: optional(
			z.array(z.strictObject({ date: plainDate, type: z.enum(['claim', 'repay']), vat: amount }))
		),
		costs: optional(
			z.array(
				z.strictObject({
					date: plainDate,
					paid: optional(plainDate),
					net: signedAmount,
					vat: signedAmount
				})
			)
		)
	})
	.superRefine(({ basis, cashFrom, from, to, documents, entries }, context) => {
		const refuse = (message: string, ...path: Path) =>
			context.addIssue({ code: 'custom', message, path });
		if (from > to) refuse('expected an end that is not before the beginning', 'to');
		if (basis === 'invoice' && cashFrom !== null)
			refuse('expected on the cash basis only', 'cashFrom');
		const seen = new Set<string>();
		for (const [index, document] of documents.entries()) {
			const at = (message: string, ...path: Path) => refuse(message, 'documents', index, ...path);
			if (seen.has(document.id)) at('expected an id no other document has', 'id');
			seen.add(document.id);
			checkGroups(document, at);
			if (document.type === 'invoice') checkInvoice(document, at);
			else checkCredit(document, at);
		}
		checkCredits(documents, refuse);
		const invoices = new Set(documents.flatMap((one) => (one.type === 'invoice' ? [one.id] : [])));
		for (const [index, { invoice }] of (entries ?? []).entries())
			if (!invoices.has(invoice))
				refuse('expected the id of an invoice', 'entries', index, 'invoice');
	});

type Refuse = (message: string, ...path: Path) => void;

function checkGroups({ type, groups }: DocumentInput, at: Refuse): void {
	const kinds = new Set<string>();
	for (const [index, { treatment, reverseCharge }] of groups.entries()) {
		const kind = `${treatment} ${reverseCharge}`;
		if (kinds.has(kind)) at('expected each treatment once', 'groups', index, 'treatment');
		kinds.add(kind);
	}
	const total = totalOf(groups);
	if (total < 0n) at('expected a total that is not negative', 'groups');
	if (type === 'credit' && total === 0n) at('expected a credit above zero', 'groups');
}

function checkInvoice(document: DocumentInput, at: Refuse): void {
	const { taxPoint, due, advances, groups, against } = document;
	if (against !== null) at('expected on a credit only', 'against');
	if (due === null) at('expected a due date', 'due');
	if (taxPoint === null) return at('expected a tax point', 'taxPoint');
	for (const [index, advance] of (advances ?? []).entries())
		if (advance.date >= taxPoint)
			at('expected a day before the tax point', 'advances', index, 'date');
	const sum = (advances ?? []).reduce((all, one) => all + one.amount, 0n);
	if (sum > totalOf(groups)) at('expected no more than the total', 'advances');
}

function checkCredit(document: DocumentInput, at: Refuse): void {
	for (const field of ['taxPoint', 'due', 'inAdvance', 'advances'] as const)
		if (document[field] !== null) at('expected on an invoice only', field);
	if (document.against === null) at('expected the id of an invoice', 'against');
}

/** Credits against what they correct: there, not later, of the same kinds, and together no more than it. */
function checkCredits(documents: readonly DocumentInput[], refuse: Refuse): void {
	const invoices = new Map(
		documents.flatMap((one) => (one.type === 'invoice' ? [[one.id, one] as const] : []))
	);
	const credited = new Map<DocumentInput, { sum: bigint; last: number }>();
	for (const [index, credit] of documents.entries()) {
		if (credit.type !== 'credit' || credit.against === null) continue;
		const invoice = invoices.get(credit.against);
		if (!invoice) {
			refuse('expected the id of an invoice', 'documents', index, 'against');
			continue;
		}
		if (credit.issued < invoice.issued)
			refuse('expected a day not before the invoice', 'documents', index, 'issued');
		for (const [place, { treatment, reverseCharge }] of credit.groups.entries())
			if (
				!invoice.groups.some(
					(one) => one.treatment === treatment && one.reverseCharge === reverseCharge
				)
			)
				refuse(
					'expected a treatment of the invoice',
					'documents',
					index,
					'groups',
					place,
					'treatment'
				);
		const known = credited.get(invoice) ?? { sum: 0n, last: index };
		credited.set(invoice, {
			sum: known.sum + totalOf(credit.groups),
			last: credit.issued >= documents[known.last]!.issued ? index : known.last
		});
	}
	for (const [invoice, { sum, last }] of credited)
		if (sum > totalOf(invoice.groups))
			refuse('expected no more than the invoice comes to', 'documents', last, 'groups');
}

function grouped<T>(all: readonly T[], by: (one: T) => string): Map<string, T[]> {
	const groups = new Map<string, T[]>();
	for (const one of all) {
		const group = groups.get(by(one));
		if (group) group.push(one);
		else groups.set(by(one), [one]);
	}
	return groups;
}

/** @throws FiguresError with the path of the first thing that is wrong. */
export function readReturnInput(value: unknown): ReturnInput {
	const { documents, entries, reliefs, costs, ...period } = parseOrThrow(returnInput, value);
	const credits = grouped(documents, (one) => one.against ?? '');
	const money = grouped(entries ?? [], (entry) => entry.invoice);
	return {
		...period,
		reliefs: reliefs ?? [],
		costs: costs ?? [],
		invoices: documents
			.filter((one) => one.type === 'invoice')
			.map((one) => ({
				id: one.id,
				taxPoint: one.taxPoint!,
				issued: one.issued,
				due: one.due!,
				inAdvance: one.inAdvance ?? false,
				advances: one.advances ?? [],
				groups: one.groups,
				credits: credits.get(one.id) ?? [],
				entries: (money.get(one.id) ?? []).map((entry) => ({
					...entry,
					withheld: entry.withheld ?? 0n
				}))
			}))
	};
}

export function writeReturn({ rows, box6, box7, ...boxes }: VatReturn) {
	const money = (['box1', 'box3', 'box4', 'box5'] as const).map((box) => [
		box,
		formatMoney(boxes[box])
	]);
	return {
		rows: rows.map((row) => ({ ...row, net: formatMoney(row.net), vat: formatMoney(row.vat) })),
		...(Object.fromEntries(money) as Record<'box1' | 'box3' | 'box4' | 'box5', string>),
		box6: String(box6),
		box7: String(box7)
	};
}
