// Which paper it is, why its tax point is that day, what a notice in time is, and what a VAT period is read from.
// Over 300 lines: a case each side of every limit.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { FiguresError } from '../../../../src/lib/core/figures/types';
import {
	beginsOn,
	cancelUntil,
	contractFacts,
	inTime,
	mayBeginFrom,
	rightToCancel,
	shareOf,
	type ContractFacts
} from '../../../../src/lib/core/regimes/gb/consumer';
import { readReturnInput, readTaxPointsInput } from '../../../../src/lib/core/regimes/gb/json';
import {
	homeNumber,
	isAccountNumber,
	isBic,
	isIban,
	isMobile,
	isSortCode
} from '../../../../src/lib/core/regimes/gb/checks';
import { paperOf } from '../../../../src/lib/core/regimes/gb/kindLaw';
import { decideTaxPoint } from '../../../../src/lib/core/regimes/gb/taxPoint';
import { vatReturn } from '../../../../src/lib/core/regimes/gb/vatReturn';
import { blankSheet } from '../../../../src/lib/core/sheet/blank';
import { readSheet } from '../../../../src/lib/core/sheet/read';
import { customerOf, FULL, lineOf, problemAt, readWith, SELLER } from '../../../support/sheets';

describe('which paper a sheet becomes', () => {
	const paper = (more: object, correcting = false) =>
		paperOf({ ...blankSheet(), ...more } as never, correcting);
	it('is the first that fits', () => {
		expect(paper({})).to.equal('invoice');
		expect(paper({}, true)).to.equal('creditNote');
		expect(paper({ charge: 'late', selfBilled: {} }, true)).to.equal('creditNote');
		expect(paper({ charge: 'late', selfBilled: {} })).to.equal('lateCharge');
		expect(paper({ selfBilled: {}, about: { as: 'debit' } })).to.equal('selfBilled');
		expect(paper({ about: { as: 'debit' }, releases: [1] })).to.equal('debitNote');
		expect(paper({ about: { as: 'replacement' } })).to.equal('invoice');
		expect(paper({ releases: [1], deposit: true })).to.equal('release');
		expect(paper({ releases: [] })).to.equal('invoice');
		expect(paper({ deposit: true, stageId: 3 })).to.equal('deposit');
		expect(paper({ stageId: 3 })).to.equal('stage');
		expect(paper({ stageId: 0 })).to.equal('stage');
	});
});

describe('the tax point of what is billed', () => {
	const decided = (rule: 'stages' | 'continuous' | 'retention' | 'work', paidOn?: string) =>
		decideTaxPoint(
			{
				rule,
				workFinished: '2026-11-10',
				issued: '2026-11-24',
				...(paidOn ? { paidOn } : {})
			} as never,
			() => true
		);
	it('says which rule made it', () => {
		const words = (rule: 'stages' | 'continuous' | 'retention') => {
			const { date, lastDayInTime, reason, reference } = decided(rule) as never as Record<
				string,
				unknown
			>;
			return [date, lastDayInTime, String(reason).split(' takes')[0], reference];
		};
		expect(words('stages')).to.deep.equal([
			'2026-11-24',
			null,
			'A stage payment',
			'VAT Regulations 1995 reg. 93'
		]);
		expect(words('continuous')).to.deep.equal([
			'2026-11-24',
			null,
			'What goes on',
			'VAT Regulations 1995 reg. 90'
		]);
		expect(words('retention')).to.deep.equal([
			'2026-11-24',
			null,
			'What was held back',
			'VAT Regulations 1995 reg. 89'
		]);
		expect(decided('stages', '2026-11-23').date).to.equal('2026-11-23');
	});
	it('of someone not registered is the day of the paper', () =>
		expect(
			decideTaxPoint(
				{ rule: 'stages', workFinished: '2026-11-10', issued: '2026-11-24' } as never,
				() => false
			).date
		).to.equal('2026-11-24'));
});

