// What the law asks of an invoice: every finding in full, and right beside it the case in which it is none.
// Over 300 lines: one entry for each finding.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import type { CustomerRecord, SellerRecord } from '../../../../src/lib/core/parties';
import type { Problem, Sheet } from '../../../../src/lib/core/sheet/types';
import { customerOf, FULL, lineOf, problemAt, readWith, SELLER } from '../../../support/sheets';

const BUSINESS = customerOf('business');
const CONTRACTOR = customerOf('contractor', FULL);
const UNREGISTERED: SellerRecord = {
	...SELLER,
	vatStatuses: [{ from: '0001-01-01', registered: false, number: '' }]
};
const found = (
	path: string,
	who: CustomerRecord | null,
	change: Partial<Sheet> = {},
	today?: string,
	by?: SellerRecord
) => problemAt(readWith(who, change, today, by).problems, path);
const HOUSEHOLD = customerOf('household');
const problemsOf = (who: CustomerRecord, change: Partial<Sheet>, today?: string) =>
	readWith(who, change, today).problems;
/** What a finding says, without its sentence. */
const facts = (problem: Problem | undefined) => {
	if (!problem) return undefined;
	const { message: _, ...rest } = problem;
	return rest;
};

describe('the customer on an invoice', () => {
	it('has to be chosen; one that is gone has to be chosen anew, even to preview', () => {
		const fix = { label: 'Choose the customer', type: 'focus', path: 'customer' };
		expect(facts(found('customer', null))).to.deep.equal({
			path: 'customer',
			level: 'stop',
			fix,
			atIssue: true
		});
		const gone = found('customer', null, { customerId: 9 });
		expect(facts(gone)).to.deep.equal({ path: 'customer', level: 'stop', fix });
		expect(gone!.message).to.match(/has been removed/);
	});

	it('has an address on a VAT invoice above £250; under the reverse charge or exempt on any', () => {
		const homeless = { ...BUSINESS, address: ' ' };
		const big = { rows: [lineOf({ unitPrice: '208.34' })] };
		expect(facts(found('customer.address', homeless, big))).to.deep.equal({
			path: 'customer.address',
			level: 'stop',
			fix: { label: 'Give the address', type: 'customer', field: 'address' },
			reference: 'VAT Regulations 1995 reg. 14(1)(e)',
			atIssue: true
		});
		// 208.33 and 41.67 of VAT are 250.00.
		expect(
			found('customer.address', homeless, { rows: [lineOf({ unitPrice: '208.33' })] })
		).to.equal(undefined);
		expect(found('customer.address', homeless, big, undefined, UNREGISTERED)).to.equal(undefined);
		expect(found('customer.address', { ...CONTRACTOR, address: '' })).not.to.equal(undefined);
		const exempt = { rows: [lineOf({ vat: 'exempt', vatReason: 'exempt' })] };
		expect(found('customer.address', homeless, exempt)).not.to.equal(undefined);
		expect(found('customer.address', homeless, { rows: [lineOf()] })).to.equal(undefined);
	});

	it('that wants an order number gets one', () => {
		const strict = { ...BUSINESS, orderNumberRequired: true };
		expect(facts(found('orderNumber', strict))).to.deep.equal({
			path: 'orderNumber',
			level: 'warning',
			fix: { label: 'Give it', type: 'focus', path: 'orderNumber' }
		});
		expect(found('orderNumber', strict, { orderNumber: 'PO 7' })).to.equal(undefined);
		expect(found('orderNumber', BUSINESS)).to.equal(undefined);
	});
});

