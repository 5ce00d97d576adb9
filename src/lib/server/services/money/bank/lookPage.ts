// A file that waits to be brought in, as the page shows it: so many of its lines at a time.
import { BANK_COLUMNS, type BankField } from '../../../../core/formats/bank/headings';
import { FieldError } from '../../../../core/refusals';
import { look, type Books, type Changed } from './bringIn';

const LINES_PER_PAGE = 100;
/** So many of the rows that are no lines are listed. */
const LEFT_OUT = 200;
/** As somebody asks about them. */
const SHOWN: readonly BankField[] = [
	'date',
	'in',
	'out',
	'amount',
	'direction',
	'payer',
	'text',
	'more',
	'reference',
	'state',
	'currency',
	'fee',
	'account'
];
const labels = new Map(BANK_COLUMNS.map(({ field, label }) => [field, label]));

/**
 * The lines from one on, counted from 0, with what is known of the whole file. Columns it cannot be read with are said in `problem`.
 * @throws NotFoundError where it is not waiting; FieldError where it cannot be read at all
 */
export function lookPage(books: Books, importId: number, changed: Changed | null, from: number) {
	let problem = '';
	let looked: ReturnType<typeof look>;
	try {
		looked = look(books, importId, changed);
	} catch (error) {
		if (!(error instanceof FieldError) || !changed) throw error;
		problem = error.fields.columns ?? '';
		looked = look(books, importId);
	}
	const { file, here, ...about } = looked;
	return {
		...about,
		id: importId,
		problem,
		format: file.format,
		encoding: file.encoding,
		currency: file.currency,
		csv: file.csv,
		fields: SHOWN.map((field) => ({ field, label: labels.get(field)! })),
		count: file.lines.length,
		from,
		to: Math.min(from + LINES_PER_PAGE, file.lines.length),
		lines: file.lines.slice(from, from + LINES_PER_PAGE).map((line, index) => ({
			...line,
			nth: from + index,
			amount: Number(line.amount),
			here: here[from + index]!
		})),
		leftOutCount: file.leftOut.length,
		leftOut: file.leftOut.slice(0, LEFT_OUT)
	};
}
