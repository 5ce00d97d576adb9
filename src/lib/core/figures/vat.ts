// VAT by rate: grouping the lines, and the three ways of rounding.
import { absolute, formatDecimal, percentOf, powerOfTen, taxWithin } from '../money/decimal';
import type { Minor } from '../money/types';
import { VAT_TREATMENTS, type DatedRate, type Regime } from '../regimes/types';
import { FiguresError, type InvoiceInput, type LineFigures, type VatGroup } from './types';
import { money, percent, type WorkingsBook } from './workings';

/** Groups the lines by treatment and works out net and VAT of each group. */
export function vatGroups(
	input: InvoiceInput,
	lines: LineFigures[],
	reverseCharge: boolean,
	regime: Regime,
	book: WorkingsBook
): VatGroup[] {
	const groups: VatGroup[] = [];
	for (const treatment of VAT_TREATMENTS) {
		const members = input.lines.flatMap((line, index) => (line.vat === treatment ? [index] : []));
		if (members.length === 0) continue;
		const dated = regime.rateOn(treatment, input.date);
		if (dated === undefined) {
			throw new FiguresError(`no ${treatment} rate is known for ${input.date}`, 'date');
		}
		const covered = reverseCharge && (treatment === 'standard' || treatment === 'reduced');
		if (covered && input.pricesIncludeVat) {
			throw new FiguresError(
				'prices under the reverse charge are agreed without VAT',
				'pricesIncludeVat'
			);
		}
		const operands = members.map((index) =>
			money(`Line ${index + 1}`, lines[index]!.taxable, `lines.${index}.taxable`)
		);
		const path = `vat.${treatment}`;
		const group: VatGroup = {
			treatment,
			rate: dated?.rate ?? null,
			net: 0n,
			vat: 0n,
			reverseCharge: covered
		};
		if (input.pricesIncludeVat) {
			const gross = book.sum(`${path}.gross`, 'Prices including VAT', operands);
			group.vat = dated ? taxWithin(gross, dated.rate) : 0n;
			group.net = gross - group.vat;
			const grossOperand = money('Including VAT', gross, `${path}.gross`);
			book.set(
				`${path}.net`,
				groupLabel('Net', dated),
				group.net,
				'sum',
				[grossOperand, money('less the VAT in it', group.vat, `${path}.vat`, -1)],
				'vatWithinGross'
			);
			bookVat(path, group, dated, 'taxWithin', [grossOperand], book);
		} else {
			group.net = book.sum(`${path}.net`, groupLabel('Net', dated), operands);
			group.vat = dated ? percentOf(group.net, dated.rate) : 0n;
			bookVat(path, group, dated, 'percent', [money('Net', group.net, `${path}.net`)], book);
		}
		groups.push(group);
	}
	if (input.vatRounding === 'down') roundDown(groups, book);
	return groups;
}

function groupLabel(what: string, dated: DatedRate | null): string {
	return dated ? `${what} at ${formatDecimal(dated.rate)} %` : `${what}, no rate`;
}

function bookVat(
	path: string,
	group: VatGroup,
	dated: DatedRate | null,
	operation: 'percent' | 'taxWithin',
	operands: ReturnType<typeof money>[],
	book: WorkingsBook
): void {
	if (!dated) {
		book.set(`${path}.vat`, 'VAT', 0n, 'given', [], 'noVatRate');
		return;
	}
	const rule = group.reverseCharge
		? 'reverseCharge'
		: operation === 'percent'
			? 'vatOnNet'
			: 'vatWithinGross';
	const label = group.reverseCharge ? 'VAT the customer accounts for, at' : 'VAT at';
	book.set(
		`${path}.vat`,
		`${label} ${formatDecimal(dated.rate)} %`,
		group.vat,
		operation,
		[...operands, percent(`Rate since ${dated.from}`, dated.rate)],
		rule
	);
}

