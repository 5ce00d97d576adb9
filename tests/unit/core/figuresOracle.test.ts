// The figures of invoices against a second computation, written from docs/figures.md alone in fractions of whole numbers: all
// dates, kinds and treatments, negative quantities, discounts by amount. It shares no code with what it checks.
// Over 300 lines: a whole second computation.
import { expect } from 'chai';
import fc from 'fast-check';
import { describe, it } from 'mocha';
import { computeInvoice } from '../../../src/lib/core/figures/invoice';
import { readInvoiceInput } from '../../../src/lib/core/figures/input';
import { writeInvoiceFigures } from '../../../src/lib/core/figures/output';
import { FiguresError } from '../../../src/lib/core/figures/types';
import { GB } from '../../../src/lib/core/regimes/gb';

type Part = { percent: number } | { amount: number };
interface Line {
	kind: string;
	/** Ten-thousandths. */
	quantity: number;
	price: number;
	vat: (typeof TREATMENTS)[number];
	discount: Part | null;
	/** Pence. */
	cost: number | null;
}
interface Invoice {
	date: string;
	/** Millionths of a pound for one euro; null in sterling; 0 where it was forgotten. */
	euro: number | null;
	registered: boolean;
	kind: 'household' | 'business' | 'contractor';
	vatRegistered: boolean;
	cisRegistered: boolean;
	endUser: boolean;
	cisRate: number | null;
	contract: string;
	includes: boolean;
	down: boolean;
	reverseCharge: boolean | null;
	discount: Part | null;
	/** Ten-thousandths of a percent. */
	retention: number | null;
	lines: Line[];
}

const TREATMENTS = ['standard', 'reduced', 'zero', 'exempt', 'outside', 'noSupply'] as const;
const ALLOWABLE = ['materials', 'consumables', 'plantHire', 'fuel', 'prefabrication'];
const KINDS = ['labour', 'travel', 'other', 'levy', ...ALLOWABLE];
const HUNDRED = 1_000_000;

class Refused extends Error {}
const refuse = (when: boolean) => {
	if (when) throw new Refused();
};

/** Half away from zero. */
function round(over: bigint, under: bigint): bigint {
	const size = over < 0n ? -over : over;
	const rounded = (2n * size + under) / (2n * under);
	return over < 0n ? -rounded : rounded;
}
const percentOf = (amount: bigint, percent: number) =>
	round(amount * BigInt(percent), BigInt(HUNDRED));
const total = (amounts: bigint[]) => amounts.reduce((a, b) => a + b, 0n);
const atLeast0 = (amount: bigint) => (amount > 0n ? amount : 0n);

/** Largest remainder; earlier first on a tie. */
function shares(amount: bigint, weights: bigint[]): bigint[] {
	const all = total(weights);
	if (all === 0n) return weights.map(() => 0n);
	const parts = weights.map((weight) => (amount * weight) / all);
	const lost = weights.map((weight, index) => ({ index, rest: (amount * weight) % all }));
	lost.sort((a, b) => (a.rest === b.rest ? a.index - b.index : a.rest > b.rest ? -1 : 1));
	const left = Number(amount - total(parts));
	for (const { index } of lost.slice(0, left)) parts[index]! += 1n;
	return parts;
}

/** Tenths of a percent. */
function rateOn(vat: string, date: string): bigint | null {
	if (vat === 'standard') return date < '2011-01-04' ? 175n : 200n;
	if (vat === 'reduced') return 50n;
	return vat === 'zero' ? 0n : null;
}

function shown(pence: bigint): string {
	const digits = String(pence < 0n ? -pence : pence).padStart(3, '0');
	return `${pence < 0n ? '-' : ''}${digits.slice(0, -2)}.${digits.slice(-2)}`;
}