describe('the seller on an invoice', () => {
	const numbered = (number: string): SellerRecord => ({
		...SELLER,
		vatStatuses: [{ from: '0001-01-01', registered: true, number }]
	});
	it('registered for VAT shows a number that can be one', () => {
		const missing = {
			path: 'seller.vatNumber',
			level: 'stop',
			fix: { label: 'Give your VAT number', type: 'business', asks: 'vatNumber' },
			reference: 'VAT Regulations 1995 reg. 14(1)(d)'
		};
		const said = (number: string) =>
			facts(found('seller.vatNumber', BUSINESS, {}, undefined, numbered(number)));
		// What is missing is said when it is needed; what is wrong, at once.
		expect(said('')).to.deep.equal({ ...missing, atIssue: true });
		expect(said('444444455')).to.deep.equal(missing);
		expect(found('seller.vatNumber', BUSINESS)).to.equal(undefined);
		expect(found('seller.vatNumber', BUSINESS, {}, undefined, UNREGISTERED)).to.equal(undefined);
	});

	it('has a name and an address', () => {
		for (const change of [{ ownerName: ' ' }, { address: '' }])
			expect(
				facts(found('seller.address', BUSINESS, {}, undefined, { ...SELLER, ...change }))
			).to.deep.equal({
				path: 'seller.address',
				level: 'stop',
				fix: { label: 'Give them', type: 'business', asks: 'names' },
				reference: 'Companies Act 2006 s.1202',
				atIssue: true
			});
		expect(found('seller.address', BUSINESS)).to.equal(undefined);
	});

	it('has a UTR where a contractor verifies it, and an account where money can go', () => {
		const by = (change: Partial<SellerRecord>) => ({ ...SELLER, ...change });
		const noUtr = by({ utr: '' });
		expect(facts(found('seller.utr', CONTRACTOR, {}, undefined, noUtr))).to.deep.equal({
			path: 'seller.utr',
			level: 'warning',
			fix: { label: 'Give your UTR', type: 'business', asks: 'utr' },
			reference: 'FA 2004 s.69',
			atIssue: true
		});
		expect(found('seller.utr', CONTRACTOR)).to.equal(undefined);
		expect(found('seller.utr', BUSINESS, {}, undefined, noUtr)).to.equal(undefined);
		expect(
			found('seller.utr', CONTRACTOR, {}, undefined, by({ utr: '', cisSubcontractor: false }))
		).to.equal(undefined);
		for (const lacks of [{ sortCode: '' }, { accountNumber: '' }]) {
			const noBank = by({ bank: { ...SELLER.bank, ...lacks } });
			expect(facts(found('seller.bank', BUSINESS, {}, undefined, noBank))).to.deep.equal({
				path: 'seller.bank',
				level: 'warning',
				fix: { label: 'Give your bank details', type: 'business', asks: 'bank' },
				atIssue: true
			});
		}
		expect(found('seller.bank', BUSINESS)).to.equal(undefined);
	});
});

