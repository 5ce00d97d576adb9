// What a letterhead cannot leave out, and which rule says so.
import type { ColumnId, Detail, DocumentSort, Look } from './look';

export interface Rule {
	/** Ends a sentence: `the law asks for it`. */
	because: string;
	reference: string;
}

export interface Seller {
	vatRegistered: boolean;
}

const REGULATION_14 = 'VAT Regulations 1995 reg. 14(1)';

/** Always there, whatever a letterhead says: shown in the editor as switches that cannot be moved. */
export const ALWAYS: readonly { what: string; registered?: true; reference: string }[] = [
	{ what: 'Number', reference: `${REGULATION_14}(a)` },
	{ what: 'Invoice date, and tax point where it differs', reference: `${REGULATION_14}(b), (c)` },
	{ what: 'Your name and address', reference: `${REGULATION_14}(d); Companies Act 2006 s.1202` },
	{ what: 'Your VAT number', registered: true, reference: `${REGULATION_14}(d)` },
	{ what: 'The customer’s name and address', reference: `${REGULATION_14}(e)` },
	{ what: 'VAT by rate', registered: true, reference: `${REGULATION_14}(g), (l)` },
	{
		what: 'Why no VAT, or less, is charged',
		registered: true,
		reference: `${REGULATION_14}(n) to (r)`
	}
];

/** Why a column has to show; null where it may be left out. */
export function columnRule(column: ColumnId, { vatRegistered }: Seller): Rule | null {
	if (column === 'description')
		return { because: 'it says what was done', reference: `${REGULATION_14}(g)` };
	if (column === 'amount')
		return { because: 'it says what it comes to', reference: `${REGULATION_14}(g)` };
	if (!vatRegistered) return null;
	const letters: Partial<Record<ColumnId, string>> = {
		quantity: '(g)',
		price: '(m)',
		vat: '(g)',
		withoutVat: '(g)',
		discount: '(i)'
	};
	const letter = letters[column];
	return letter ? { because: 'the law asks for it', reference: `${REGULATION_14}${letter}` } : null;
}

/** Why a detail has to show; null where it may be left out. */
export function detailRule(detail: Detail): Rule | null {
	// Under the terms stands when it is to be paid: without either nobody could say when it is late.
	return detail === 'terms'
		? {
				because: 'it says when it is late',
				reference: 'Late Payment of Commercial Debts (Interest) Act 1998 s.4'
			}
		: null;
}

/** What is wrong with a title of the owner's own; null where it may stand. */
export function titleProblem(sort: DocumentSort, title: string, seller: Seller): string | null {
	const words = title.trim().toLowerCase();
	if (words === '') return null;
	if (!seller.vatRegistered && /\bvat\b/.test(words))
		return 'You are not registered for VAT, so it cannot be called a VAT document (tax-gb.md 2).';
	if (sort === 'creditNote' && !words.includes('credit'))
		return 'A credit note has to say that it is one (VAT Regulations 1995 reg. 15C).';
	if (sort === 'application' && /\binvoice\b/.test(words))
		return 'An application for payment is no invoice, and cannot be called one.';
	if ((sort === 'quote' || sort === 'jobSheet') && /\b(invoice|receipt|credit note)\b/.test(words))
		return 'Nothing is charged by it, so it cannot be called that.';
	// An estimate does not bind and a quote does: one title for both would be wrong of one of them.
	if (sort === 'quote' && /\b(quote|quotation|estimate)\b/.test(words))
		return 'It is called a quote or an estimate as you chose on it: leave this empty, or use a word that fits both.';
	if (
		sort === 'invoice' &&
		/\b(quote|estimate|receipt|statement|credit note|pro ?forma)\b/.test(words)
	)
		return 'This is an invoice, and its title has to leave no doubt of it.';
	return null;
}

/** What the law or plain arithmetic objects to, by the field it is about; nothing where it may be kept. */
export function lookProblems(look: Look, seller: Seller): Record<string, string> {
	const problems: Record<string, string> = {};
	for (const { id, shown } of look.columns) {
		const rule = shown ? null : columnRule(id, seller);
		if (rule) problems[`columns.${id}`] = `This has to show: ${rule.because} (${rule.reference}).`;
	}
	for (const detail of look.hidden) {
		const rule = detailRule(detail);
		if (rule)
			problems[`hidden.${detail}`] = `This has to show: ${rule.because} (${rule.reference}).`;
	}
	for (const [sort, words] of Object.entries(look.words)) {
		const wrong = titleProblem(sort as DocumentSort, words.title, seller);
		if (wrong) problems[`words.${sort}.title`] = wrong;
	}
	if (look.margins.left + look.margins.right > 110)
		problems['margins.right'] =
			'Left and right together leave no room for the lines: at most 110 mm.';
	if (look.margins.top + look.margins.bottom > 140)
		problems['margins.bottom'] = 'Top and bottom together leave no room: at most 140 mm.';
	return problems;
}
