// Why tax is as it is: each ground alone decides, is named, and says what would change it.
// Over 300 lines: one entry for each ground.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import type { Parties } from '../../../../src/lib/core/regimes/types';
import {
	decideDeduction,
	decideRate,
	decideReverseCharge
} from '../../../../src/lib/core/regimes/gb/decisions';
import { decideContract } from '../../../../src/lib/core/regimes/gb/contract';
import { RATE_REASONS, reasonById, reasonsOn } from '../../../../src/lib/core/regimes/gb/reasons';
import {
	formatVatNumber,
	isAccountNumber,
	isSortCode,
	isUtr,
	isVatNumber,
	readVerificationNumber
} from '../../../../src/lib/core/regimes/gb/checks';

const PARTIES: Parties = {
	date: '2026-11-24',
	sellerVatRegistered: true,
	customer: { kind: 'contractor', vatRegistered: true, cisRegistered: true, endUser: false },
	contract: 'construction',
	cisRate: '20',
	reverseCharge: null
} as Parties;
const customer = (more: Partial<Parties['customer']>): Partial<Parties> => ({
	customer: { ...PARTIES.customer, ...more }
});
const reverse = (more: Partial<Parties> = {}) => decideReverseCharge({ ...PARTIES, ...more });

describe('the reverse charge', () => {
	it('applies where every ground holds, and says what would end it', () => {
		const decision = reverse();
		expect(decision.answer).to.equal(true);
		expect(decision.reasons.map((reason) => reason.holds)).to.deep.equal(Array(6).fill(true));
		expect(decision.conclusion).to.equal(
			'Reverse charge: the customer accounts for the VAT, you charge none.'
		);
		expect(decision.wouldChange).to.deep.equal([
			'if the customer said in writing that it is an end user',
			'if the customer were not registered for VAT'
		]);
		expect(decision.rule).to.equal('reverseCharge');
	});

	const grounds: [string, Partial<Parties>, number, RegExp, RegExp][] = [
		[
			'before it began',
			{ date: '2021-02-28' },
			0,
			/before 1 March 2021/,
			/on or after 1 March 2021/
		],
		['to a business', customer({ kind: 'business' }), 1, /makes no CIS payments/, /operate CIS/],
		['to a household', customer({ kind: 'household' }), 1, /makes no CIS payments/, /operate CIS/],
		['for minor construction', { contract: 'minor' }, 2, /at most 5 %/, /more than 5 %/],
		[
			'without construction',
			{ contract: 'none' },
			2,
			/contains no construction work/,
			/more than 5 %/
		],
		[
			'to one without VAT',
			customer({ vatRegistered: false }),
			3,
			/not registered for VAT/,
			/were registered for VAT/
		],
		[
			'to one outside CIS',
			customer({ cisRegistered: false }),
			4,
			/not registered for CIS/,
			/were registered for CIS/
		],
		['to an end user', customer({ endUser: true }), 5, /is an end user/, /took back/]
	];
	for (const [what, change, index, because, otherwise] of grounds)
		it(`does not apply ${what}`, () => {
			const decision = reverse(change);
			expect(decision.answer).to.equal(false);
			expect(decision.reasons.map((reason) => reason.holds)).to.deep.equal(
				Array.from({ length: 6 }, (_, n) => n !== index)
			);
			expect(decision.conclusion).to.match(because);
			expect(decision.wouldChange).to.have.length(1);
			expect(decision.wouldChange[0]).to.match(otherwise);
		});

	it('began on 1 March 2021, that day included', () => {
		expect(reverse({ date: '2021-03-01' }).answer).to.equal(true);
	});

	it('names the first of several grounds, and all that would have to change', () => {
		const decision = reverse({ contract: 'none', ...customer({ endUser: true }) });
		expect(decision.conclusion).to.match(/contains no construction work/);
		expect(decision.wouldChange).to.have.length(2);
	});

	it('is no question for who is not registered', () => {
		const decision = reverse({ sellerVatRegistered: false });
		expect(decision).to.deep.include({
			answer: false,
			rule: 'notRegistered',
			reasons: [{ holds: false, text: 'You are registered for VAT' }]
		});
		expect(decision.wouldChange).to.have.length(1);
	});

	for (const was of [true, false])
		it(`on a credit note is as it was: ${was}`, () => {
			const decision = reverse({ reverseCharge: was, contract: was ? 'none' : 'construction' });
			expect(decision).to.deep.include({
				answer: was,
				rule: 'reverseCharge',
				reasons: [{ holds: was, text: 'The corrected document was under it' }],
				wouldChange: []
			});
			expect(
				decision.conclusion.startsWith(was ? 'Reverse charge, as' : 'No reverse charge, as')
			).to.equal(true);
		});
});

