// How a job sheet reads: the same view as an invoice, with no sum to pay.
import { displayDate, displayMoment, displayWeekday } from '../calendar/conversion';
import type { PlainDate } from '../calendar/types';
import { sellerLines, splitLines } from '../documents/view';
import type { DocumentView, ViewColumn, ViewRow, ViewSection } from '../documents/viewTypes';
import { shows, type Look } from '../letterheads/look';
import { COLUMN_NAMES } from '../letterheads/names';
import { displayAmount } from '../money/display';
import type { Minor } from '../money/types';
import { billablesOf, hoursOf } from './billing';
import type { BilledType } from './types';
import {
	type JobSheetWritten,
	type JobSheetVisit,
	type JobSheetSource,
	type SheetSignature,
	onTheSheet
} from './jobSheet';

export interface JobSheetPaper {
	/** `J-0007/1`. */
	number: string;
	on: PlainDate;
	draft?: boolean;
	signed?: SheetSignature | null;
}

const row = (cells: Partial<ViewRow>): ViewRow => ({
	picture: null,
	code: '',
	description: '',
	quantity: '',
	unit: '',
	unitPrice: '',
	vat: '',
	discount: '',
	withoutVat: '',
	amount: '',
	minor: 0n,
	...cells
});

/** The sheet as it reads, on paper and on its page. */
export function jobSheetView(
	source: JobSheetSource,
	written: JobSheetWritten,
	paper: JobSheetPaper
): DocumentView {
	const { job, seller, customer, site, look, work, visits, photos } = onTheSheet(source, written);
	const { prices } = written;
	const sums = new Map(
		billablesOf(work).map(({ part, amount }) => [`${part.type}:${part.id}`, amount])
	);
	let sum = 0n as Minor;
	const priced = (type: BilledType, id: number): Pick<ViewRow, 'amount' | 'minor'> => {
		if (!prices) return { amount: '', minor: 0n };
		const amount = sums.get(`${type}:${id}`);
		if (amount === undefined) return { amount: 'included', minor: 0n };
		sum += amount;
		return { amount: displayAmount(amount), minor: amount };
	};
	const part = (heading: string, rows: ViewRow[]): ViewSection[] =>
		rows.length ? [{ heading, rows, sum: '' }] : [];
	const sections = [
		...part(
			'Visits',
			visits.map((visit) => row({ description: visitWords(visit, written.done) }))
		),
		...part(
			'Work',
			work.lines.map(({ id, description, quantity, unit }) =>
				row({ description, quantity, unit, ...priced('line', id) })
			)
		),
		...part(
			'Time',
			work.time.map(({ id, date, person, minutes, note }) =>
				row({
					description: [displayDate(date), person, note.trim()].filter(Boolean).join(', '),
					quantity: hoursOf(minutes ?? 0),
					unit: 'h',
					...priced('time', id)
				})
			)
		),
		...part(
			'Materials',
			work.costs.map(({ id, description, quantity, unit }) =>
				row({ description, quantity, unit, ...priced('cost', id) })
			)
		)
	];
	const own = look.words.jobSheet;
	return {
		title: own?.title.trim() || 'Job sheet',
		banner: paper.draft ? 'Draft: nobody has it yet' : '',
		number: paper.number,
		sign: '£',
		seller: {
			name: seller.tradingName || seller.ownerName,
			lines: sellerLines({ seller }, look)
		},
		customer: [customer.name, ...splitLines(customer.address)],
		billTo: [],
		site: site && shows(look, 'site') ? [site.name, ...splitLines(site.address)] : [],
		facts: [
			{ id: 'issued', label: 'Date', value: displayDate(paper.on) },
			{ id: 'reference', label: 'Job', value: job.number }
		],
		look,
		columns: columnsOf(look, prices),
		above: [job.title, own?.above ?? '', written.done].map((words) => words.trim()).filter(Boolean),
		sections,
		totals: prices
			? [
					{
						label: !seller.vatRegistered
							? 'In all'
							: source.includes
								? 'In all, with VAT'
								: 'In all, without VAT',
						amount: displayAmount(sum),
						strong: true
					}
				]
			: [],
		vatTable: [],
		deduction: [],
		payable: null,
		statements: [
			...(written.remains.trim() ? [`Still to do: ${written.remains.trim()}`] : []),
			prices
				? 'This is no invoice: what is charged stands on the invoice.'
				: 'This tells what was done; it is no invoice.'
		],
		terms: '',
		note: paper.signed ? signedWords(paper.signed) : '',
		below: [own?.below ?? ''].map((words) => words.trim()).filter(Boolean),
		payTitle: '',
		payWords: '',
		bank: null,
		online: '',
		due: '',
		...(paper.signed?.drawn ? { signature: paper.signed.drawn } : {}),
		photos: photos.map(({ id, name }) => ({ id, caption: captionOf(name) }))
	};
}

/** The words that stand beside a signature. */
export const signedWords = ({ name, position, at, way, drawn }: SheetSignature): string =>
	`Signed by ${[name, position].filter(Boolean).join(', ')} on ${displayMoment(at)}, ${
		way === 'phone' ? 'on our phone' : 'on its page'
	}.${drawn ? '' : ' The typed name stands for the signature.'}`;

/** A note that stands in the owner's words above already is not said twice. */
function visitWords({ date, endDate, from, to, who, note }: JobSheetVisit, done: string): string {
	const days =
		endDate && endDate !== date
			? `${displayWeekday(date)} to ${displayWeekday(endDate)}`
			: displayWeekday(date);
	const times = from && to ? `${from} to ${to}` : from;
	const more = done.includes(note.trim()) ? '' : note.trim();
	return [[days, times, who].filter(Boolean).join(', '), more].filter(Boolean).join('\n');
}

/** The letterhead's own names, in its own order; what a sheet has no use for is left out. */
function columnsOf(look: Look, prices: boolean): ViewColumn[] {
	const used = new Set(['description', 'quantity', 'unit', ...(prices ? ['amount'] : [])]);
	return look.columns
		.filter(({ id }) => used.has(id))
		.map(({ id, title }) => ({
			id,
			title: `${title.trim() || COLUMN_NAMES[id]}${id === 'amount' ? ', £' : ''}`,
			right: id === 'quantity' || id === 'amount'
		}));
}

/** What a camera called it says nothing; what the owner did says what it shows. */
export const captionOf = (name: string): string => {
	const words = name.replace(/\.[a-z0-9]{2,5}$/i, '').trim();
	return /^(img|dsc|dscn|pxl|photo|image|file|mvimg)?[-_ ]?[\d_\-() ]*$/i.test(words) ? '' : words;
};

/** What its PDF is called. @param number `J-0007/1` */
export const sheetFileName = (number: string): string =>
	`Job-sheet-${number.replace('/', '-')}.pdf`;
