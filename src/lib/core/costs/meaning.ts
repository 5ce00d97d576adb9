// What a cost means that is more than money spent: said where it is entered.

export interface Meaning {
	words: string;
	reference: string;
}

/** Up to this, with VAT, a simplified invoice is enough. Pence. */
const SIMPLIFIED = 250_00;

/** @param supplier who is paid; null: not said */
export function meaningsOf(
	supplier: { subcontractor: boolean; vatNumber: string } | null,
	seller: { vatRegistered: boolean },
	/** Pence, with VAT. */
	cost: { gross: number; vat: number; reclaim: boolean }
): Meaning[] {
	const meanings: Meaning[] = [];
	if (supplier?.subcontractor) {
		meanings.push({
			words:
				'Whoever pays others for construction work is a contractor under CIS: register as one, verify them, hold back 20 % of their labour (30 % where they cannot be matched, nothing where they are paid gross), give them a statement and send a return each month. Axiometer keeps what it cost; it files nothing.',
			reference: 'Finance Act 2004 s.57 to 61; SI 2005/2045'
		});
		if (supplier.vatNumber && seller.vatRegistered)
			meanings.push({
				words:
					'You are both registered for VAT and the work is construction: they charge no VAT, and you account for it yourself, in box 1 and in box 4. Write it here without VAT, and add both to your return.',
				reference: 'VATA 1994 s.55A'
			});
	}
	if (cost.reclaim && supplier && !supplier.vatNumber && cost.vat !== 0 && cost.gross > SIMPLIFIED)
		meanings.push({
			words:
				'Above £250 VAT can be reclaimed only with a full VAT invoice, and their VAT number is not known. Ask for one.',
			reference: 'VAT Regulations 1995 reg. 14, 16, 29(2)'
		});
	return meanings;
}