describe('a notice to cancel', () => {
	it('is in time through the last day, and while the days have not begun', () => {
		expect(inTime('2026-12-08', '2026-12-08')).to.equal(true);
		expect(inTime('2026-12-09', '2026-12-08')).to.equal(false);
		expect(inTime('2030-01-01', null)).to.equal(true);
		expect(cancelUntil('2026-11-24', false, null)).to.equal('2026-12-08');
		expect(cancelUntil('2026-11-24', false, '2026-12-01')).to.equal('2026-12-08');
		expect(cancelUntil('2026-11-24', true, null)).to.equal(null);
		expect(cancelUntil('2026-11-24', true, '2026-12-01')).to.equal('2026-12-15');
		expect(cancelUntil('2026-11-24', true, '2026-11-20')).to.equal('2026-12-08');
		expect(mayBeginFrom('2026-11-24')).to.equal('2026-12-09');
		for (const [percent, share] of [
			[0, 0n],
			[33.5, 335_00n],
			[33.333, 333_30n],
			[100, 1000_00n],
			[101, 1000_00n],
			[-1, 0n]
		] as const)
			expect(shareOf(1000_00n, percent), String(percent)).to.equal(share);
	});
});

describe('what is read of tax points and periods', () => {
	const path = (work: () => unknown) => {
		try {
			work();
		} catch (problem) {
			return (problem as FiguresError).path;
		}
		return null;
	};
	it('has no end before its beginning; the same day is one', () => {
		const registered = (until: string) =>
			path(() =>
				readTaxPointsInput({
					rule: 'work',
					workFinished: '2026-11-10',
					total: '10.00',
					registered: { from: '2026-01-01', until }
				})
			);
		expect(registered('2026-01-01')).to.equal(null);
		expect(registered('2025-12-31')).to.equal('registered.until');
	});

	it('has rows in the order of their days, and nothing where nothing is', () => {
		const period = { basis: 'invoice', from: '2026-08-01', to: '2026-10-31' };
		const invoice = (id: string, day: string) => ({
			id,
			type: 'invoice',
			taxPoint: day,
			issued: day,
			due: day,
			groups: [{ treatment: 'standard', net: '100', vat: '20' }]
		});
		const read = readReturnInput({
			...period,
			documents: [
				invoice('B', '2026-09-02'),
				invoice('C', '2026-10-31'),
				invoice('A', '2026-08-01')
			]
		});
		expect(read).to.deep.include({ reliefs: [], costs: [] });
		expect(vatReturn(read).rows.map((row) => row.date)).to.deep.equal([
			'2026-08-01',
			'2026-09-02',
			'2026-10-31'
		]);
		expect(vatReturn(readReturnInput({ ...period, documents: [] })).rows).to.deep.equal([]);
	});
});

describe('the law on a sheet', () => {
	const contractor = customerOf('contractor', FULL);
	it('wants the name and the address of whoever writes it, more than spaces', () => {
		for (const missing of [{ address: ' \n ' }, { ownerName: ' ' }])
			expect(
				problemAt(
					readWith(contractor, {}, '2026-11-24', { ...SELLER, ...missing }).problems,
					'seller.address'
				)?.level,
				JSON.stringify(missing)
			).to.equal('stop');
		expect(problemAt(readWith(contractor).problems, 'seller.address')).to.equal(undefined);
	});

	it('wants days that are days, each said at its own box', () => {
		const at = (change: object, path: string) =>
			problemAt(readWith(contractor, change).problems, path)?.level;
		expect(at({ selfBilled: { agreedOn: 'soon', number: '1' } }, 'selfBilled.agreedOn')).to.equal(
			'stop'
		);
		expect(at({ endUser: { date: 'soon', statement: 'x' } }, 'endUser.date')).to.equal('stop');
		expect(at({ issueDate: '24 Nov 2026', dueDate: '23 Nov 2026' }, 'dueDate')).to.equal('stop');
		expect(at({ issueDate: '24 Nov 2026', dueDate: '24 Nov 2026' }, 'dueDate')).to.equal(undefined);
		expect(at({ termsDays: '30.5' }, 'termsDays')).to.equal('stop');
		expect(at({ termsDays: '0' }, 'termsDays')).to.equal(undefined);
		expect(at({ rows: [lineOf({ unitPrice: 'x' })] }, 'rows.a.unitPrice')).to.equal('stop');
	});
});

