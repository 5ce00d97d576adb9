// What the sheet says is wrong. Over 300 lines: one entry for each finding.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { NO_STANDING, type SellerRecord } from '../../../../src/lib/core/parties';
import { explainNumberPattern, formatNumber } from '../../../../src/lib/core/documents/numbers';
import { writeInvoiceFigures } from '../../../../src/lib/core/figures/output';
import {
	formatVatNumber,
	isUtr,
	isVatNumber,
	readVerificationNumber
} from '../../../../src/lib/core/regimes/gb/checks';
import { blankLine } from '../../../../src/lib/core/sheet/blank';
import { linesFromCells } from '../../../../src/lib/core/sheet/paste';
import type { Problem } from '../../../../src/lib/core/sheet/types';
import {
	customerOf as customer,
	FULL,
	lineOf as line,
	problemAt as at,
	readWith as read,
	SELLER as seller
} from '../../../support/sheets';

describe('the sheet: what would be wrong in law, with its fix', () => {
	it('a complete invoice has nothing against it', () => {
		expect(read(customer('contractor', FULL)).problems).to.deep.equal([]);
	});

	const cases: [string, ReturnType<typeof read>, string, Problem['level'], string][] = [
		[
			'price including VAT under the reverse charge',
			read(customer('contractor', FULL), { pricesIncludeVat: true }),
			'pricesIncludeVat',
			'stop',
			'set'
		],
		[
			'VAT charged to a contractor that is surely CIS registered',
			read(customer('contractor', { ...FULL, cisRegistered: false })),
			'customer.cisRegistered',
			'warning',
			'customer'
		],
		[
			'VAT charged to a contractor whose VAT registration is not known',
			read(customer('contractor', { ...FULL, vatRegistered: false })),
			'customer.vatRegistered',
			'warning',
			'customer'
		],
		[
			'the VAT number of a customer under the reverse charge missing',
			read(customer('contractor', { ...FULL, vatNumber: '' })),
			'customer.vatNumber',
			'warning',
			'customer'
		],
		[
			'an end user without the day of its statement',
			read(customer('contractor', { ...FULL, endUser: true, endUserStatement: 'By letter' })),
			'customer.endUserDate',
			'warning',
			'customer'
		],
		[
			'a contractor whose rate is not known',
			read(customer('contractor', { ...FULL, cisRate: null })),
			'customer.cisRate',
			'warning',
			'customer'
		],
		[
			'0 % with a number that says not matched',
			read(customer('contractor', { ...FULL, cisRate: '0', verificationNumber: 'V1234567890A' })),
			'customer.cisRate',
			'warning',
			'customer'
		],
		[
			'a contract of which nobody said what it is',
			read(customer('contractor', FULL), { contract: null }),
			'contract',
			'stop',
			'set'
		],
		[
			'a deduction on assumed cost',
			read(customer('contractor', FULL), { rows: [line({ kind: 'materials' })] }),
			'rows.a.cost',
			'warning',
			'focus'
		],
		[
			'a retention on a household’s bill',
			read(customer('household'), { retention: '5' }),
			'retention',
			'warning',
			'set'
		],
		[
			'a rate without its reason',
			read(customer('household'), { rows: [line({ vat: 'zero' })] }),
			'rows.a.vat',
			'stop',
			'focus'
		],
		[
			'a reason that has run out',
			read(
				customer('household'),
				{ rows: [line({ vat: 'zero', vatReason: 'energyZero' })] },
				'2027-04-01'
			),
			'rows.a.vat',
			'stop',
			'setLine'
		],
		[
			'work finished after the invoice',
			read(customer('household'), { workFinished: '2026-12-01' }),
			'workFinished',
			'warning',
			'set'
		],
		[
			'an old date left in',
			read(customer('household'), { issueDate: '1 Nov 2026' }),
			'issueDate',
			'warning',
			'set'
		],
		[
			'a date that has not come',
			read(customer('household'), { issueDate: '25 Nov 2026' }),
			'issueDate',
			'stop',
			'set'
		],
		[
			'no address on a VAT invoice above £250',
			read({ ...customer('household'), address: '' }, { rows: [line({ unitPrice: '300' })] }),
			'customer.address',
			'stop',
			'customer'
		],
		[
			'a missing VAT number of one’s own',
			read(customer('household'), {}, '2026-11-24', {
				...seller,
				vatStatuses: [{ from: '0001-01-01', registered: true, number: '' }]
			}),
			'seller.vatNumber',
			'stop',
			'business'
		],
		[
			'rounding down on a household’s bill',
			read(customer('household'), { roundVatDown: true }),
			'roundVatDown',
			'stop',
			'set'
		],
		[
			'less than nothing',
			read(customer('household'), { rows: [line({ quantity: '-1' })] }),
			'total',
			'stop',
			''
		]
	];
	for (const [name, reading, path, level, fix] of cases) {
		it(name, () => {
			const problem = at(reading.problems, path);
			expect(problem, JSON.stringify(reading.problems)).to.include({ level });
			expect(problem?.fix?.type ?? '').to.equal(fix);
		});
	}

	it('more than 14 days after finishing, says where the VAT goes', () => {
		const reading = read(customer('household'), { workFinished: '9 Nov 2026' });
		expect(reading.dates.taxPoint.date).to.equal('2026-11-09');
		expect(at(reading.problems, 'workFinished')?.level).to.equal('note');
	});

	it('follows the VAT status of the tax point, not of today', () => {
		const later: SellerRecord = {
			...seller,
			vatStatuses: [
				{ from: '0001-01-01', registered: false, number: '' },
				{ from: '2026-11-20', registered: true, number: '444444454' }
			]
		};
		expect(
			read(customer('household'), { workFinished: '1 Nov 2026' }, '2026-11-24', later).figures?.vat
		).to.deep.equal([]);
		expect(read(customer('household'), {}, '2026-11-24', later).figures?.vatCharged).to.equal(
			2000n
		);
	});

	it('takes the tax standing that held on the tax point', () => {
		const turned = {
			...customer('contractor'),
			standings: [
				{ ...NO_STANDING, ...FULL },
				{ ...NO_STANDING, ...FULL, from: '2026-11-20', cisRate: '30' as const }
			]
		};
		expect(read(turned).figures?.cis?.rate).to.equal('30');
		expect(read(turned, { workFinished: '1 Nov 2026' }).figures?.cis?.rate).to.equal('20');
	});
});

