// An invoice or a job out of one line: whom its first words may mean, and what is begun of it.
import { and, asc, desc, isNull, sql } from 'drizzle-orm';
import { quickLine, quickWords, type QuickLine } from '../../../core/quick';
import { FieldError, NotFoundError } from '../../../core/refusals';
import { pricesIncludeVatFor } from '../../../core/sheet/blank';
import type { SheetLine } from '../../../core/sheet/types';
import { must } from '../../actor';
import type { Reader } from '../../db/connection';
import { customers } from '../../db/schema';
import type { World } from '../../world';
import { isRegistered } from '../business/settings';
import { customerRecord } from '../customers/parts';
import { addJob } from '../jobs/jobs';
import { beginInvoice, loadDraft, saveDraft } from './drafts';

export interface QuickOffer extends QuickLine {
	customerId: number;
	customer: string;
	/** Its price is with VAT. */
	withVat: boolean;
}

/** More words than this are no name. */
const MOST_NAME = 5;
const MOST_OFFERS = 3;

function named(db: Reader, words: readonly string[]) {
	return db
		.select({ id: customers.id, name: customers.name, kind: customers.kind })
		.from(customers)
		.where(
			and(
				isNull(customers.archivedAt),
				// Each word begins one of the name.
				...words.map(
					(word) =>
						sql`' ' || lower(${customers.name}) like ${`% ${word.toLowerCase().replace(/[\\%_]/g, '\\$&')}%`} escape '\\'`
				)
			)
		)
		.orderBy(desc(customers.updatedAt), asc(customers.name))
		.limit(MOST_OFFERS)
		.all();
}

/** What a line may mean: the longest beginning that names somebody is the customer. Nothing where none does. */
export function quickOffers(world: World, typed: string): QuickOffer[] {
	must('bill');
	const read = quickWords(typed);
	if (!read) return [];
	const registered = isRegistered(world);
	for (let count = Math.min(MOST_NAME, read.words.length); count > 0; count--) {
		const name = read.words.slice(0, count);
		if (!/\p{L}/u.test(name[0]!)) return [];
		const found = named(world.db, name);
		if (found.length === 0) continue;
		const line = quickLine(read.what, read.words.slice(count));
		return found.map(({ id, name: customer, kind }) => ({
			...line,
			customerId: id,
			customer,
			withVat: registered && pricesIncludeVatFor(kind)
		}));
	}
	return [];
}

/**
 * Begins what an offer says. The same key again gives that one back.
 * @returns where it is
 * @throws FieldError, NotFoundError
 */
export function beginQuick(
	world: World,
	{ key, customerId, typed }: { key: string; customerId: number; typed: string }
): string {
	must('bill');
	const offer = quickOffers(world, typed).find((one) => one.customerId === customerId);
	if (!offer) throw new FieldError({ typed: 'Nobody of that name is a customer any more.' });
	const { what, quantity, unit, description, unitPrice, withVat } = offer;
	if (what === 'job') {
		const id = addJob(world, key, {
			title: description || 'New job',
			customerId,
			pricesIncludeVat: withVat,
			lines: unitPrice ? [{ description: description || 'Work', quantity, unit, unitPrice }] : []
		});
		return `/work/${id}`;
	}
	const customer = customerRecord(world.db, customerId);
	if (!customer) throw new NotFoundError('This customer');
	const id = beginInvoice(world, key, customerId);
	const draft = loadDraft(world.db, id);
	// Somebody pressed twice: what is on it by now stays.
	if (draft.version === 1 && draft.sheet.rows.length === 0) {
		const line: SheetLine = {
			id: 'q1',
			type: 'line',
			kind: 'labour',
			description,
			quantity,
			unit,
			unitPrice,
			vat: 'standard',
			vatReason: '',
			discount: '',
			cost: ''
		};
		saveDraft(world, id, 1, {
			...draft.sheet,
			pricesIncludeVat: withVat,
			rows: [line]
		});
	}
	return `/billing/${id}`;
}
