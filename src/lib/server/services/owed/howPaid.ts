// How several invoices are paid together: in the ways all of them allow, and into the account all of them name.
import { inArray, sql } from 'drizzle-orm';
import { ALL_WAYS, type PayWays } from '../../../core/payWays';
import { waysOf } from '../../../core/sheet/own';
import type { OwnWays } from '../../../core/sheet/types';
import type { Reader } from '../../db/connection';
import { documents } from '../../db/schema';
import { sellerRecord } from '../business/settings';

type Bank = NonNullable<OwnWays['bank']>;

export interface HowPaid {
	ways: PayWays;
	/** Null where they name different accounts, or no transfer is wanted. */
	bank: Bank | null;
}

export function howPaid(db: Reader, documentIds: readonly number[]): HowPaid {
	const ways = { ...ALL_WAYS };
	const usual = sellerRecord(db).bank;
	const banks = new Map<string, Bank>();
	for (const row of documentIds.length
		? db
				.select({
					own: sql<string | null>`json_extract(${documents.frozen}, '$.sheet.own')`,
					ways: sql<string | null>`json_extract(${documents.frozen}, '$.customer.ways')`
				})
				.from(documents)
				.where(inArray(documents.id, [...documentIds]))
				.all()
		: []) {
		const own = row.own ? (JSON.parse(row.own) as OwnWays) : {};
		const customer = { ways: row.ways ? (JSON.parse(row.ways) as PayWays) : null };
		const allowed = waysOf({ own }, customer);
		for (const way of Object.keys(ways) as (keyof PayWays)[]) ways[way] &&= allowed[way];
		const bank = own.bank?.accountNumber.trim()
			? { ...own.bank, accountName: own.bank.accountName.trim() || usual.accountName }
			: usual;
		banks.set(JSON.stringify(bank), bank);
	}
	const [only = usual] = banks.values();
	return { ways, bank: ways.transfer && banks.size < 2 && only.accountNumber ? only : null };
}
