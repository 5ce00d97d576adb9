// A quote as its reader sees it: on paper and on its page, before a choice is made and after.
import { displayDate } from '../calendar/conversion';
import type { PlainDate } from '../calendar/types';
import { viewDocument } from '../documents/view';
import type { Frozen } from '../documents/types';
import type { DocumentView } from '../documents/viewTypes';
import { displayPounds } from '../money/display';
import type { Minor } from '../money/types';
import {
	cancelForm,
	cancelInformation,
	contractFacts,
	rightToCancel
} from '../regimes/gb/consumer';
import { frozenAsChosen, frozenQuote } from './frozen';
import { addsOf, NOTHING_PICKED, stagePlan, type Picked } from './chosen';
import { quoteName } from './terms';

export interface QuotePaper {
	number: string;
	/** Which version it is; 0 before it goes out. */
	version: number;
	validUntil: PlainDate;
	/** What was chosen when it was accepted, by whom and when. */
	accepted?: { picked: Picked; name: string; on: string; way: string };
	draft?: boolean;
	/** The owner's own test: nothing on it counts. */
	trial?: boolean;
}

export const TEST_BANNER = 'Test: nothing here counts, and nothing is agreed';

const paragraphs = (title: string, words: string): string[] =>
	words.trim() === '' ? [] : [`${title}: ${words.trim()}`];

/** @throws FiguresError for a choice that is none */
export function quoteView(frozen: Frozen, paper: QuotePaper): DocumentView {
	const picked = paper.accepted?.picked ?? NOTHING_PICKED;
	const terms = frozen.sheet.quote!;
	const { lines, asked, quote } = frozenQuote(frozen, picked);
	const chosen = frozenAsChosen(frozen, picked);
	const view = viewDocument(chosen, quote.figures, paper.number, paper.draft ? 'draft' : 'issued');
	const name = quoteName(terms);
	const { seller } = frozen;
	const contractor = quote.figures.cis !== null;
	const facts = contractFacts(
		frozen.customer,
		terms,
		quote.figures.total,
		quote.included.map((index) => lines[index]!.kind)
	);
	const right = rightToCancel(facts);
	return {
		...view,
		...shownAs(view, terms.detail),
		title: frozen.look?.words.quote?.title.trim() || name,
		banner: paper.trial
			? TEST_BANNER
			: paper.draft
				? `Draft: this is no ${name.toLowerCase()} yet`
				: paper.accepted
					? `Accepted by ${paper.accepted.name} on ${paper.accepted.on}, ${paper.accepted.way}`
					: terms.binding
						? ''
						: 'An estimate: a best guess, which does not bind',
		facts: [
			{ id: 'issued', label: 'Date', value: displayDate(frozen.issueDate) },
			{ id: 'final', label: 'Holds until', value: displayDate(paper.validUntil) },
			...(paper.version > 1
				? [{ id: 'reference' as const, label: 'Version', value: String(paper.version) }]
				: []),
			...view.facts.filter(({ id }) => id === 'order' || id === 'vatNumber')
		],
		above: [terms.title, terms.before, ...view.above].map((words) => words.trim()).filter(Boolean),
		payable: view.payable && {
			...view.payable,
			label: contractor ? 'To pay after deduction' : 'In all'
		},
		statements: [
			...(paper.accepted ? [] : alternatives(asked, quote, lines)),
			...planWords(quote.deposit, terms.stages, quote.figures.total),
			...paragraphs('Not included', terms.notIncluded),
			...paragraphs('Assumed', terms.assumed),
			...(lines.some(({ provisional }) => provisional)
				? ['Provisional sums are priced for now and settled at what they turn out to be.']
				: []),
			...paragraphs('Begin', terms.begin),
			...paragraphs('How long it takes', terms.duration),
			...paragraphs('Guarantee and insurance', terms.guarantee),
			...(seller.vatRegistered
				? ['VAT is charged at the rate that holds on the tax point, whatever stands here.']
				: []),
			...view.statements,
			'This is no VAT invoice.'
		],
		terms: '',
		below: [terms.terms, ...view.below]
			.map((words) => words.trim())
			.filter(Boolean)
			.concat(
				right.may
					? [
							`Your right to cancel. ${cancelInformation(facts.goods, sellerOf(frozen)).join(' ')}`,
							`Form to cancel with (complete and return it only if you wish to cancel):\n${cancelForm(sellerOf(frozen), terms.title.trim()).join('\n')}`
						]
					: facts.consumer
						? [`There is no right to cancel: ${right.why}`]
						: []
			),
		payTitle: '',
		payWords: '',
		bank: null,
		online: '',
		due: ''
	};
}

export const sellerOf = ({ seller }: Pick<Frozen, 'seller'>) => ({
	name: seller.tradingName || seller.ownerName,
	address: seller.address,
	phone: seller.phone,
	email: seller.email
});

function shownAs(
	{ sections, columns }: DocumentView,
	detail: 'all' | 'sections' | 'total'
): Partial<DocumentView> {
	if (detail === 'all') return {};
	const hidden = new Set(['amount', 'discount', 'withoutVat', 'price']);
	return {
		columns: columns.filter(({ id }) => !hidden.has(id) || id === 'amount'),
		sections: sections.map((section) => ({
			...section,
			sum: detail === 'total' ? '' : section.sum,
			rows: section.rows.map((row) => ({
				...row,
				unitPrice: '',
				amount: '',
				discount: '',
				withoutVat: ''
			}))
		}))
	};
}

const signed = (amount: Minor) =>
	amount < 0n ? `less ${displayPounds(-amount)}` : `${displayPounds(amount)} more`;

/** What may be chosen instead, and what each makes of the total. */
function alternatives(
	asked: Parameters<typeof addsOf>[0],
	quote: Parameters<typeof addsOf>[1],
	lines: ReturnType<typeof frozenQuote>['lines']
): string[] {
	const { options, extras } = addsOf(asked, quote);
	return [
		...options.flatMap(({ group, taken, options: ways }) =>
			ways
				.filter(({ option, adds }) => option !== taken && adds !== null)
				.map(
					({ option, adds }) =>
						`${group}: ${option} instead of ${taken}, ${adds === 0n ? 'at the same price' : signed(adds!)}.`
				)
		),
		...extras
			.filter(({ isIn, adds }) => !isIn && adds !== null)
			.map(
				({ index, adds }) => `If you wish: ${lines[index]!.description.trim()}, ${signed(adds!)}.`
			)
	];
}

function planWords(
	deposit: Minor,
	stages: readonly { title: string; percent: string }[],
	total: Minor
): string[] {
	const plan = stagePlan({ deposit, stages }, total);
	return plan.length
		? [
				`Paid so: ${plan.map(({ title, amount }) => `${title} ${displayPounds(amount)}`).join('; ')}.`
			]
		: [];
}
