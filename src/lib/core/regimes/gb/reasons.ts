// Why a line is taxed at another rate than the standard one: each with its dates, evidence and sentence.
import type { PlainDate } from '../../calendar/types';
import type { VatTreatment } from '../types';

export interface RateReason {
	id: string;
	treatment: VatTreatment;
	label: string;
	/** What the document says (VAT Regulations 1995 reg. 14(1), (2)). */
	sentence: string;
	evidence: string;
	reference: string;
	from: PlainDate;
	until: PlainDate | null;
	/** It rests on a certificate or declaration of the final customer: a subcontractor cannot use it. */
	finalCustomerOnly: boolean;
}

/** docs/tax-gb.md 6: made out to whom they hold for (VAT Notice 708 para 17; 701/7). */
const FINAL_CUSTOMERS: ReadonlySet<string> = new Set([
	'certificate',
	'disabledAdaptation',
	'mobilityAid'
]);

function reason(
	id: string,
	treatment: VatTreatment,
	label: string,
	sentence: string,
	evidence: string,
	reference: string,
	from: PlainDate = '1995-01-01',
	until: PlainDate | null = null
): RateReason {
	const finalCustomerOnly = FINAL_CUSTOMERS.has(id);
	return { id, treatment, label, sentence, evidence, reference, from, until, finalCustomerOnly };
}

const ENERGY = 'Energy-saving materials installed in a home';

export const RATE_REASONS: readonly RateReason[] = [
	reason(
		'newDwelling',
		'zero',
		'New dwelling',
		'Zero-rated: construction of a new dwelling (VATA 1994 Sch. 8 group 5).',
		'plot and planning reference',
		'VATA 1994 Sch. 8 group 5'
	),
	reason(
		'energyZero',
		'zero',
		ENERGY,
		'Zero-rated: installation of energy-saving materials (VATA 1994 Sch. 8 group 23).',
		'kind of building',
		'VATA 1994 Sch. 8 group 23',
		'2022-04-01',
		'2027-03-31'
	),
	reason(
		'disabledAdaptation',
		'zero',
		'Adaptation for a disabled person',
		'Zero-rated: adaptation for a disabled person (VATA 1994 Sch. 8 group 12).',
		'declaration of the person or charity',
		'VATA 1994 Sch. 8 group 12'
	),
	reason(
		'certificate',
		'zero',
		'Relevant residential or charitable building, certified',
		'Zero-rated: relevant residential or charitable building, certificate held (VATA 1994 Sch. 8 group 5).',
		'certificate made out to you',
		'VATA 1994 Sch. 8 group 5'
	),
	reason(
		'emptyHome',
		'reduced',
		'Home empty for two years or more',
		'Reduced rate: renovation of a home empty for two years or more (VATA 1994 Sch. 7A group 7).',
		'letter of the council, or plans',
		'VATA 1994 Sch. 7A group 7'
	),
	reason(
		'dwellingsChanged',
		'reduced',
		'Number of dwellings changes',
		'Reduced rate: conversion that changes the number of dwellings (VATA 1994 Sch. 7A group 6).',
		'plans',
		'VATA 1994 Sch. 7A group 6'
	),
	reason(
		'mobilityAid',
		'reduced',
		'Grab rails and such for a person aged 60 or over',
		'Reduced rate: mobility aids in the home of a person aged 60 or over (VATA 1994 Sch. 7A group 10).',
		'declaration of the person',
		'VATA 1994 Sch. 7A group 10'
	),
	reason(
		'energyReduced',
		'reduced',
		ENERGY,
		'Reduced rate: installation of energy-saving materials (VATA 1994 Sch. 7A group 2).',
		'kind of building',
		'VATA 1994 Sch. 7A group 2',
		'2027-04-01'
	),
	reason(
		'exempt',
		'exempt',
		'Exempt supply',
		'Exempt from VAT (VATA 1994 Sch. 9).',
		'the group of Schedule 9',
		'VATA 1994 Sch. 9'
	),
	reason(
		'outside',
		'outside',
		'Supplied outside the UK',
		'Outside the scope of UK VAT: the place of supply is outside the UK (VATA 1994 s.7A).',
		'where the customer belongs',
		'VATA 1994 s.7A'
	),
	reason(
		'noSupply',
		'noSupply',
		'Passed on exactly, or interest by law',
		'Not a supply: outside the scope of VAT.',
		'the bill that is passed on',
		'VATA 1994 s.5(2)'
	)
];

export function reasonsOn(date: PlainDate): RateReason[] {
	return RATE_REASONS.filter(
		({ from, until }) => date >= from && (until === null || date <= until)
	);
}

export function reasonById(id: string): RateReason | undefined {
	return RATE_REASONS.find((reason) => reason.id === id);
}