function figures(of: Invoice): object {
	refuse(of.kind === 'household' && (of.vatRegistered || of.cisRegistered || of.endUser));
	refuse(of.kind === 'business' && of.endUser);
	refuse(of.cisRate !== null && (of.kind !== 'contractor' || of.euro !== null));
	refuse(of.euro === 0 && of.registered);
	refuse(!of.registered && (of.includes || of.reverseCharge === true));
	refuse(of.registered && of.down && (of.includes || of.kind === 'household'));
	refuse(of.retention !== null && of.includes);

	const aside = of.lines.map(({ kind, vat }) => kind === 'levy' || vat === 'noSupply');
	const extensions = of.lines.map(({ quantity, price }) =>
		round(BigInt(quantity) * BigInt(price), 1_000_000n)
	);
	const lineDiscounts = of.lines.map(({ quantity, discount }, index) => {
		if (discount === null) return 0n;
		refuse(quantity < 0);
		if ('percent' in discount) return percentOf(extensions[index]!, discount.percent);
		refuse(BigInt(discount.amount) > extensions[index]!);
		return BigInt(discount.amount);
	});
	of.lines.forEach(({ cost }, index) => refuse(cost !== null && aside[index]!));
	const nets = extensions.map((extension, index) => extension - lineDiscounts[index]!);
	const sum = total(nets.filter((_, index) => !aside[index]));
	refuse(sum < 0n && (of.discount !== null || of.retention !== null));
	const discount =
		of.discount === null
			? 0n
			: 'percent' in of.discount
				? percentOf(sum, of.discount.percent)
				: BigInt(of.discount.amount);
	refuse(of.discount !== null && discount > sum);
	const weigh = (amounts: bigint[]) =>
		amounts.map((amount, index) => (aside[index] ? 0n : atLeast0(amount)));
	const discountShares = shares(discount, weigh(nets));
	const afterDiscount = nets.map((net, index) => net - discountShares[index]!);
	const retained = of.retention === null ? 0n : percentOf(sum - discount, of.retention);
	const retainedShares = shares(retained, weigh(afterDiscount));
	const taxable = afterDiscount.map((net, index) => net - retainedShares[index]!);

	let net = total(taxable);
	let charged = 0n;
	let reversed = 0n;
	let groups: { treatment: string; rate: bigint | null; net: bigint; vat: bigint; rc: boolean }[] =
		[];
	let ownNet = taxable;
	if (of.registered) {
		const applies =
			of.reverseCharge ??
			(of.date >= '2021-03-01' &&
				of.contract === 'construction' &&
				of.kind === 'contractor' &&
				of.vatRegistered &&
				of.cisRegistered &&
				!of.endUser);
		const covers = (vat: string) => applies && (vat === 'standard' || vat === 'reduced');
		refuse(of.includes && of.lines.some(({ vat }) => covers(vat)));
		ownNet = [...taxable];
		groups = TREATMENTS.filter((one) => of.lines.some(({ vat }) => vat === one)).map(
			(treatment) => {
				const members = of.lines.flatMap(({ vat }, index) => (vat === treatment ? [index] : []));
				const whole = total(members.map((index) => taxable[index]!));
				const rate = rateOn(treatment, of.date);
				if (!of.includes || rate === null) {
					const vat = rate === null ? 0n : round(whole * rate, 1000n);
					return { treatment, rate, net: whole, vat, rc: covers(treatment) };
				}
				const without = (amount: bigint) => amount - round(amount * rate, 1000n + rate);
				let before = 0n;
				for (const index of members) {
					ownNet[index] = without(before + taxable[index]!) - without(before);
					before += taxable[index]!;
				}
				return { treatment, rate, net: without(whole), vat: whole - without(whole), rc: false };
			}
		);
		if (of.down) {
			const own = groups.filter(({ rate, rc }) => rate !== null && !rc);
			const exact = own.map((group) => group.net * group.rate!);
			own.forEach((group, index) => (group.vat = exact[index]! / 1000n));
			const missing = total(exact) / 1000n - total(own.map(({ vat }) => vat));
			const size = (index: number) => {
				const rest = exact[index]! % 1000n;
				return rest < 0n ? -rest : rest;
			};
			const order = own.map((_, index) => index);
			order.sort((a, b) => (size(a) === size(b) ? a - b : size(a) > size(b) ? -1 : 1));
			const step = missing < 0n ? -1n : 1n;
			for (const index of order.slice(0, Number(missing * step))) own[index]!.vat += step;
		}
		net = total(groups.map((group) => group.net));
		charged = total(groups.filter(({ rc }) => !rc).map(({ vat }) => vat));
		reversed = total(groups.filter(({ rc }) => rc).map(({ vat }) => vat));
	}

	const pounds = (amount: bigint) => round(amount * BigInt(of.euro ?? 0), 1_000_000n);
	const taxes = (rc: boolean) =>
		shown(total(groups.filter((group) => group.rc === rc).map(({ vat }) => pounds(vat))));
	const sterling = of.euro
		? {
				sterling: {
					rate: String(of.euro / 1_000_000),
					net: shown(of.registered ? total(groups.map((group) => pounds(group.net))) : pounds(net)),
					vatCharged: taxes(false),
					vatReverseCharged: taxes(true)
				}
			}
		: {};

	let cis: object | null = null;
	let deduction = 0n;
	if (of.cisRate !== null && of.contract !== 'none') {
		const gross = atLeast0(net - total(ownNet.filter((_, index) => aside[index])));
		let assumed = false;
		const costs = of.lines.map(({ kind, cost, quantity }, index) => {
			if (cost !== null) {
				const held = of.retention === null ? 0n : percentOf(BigInt(cost), of.retention);
				return (BigInt(cost) - held) * (quantity < 0 ? -1n : 1n);
			}
			if (aside[index] || !ALLOWABLE.includes(kind)) return 0n;
			assumed = true;
			return ownNet[index]!;
		});
		const spent = atLeast0(total(costs));
		const materials = spent > gross ? gross : spent;
		deduction = round((gross - materials) * BigInt(of.cisRate), 100n);
		cis = {
			rate: String(of.cisRate),
			gross: shown(gross),
			materials: shown(materials),
			assumed,
			base: shown(gross - materials),
			deduction: shown(deduction)
		};
	}
	return {
		lines: of.lines.map((_, index) => ({
			extension: shown(extensions[index]!),
			lineDiscount: shown(lineDiscounts[index]!),
			net: shown(nets[index]!),
			documentDiscount: shown(discountShares[index]!),
			retention: shown(retainedShares[index]!),
			taxable: shown(taxable[index]!)
		})),
		linesTotal: shown(total(nets)),
		discount: shown(discount),
		retention: shown(retained),
		net: shown(net),
		vat: groups.map(({ treatment, rate, net: of, vat, rc }) => ({
			treatment,
			rate: rate === null ? null : String(Number(rate) / 10),
			net: shown(of),
			vat: shown(vat),
			reverseCharge: rc
		})),
		vatCharged: shown(charged),
		vatReverseCharged: shown(reversed),
		total: shown(net + charged),
		cis,
		payable: shown(net + charged - deduction),
		...sterling
	};
}

