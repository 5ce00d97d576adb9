// What the law looks at, and its limit for a simplified invoice.
import type { CustomerFacts, SellerFacts } from '../../documents/types';
import { type InvoiceFigures, type InvoiceInput } from '../../figures/types';
import type { SheetContext, SheetDates } from '../../sheet/context';
import type { Sheet, SheetLine } from '../../sheet/types';

export interface LawSubject {
	sheet: Sheet;
	context: SheetContext;
	dates: SheetDates;
	seller: SellerFacts;
	customer: CustomerFacts | null;
	lines: SheetLine[];
	input: InvoiceInput | null;
	figures: InvoiceFigures | null;
}

/** Up to this total, in pence with VAT, a simplified invoice does (VAT Regulations 1995 reg. 16). */
export const SIMPLIFIED_UP_TO = 250_00n;
