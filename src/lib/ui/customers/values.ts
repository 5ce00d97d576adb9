// A customer as it is edited.
import type { Currency } from '$lib/core/money/currencies';
import type { PayWays } from '$lib/core/payWays';
import type { CisRate, CustomerKind } from '$lib/core/regimes/types';

export interface CustomerValues {
	name: string;
	kind: CustomerKind;
	email: string;
	phone: string;
	address: string;
	billToId: number | null;
	billToName: string;
	currency: Currency;
	termsDays: number | null;
	termsEndOfMonth: boolean;
	orderNumberRequired: boolean;
	/** No consumer, although it is a household. */
	inTrade: boolean;
	payWays: PayWays | null;
	letterheadId: number | null;
	salutation: string;
	privateNote: string;
	labels: string[];
	standing: {
		from: string | null;
		vatRegistered: boolean;
		vatNumber: string;
		cisRegistered: boolean;
		cisRate: CisRate | null;
		verificationNumber: string;
		endUser: boolean;
		endUserStatement: string;
		endUserDate: string | null;
	};
	contacts: { id?: number; name: string; role: string; email: string; phone: string }[];
	sites: {
		id?: number;
		name: string;
		address: string;
		accessNotes: string;
		/** Who is there: hears of visits. */
		contactName: string;
		contactEmail: string;
		contactPhone: string;
		billToId?: number | null;
	}[];
}