describe('the standing of a contractor', () => {
	it('asks for the class of the contract', () => {
		expect(facts(found('contract', CONTRACTOR, { contract: null }))).to.deep.equal({
			path: 'contract',
			level: 'stop',
			fix: {
				label: 'Yes, construction work',
				type: 'set',
				field: 'contract',
				value: 'construction'
			},
			reference: 'FA 2004 s.74'
		});
		expect(found('contract', CONTRACTOR, { contract: 'none' })).to.equal(undefined);
		expect(found('contract', BUSINESS, { contract: null })).to.equal(undefined);
	});

	it('wants its rate, where construction work is in it', () => {
		const unknown = customerOf('contractor', { ...FULL, cisRate: null });
		expect(facts(found('customer.cisRate', unknown))).to.deep.equal({
			path: 'customer.cisRate',
			level: 'warning',
			fix: { label: 'Give the rate', type: 'customer', field: 'cisRate' },
			reference: 'FA 2004 s.61'
		});
		expect(found('customer.cisRate', unknown, { contract: 'none' })).to.equal(undefined);
		expect(found('customer.cisRate', unknown, { contract: 'minor' })).not.to.equal(undefined);
	});

	it('of 0 % does not fit a verification that found nobody', () => {
		const gross = (verificationNumber: string, cisRate: '0' | '30' = '0') =>
			found('customer.cisRate', customerOf('contractor', { ...FULL, cisRate, verificationNumber }));
		expect(gross('V1234567890AB')).to.include({ level: 'warning', reference: 'FA 2004 s.61(2)' });
		expect(gross('V1234567890')).to.equal(undefined);
		expect(gross('')).to.equal(undefined);
		expect(gross('V1234567890AB', '30')).to.equal(undefined);
	});

	it('charged VAT raises the question of the reverse charge, once, at what is missing', () => {
		const without = (more: object, change: Partial<Sheet> = {}, by?: SellerRecord) => {
			const { problems } = readWith(
				customerOf('contractor', { ...FULL, ...more }),
				change,
				undefined,
				by
			);
			return problems
				.filter((one) => one.reference === 'VATA 1994 s.55A')
				.map((one) => [one.path, one.fix]);
		};
		const vat = [
			'customer.vatRegistered',
			{ label: 'They are VAT registered', type: 'customer', field: 'vatRegistered' }
		];
		expect(without({ vatRegistered: false })).to.deep.equal([vat]);
		expect(without({ vatRegistered: false, cisRegistered: false })).to.deep.equal([vat]);
		expect(without({ cisRegistered: false })).to.deep.equal([
			[
				'customer.cisRegistered',
				{ label: 'They are CIS registered', type: 'customer', field: 'cisRegistered' }
			]
		]);
		expect(without({}), 'nothing is missing').to.deep.equal([]);
		expect(
			without({
				cisRegistered: false,
				endUser: true,
				endUserDate: '2026-01-01',
				endUserStatement: 'We use it'
			})
		).to.deep.equal([]);
		expect(
			without({ cisRegistered: false, cisRate: null }).map(([path]) => path),
			'not known to deduct'
		).to.deep.equal(['customer.cisRegistered']);
		expect(
			without({ vatRegistered: false, cisRegistered: false, cisRate: null }),
			'nothing is known of it'
		).to.deep.equal([]);
		expect(without({ cisRegistered: false }, { contract: 'minor' })).to.deep.equal([]);
		expect(without({ cisRegistered: false }, { contract: 'none' })).to.deep.equal([]);
		expect(without({ cisRegistered: false }, {}, UNREGISTERED)).to.deep.equal([]);
		const zero = { rows: [lineOf({ vat: 'zero', vatReason: 'newDwelling' })] };
		expect(without({ cisRegistered: false }, zero), 'no VAT is charged').to.deep.equal([]);
	});

	it('under the reverse charge keeps its VAT number as evidence', () => {
		const of = (vatNumber: string, change: Partial<Sheet> = {}) =>
			found('customer.vatNumber', customerOf('contractor', { ...FULL, vatNumber }), change);
		expect(facts(of(''))).to.deep.equal({
			path: 'customer.vatNumber',
			level: 'warning',
			fix: { label: 'Give the VAT number', type: 'customer', field: 'vatNumber' },
			reference: 'VAT Notice 735 para 3'
		});
		expect(of('')!.message).to.match(/as evidence/);
		expect(of('123456783')!.message).to.match(/A digit .* is wrong/);
		expect(of('123456782')).to.equal(undefined);
		expect(of('', { contract: 'none' }), 'VAT is charged').to.equal(undefined);
	});

	it('is charged VAT for labour only with a reason that is kept, where it is registered for both', () => {
		const asked = (change: Partial<Sheet>, standing: object = {}, by?: SellerRecord) =>
			found(
				'contractReason',
				customerOf('contractor', { ...FULL, ...standing }),
				change,
				undefined,
				by
			);
		expect(facts(asked({ contract: 'none' }))).to.deep.equal({
			path: 'contractReason',
			level: 'stop',
			fix: { label: 'Say why', type: 'focus', path: 'contractReason' },
			reference: 'VATA 1994 s.55A; VAT Notice 735 para 2',
			atIssue: true
		});
		expect(asked({ contract: 'minor' })!.message).to.match(/at most 5 %/);
		expect(asked({ contract: 'none', contractReason: 'Carpets alone' })).to.equal(undefined);
		expect(asked({ contract: 'none', contractReason: ' ' })).not.to.equal(undefined);
		expect(asked({ contract: 'construction' })).to.equal(undefined);
		expect(asked({ contract: 'none', rows: [lineOf({ kind: 'materials', cost: '5' })] })).to.equal(
			undefined
		);
		for (const standing of [
			{ vatRegistered: false },
			{ cisRegistered: false },
			{ endUser: true, endUserDate: '2026-01-01', endUserStatement: 'We use it' }
		])
			expect(asked({ contract: 'none' }, standing)).to.equal(undefined);
		expect(asked({ contract: 'none' }, {}, UNREGISTERED)).to.equal(undefined);
	});

	it('is an end user only with what it wrote and its day; otherwise the reverse charge applies, and is said to', () => {
		const user = (
			path: string,
			endUserDate: string | null,
			endUserStatement: string,
			change: Partial<Sheet> = {}
		) =>
			found(
				path,
				customerOf('contractor', { ...FULL, endUser: true, endUserDate, endUserStatement }),
				change
			);
		expect(facts(user('customer.endUserDate', null, 'We use it'))).to.deep.equal({
			path: 'customer.endUserDate',
			level: 'warning',
			fix: { label: 'Note it', type: 'customer', field: 'endUserDate' },
			reference: 'SI 2019/892 art. 8'
		});
		expect(user('customer.endUserStatement', '2026-01-01', ' ')!.message).to.match(
			/nothing says what it wrote\. Without both the reverse charge applies/
		);
		for (const path of ['customer.endUserDate', 'customer.endUserStatement'])
			expect(user(path, '2026-01-01', 'We use it')).to.equal(undefined);
		const charged = (standing: object, change: Partial<Sheet> = {}) =>
			Boolean(
				readWith(customerOf('contractor', { ...FULL, ...standing }), change).figures!.vatCharged
			);
		expect(charged({ endUser: true, endUserDate: '2026-01-01', endUserStatement: 'x' })).to.equal(
			true
		);
		expect(charged({ endUser: true, endUserDate: '2026-01-01', endUserStatement: '' })).to.equal(
			false
		);
		expect(charged({ endUser: true, endUserDate: null, endUserStatement: 'x' })).to.equal(false);
	});

	it('may be the end user of one contract alone', () => {
		const customer = customerOf('contractor', FULL);
		const of = (statement: string, date: string) => ({ endUser: { statement, date } });
		expect(readWith(customer, of('Plot 4 is ours', '1 Nov 2026')).figures!.vatCharged).to.equal(
			20_00n
		);
		expect(readWith(customer, of('Plot 4 is ours', '')).figures!.vatCharged).to.equal(0n);
		expect(facts(found('endUser.date', customer, of('Plot 4 is ours', '')))).to.include({
			level: 'warning'
		});
		expect(found('endUser.statement', customer, of('', '1 Nov 2026'))).to.include({
			level: 'warning'
		});
		expect(
			readWith(customerOf('household', FULL), of('x', '1 Nov 2026')).figures!.vatCharged
		).to.equal(20_00n);
	});
});