describe('the deduction', () => {
	const deduction = (more: Partial<Parties> = {}) => decideDeduction({ ...PARTIES, ...more });

	it('is made by a contractor on construction work at a known rate', () => {
		expect(deduction()).to.deep.include({
			answer: true,
			rule: 'cis',
			conclusion: 'The customer deducts 20 % of the labour and pays it to HMRC for you.'
		});
		expect(deduction({ cisRate: '30' }).conclusion).to.contain('30 %');
		expect(deduction({ cisRate: '0' }).conclusion).to.contain('gross payment status');
		expect(deduction({ contract: 'minor' }).answer, 'CIS knows no 5 %').to.equal(true);
		expect(deduction().wouldChange).to.have.length(2);
	});

	const grounds: [string, Partial<Parties>, number, RegExp, string][] = [
		[
			'who makes no CIS payments',
			customer({ kind: 'business' }),
			0,
			/makes no CIS payments/,
			'if the customer made CIS payments for this work'
		],
		[
			'without construction work',
			{ contract: 'none' },
			1,
			/no construction work/,
			'if the contract contained construction work'
		],
		['at an unknown rate', { cisRate: null }, 2, /not known yet/, 'if the rate were known']
	];
	for (const [what, change, index, because, otherwise] of grounds)
		it(`is not made ${what}`, () => {
			const decision = deduction(change);
			expect(decision.answer).to.equal(false);
			expect(decision.conclusion).to.match(because);
			expect(decision.reasons.map((reason) => reason.holds)).to.deep.equal(
				[0, 1, 2].map((n) => n !== index)
			);
			expect(decision.wouldChange).to.deep.equal([otherwise]);
		});
});

describe('a rate', () => {
	it('is the one in force on the tax point, with its days', () => {
		const before = decideRate('standard', '2011-01-03');
		expect(before.conclusion).to.equal('17.5 % is the rate in force on the tax point, 3 Jan 2011.');
		expect(before.reasons[1]!.text).to.match(/^17\.5 % holds from .* until 3 Jan 2011$/);
		const since = decideRate('standard', '2011-01-04');
		expect(since.conclusion).to.equal('20 % is the rate in force on the tax point, 4 Jan 2011.');
		expect(since.reasons[1]!.text).to.equal('20 % holds from 4 Jan 2011');
		expect(since).to.include({ answer: true, rule: 'vatRate' });
		expect(since.wouldChange).to.have.length(2);
	});

	it('of five and of nothing are rates; what is exempt or outside has none', () => {
		expect(decideRate('reduced', '2026-11-24').conclusion).to.match(/^5 % is/);
		expect(decideRate('zero', '2026-11-24').conclusion).to.match(/^0 % is/);
		for (const treatment of ['exempt', 'outside', 'noSupply'] as const) {
			const decision = decideRate(treatment, '2026-11-24');
			expect(decision, treatment).to.deep.include({
				answer: true,
				rule: 'noVatRate',
				conclusion: 'No rate applies, so no VAT arises.'
			});
			expect(decision.reasons).to.have.length(1);
			expect(decision.wouldChange).to.have.length(1);
		}
	});

	it('is not known before there was one', () => {
		expect(decideRate('standard', '2009-12-31')).to.include({ answer: false, rule: 'noVatRate' });
		expect(decideRate('reduced', '2000-12-31').answer).to.equal(false);
		expect(decideRate('reduced', '2001-01-01').answer).to.equal(true);
	});
});

describe('the class of a contract', () => {
	type Line = Parameters<typeof decideContract>[0][number];
	const of = (...lines: [Line['kind'], bigint, Line['vat']?][]) =>
		decideContract(lines.map(([kind, net, vat = 'standard']) => ({ kind, net, vat })));

	it('is construction above 5 % of its value, and minor at 5 % exactly', () => {
		expect(of(['labour', 5_00n], ['materials', 95_00n]).contract).to.equal('minor');
		expect(of(['labour', 5_01n], ['materials', 94_99n]).contract).to.equal('construction');
		expect(of(['labour', 1n], ['prefabrication', 99n]).contract).to.equal('construction');
	});

	it('is none without work on site: goods, hire and travel are no operations', () => {
		// Making something elsewhere is none either, unless it is put in (FA 2004 s.74(3)).
		expect(of(['prefabrication', 100n]).workings[1]).to.match(/^Nothing is done on site/);
		for (const kind of ['materials', 'plantHire', 'travel', 'other', 'prefabrication'] as const)
			expect(of([kind as Line['kind'], 100n]).contract, kind).to.equal('none');
		expect(of().contract).to.equal('none');
		expect(of(['labour', 100n, 'noSupply']).contract).to.equal('none');
		// What is worth nothing, or is given back, makes no contract.
		expect(of(['labour', 0n]).contract).to.equal('none');
		expect(of(['labour', -5n], ['materials', 100n]).contract).to.equal('none');
	});

	it('leaves zero-rated work out of the part, and says so', () => {
		const decision = of(['labour', 90_00n, 'zero'], ['labour', 5_00n], ['materials', 5_00n]);
		expect(decision).to.include({ contract: 'minor', operations: 95_00n, value: 100_00n });
		expect(decision.workings).to.deep.equal([
			'Labour and prefabrication come to £95.00 of £100.00.',
			'Zero-rated operations are left out of the part: £5.00 counts.',
			'That is 5.0 %: at most 5 % of the contract.'
		]);
		expect(of(['labour', 1_00n]).workings).to.deep.equal([
			'Labour and prefabrication come to £1.00 of £1.00.',
			'That is 100.0 %: more than 5 % of the contract.'
		]);
		expect(of(['materials', 1_00n]).workings[1]).to.match(/^No line is a construction operation/);
		expect(of(['labour', 5n, 'standard'], ['materials', -5n]).workings[1]).to.match(
			/^That is 0\.0 %/
		);
	});
});

