// What things are called wherever they are shown: one place for each word.
import type { LineKind } from './figures/types';
import type { ContractClass, CustomerKind, VatTreatment } from './regimes/types';

export const KIND_NAMES: Record<LineKind, string> = {
	labour: 'Labour',
	travel: 'Travel',
	other: 'Other',
	materials: 'Materials',
	consumables: 'Consumables',
	plantHire: 'Plant hire',
	fuel: 'Fuel for plant',
	prefabrication: 'Prefabrication',
	levy: 'CITB levy'
};

/** In the middle of a sentence; names keep their capitals. */
export function withinSentence(name: string): string {
	return /^[A-Z]{2}/.test(name) ? name : name.charAt(0).toLowerCase() + name.slice(1);
}

/** A treatment without a rate of its own. */
export const TREATMENT_NAMES: Record<VatTreatment, string> = {
	standard: 'Standard',
	reduced: 'Reduced',
	zero: '0 %',
	exempt: 'Exempt',
	outside: 'Outside UK',
	noSupply: 'No VAT'
};

export const CUSTOMER_KIND_NAMES: Record<CustomerKind, string> = {
	household: 'Household',
	business: 'Business',
	contractor: 'Contractor'
};

/** `1.2 MB`, `340 KB`. @param bytes how many */
export const displayBytes = (bytes: number): string =>
	bytes >= 1_000_000
		? `${(bytes / 1_000_000).toFixed(1)} MB`
		: `${Math.max(1, Math.round(bytes / 1000)).toLocaleString('en-GB')} KB`;

/** How money moves. */
export const WAY_NAMES = {
	bank: 'Bank transfer',
	cash: 'Cash',
	cheque: 'Cheque',
	card: 'Card'
} as const;

/** How late what is owed is. */
export const AGE_NAMES = {
	notDue: 'Not due',
	'1-30': '1–30 days',
	'31-60': '31–60 days',
	'61-90': '61–90 days',
	over90: 'Over 90 days'
} as const;

/** `1 day`, `12 days`, `1,204 prices`; `plural` where an s does not do. */
export function counted(count: number, one: string, plural = `${one}s`): string {
	return `${count.toLocaleString('en-GB')} ${count === 1 ? one : plural}`;
}

/** What a contract is for CIS and the reverse charge, in words. */
export const CONTRACT_NAMES: Record<ContractClass, string> = {
	construction: 'Construction contract',
	minor: 'Construction at most 5 %',
	none: 'No construction work'
};
