// Where a transfer goes, as it is printed.
import type { BankAccount } from './types';

/** `GB33 BUKB …`, in fours. */
export const formatIban = (iban: string): string =>
	iban
		.replace(/\s/g, '')
		.toUpperCase()
		.replace(/(.{4})(?=.)/g, '$1 ');

/** The numbers of an account in one line: as banks abroad want them, where it has them alone. */
export const accountLine = ({ sortCode, accountNumber, iban, bic }: BankAccount): string =>
	accountNumber
		? `Sort code ${sortCode} · account ${accountNumber}`
		: [iban ? `IBAN ${formatIban(iban)}` : '', bic ? `BIC ${bic}` : ''].filter(Boolean).join(' · ');

/** The same within a sentence. */
export const accountWords = (account: BankAccount): string =>
	account.accountNumber
		? `sort code ${account.sortCode}, account ${account.accountNumber}`
		: accountLine(account).replace(' · ', ', ');

/** In pounds from a British bank: sort code and account number; other money: IBAN and BIC, where they are known. */
export function accountFor({ iban, bic, ...inBritain }: BankAccount, abroad: boolean): BankAccount {
	return abroad && iban
		? { ...inBritain, sortCode: '', accountNumber: '', iban, bic: bic ?? '' }
		: inBritain;
}