describe('a rate with a reason', () => {
	const reduced = (vatReason: string, vat: 'zero' | 'reduced') => ({
		rows: [lineOf({ vat, vatReason })]
	});
	const at = (customer: CustomerRecord, change: Partial<Sheet>) =>
		found('rows.a.vat', customer, change);

	it('that only the final customer can use does not pass for a contractor, unless it is the end user', () => {
		const sub = customerOf('contractor', FULL);
		for (const [reason, vat] of [
			['certificate', 'zero'],
			['disabledAdaptation', 'zero'],
			['mobilityAid', 'reduced']
		] as const) {
			expect(at(sub, reduced(reason, vat)), reason).to.include({ level: 'stop' });
			expect(at(HOUSEHOLD, reduced(reason, vat)), reason).to.equal(undefined);
			expect(
				at(sub, {
					...reduced(reason, vat),
					endUser: { statement: 'Our own home', date: '1 Nov 2026' }
				}),
				reason
			).to.equal(undefined);
		}
		for (const [reason, vat] of [
			['newDwelling', 'zero'],
			['emptyHome', 'reduced']
		] as const)
			expect(at(sub, reduced(reason, vat)), reason).to.equal(undefined);
	});

	it('that has ended since the work was done may be kept (VATA 1994 s.88)', () => {
		const energy = { ...reduced('energyZero', 'zero'), workFinished: '31 Mar 2027' };
		const on = (change: Partial<Sheet>) =>
			problemsOf(HOUSEHOLD, { ...energy, ...change }, '2027-04-05').filter(({ path }) =>
				['rows.a.vat', 'workFinished'].includes(path)
			);
		expect(on({}).map(({ level, fix }) => [level, fix!.label])).to.deep.equal([
			['stop', 'Keep the rate of the day the work was done']
		]);
		expect(on({ rateOfWork: true })).to.deep.equal([]);
		expect(on({ workFinished: '1 Apr 2027' }).map(({ fix }) => fix!.label)).to.deep.equal([
			'Charge the standard rate'
		]);
	});
});

