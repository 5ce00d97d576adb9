// The owner's business: first start, settings, VAT status over time, number series.
import { must } from '../../actor';
import { asc } from 'drizzle-orm';
import { isPlainDate } from '../../../core/calendar/queries';
import type { PlainDate } from '../../../core/calendar/types';
import type { Stagger } from '../../../core/reports/periods';
import { explainNumberPattern } from '../../../core/documents/numbers';
import { sellerOn, type SellerRecord } from '../../../core/parties';
import type { Asked } from '../../../core/sheet/types';
import { isVatNumber } from '../../../core/regimes/gb/checks';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { business, vatStatuses } from '../../db/schema';
import type { World } from '../../world';
import { FieldError, RefusedError } from '../../../core/refusals';
import { parseForm } from './fields';
import { loadSeries, saveSeries } from './series';
import { businessForm, type BusinessForm, type Parsed } from './form';

export function isSetUp(world: World): boolean {
	return world.db.select({ id: business.id }).from(business).get() !== undefined;
}

type Row = typeof business.$inferSelect;

export function loadBusiness(db: Reader): Row {
	const row = db.select().from(business).get();
	if (!row) throw new Error('the business is not set up yet');
	return row;
}

/** The seller as documents need it, with its VAT status by date. */
export function sellerRecord(db: Reader): SellerRecord {
	const row = loadBusiness(db);
	return {
		tradingName: row.tradingName,
		ownerName: row.ownerName,
		address: row.address,
		email: row.email,
		phone: row.phone,
		utr: row.utr,
		cisSubcontractor: row.cisSubcontractor,
		bank: {
			accountName: row.bankAccountName || row.tradingName || row.ownerName,
			sortCode: row.bankSortCode,
			accountNumber: row.bankAccountNumber,
			...(row.bankIban ? { iban: row.bankIban, bic: row.bankBic } : {})
		},
		terms: { days: row.termsDays, endOfMonth: row.termsEndOfMonth },
		vatStatuses: db
			.select({
				from: vatStatuses.from,
				registered: vatStatuses.registered,
				number: vatStatuses.number
			})
			.from(vatStatuses)
			.orderBy(asc(vatStatuses.from))
			.all()
	};
}

/** Whether the owner charges VAT today. */
export const isRegistered = (world: World): boolean =>
	sellerOn(sellerRecord(world.db), world.clock.today()).vatRegistered;

/** A VAT status from before the books began holds for every tax point. */
const ALWAYS = '0001-01-01';

/**
 * What the settings form says, read. A VAT number may still be missing: a document asks for it when it needs it.
 * @throws FieldError
 */
export function readBusiness(input: unknown): Parsed {
	const form = parseForm(businessForm, input);
	const problems: Record<string, string> = {};
	if (form.vatRegistered && form.vatNumber && !isVatNumber(form.vatNumber))
		problems.vatNumber = 'One of these digits is wrong: nine digits, as on your certificate.';
	if (form.vatFrom && !isPlainDate(form.vatFrom))
		problems.vatFrom = 'That is no day. Write it as 3 Nov 2026.';
	if (form.vatCashFrom && !isPlainDate(form.vatCashFrom))
		problems.vatCashFrom = 'That is no day. Write it as 3 Nov 2026.';
	const pattern = explainNumberPattern(form.invoicePattern);
	if (pattern) problems.invoicePattern = pattern;
	if (Object.keys(problems).length) throw new FieldError(problems);
	return form;
}

/**
 * Saves what the settings form says. `first` is the first start, where the series begin.
 * @throws FieldError
 */
export function saveBusiness(world: World, input: unknown, first = false): void {
	must('owner');
	const form = readBusiness(input);
	writeAtOnce(world.db, (tx) => {
		const values = {
			id: 1,
			ownerName: form.ownerName,
			tradingName: form.tradingName,
			address: form.address,
			email: form.email,
			phone: form.phone,
			cisSubcontractor: form.cisSubcontractor,
			utr: form.utr.replace(/\s/g, ''),
			bankAccountName: form.bankAccountName,
			bankSortCode: form.bankSortCode.replace(/[\s-]/g, '').replace(/(\d{2})(?=\d)/g, '$1-'),
			bankAccountNumber: form.bankAccountNumber.replace(/\s/g, ''),
			bankIban: form.bankIban.replace(/\s/g, '').toUpperCase(),
			bankBic: form.bankBic.replace(/\s/g, '').toUpperCase(),
			termsDays: form.termsDays,
			termsEndOfMonth: form.termsEndOfMonth,
			copyToSelf: form.copyToSelf,
			textPrice: form.textPrice,
			passOnCardFees: form.passOnCardFees,
			vatStagger: form.vatRegistered ? form.vatStagger : ('' as const),
			vatCashFrom:
				form.vatRegistered && form.vatBasis === 'cash' ? form.vatCashFrom || ALWAYS : null,
			updatedAt: world.clock.now()
		};
		tx.insert(business)
			.values(values)
			.onConflictDoUpdate({ target: business.id, set: values })
			.run();
		saveVatStatus(tx, form, first);
		saveSeries(tx, form, first);
	});
}

