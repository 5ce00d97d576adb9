// The audit: looks at a data file from outside and says in words what differs. It shares no code with what it checks.
import { wrongStoredFiles } from './files';
import { numberGaps, wrongDocuments, wrongFiles, wrongTaxPoints } from './documents';
import { wrongInHand, wrongPayments, wrongTakenBack } from './inHand';
import {
	billedTwice,
	halfReplaced,
	overbilledLines,
	overcredited,
	wrongJobSales,
	wrongRetentions,
	wrongStages
} from './jobs';
import { foreignSterling, unbalancedEntries, wrongPayouts } from './journal';
import { wrongBankPence, wrongOwedInPence, wrongRates } from './otherMoney';
import { missingOpenItems, wrongOpenItems } from './openItems';
import { wrongEntries, wrongLosses, wrongParties, wrongReversals } from './postings';
import { wrongQuotes } from './quotes';
import { wrongSignatures } from './signing';
import { brokenSeals, strays, wrongMessages, wrongSums } from './seals';
import type { DataFile } from './reading';

const CHECKS = [
	unbalancedEntries,
	foreignSterling,
	wrongDocuments,
	wrongFiles,
	wrongTaxPoints,
	numberGaps,
	wrongOpenItems,
	missingOpenItems,
	wrongInHand,
	wrongPayments,
	wrongTakenBack,
	overbilledLines,
	billedTwice,
	wrongJobSales,
	wrongRetentions,
	wrongStages,
	overcredited,
	halfReplaced,
	wrongPayouts,
	brokenSeals,
	strays,
	wrongSums,
	wrongMessages,
	wrongEntries,
	wrongReversals,
	wrongLosses,
	wrongParties,
	wrongRates,
	wrongOwedInPence,
	wrongBankPence,
	wrongQuotes,
	wrongSignatures
];

/**
 * What differs, a line each; empty where the books agree with themselves. `filesAt` is where a copy has its photos and files; null: they
 * are not looked at.
 */
export function auditBooks(file: DataFile, filesAt?: string | null): string[] {
	const books = CHECKS.flatMap((check) => check(file));
	return filesAt === null ? books : [...books, ...wrongStoredFiles(file, filesAt)];
}