describe('a rate that changed between the work and the tax point', () => {
	const when = (change: Partial<Sheet>) => ({ workFinished: '31 Dec 2010', ...change });
	it('is asked about, and kept where the owner says so', () => {
		const of = (change: Partial<Sheet>) => readWith(HOUSEHOLD, when(change), '2011-01-10');
		expect(of({}).figures!.vatCharged).to.equal(20_00n);
		expect(of({ rateOfWork: true }).figures!.vatCharged).to.equal(17_50n);
		const said = (change: Partial<Sheet>) =>
			problemsOf(HOUSEHOLD, when(change), '2011-01-10').filter(
				({ reference }) => reference === 'VATA 1994 s.88'
			);
		expect(said({}).map(({ level, message }) => [level, message])).to.deep.equal([
			[
				'warning',
				'The rate was 17.5 % when the work was finished, and is 20 % on the tax point. Work done before may keep its rate.'
			]
		]);
		expect(said({ rateOfWork: true }).map(({ level }) => level)).to.deep.equal(['note']);
		expect(said({ workFinished: '4 Jan 2011' })).to.deep.equal([]);
	});
});

describe('the days of an invoice', () => {
	it('more than 14 days after the work: its VAT belongs to the work’s period', () => {
		const late = (workFinished: string, by?: SellerRecord) =>
			found('workFinished', BUSINESS, { workFinished }, '2026-11-24', by);
		expect(late('2026-11-09')).to.include({ level: 'note' });
		expect(late('2026-11-10')).to.equal(undefined);
		expect(late('2026-11-09', UNREGISTERED)).to.equal(undefined);
	});

	it('more than 30 days after the work is more than the customer should wait', () => {
		const late = (workFinished: string) => facts(found('issueDate', BUSINESS, { workFinished }));
		expect(late('2026-10-24')).to.deep.equal({
			path: 'issueDate',
			level: 'note',
			reference: 'VAT Regulations 1995 reg. 13(5)'
		});
		expect(late('2026-10-25')).to.equal(undefined);
	});

	it('before the work is finished makes the VAT due early', () => {
		expect(facts(found('workFinished', BUSINESS, { workFinished: '2026-11-25' }))).to.deep.include({
			path: 'workFinished',
			level: 'warning',
			fix: {
				label: 'It is finished on the invoice date',
				type: 'set',
				field: 'workFinished',
				value: ''
			}
		});
		expect(found('workFinished', BUSINESS, { workFinished: '2026-11-24' })).to.equal(undefined);
	});

	it('is not to come, and one that is past is looked at', () => {
		expect(facts(found('issueDate', BUSINESS, { issueDate: '2026-11-25' }))).to.deep.equal({
			path: 'issueDate',
			level: 'stop',
			fix: { label: 'Date it on the day it is issued', type: 'set', field: 'issueDate', value: '' }
		});
		expect(facts(found('issueDate', BUSINESS, { issueDate: '2026-11-23' }))).to.deep.equal({
			path: 'issueDate',
			level: 'warning',
			fix: { label: 'Date it today', type: 'set', field: 'issueDate', value: '' }
		});
		expect(found('issueDate', BUSINESS, { issueDate: '2026-11-24' })).to.equal(undefined);
		expect(found('issueDate', BUSINESS, { issueDate: '' })).to.equal(undefined);
	});
});

