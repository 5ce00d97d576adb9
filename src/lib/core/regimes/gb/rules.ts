// The rules that workings cite: a short title and where each stands.
import type { Rule } from '../types';

export const RULES = {
	extension: {
		title: 'Quantity times unit price, to the penny',
		reference: 'VAT Regulations 1995 reg. 14(1)'
	},
	lineDiscount: { title: 'The discount of this line', reference: 'agreed with the customer' },
	documentDiscount: {
		title: 'The discount is shared over the lines in proportion',
		reference: 'agreed with the customer'
	},
	passedOn: {
		title: 'Passed on exactly: no discount and no retention',
		reference: 'FA 2004 s.61; VATA 1994 s.4'
	},
	retention: {
		title: 'A retention has its own, later tax point',
		reference: 'VAT Regulations 1995 reg. 89'
	},
	sterling: {
		title: 'Other money in sterling at the rate of the tax point',
		reference: 'VATA 1994 Sch. 6 para. 11'
	},
	sum: { title: 'Added up', reference: 'arithmetic' },
	vatRate: { title: 'The rate in force on the tax point', reference: 'VATA 1994 s.2, s.29A, s.30' },
	vatOnNet: { title: 'VAT is worked out on the sum of each rate', reference: 'VATA 1994 s.19(2)' },
	vatWithinGross: { title: 'A price including VAT contains it', reference: 'VATA 1994 s.19(2)' },
	vatRoundedDown: {
		title: 'Total VAT between businesses may be rounded down',
		reference: 'VAT Notice 700 para 17.5'
	},
	noVatRate: { title: 'Not taxed at any rate', reference: 'VATA 1994 s.4, Sch. 9' },
	notRegistered: { title: 'Not registered, so no VAT is charged', reference: 'VATA 1994 s.3' },
	reverseCharge: {
		title: 'Reverse charge for building and construction services',
		reference: 'VATA 1994 s.55A'
	},
	asIssued: {
		title: 'As it stands on the invoice that was issued in other books',
		reference: 'VAT Notice 700 para 17.5'
	},
	creditLeft: {
		title: 'Never more than is left of the invoice, and all of it with its last part',
		reference: 'VAT Regulations 1995 reg. 15C, 38'
	},
	cis: { title: 'Construction Industry Scheme', reference: 'FA 2004 Part 3' },
	cisGross: { title: 'Without VAT and CITB levy', reference: 'FA 2004 s.61(1)' },
	cisMaterials: {
		title: 'Only what you paid others for materials comes off',
		reference: 'FA 2004 s.61(1)(a)'
	},
	cisRate: { title: 'The rate HMRC told the contractor', reference: 'FA 2004 s.61(2)' },
	payable: { title: 'What reaches you', reference: 'FA 2004 s.61' }
} as const satisfies Record<string, Rule>;

export type RuleId = keyof typeof RULES;