/** VAT Notice 700 para 17.5: the total of what is charged is cut, and the rates are made to add up to it. */
function roundDown(groups: VatGroup[], book: WorkingsBook): void {
	const charged = groups.filter((group) => !group.reverseCharge && group.rate !== null);
	const scale = Math.max(0, ...charged.map((group) => group.rate!.scale));
	const divisor = powerOfTen(scale + 2);
	const exact = charged.map(
		(group) => group.net * group.rate!.units * powerOfTen(scale - group.rate!.scale)
	);
	const total = exact.reduce((sum, part) => sum + part, 0n) / divisor;
	const parts: Minor[] = exact.map((part) => part / divisor);
	let difference = total - parts.reduce((sum, part) => sum + part, 0n);
	const step = difference < 0n ? -1n : 1n;
	const lost = exact.map((part, index) => ({ index, fraction: absolute(part % divisor) }));
	lost.sort((a, b) =>
		a.fraction === b.fraction ? a.index - b.index : a.fraction < b.fraction ? 1 : -1
	);
	for (const { index } of lost) {
		if (difference === 0n) break;
		parts[index]! += step;
		difference -= step;
	}
	for (const [index, group] of charged.entries()) {
		group.vat = parts[index]!;
		const path = `vat.${group.treatment}`;
		const before = book.entries.get(`${path}.vat`)!;
		book.set(
			`${path}.vat`,
			before.label,
			group.vat,
			'roundedDown',
			before.operands,
			'vatRoundedDown'
		);
	}
}

/** What other books have as the VAT of a rate stays as it stands on their invoice. */
export function keepStatedVat(
	groups: VatGroup[],
	stated: NonNullable<InvoiceInput['statedVat']>,
	book: WorkingsBook
): void {
	for (const group of groups) {
		const vat = stated[group.treatment];
		if (vat === undefined || vat === group.vat || group.reverseCharge) continue;
		const path = `vat.${group.treatment}.vat`;
		group.vat = vat;
		book.set(path, book.entries.get(path)!.label, vat, 'given', [], 'asIssued');
	}
}

/**
 * Each line's amount without VAT. Where prices include VAT the lines of a group take it off a running
 * total, so that they add up to the group's net to the penny.
 */
export function takeVatOffLines(
	input: InvoiceInput,
	lines: LineFigures[],
	groups: VatGroup[],
	book: WorkingsBook
): void {
	const running = new Map<string, { gross: Minor; net: Minor }>();
	const rates = new Map(groups.map((group) => [group.treatment, group.rate]));
	const last = new Map<string, number>();
	for (const [index, figures] of lines.entries()) {
		const path = `lines.${index}.withoutVat`;
		const label = `Line ${index + 1}, without VAT`;
		const treatment = input.lines[index]!.vat;
		const rate = treatment === null ? null : (rates.get(treatment) ?? null);
		if (!input.pricesIncludeVat || treatment === null || rate === null) {
			figures.withoutVat = figures.taxable;
			book.set(
				path,
				label,
				figures.taxable,
				'sum',
				[money('Taxed now', figures.taxable, `lines.${index}.taxable`)],
				'sum'
			);
			continue;
		}
		const before = running.get(treatment) ?? { gross: 0n, net: 0n };
		const gross = before.gross + figures.taxable;
		const net = gross - taxWithin(gross, rate);
		running.set(treatment, { gross, net });
		figures.withoutVat = net - before.net;
		last.set(treatment, index);
		const operands = [
			money('This rate so far, without VAT', net),
			money('less the lines before', before.net, undefined, -1)
		];
		book.set(path, label, figures.withoutVat, 'sum', operands, 'vatWithinGross');
	}
	// Where the VAT of a group is what was left of an invoice's, its last line bears the penny.
	for (const { treatment, net } of groups) {
		const index = last.get(treatment);
		const so = running.get(treatment);
		if (index === undefined || !so || so.net === net) continue;
		const worked = lines[index]!.withoutVat;
		lines[index]!.withoutVat = worked + net - so.net;
		book.set(
			`lines.${index}.withoutVat`,
			`Line ${index + 1}, without VAT`,
			lines[index]!.withoutVat,
			'sum',
			[
				money('As worked out', worked),
				money('What this rate comes to', net, `vat.${treatment}.net`),
				money('less its lines as worked out', so.net, undefined, -1)
			],
			'creditLeft'
		);
	}
}