function saveVatStatus(tx: Transaction, form: Parsed, first: boolean): void {
	const number = form.vatRegistered
		? form.vatNumber
				.replace(/[\s.-]/g, '')
				.toUpperCase()
				.replace(/^GB/, '')
		: '';
	const latest = tx.select().from(vatStatuses).orderBy(asc(vatStatuses.from)).all().at(-1);
	const from =
		form.vatFrom ||
		(first || !latest || latest.registered === form.vatRegistered ? (latest?.from ?? ALWAYS) : '');
	if (!from)
		throw new FieldError({
			vatFrom: 'From which day is that so? Documents follow it by their tax point.'
		});
	tx.insert(vatStatuses)
		.values({ from, registered: form.vatRegistered, number })
		.onConflictDoUpdate({
			target: vatStatuses.from,
			set: { registered: form.vatRegistered, number }
		})
		.run();
}

/** How VAT is returned: by tax point, or on the cash basis since a day; and when its periods end. */
export function vatWays(db: Reader): {
	basis: 'invoice' | 'cash';
	cashFrom: PlainDate | null;
	stagger: Stagger;
} {
	const { vatCashFrom, vatStagger } = loadBusiness(db);
	return {
		basis: vatCashFrom === null ? 'invoice' : 'cash',
		cashFrom: vatCashFrom === ALWAYS ? null : vatCashFrom,
		stagger: vatStagger
	};
}

/** What the settings form shows. */
export function businessSettings(
	world: World
): BusinessForm & { vatStatuses: SellerRecord['vatStatuses'] } {
	const row = loadBusiness(world.db);
	const series = loadSeries(world.db, 'invoice');
	const statuses = sellerRecord(world.db).vatStatuses;
	const latest = statuses.at(-1);
	return {
		...row,
		vatRegistered: latest?.registered ?? false,
		vatNumber: latest?.number ?? '',
		vatFrom: '',
		vatBasis: row.vatCashFrom === null ? 'invoice' : 'cash',
		vatCashFrom: row.vatCashFrom === null || row.vatCashFrom === ALWAYS ? '' : row.vatCashFrom,
		invoicePattern: series.pattern,
		invoiceNext: series.next,
		vatStatuses: statuses
	};
}

/** The settings in parts, each saved by itself: what was changed in another window meanwhile stays. */
const PARTS: Record<string, readonly (keyof BusinessForm)[]> = {
	you: ['ownerName', 'tradingName', 'address', 'email', 'phone'],
	tax: [
		'vatRegistered',
		'vatNumber',
		'vatFrom',
		'vatBasis',
		'vatCashFrom',
		'vatStagger',
		'cisSubcontractor',
		'utr'
	],
	bank: ['bankAccountName', 'bankSortCode', 'bankAccountNumber', 'bankIban', 'bankBic'],
	invoices: [
		'invoicePattern',
		'invoiceNext',
		'termsDays',
		'termsEndOfMonth',
		'copyToSelf',
		'textPrice',
		'passOnCardFees'
	]
};

/**
 * Saves one part of the settings.
 * @throws FieldError
 */
export function savePart(world: World, part: string, given: Record<string, unknown>): void {
	must('owner');
	if (!Object.hasOwn(PARTS, part)) throw new FieldError({ '': 'This could not be read.' });
	const values = Object.fromEntries(PARTS[part]!.map((name) => [name, given[name]]));
	saveBusiness(world, { ...businessSettings(world), ...values });
}

/** What a document may be the first to need, with the boxes that are asked for it and must not stay empty. */
const ASKED: Record<Asked, Partial<Record<keyof BusinessForm, string>>> = {
	vatNumber: { vatNumber: 'Nine digits, as on your certificate.' },
	utr: { utr: 'Ten digits, as on letters from HMRC.' },
	bank: {
		bankAccountName: '',
		bankSortCode: 'Six digits, such as 12-34-56.',
		bankAccountNumber: 'Eight digits.'
	},
	names: {
		ownerName: 'The law wants your own name on every invoice.',
		address: 'The law wants an address on every invoice.'
	},
	series: { invoicePattern: '', invoiceNext: 'A number, such as 1 or 231.' }
};

/**
 * Adds to the settings what a document was the first to need.
 * @returns the seller as documents need it now
 * @throws FieldError
 */
export function giveMissing(
	world: World,
	asked: string,
	given: Record<string, unknown>
): SellerRecord {
	const boxes = Object.entries(Object.hasOwn(ASKED, asked) ? ASKED[asked as Asked] : {});
	if (!boxes.length) throw new FieldError({ '': 'This could not be read.' });
	const missing = boxes.filter(([name, needed]) => needed && !String(given[name] ?? '').trim());
	if (missing.length) throw new FieldError(Object.fromEntries(missing));
	const values = Object.fromEntries(boxes.map(([name]) => [name, given[name]]));
	// What is there already is no longer missing: an account is changed in the settings, with the password.
	const { bankSortCode, bankAccountNumber } = loadBusiness(world.db);
	if (asked === 'bank' && bankSortCode && bankAccountNumber)
		throw new RefusedError('Your bank details are known by now. Change them in the settings.');
	saveBusiness(world, { ...businessSettings(world), ...values });
	return sellerRecord(world.db);
}
