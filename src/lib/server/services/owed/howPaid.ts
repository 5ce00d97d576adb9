// How several invoices are paid together: in the ways all of them allow, and into the account all of them name.
import { inArray, sql } from 'drizzle-orm';
import { ALL_WAYS, type PayWays } from '../../../core/payWays';
import { waysOf } from '../../../core/sheet/own';
import type { OwnWays } from '../../../core/sheet/types';
import { BOOKS } from '../../../core/money/currencies';
import { accountFor } from '../../../core/documents/account';
import type { BankAccount } from '../../../core/documents/types';
import type { Reader } from '../../db/connection';
import { documents } from '../../db/schema';
import { sellerRecord } from '../business/settings';

export interface HowPaid {
	ways: PayWays;
	/** Null where they name different accounts, or no transfer is wanted. */
	bank: BankAccount | null;
}

export function howPaid(db: Reader, documentIds: readonly number[]): HowPaid {
	const ways = { ...ALL_WAYS };
	const usual = sellerRecord(db).bank;
	const banks = new Map<string, BankAccount>();
	for (const row of documentIds.length
		? db
				.select({
					own: sql<string | null>`json_extract(${documents.frozen}, '$.sheet.own')`,
					currency: documents.currency,
					ways: sql<string | null>`json_extract(${documents.frozen}, '$.customer.ways')`
				})
				.from(documents)
				.where(inArray(documents.id, [...documentIds]))
				.all()
		: []) {
		const own = row.own ? (JSON.parse(row.own) as OwnWays) : {};
		const customer = { ways: row.ways ? (JSON.parse(row.ways) as PayWays) : null };
		const allowed = waysOf({ own, currency: row.currency }, customer);
		for (const way of Object.keys(ways) as (keyof PayWays)[]) ways[way] &&= allowed[way];
		const abroad = row.currency !== BOOKS;
		const bank = own.bank?.accountNumber.trim()
			? { ...own.bank, accountName: own.bank.accountName.trim() || usual.accountName }
			: usual;
		const given = accountFor(bank, abroad);
		banks.set(JSON.stringify(given), given);
	}
	const [only = accountFor(usual, false)] = banks.values();
	return {
		ways,
		bank: ways.transfer && banks.size < 2 && (only.accountNumber || only.iban) ? only : null
	};
}