const decimal = (units: number, places: number) => (units / 10 ** places).toFixed(places);
const written = (part: Part | null) =>
	part === null
		? null
		: 'percent' in part
			? { percent: decimal(part.percent, 4) }
			: { amount: decimal(part.amount, 2) };

function asJson(of: Invoice): object {
	return {
		regime: 'GB',
		date: of.date,
		currency: of.euro === null ? 'GBP' : 'EUR',
		sterlingRate: of.euro ? decimal(of.euro, 6) : null,
		pricesIncludeVat: of.includes,
		vatRounding: of.down ? 'down' : 'nearest',
		seller: { vatRegistered: of.registered },
		customer: {
			kind: of.kind,
			vatRegistered: of.vatRegistered,
			cisRegistered: of.cisRegistered,
			endUser: of.endUser
		},
		contract: of.contract,
		cisRate: of.cisRate === null ? null : String(of.cisRate),
		reverseCharge: of.reverseCharge,
		lines: of.lines.map(({ kind, quantity, price, vat, discount, cost }) => ({
			kind,
			quantity: decimal(quantity, 4),
			unitPrice: decimal(price, 4),
			vat,
			discount: written(discount),
			cost: cost === null ? null : decimal(cost, 2)
		})),
		discount: written(of.discount),
		retention: of.retention === null ? null : { percent: decimal(of.retention, 4) }
	};
}

