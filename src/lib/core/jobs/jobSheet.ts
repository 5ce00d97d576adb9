// What was done on a job, for the customer: what goes on its sheet, what is put forward for it, and how it reads.
import type { PlainDate } from '../calendar/types';
import type { SellerFacts } from '../documents/types';
import type { LineKind } from '../figures/types';
import type { Look } from '../letterheads/look';
import type { JobWork } from './types';
import { billablesOf } from './billing';

export const priceOf = ({ costs }: JobWork, id: number): string => {
	const [one] = billablesOf({
		lines: [],
		time: [],
		costs: costs.filter((cost) => cost.id === id).map((cost) => ({ ...cost, chargeable: true }))
	});
	return one?.unitPrice ?? '';
};

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