describe('the lines of an invoice', () => {
	it('are at least one', () => {
		expect(facts(found('rows', BUSINESS, { rows: [] }))).to.deep.equal({
			path: 'rows',
			level: 'stop',
			fix: { label: 'Begin', type: 'focus', path: 'rows' },
			atIssue: true
		});
	});

	it('say what they are for', () => {
		expect(
			facts(found('rows.a.description', BUSINESS, { rows: [lineOf({ description: ' ' })] }))
		).to.deep.equal({
			path: 'rows.a.description',
			level: 'stop',
			fix: { label: 'Say it', type: 'focus', path: 'rows.a.description' },
			reference: 'VAT Regulations 1995 reg. 14(1)(h)',
			atIssue: true
		});
		expect(found('rows.a.description', BUSINESS)).to.equal(undefined);
	});

	const vat = (more: object, change: Partial<Sheet> = {}, today?: string, by?: SellerRecord) =>
		found('rows.a.vat', BUSINESS, { rows: [lineOf(more)], ...change }, today, by);
	it('at another rate have a reason that belongs to it', () => {
		const needed = {
			path: 'rows.a.vat',
			level: 'stop',
			fix: { label: 'Choose the reason', type: 'focus', path: 'rows.a.vat' },
			reference: 'VAT Regulations 1995 reg. 14(1)'
		};
		expect(facts(vat({ vat: 'reduced' }))).to.deep.equal(needed);
		expect(facts(vat({ vat: 'reduced', vatReason: 'newDwelling' }))).to.deep.equal(needed);
		expect(vat({ vat: 'zero', vatReason: 'newDwelling' })).to.equal(undefined);
		expect(vat({ vat: 'standard', vatReason: '' })).to.equal(undefined);
		expect(vat({ vat: 'reduced' }, {}, undefined, UNREGISTERED)).to.equal(undefined);
	});

	it('have a reason that is in force on the tax point', () => {
		const energy = { vat: 'zero', vatReason: 'energyZero' };
		const problem = vat(energy, {}, '2027-04-01');
		expect(facts(problem)).to.deep.equal({
			path: 'rows.a.vat',
			level: 'stop',
			fix: {
				label: 'Charge the standard rate',
				type: 'setLine',
				rowId: 'a',
				field: 'vat',
				value: 'standard'
			},
			reference: 'VATA 1994 Sch. 8 group 23'
		});
		expect(problem!.message).to.contain('1 Apr 2027');
		expect(vat(energy, {}, '2027-03-31')).to.equal(undefined);
	});

	it('of a deducting contractor give what their materials cost', () => {
		const cost = (more: object, change: Partial<Sheet> = {}, standing: object = {}) =>
			found('rows.a.cost', customerOf('contractor', { ...FULL, ...standing }), {
				rows: [lineOf({ kind: 'materials', ...more })],
				...change
			});
		expect(facts(cost({}))).to.deep.equal({
			path: 'rows.a.cost',
			level: 'warning',
			fix: { label: 'Give the cost', type: 'focus', path: 'rows.a.cost' },
			reference: 'FA 2004 s.61(1)(a)'
		});
		expect(cost({})!.message).to.contain('Beacon');
		expect(cost({ cost: '80' })).to.equal(undefined);
		expect(cost({ kind: 'labour' }), 'labour has no allowable cost').to.equal(undefined);
		expect(cost({}, {}, { cisRate: '0' }), 'nothing is deducted').to.equal(undefined);
		expect(cost({}, { contract: 'none' })).to.equal(undefined);
		expect(cost({ vat: 'noSupply', vatReason: 'noSupply' })).to.equal(undefined);
	});
});

describe('the whole of an invoice', () => {
	it('asks for money: a penny will do', () => {
		const total = (unitPrice: string) =>
			found('total', BUSINESS, { rows: [lineOf({ unitPrice })] });
		expect(facts(total('0'))).to.deep.equal({ path: 'total', level: 'stop', atIssue: true });
		expect(total('-5')!.message).to.contain('credit the invoice it was on');
		expect(total('0.01')).to.equal(undefined);
	});

	it('holds nothing back from a household without being asked whether it is meant', () => {
		const held = (who: CustomerRecord, retention: string) =>
			facts(found('retention', who, { retention }));
		expect(held(customerOf('household'), '5')).to.deep.equal({
			path: 'retention',
			level: 'warning',
			fix: { label: 'Hold nothing back', type: 'set', field: 'retention', value: '' }
		});
		expect(held(customerOf('household'), ' ')).to.equal(undefined);
		expect(held(BUSINESS, '5')).to.equal(undefined);
	});
});