const percent = fc.oneof(
	fc.constantFrom(0, 50_000, 100_000, HUNDRED),
	fc.integer({ min: 0, max: HUNDRED })
);
const seldom = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { freq: 1 });
const part = (most: number) =>
	fc.oneof(
		percent.map((one): Part => ({ percent: one })),
		fc.integer({ min: 0, max: most }).map((amount): Part => ({ amount }))
	);
const anyLine: fc.Arbitrary<Line> = fc
	.record({
		kind: fc.constantFrom(...KINDS),
		quantity: fc.oneof(
			{ weight: 5, arbitrary: fc.integer({ min: 0, max: 400_000 }) },
			{ weight: 1, arbitrary: fc.integer({ min: -100_000, max: -1 }) }
		),
		price: fc.integer({ min: 0, max: 5_000_000 }),
		vat: fc.constantFrom(...TREATMENTS),
		discount: seldom(part(20_000)),
		cost: fc.option(fc.integer({ min: 0, max: 300_000 }))
	})
	// Mostly what can be computed; a line that is refused now and then.
	.map((line) => ({
		...line,
		discount: line.quantity < 0 && line.price % 9 > 0 ? null : line.discount,
		cost: (line.kind === 'levy' || line.vat === 'noSupply') && line.price % 9 > 0 ? null : line.cost
	}));
const anyInvoice: fc.Arbitrary<Invoice> = fc
	.record({
		date: fc.constantFrom(
			'2010-06-30',
			'2011-01-03',
			'2011-01-04',
			'2021-02-28',
			'2021-03-01',
			'2026-11-24'
		),
		euro: fc.option(
			fc.oneof(fc.constantFrom(0, 500_000), fc.integer({ min: 10_000, max: 1_999_999 })),
			{
				freq: 1
			}
		),
		registered: fc.constantFrom(true, true, true, false),
		kind: fc.constantFrom('household', 'business', 'contractor', 'contractor') as fc.Arbitrary<
			Invoice['kind']
		>,
		vatRegistered: fc.boolean(),
		cisRegistered: fc.boolean(),
		endUser: fc.constantFrom(false, false, true),
		cisRate: fc.constantFrom(0, 20, 30, null),
		contract: fc.constantFrom('construction', 'minor', 'none'),
		includes: fc.boolean(),
		down: fc.boolean(),
		reverseCharge: fc.constantFrom(null, null, null, true, false),
		discount: fc.option(part(200_000)),
		retention: fc.option(percent),
		lines: fc.array(anyLine, { minLength: 1, maxLength: 8 }),
		contradict: fc.constantFrom(true, false, false, false, false, false)
	})
	.map(({ contradict, ...given }): Invoice => {
		if (contradict) return given;
		const contractor = given.kind === 'contractor';
		const includes = given.registered && given.includes && given.retention === null;
		return {
			...given,
			includes,
			down: given.down && !includes && given.kind !== 'household',
			vatRegistered: given.vatRegistered && given.kind !== 'household',
			cisRegistered: given.cisRegistered && given.kind !== 'household',
			endUser: given.endUser && contractor,
			cisRate: contractor && given.euro === null ? given.cisRate : null,
			reverseCharge: given.registered ? given.reverseCharge : null
		};
	});

describe('an invoice computed a second time, in another way', () => {
	it('comes to the same, line by line and total by total, or is refused by both', () => {
		let computed = 0;
		fc.assert(
			fc.property(anyInvoice, (invoice) => {
				const json = asJson(invoice);
				let expected: object | null = null;
				try {
					expected = figures(invoice);
					computed++;
				} catch (refused) {
					if (!(refused instanceof Refused)) throw refused;
				}
				let got: object | null = null;
				try {
					got = writeInvoiceFigures(computeInvoice(readInvoiceInput(json), GB));
				} catch (refused) {
					if (!(refused instanceof FiguresError)) throw refused;
				}
				expect(got, JSON.stringify(json)).to.deep.equal(expected);
			}),
			{ numRuns: 4000, seed: 20_261_124 }
		);
		expect(computed).to.be.above(1500);
	});
});
