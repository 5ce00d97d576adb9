// What is otherwise on one document alone: read, and put over what holds elsewhere.
import type { CustomerFacts, SellerFacts } from '../documents/types';
import { BOOKS } from '../money/currencies';
import { ALL_WAYS, type PayWays } from '../payWays';
import { isAccountNumber, isSortCode } from '../regimes/gb/checks';
import type { Sheet } from './types';

type Stop = (path: string, message: string) => void;

const bankOf = ({ own }: Sheet) => {
	const bank = own?.bank;
	const given =
		bank && (bank.sortCode.trim() || bank.accountNumber.trim() || bank.accountName.trim());
	return given ? bank : undefined;
};

export function readOwn(sheet: Sheet, stop: Stop): void {
	const { own } = sheet;
	if (!own) return;
	if ((own.address ?? '').length > 1000) stop('own.address', 'At most 1,000 characters.');
	if ((own.contact ?? '').length > 200) stop('own.contact', 'At most 200 characters.');
	const bank = bankOf(sheet);
	if (bank) {
		if (bank.accountName.length > 100) stop('own.bank.accountName', 'At most 100 characters.');
		if (!isSortCode(bank.sortCode)) stop('own.bank.sortCode', 'Six digits, such as 12-34-56.');
		if (!isAccountNumber(bank.accountNumber)) stop('own.bank.accountNumber', 'Eight digits.');
	}
	if (own.ways && !Object.values(own.ways).some(Boolean))
		stop('own.ways', 'Leave at least one way to pay.');
}

/** The seller as this document has it: its own bank details, where it has some. */
export function sellerFor(seller: SellerFacts, sheet: Sheet): SellerFacts {
	const bank = bankOf(sheet);
	return bank
		? {
				...seller,
				bank: { ...bank, accountName: bank.accountName.trim() || seller.bank.accountName }
			}
		: seller;
}

/** The customer, or whoever gets the bill, at the address this document goes to. */
export function customerFor(customer: CustomerFacts, sheet: Sheet): CustomerFacts {
	const address = sheet.own?.address?.trim();
	if (!address) return customer;
	return customer.billTo
		? { ...customer, billTo: { ...customer.billTo, address } }
		: { ...customer, address };
}

/**
 * How a document may be paid: as it says itself, else as its customer may, else in every way. Cards and banks are asked for
 * pounds, so that what is in other money is paid by transfer.
 */
export function waysOf(
	{ own, currency = BOOKS }: Pick<Sheet, 'own' | 'currency'>,
	customer: Pick<CustomerFacts, 'ways'> | null
): PayWays {
	const ways = own?.ways ?? customer?.ways ?? ALL_WAYS;
	return currency === BOOKS ? ways : { card: false, bank: false, transfer: true };
}
