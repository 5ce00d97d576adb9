// Which letterhead a document is written on, and drawing it there.
import { and, eq, inArray, isNull } from 'drizzle-orm';
import type { DocumentView } from '../../../core/documents/viewTypes';
import { readLook, type Look } from '../../../core/letterheads/look';
import type { Dress } from '../../../core/sheet/context';
import { sheetLines } from '../../../core/sheet/blank';
import type { Sheet } from '../../../core/sheet/types';
import type { Reader } from '../../db/connection';
import { customers, letterheads, logos, priceItems, pricePictures } from '../../db/schema';
import type { World } from '../../world';
import type { Paper } from '../../documents/pdfParts';
import { workKindById } from '../business/workKinds';
import { standardOf } from './letterheads';

/** The first that is in use: of the document itself, of its customer, of its kind of work, the standard. */
function chosenLook(db: Reader, ids: readonly (number | null | undefined)[]): Look | undefined {
	for (const id of ids) {
		if (id === null || id === undefined) continue;
		const row = db
			.select({ look: letterheads.look })
			.from(letterheads)
			.where(and(eq(letterheads.id, id), isNull(letterheads.archivedAt)))
			.get();
		if (row) return readLook(row.look);
	}
	return standardOf(db)?.look;
}

/** What a sheet is written on, and the kind of work it is about. */
export function dressOf(db: Reader, sheet: Sheet): Dress {
	const kind = workKindById(db, sheet.workKindId);
	const own =
		sheet.customerId === null
			? undefined
			: db
					.select({ letterheadId: customers.letterheadId })
					.from(customers)
					.where(eq(customers.id, sheet.customerId))
					.get();
	const look = chosenLook(db, [sheet.letterheadId, own?.letterheadId, kind?.letterheadId]);
	const coded = look?.columns.some(({ id, shown }) => id === 'code' && shown);
	const codes = coded ? codesOf(db, sheet) : {};
	return {
		...(look ? { look } : {}),
		...(kind ? { workKind: { id: kind.id, name: kind.name } } : {}),
		...(Object.keys(codes).length ? { codes } : {})
	};
}

/** What a payer's statements and letters are written on. */
export function paperOf(db: Reader, payerId: number): Paper {
	const payer = db
		.select({ letterheadId: customers.letterheadId })
		.from(customers)
		.where(eq(customers.id, payerId))
		.get();
	const look = chosenLook(db, [payer?.letterheadId]);
	return { look, logo: logoAddress(db, look) };
}

function codesOf(db: Reader, sheet: Sheet): Record<string, string> {
	const ids = sheetLines(sheet).flatMap(({ itemId }) => (itemId === undefined ? [] : [itemId]));
	if (ids.length === 0) return {};
	const rows = db
		.select({ id: priceItems.id, code: priceItems.code })
		.from(priceItems)
		.where(inArray(priceItems.id, [...new Set(ids)].slice(0, 2000)))
		.all();
	return Object.fromEntries(rows.filter(({ code }) => code).map(({ id, code }) => [id, code]));
}

const asAddress = (type: string, content: Buffer) =>
	`data:${type};base64,${content.toString('base64')}`;

/** The logo of a look, as a data address. */
export function logoAddress(db: Reader, look: Look | undefined): string | undefined {
	if (!look?.logo) return undefined;
	const row = db
		.select({ content: logos.content })
		.from(logos)
		.where(eq(logos.hash, look.logo))
		.get();
	return row && asAddress('image/png', row.content);
}

function picturesOf(db: Reader, view: DocumentView): Record<number, string> | undefined {
	if (!view.columns.some(({ id }) => id === 'picture')) return undefined;
	const ids = view.sections
		.flatMap(({ rows }) => rows.map(({ picture }) => picture))
		.filter((id) => id !== null);
	if (ids.length === 0) return undefined;
	const rows = db
		.select()
		.from(pricePictures)
		.where(inArray(pricePictures.itemId, [...new Set(ids)].slice(0, 500)))
		.all();
	return Object.fromEntries(
		rows.map(({ itemId, type, content }) => [itemId, asAddress(type, content)])
	);
}

/** A document as a PDF on its letterhead. @param payUrl its pay page; null where it has none */
export function drawDocument(
	world: World,
	view: DocumentView,
	payUrl: string | null
): Promise<Buffer> {
	return world.press.document(view, {
		payUrl,
		madeAt: world.clock.now(),
		logo: logoAddress(world.db, view.look),
		pictures: picturesOf(world.db, view)
	});
}