describe('the law of what is no plain invoice', () => {
	const contractor = customerOf('contractor', FULL);
	const paths = (who: Parameters<typeof readWith>[0], change: object) =>
		readWith(who, change).problems.map(({ path, level }) => `${path} ${level}`);
	it('of a self-billed one: their number, an agreement, and no household', () => {
		const billed = (number: string, agreedOn: string, who = contractor) =>
			paths(who, { selfBilled: { number, agreedOn } }).filter((one) =>
				/selfBilled|^customer stop/.test(one)
			);
		expect(billed('SB-1', '1 Nov 2026')).to.deep.equal([]);
		expect(billed(' ', '1 Nov 2026')).to.deep.equal(['selfBilled.number stop']);
		expect(billed('SB-1', '').every((one) => one.startsWith('selfBilled.agreedOn'))).to.equal(true);
		expect(billed('SB-1', '')).to.have.length(1);
		expect(billed('SB-1', '1 Nov 2026', customerOf('household'))).to.deep.equal(['customer stop']);
	});

	it('of a charge for lateness: no VAT on any line', () => {
		const charged = (vat: 'noSupply' | 'standard') =>
			paths(contractor, {
				charge: 'late',
				rows: [lineOf({ vat, ...(vat === 'noSupply' ? { vatReason: 'noSupply' } : {}) })]
			}).filter((one) => one.startsWith('rows.a.vat'));
		expect(charged('noSupply')).to.deep.equal([]);
		expect(charged('standard')).to.deep.equal(['rows.a.vat stop']);
	});

	it('of what was held back: it is part of a supply, taxed as the invoice that held it', () => {
		const released = (vat: 'noSupply' | 'standard') =>
			paths(contractor, { releases: [1], rows: [lineOf({ vat })] }).filter(
				(one) => one === 'rows stop'
			);
		expect(released('standard')).to.deep.equal(['rows stop']);
		expect(released('noSupply')).to.deep.equal(['rows stop']);
	});
});

describe('the right to cancel', () => {
	const FACTS: ContractFacts = {
		consumer: true,
		place: 'offPremises',
		urgent: false,
		newBuilding: false,
		total: 42_01n,
		goods: false
	};
	const right = (more: Partial<ContractFacts>) => {
		const { may, why, reference } = rightToCancel({ ...FACTS, ...more });
		return [may, why.split(' ').slice(0, 4).join(' '), reference.replace('SI 2013/3134 ', '')];
	};
	it('is a consumer’s, away from the shop, above £42, unless an urgent repair was called for', () => {
		expect(right({})).to.deep.equal([true, 'You can cancel within', 'reg. 29, 30']);
		expect(right({ consumer: false })).to.deep.equal([false, 'It is agreed in', 'reg. 4']);
		expect(right({ newBuilding: true })).to.deep.equal([false, 'It is for a', 'reg. 6(1)']);
		expect(right({ place: 'onPremises' })).to.deep.equal([false, 'It is agreed at', 'reg. 5, 29']);
		expect(right({ urgent: true })).to.deep.equal([false, 'You called for an', 'reg. 28(1)(e)']);
		expect(right({ total: 42_00n })).to.deep.equal([false, 'It comes to £42', 'reg. 27(3)']);
		expect(right({ total: 42_00n, place: 'distance' })[0]).to.equal(true);
	});

	it('is asked of what the contract is: who, where, and whether materials pass', () => {
		const terms = { place: 'distance' as const, urgent: true, newBuilding: false };
		const facts = (
			kind: 'household' | 'business',
			inTrade: boolean,
			kinds: string[] = ['labour']
		) => contractFacts({ kind, inTrade } as never, terms, 5n, kinds as never);
		expect(facts('household', false)).to.deep.equal({
			consumer: true,
			place: 'distance',
			urgent: true,
			newBuilding: false,
			total: 5n,
			goods: false
		});
		expect(facts('household', true).consumer).to.equal(false);
		expect(facts('business', false).consumer).to.equal(false);
		expect(facts('household', false, ['labour', 'materials']).goods).to.equal(true);
	});

	it('keeps the work from beginning before its days are over, unless they asked for it', () => {
		expect(beginsOn({ may: true, begin: false }, '2026-11-24')).to.equal('2026-12-09');
		expect(beginsOn({ may: true, begin: true }, '2026-11-24')).to.equal(null);
		expect(beginsOn({ may: false, begin: false }, '2026-11-24')).to.equal(null);
	});
});