describe('the sheet: bad input', () => {
	it('says at each field what is wrong, keeps counting the rest, and stops the issuing', () => {
		const reading = read(customer('household'), {
			rows: [
				line({ quantity: 'two', discount: '5%' }),
				{ ...line({ unitPrice: '1e12' }), id: 'b' },
				{ ...line({ unitPrice: '£1,250.00', discount: '2000' }), id: 'c' }
			]
		});
		expect(
			reading.problems.filter((problem) => problem.level === 'stop').map((problem) => problem.path)
		).to.include.members(['rows.a.quantity', 'rows.b.unitPrice', 'rows.c.discount']);
		expect(writeInvoiceFigures(reading.figures!).net).to.equal('1250.00');
	});

	it('leaves lines out in which nothing is typed', () =>
		expect(read(customer('household'), { rows: [blankLine('x')] }).figures).to.equal(null));

	it('refuses what no invoice can come to', () => {
		expect(
			at(
				read(customer('household'), {
					rows: [line({ quantity: '999999999', unitPrice: '999999999' })]
				}).problems,
				'total'
			)?.level
		).to.equal('stop');
	});

	it('computes 200 lines in a few milliseconds', () => {
		const rows = Array.from({ length: 200 }, (_, index) => ({ ...line(), id: `l${index}` }));
		expect(read(customer('contractor', FULL), { rows }).figures?.lines).to.have.length(200);
	});
});

