// A sheet read with a seller and a customer as records, without a data file.
import { NO_STANDING, type CustomerRecord, type SellerRecord } from '../../src/lib/core/parties';
import type { TaxStanding } from '../../src/lib/core/documents/types';
import { blankLine, blankSheet } from '../../src/lib/core/sheet/blank';
import { readSheet } from '../../src/lib/core/sheet/read';
import type { Problem, Sheet, SheetLine } from '../../src/lib/core/sheet/types';

export const SELLER: SellerRecord = {
	tradingName: '',
	ownerName: 'Tamsin Orrell',
	address: 'Kiln Cottage',
	email: '',
	phone: '',
	utr: '2234567890',
	cisSubcontractor: true,
	bank: { accountName: '', sortCode: '00-00-00', accountNumber: '00012345' },
	terms: { days: 14, endOfMonth: false },
	vatStatuses: [{ from: '0001-01-01', registered: true, number: '444444454' }]
};

/** Registered for both, deducts 20 %. */
export const FULL = {
	vatRegistered: true,
	vatNumber: '123456782',
	cisRegistered: true,
	cisRate: '20' as const
};

export function customerOf(
	kind: CustomerRecord['kind'],
	standing: Partial<TaxStanding> = {},
	more: Partial<CustomerRecord> = {}
): CustomerRecord {
	return {
		id: 1,
		kind,
		name: 'Beacon',
		email: '',
		address: 'Foundry House',
		terms: null,
		orderNumberRequired: false,
		billTo: null,
		sites: [],
		standings: [{ ...NO_STANDING, ...standing }],
		...more
	};
}

export function lineOf(more: Partial<SheetLine> = {}): SheetLine {
	return { ...blankLine('a'), description: 'Render', unitPrice: '100', ...more };
}

/** One line of 100.00 of construction work, read on 24 November 2026. */
export function readWith(
	who: CustomerRecord | null,
	change: Partial<Sheet> = {},
	today = '2026-11-24',
	by: SellerRecord = SELLER
) {
	return readSheet(
		{
			...blankSheet(),
			customerId: who?.id ?? null,
			contract: 'construction',
			rows: [lineOf()],
			...change
		},
		{ seller: by, customer: who, today }
	);
}

export const problemAt = (problems: Problem[], path: string) =>
	problems.find((problem) => problem.path === path);
