// What a choice on a quote makes of it: of the total, of each line, of how it is paid; and whether it is a choice at all.
import { FiguresError } from '../figures/types';
import { formatDecimal, parseDecimal, percentOf } from '../money/decimal';
import { readTypedNumber } from '../money/typed';
import type { Minor } from '../money/types';
import { GB } from '../regimes/gb';
import type { SheetLine } from '../sheet/types';
import { computeQuote, groupsOf, type QuoteFigures, type QuoteInput } from './figures';

/** What a customer chose: an option of each group by name; extras by their row, with how many. */
export interface Picked {
	options: Record<string, string>;
	extras: Record<string, string>;
}

export const NOTHING_PICKED: Picked = { options: {}, extras: {} };

export const scaled = (
	amount: Minor,
	to: QuoteInput['lines'][number]['quantity'],
	from: typeof to
) => (amount * to.units * 10n ** BigInt(from.scale)) / (from.units * 10n ** BigInt(to.scale));

/** What each option of a group, and each extra, makes of the total, others staying as they are. Null: it cannot be computed. */
export function addsOf(asked: QuoteInput, { figures }: QuoteFigures) {
	const total = (chosen: QuoteInput['chosen']): Minor | null => {
		try {
			return computeQuote({ ...asked, chosen, deposit: null }, GB).figures.total;
		} catch (error) {
			if (error instanceof FiguresError) return null;
			throw error;
		}
	};
	const now = figures.total;
	const options = [...groupsOf(asked.lines)].map(([group, names]) => ({
		group,
		taken: asked.chosen.options[group] ?? names[0]!,
		options: names.map((option) => {
			const would = total({
				...asked.chosen,
				options: { ...asked.chosen.options, [group]: option }
			});
			return { option, total: would, adds: would === null ? null : would - now };
		})
	}));
	const extras = asked.lines.flatMap(({ extra }, index) => {
		if (!extra) return [];
		const isIn = asked.chosen.extras.includes(index);
		const others = asked.chosen.extras.filter((one) => one !== index);
		const [without, within] = isIn
			? [total({ ...asked.chosen, extras: others }), now]
			: [now, total({ ...asked.chosen, extras: [...others, index] })];
		return [{ index, isIn, adds: without === null || within === null ? null : within - without }];
	});
	return { options, extras };
}

/** The plan of stages in money: a deposit first, each stage its percentage of it all, the last the rest. */
export function stagePlan(
	{ deposit, stages }: { deposit: Minor; stages: readonly { title: string; percent: string }[] },
	total: Minor
): { title: string; amount: Minor }[] {
	let left = total - deposit;
	const parts = stages.map(({ title, percent }, index) => {
		const read = parseDecimal(percent.trim().replace(/%$/, ''));
		const asked = read ? percentOf(total, read) : 0n;
		const amount = index === stages.length - 1 ? left : asked < left ? asked : left;
		left -= amount;
		return { title: title.trim(), amount };
	});
	return [
		...(deposit > 0n ? [{ title: 'On acceptance: deposit', amount: deposit }] : []),
		...parts,
		...(stages.length === 0 && deposit > 0n && left > 0n
			? [{ title: 'When it is done', amount: left }]
			: [])
	];
}

/** The lines as they were chosen, as an agreed job and its invoices have them: what came off the whole comes off each. */
export function agreedLines(lines: readonly SheetLine[], asked: QuoteInput, quote: QuoteFigures) {
	return quote.included.map((index, place) => {
		const {
			id: _id,
			type: _type,
			choice,
			extra: _e,
			most: _m,
			provisional,
			measured: _q,
			...line
		} = lines[index]!;
		const { quantity, cost } = asked.lines[index]!;
		const { lineDiscount, documentDiscount } = quote.figures.lines[place]!;
		const off = lineDiscount + documentDiscount;
		const before = parseDecimal(line.quantity.trim() || '1') ?? quantity;
		const text = formatDecimal(quantity);
		return {
			...line,
			description: [
				choice && !line.description.includes(choice.option)
					? `${choice.option.trim()}: ${line.description.trim()}`
					: line.description.trim(),
				provisional ? '(provisional sum)' : ''
			]
				.filter(Boolean)
				.join(' '),
			quantity: text,
			discount: off > 0n ? pounds(off) : '',
			cost: cost === null ? '' : pounds(scaledIf(cost, quantity, before, lines[index]!.most))
		};
	});
}

const scaledIf = (
	cost: Minor,
	to: QuoteInput['lines'][number]['quantity'],
	from: typeof to,
	most: string | undefined
) => (most && from.units > 0n ? scaled(cost, to, from) : cost);

const pounds = (amount: Minor) => formatDecimal({ units: amount, scale: 2 });

/** Whether what a page sent is a choice this quote knows. @throws FiguresError naming what is not */
export function checkPicked(lines: readonly SheetLine[], picked: Picked): void {
	for (const [id, typed] of Object.entries(picked.extras)) {
		const row = lines.find((line) => line.id === id);
		if (!row?.extra) throw new FiguresError('no extra of this quote', `extras.${id}`);
		if (!row.most) continue;
		const read = readTypedNumber(typed, { decimals: 4 });
		const [value, most] = [read.ok ? parseDecimal(read.text) : null, parseDecimal(row.most.trim())];
		const more =
			!value ||
			!most ||
			value.units <= 0n ||
			value.units * 10n ** BigInt(most.scale) > most.units * 10n ** BigInt(value.scale);
		if (more) throw new FiguresError('more than may be chosen', `extras.${id}`);
	}
}
