// Entries of the price list as lines of a sheet; a kit comes as one line or as its parts.
import { ALLOWABLE_KINDS, type LineKind } from './figures/types';
import { formatDecimal, formatMoney, multiplyToMinor, parseDecimal } from './money/decimal';
import type { Decimal } from './money/types';
import type { VatTreatment } from './regimes/types';
import { tagsOf } from './sheet/blank';
import { priceOn, type RateOf } from './sheet/priceBasis';
import type { SheetLine } from './sheet/types';

export interface Entry {
	id: number;
	name: string;
	text: string;
	kind: LineKind;
	unit: string;
	unitPrice: string;
	/** Whether VAT is in the price. */
	withVat: boolean;
	cost: string;
	vat: VatTreatment;
	vatReason: string;
	/** The income category of what is sold. */
	income?: string;
}

export interface Kit extends Entry {
	kit: 'line' | 'parts';
	parts: { entry: Entry; quantity: string }[];
}

const ZERO: Decimal = { units: 0n, scale: 0 };
const ONE: Decimal = { units: 1n, scale: 0 };
const decimal = (text: string): Decimal => parseDecimal(text) ?? ZERO;

const times = (a: Decimal, b: Decimal): Decimal => ({
	units: a.units * b.units,
	scale: a.scale + b.scale
});

/** At most four decimals, as a quantity on a sheet has. */
function quantityText(value: Decimal): string {
	const text = formatDecimal(value);
	const [whole, part = ''] = text.split('.');
	return part.length > 4 ? `${whole}.${part.slice(0, 4)}` : text;
}

/** One line for an entry. Its cost is what the quantity cost to buy, where that leaves the deduction's base. */
export function entryLine(entry: Entry, quantity: string, newId: () => string): SheetLine {
	return {
		id: newId(),
		type: 'line',
		kind: entry.kind,
		description: entry.text.trim() || entry.name,
		quantity,
		unit: entry.unit,
		unitPrice: entry.unitPrice,
		vat: entry.vat,
		vatReason: entry.vatReason,
		discount: '',
		cost: costText([{ entry, quantity }], ONE),
		itemId: entry.id,
		listPrice: { price: entry.unitPrice, withVat: entry.withVat },
		...tagsOf(entry)
	};
}

function costText(parts: Kit['parts'], count: Decimal): string {
	const known = parts.filter(
		({ entry }) => ALLOWABLE_KINDS.has(entry.kind) && entry.vat !== 'noSupply' && entry.cost !== ''
	);
	if (known.length === 0) return '';
	return formatMoney(
		known.reduce(
			(sum, { entry, quantity }) =>
				sum + multiplyToMinor(times(decimal(quantity), count), decimal(entry.cost)),
			0n
		)
	);
}

/** What one kit is sold at, with or without VAT as its entry says: its own price, or what its parts come to. */
export function kitPrice(
	kit: Pick<Kit, 'unitPrice' | 'withVat' | 'parts'>,
	rateOf: RateOf
): string {
	if (kit.unitPrice !== '') return kit.unitPrice;
	const price = ({ unitPrice, withVat, vat }: Entry) =>
		priceOn(unitPrice, withVat, kit.withVat, rateOf(vat));
	return formatMoney(
		kit.parts.reduce(
			(sum, { entry, quantity }) => sum + multiplyToMinor(decimal(quantity), decimal(price(entry))),
			0n
		)
	);
}

/** The lines a kit makes. As one line it is labour where any part is work: the cost of the rest stays known. */
export function kitLines(
	kit: Kit,
	quantity: string,
	newId: () => string,
	rateOf: RateOf
): SheetLine[] {
	const count = decimal(quantity);
	if (kit.kit === 'parts')
		return kit.parts.map(({ entry, quantity: each }) =>
			entryLine(entry, quantityText(times(decimal(each), count)), newId)
		);
	const kinds = new Set(kit.parts.map(({ entry }) => entry.kind));
	const first = kit.parts[0]!.entry;
	return [
		{
			id: newId(),
			type: 'line',
			kind: kinds.size === 1 ? first.kind : 'labour',
			description: kit.text.trim() || kit.name,
			quantity,
			unit: kit.unit,
			unitPrice: kitPrice(kit, rateOf),
			vat: first.vat,
			vatReason: first.vatReason,
			discount: '',
			cost: costText(kit.parts, count),
			itemId: kit.id,
			listPrice: { price: kitPrice(kit, rateOf), withVat: kit.withVat },
			...tagsOf(kit)
		}
	];
}