describe('the sheet: what is typed in its head', () => {
	const problem = (change: object, path: string, who = customer('contractor', FULL)) =>
		at(read(who, change).problems, path);
	it('takes days from 0 to 999 as terms, and says so of anything else', () => {
		for (const termsDays of ['0', '7', '999', ' 30 '])
			expect(problem({ termsDays }, 'termsDays'), termsDays).to.equal(undefined);
		for (const termsDays of ['1000', '-1', '7.5', 'soon'])
			expect(problem({ termsDays }, 'termsDays')).to.include({
				level: 'stop',
				message: 'Terms are a number of days, from 0 to 999.'
			});
		expect(read(customer('household'), { termsDays: '60' }).dates.dueDate).to.equal('2027-01-23');
	});
	it('names the date that is none', () => {
		for (const path of ['issueDate', 'workFinished', 'dueDate'])
			expect(problem({ [path]: 'someday' }, path)).to.include({ level: 'stop' });
		expect(problem({ dueDate: '2026-11-23' }, 'dueDate')!.message).to.match(/before it is issued/);
		expect(problem({ dueDate: '2026-11-24' }, 'dueDate')).to.equal(undefined);
	});
	it('keeps texts to their length, to the character', () => {
		for (const [path, most] of [
			['reference', 200],
			['orderNumber', 200],
			['note', 10_000]
		] as const) {
			expect(problem({ [path]: 'x'.repeat(most) }, path), path).to.equal(undefined);
			expect(problem({ [path]: 'x'.repeat(most + 1) }, path)!.message).to.match(/^At most/);
		}
	});
	it('explains what cannot be computed, at its place, with what to do', () => {
		const found = (change: object, who = customer('business')) =>
			read(who, change).problems.find((one) => one.level === 'stop');
		expect(found({ discount: '200' })).to.deep.include({
			path: 'discount',
			message: 'The discount is larger than the lines it is taken from.',
			fix: { label: 'Take the discount out', type: 'set', field: 'discount', value: '' }
		});
		expect(found({ retention: '5', pricesIncludeVat: true })).to.deep.include({
			path: 'retention',
			fix: { label: 'Hold nothing back', type: 'set', field: 'retention', value: '' }
		});
		expect(found({ roundVatDown: true, pricesIncludeVat: true })).to.deep.include({
			path: 'roundVatDown',
			fix: {
				label: 'Round to the nearest penny',
				type: 'set',
				field: 'roundVatDown',
				value: false
			}
		});
		expect(
			found({ rows: [line({ vat: 'noSupply', vatReason: 'noSupply', cost: '5' })] })
		).to.include({
			path: 'rows.a.cost'
		});
		// What is wrong in one place does not keep the rest from being counted.
		expect(read(customer('business'), { discount: '200' }).figures?.net).to.equal(100_00n);
	});
});

describe('rows pasted from a spreadsheet', () => {
	let n = 0;
	const paste = (text: string) =>
		linesFromCells(text, () => String(n++), line({ kind: 'materials', unit: 'lot' }))?.map(
			(row) => [row.description, row.quantity, row.unit, row.unitPrice]
		);
	it('become lines by what is in their columns', () => {
		expect(
			paste('Lime render\t32\thour\t£45.00\t1,440.00\r\nSand, "fine"\t1\tlot\t860\t860')
		).to.deep.equal([
			['Lime render', '32', 'hour', '£45.00'],
			['Sand, "fine"', '1', 'lot', '860']
		]);
	});
	it('or by their headings, with line breaks inside quotes', () => {
		expect(paste('Description\tPrice\tQty\n"Two\nlines"\t12\t3')).to.deep.equal([
			['Two\nlines', '3', 'lot', '12']
		]);
	});
	it('take over the settings of the line above', () =>
		expect(linesFromCells('Sand\t5', () => 'x', line({ kind: 'materials' }))?.[0]?.kind).to.equal(
			'materials'
		));
	it('plain text stays text', () => expect(paste('just a sentence')).to.equal(undefined));
	it('are named by headings only where text and an amount are among them', () => {
		// "Total" is left out whole; a heading that only contains such a word names nothing.
		expect(paste('Work\tNet, £\tPrice\nRender\t90\t45')).to.deep.equal([
			['Render', '1', 'lot', '45']
		]);
		expect(paste('Subtotal\tSum of it\nRender\tboard')).to.deep.equal([
			['Subtotal', '1', 'Sum of it', ''],
			['Render', '1', 'board', '']
		]);
		expect(paste('Price\tQty\n45\t2')).to.deep.equal([
			['Price', '1', 'Qty', ''],
			['45', '1', '2', '']
		]);
		expect(paste('Item\tHours\nRender\t3')).to.deep.equal([['Render', '3', 'lot', '']]);
	});
	it('may be of different length, with empty cells that change nothing', () =>
		expect(paste('Render\t2\t45\nSand\n\t\nLime\t\t5')).to.deep.equal([
			['Render', '2', 'lot', '45'],
			['Sand', '1', 'lot', ''],
			['Lime', '1', 'lot', '5']
		]));
	it('survive quotes that do not close', () =>
		expect(paste('"Render\t2\t45\nSand\t1\t5')?.length).to.equal(2));
});