describe('the reasons for another rate', () => {
	it('change for energy-saving materials on 1 April 2022 and 2027', () => {
		const energy = (day: string) =>
			reasonsOn(day)
				.map((one) => one.id)
				.filter((id) => id.startsWith('energy'));
		expect(energy('2022-03-31')).to.deep.equal([]);
		expect(energy('2022-04-01')).to.deep.equal(['energyZero']);
		expect(energy('2027-03-31')).to.deep.equal(['energyZero']);
		expect(energy('2027-04-01')).to.deep.equal(['energyReduced']);
	});

	it('each belong to one treatment, and say what is printed, kept and cited', () => {
		expect(Object.fromEntries(RATE_REASONS.map((one) => [one.id, one.treatment]))).to.deep.equal({
			newDwelling: 'zero',
			energyZero: 'zero',
			disabledAdaptation: 'zero',
			certificate: 'zero',
			emptyHome: 'reduced',
			dwellingsChanged: 'reduced',
			mobilityAid: 'reduced',
			energyReduced: 'reduced',
			exempt: 'exempt',
			outside: 'outside',
			noSupply: 'noSupply'
		});
		for (const one of RATE_REASONS) {
			expect(reasonById(one.id)).to.equal(one);
			for (const words of [one.label, one.sentence, one.evidence, one.reference])
				expect(words, one.id).not.to.equal('');
		}
		expect(reasonById('none such')).to.equal(undefined);
	});
});

describe('numbers with check digits', () => {
	it('VAT: by either rule, with a branch, however it is spaced, and nothing around it', () => {
		// 8·1+7·2+6·3+5·4+4·5+3·6+2·7 = 112; 112 + 82 = 194 = 2 · 97, and 97 less 55 for the later rule: 112 + 27 + 55 = 194.
		for (const good of ['123456782', 'GB 123 4567 82', 'gb123456782', '123456782001', '123456727'])
			expect(isVatNumber(good), good).to.equal(true);
		for (const bad of [
			'',
			'123456783',
			'12345678',
			'1234567820',
			'12345678200',
			'1234567820012',
			'X123456782',
			'GBX123456782',
			'FR123456782'
		])
			expect(isVatNumber(bad), bad).to.equal(false);
		expect(formatVatNumber('gb123456782')).to.equal('GB 123 4567 82');
		expect(formatVatNumber('123456782001')).to.equal('GB 123 4567 82 001');
	});

	it('UTR: each digit but one of them wrong is told', () => {
		// 6·1+7·2+8·3+9·4+10·5+5·6+4·7+3·8+2·0 = 212, 3 over a multiple of 11: 8 comes first. Two of the eleven check digits
		// stand for two remainders each; this is none of them, so that every slip is told.
		const good = '8123456780';
		expect(isUtr('81234 56780')).to.equal(true);
		for (let at = 0; at < 10; at++) {
			const digits = [...good];
			digits[at] = String((Number(digits[at]) + 1) % 10);
			expect(isUtr(digits.join('')), digits.join('')).to.equal(false);
		}
		for (const bad of ['', '812345678', '81234567801', '812345678X'])
			expect(isUtr(bad), bad).to.equal(false);
	});

	it('verification: a letter or two say that nobody was found', () => {
		expect(readVerificationNumber('V1234567890')).to.deep.equal({ matched: true });
		expect(readVerificationNumber('v 1234567890/ab')).to.deep.equal({ matched: false });
		expect(readVerificationNumber('V1234567890A')).to.deep.equal({ matched: false });
		for (const bad of [
			'',
			'1234567890',
			'V123456789',
			'V1234567890ABC',
			'V12345678901',
			'xV1234567890'
		])
			expect(readVerificationNumber(bad), bad).to.equal(null);
	});

	it('bank: six and eight digits, with strokes or spaces', () => {
		expect(['00-00-00', '000000', '00 00 00'].every(isSortCode)).to.equal(true);
		expect(['00-00-0', '0000000', '00000a', ''].some(isSortCode)).to.equal(false);
		expect(['00012345', '0001 2345'].every(isAccountNumber)).to.equal(true);
		expect(['0001234', '000123456', 'x0001234', ''].some(isAccountNumber)).to.equal(false);
	});
});
