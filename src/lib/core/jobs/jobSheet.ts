// What was done on a job, for the customer: what goes on its sheet, what is put forward for it, and how it reads.
import { displayDate, displayMoment, displayWeekday } from '../calendar/conversion';
import type { PlainDate } from '../calendar/types';
import type { SellerFacts } from '../documents/types';
import type { LineKind } from '../figures/types';
import { sellerLines, splitLines } from '../documents/view';
import type { DocumentView, ViewColumn, ViewRow, ViewSection } from '../documents/viewTypes';
import { shows, type Look } from '../letterheads/look';
import { COLUMN_NAMES } from '../letterheads/names';
import { displayAmount } from '../money/display';
import type { Minor } from '../money/types';
import { billablesOf, hoursOf } from './billing';
import type { BilledType, JobWork } from './types';

/** What of a job goes on the sheet, as it is written; things by their ids. */
export interface JobSheetWritten {
	/** What was done, in the owner's words. */
	done: string;
	/** What is still to do, or to be watched. */
	remains: string;
	visits: number[];
	lines: number[];
	times: number[];
	costs: number[];
	photos: number[];
	prices: boolean;
}

export interface JobSheetVisit {
	id: number;
	date: PlainDate;
	endDate: PlainDate | null;
	from: string;
	to: string;
	/** Who came; empty: not said. */
	who: string;
	note: string;
	done: boolean;
}

/** What the job holds of which a sheet can tell, and between whom it is. */
export interface JobSheetSource {
	job: { number: string; title: string };
	seller: SellerFacts;
	customer: { name: string; address: string };
	site: { name: string; address: string } | null;
	/** The job's prices include VAT. */
	includes: boolean;
	visits: JobSheetVisit[];
	work: JobWork;
	photos: { id: number; name: string }[];
	look: Look;
}

/** Who signed it, when and where. */
export interface SheetSignature {
	name: string;
	position: string;
	/** Milliseconds since 1970. */
	at: number;
	way: 'phone' | 'page';
	/** A data address; null: the typed name stands for it. */
	drawn: string | null;
}

/** So many photos a sheet shows: more make no paper that anybody reads. */
export const MOST_PHOTOS = 24;

const BUILT_IN: ReadonlySet<LineKind> = new Set(['materials', 'consumables', 'prefabrication']);

/**
 * What is put forward: all that was done and is on no sheet that went before.
 * @param told what sheets of this job hold already
 */
export function putForward(
	source: JobSheetSource,
	told: readonly JobSheetWritten[] = []
): JobSheetWritten {
	const on = (part: 'visits' | 'lines' | 'times' | 'costs' | 'photos') =>
		new Set(told.flatMap((sheet) => sheet[part]));
	const fresh = <T extends { id: number }>(of: readonly T[], part: Parameters<typeof on>[0]) => {
		const before = on(part);
		return of.filter(({ id }) => !before.has(id));
	};
	const visits = fresh(source.visits, 'visits').filter(({ done }) => done);
	const ids = (of: readonly { id: number }[]) => of.map(({ id }) => id);
	return {
		done: visits
			.map(({ note }) => note.trim())
			.filter(Boolean)
			.join('\n'),
		remains: '',
		visits: ids(visits),
		lines: ids(fresh(source.work.lines, 'lines')),
		times: ids(fresh(source.work.time, 'times').filter(({ minutes }) => minutes)),
		// What a helper or a skip cost is the owner's own business; what was built in is the customer's.
		costs: ids(fresh(source.work.costs, 'costs').filter(({ kind }) => BUILT_IN.has(kind))),
		photos: ids(fresh(source.photos, 'photos')).slice(0, MOST_PHOTOS),
		prices: false
	};
}

/** What the customer may see of it: nothing of what it cost, and prices only where they are shown. */
export function withoutCosts(source: JobSheetSource, prices: boolean): JobSheetSource {
	const { work } = source;
	return {
		...source,
		work: {
			lines: work.lines.map((line) => ({
				...line,
				cost: '',
				...(prices ? {} : { unitPrice: '', discount: '' })
			})),
			time: work.time.map((entry) => ({
				...entry,
				hourlyCost: '',
				...(prices ? {} : { rate: '' })
			})),
			costs: work.costs.map((cost) => ({
				...cost,
				// Of what is sold at cost and mark-up the price alone stays.
				unitPrice: prices ? priceOf(work, cost.id) : '',
				unitCost: '',
				markUp: ''
			}))
		}
	};
}

/** Only what goes on the sheet: that is what is kept of it. */
export function onTheSheet(source: JobSheetSource, written: JobSheetWritten): JobSheetSource {
	const chosen = <T extends { id: number }>(of: readonly T[], ids: readonly number[]) =>
		of.filter(({ id }) => ids.includes(id));
	const { work, ...seen } = withoutCosts(source, written.prices);
	return {
		...seen,
		visits: chosen(seen.visits, written.visits),
		work: {
			lines: chosen(work.lines, written.lines),
			time: chosen(work.time, written.times),
			costs: chosen(work.costs, written.costs)
		},
		photos: chosen(seen.photos, written.photos)
	};
}

const priceOf = ({ costs }: JobWork, id: number): string => {
	const [one] = billablesOf({
		lines: [],
		time: [],
		costs: costs.filter((cost) => cost.id === id).map((cost) => ({ ...cost, chargeable: true }))
	});
	return one?.unitPrice ?? '';
};

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