describe('numbers that can be checked', () => {
	it('VAT numbers by both rules', () => {
		expect(['123456782', 'GB 123 4567 27', '123456789', '12345678'].map(isVatNumber)).to.deep.equal(
			[true, true, false, false]
		);
	});
	it('VAT numbers of public bodies, and none of zeros alone', () => {
		const numbers = ['GD001', 'GBGD499', 'GBGD500', 'HA500', 'GB HA 999', 'GBHA499', '000000000'];
		expect(numbers.map(isVatNumber)).to.deep.equal([true, true, false, true, true, false, false]);
		expect([formatVatNumber('gd 001'), formatVatNumber('GB123456782')]).to.deep.equal([
			'GBGD001',
			'GB 123 4567 82'
		]);
	});
	it('UTRs', () => expect(['2234567890', '1234567890'].map(isUtr)).to.deep.equal([true, false]));
	it('CIS verification numbers, and whether HMRC found a match', () => {
		expect([
			readVerificationNumber('V1234567890'),
			readVerificationNumber('v1234567890 a'),
			readVerificationNumber('V12')
		]).to.deep.equal([{ matched: true }, { matched: false }, null]);
	});
	it('invoice numbers follow the owner’s pattern', () => {
		expect([
			formatNumber('INV-{nnnn}', 7, '2026'),
			formatNumber('{year}/{n}', 1234, '2026')
		]).to.deep.equal(['INV-0007', '2026/1234']);
		expect(
			['INV', '{n}{n}', 'a<{n}', 'INV-{nnnn}'].map(
				(pattern) => explainNumberPattern(pattern) === null
			)
		).to.deep.equal([false, false, false, true]);
	});
});

describe('what is computed of a sheet that is not right yet', () => {
	const household = customer('household');
	const contractor = customer('contractor', FULL);

	it('leaves out a retention that cannot be, and names it', () => {
		const { problems, figures } = read(household, { pricesIncludeVat: true, retention: '5' });
		expect(at(problems, 'retention')).to.include({ level: 'stop' });
		expect([figures!.retention, figures!.total]).to.deep.equal([0n, 100_00n]);
	});

	it('takes a contract nobody has classed for construction, the safe side', () => {
		expect(read(contractor, { contract: null }).figures!.vatReverseCharged).to.equal(20_00n);
	});

	it('of a seller that is not registered has no treatment but what is no supply', () => {
		const unregistered: SellerRecord = {
			...seller,
			vatStatuses: [{ from: '0001-01-01', registered: false, number: '' }]
		};
		const rows = [line(), line({ id: 'b', vat: 'noSupply', vatReason: 'noSupply' })];
		const { input } = read(household, { rows }, undefined, unregistered);
		expect(input!.lines.map(({ vat }) => vat)).to.deep.equal([null, 'noSupply']);
	});

	it('reads money with two decimals alone, and says so at the box', () => {
		const { problems } = read(household, {
			rows: [line({ cost: '1.234' }), line({ id: 'b', discount: '0.123' })]
		});
		expect(at(problems, 'rows.a.cost')!.message).to.equal('At most 2 decimals here.');
		expect(at(problems, 'rows.b.discount')).to.include({ level: 'stop' });
	});

	it('says of what a contractor wrote of itself where it is too long', () => {
		const { problems } = read(contractor, {
			endUser: { statement: 'x'.repeat(501), date: '1 Nov 2026' }
		});
		expect(at(problems, 'endUser.statement')!.message).to.match(/At most 500/);
	});

	it('knows by which rule its supply takes place', () => {
		const rule = (change: object) => read(contractor, change).dates.taxPoint.rule;
		expect([
			rule({}),
			rule({ stageId: 4 }),
			rule({ releases: [3] }),
			rule({ releases: [] })
		]).to.deep.equal(['work', 'stages', 'retention', 'work']);
	});
});
