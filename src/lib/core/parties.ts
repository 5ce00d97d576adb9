// Both parties as records with dated facts, and what of them holds on a day.
import type { PlainDate } from './calendar/types';
import type { CustomerFacts, SellerFacts, TaxStanding } from './documents/types';

export interface VatStatus {
	from: PlainDate;
	registered: boolean;
	number: string;
}

export type SellerRecord = Omit<SellerFacts, 'vatRegistered' | 'vatNumber'> & {
	vatStatuses: VatStatus[];
};

export type CustomerRecord = Omit<CustomerFacts, 'standing'> & { standings: TaxStanding[] };

export const NO_STANDING: TaxStanding = {
	from: null,
	vatRegistered: false,
	vatNumber: '',
	cisRegistered: false,
	cisRate: null,
	verificationNumber: '',
	endUser: false,
	endUserStatement: '',
	endUserDate: null
};

function lastFrom<T extends { from: PlainDate | null }>(
	facts: T[],
	date: PlainDate
): T | undefined {
	return facts
		.filter((fact) => fact.from === null || fact.from <= date)
		.sort((a, b) => ((a.from ?? '') < (b.from ?? '') ? -1 : 1))
		.at(-1);
}

/** The seller with the VAT status of a tax point (`tax-gb.md` 1: status follows the tax point). */
export function sellerOn(record: SellerRecord, taxPoint: PlainDate): SellerFacts {
	const { vatStatuses, ...facts } = record;
	const status = lastFrom(vatStatuses, taxPoint);
	return { ...facts, vatRegistered: status?.registered ?? false, vatNumber: status?.number ?? '' };
}

/** The customer with the tax standing of a tax point. */
export function customerOn(record: CustomerRecord, taxPoint: PlainDate): CustomerFacts {
	const { standings, ...facts } = record;
	const standing = lastFrom(standings, taxPoint) ?? NO_STANDING;
	// A household cannot have any of it, whatever was recorded before it was called one.
	return { ...facts, standing: facts.kind === 'household' ? NO_STANDING : standing };
}
