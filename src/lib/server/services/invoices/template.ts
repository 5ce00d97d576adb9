// A sheet kept to be used again: what of it is wrong whatever the day and the customer.
import type { Reader } from '../../db/connection';
import { FieldError } from '../../../core/refusals';
import { sheetForm } from '../../../core/sheet/form';
import { readSheet } from '../../../core/sheet/read';
import type { Sheet } from '../../../core/sheet/types';
import { sheetContext } from './context';

/** Its own words and numbers, not the day's nor the parties'. */
const OWN = /^(rows|total|discount|retention|termsDays|prompt|note|reference)\b/;

/** @throws FieldError where it has not the shape of a sheet */
export function readTemplate(input: unknown): Sheet {
	const sheet = sheetForm.safeParse(input);
	if (!sheet.success) throw new FieldError({ rows: 'This could not be read.' });
	return sheet.data;
}

/** @throws FieldError with every place that could not be billed as it is */
export function checkTemplate(db: Reader, sheet: Sheet, today: string): void {
	const stops = readSheet(sheet, sheetContext(db, sheet, today)).problems.filter(
		({ level, path }) => level === 'stop' && OWN.test(path)
	);
	if (stops.length)
		throw new FieldError(Object.fromEntries(stops.map((one) => [one.path, one.message])));
}