describe('numbers that have a form', () => {
	it('are an account abroad by its check digits, whatever stands between', () => {
		// The example of ISO 13616, and the same with two digits changed places.
		expect(isIban('GB82 WEST 1234 5698 7654 32')).to.equal(true);
		expect(isIban('gb82west12345698765432')).to.equal(true);
		expect(isIban('GB82 WEST 1234 5698 7654 23')).to.equal(false);
		expect(isIban('GB28 WEST 1234 5698 7654 32')).to.equal(false);
		for (const odd of ['', 'GB82', '82GB WEST 1234 5698 7654 32', `GB82${'1'.repeat(31)}`])
			expect(isIban(odd), odd).to.equal(false);
		expect(
			['WESTGB2L', 'westgb2lxxx', 'WESTGB2LXX', 'WEST1B2L', 'XWESTGB2L'].map(isBic)
		).to.deep.equal([true, true, false, false, false]);
	});
	it('are a sort code, an account, a mobile', () => {
		expect(
			['00-11-22', '00 11 22', '001122', '00112', '0011223', 'aabbcc'].map(isSortCode)
		).to.deep.equal([true, true, true, false, false, false]);
		expect(['0001 2345', '00012345', '0001234', '000123456'].map(isAccountNumber)).to.deep.equal([
			true,
			true,
			false,
			false
		]);
		expect(
			['07700 900123', '+44 (7700) 900-123', '01632 960001', '0770090012', '+33 7700 900123'].map(
				isMobile
			)
		).to.deep.equal([true, true, false, false, false]);
		expect(
			['+44 7700 900123', '0044 7700 900123', '07700-900123', '+33 1'].map(homeNumber)
		).to.deep.equal(['07700900123', '07700900123', '07700900123', '+331']);
	});
});

describe('what only some papers say', () => {
	const released = (
		sheet: object,
		more: object = {},
		follows: object | null = { reverseCharge: false }
	) =>
		readSheet(
			{
				...blankSheet(),
				customerId: 1,
				contract: 'construction',
				releases: [1],
				rows: [lineOf(more)],
				...sheet
			} as never,
			{
				seller: SELLER,
				customer: customerOf('contractor', FULL),
				today: '2026-11-24',
				...(follows ? { follows } : {})
			} as never
		).problems;
	it('stops a release whose invoices are gone, or that is no supply', () => {
		expect(problemAt(released({}), 'rows')).to.equal(undefined);
		expect(problemAt(released({}, {}, null), 'rows')).to.deep.include({
			level: 'stop',
			reference: 'VAT Regulations 1995 reg. 89'
		});
		expect(problemAt(released({}, { vat: 'noSupply' }), 'rows')).to.deep.equal({
			path: 'rows',
			level: 'stop',
			message: 'What was held back is part of a supply. Give each line its rate.',
			reference: 'VAT Regulations 1995 reg. 89'
		});
	});
});
