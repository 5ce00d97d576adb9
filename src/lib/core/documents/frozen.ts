// What was frozen when a document was issued gives the same input and the same figures again, always.
import { computeInvoice } from '../figures/invoice';
import type { InvoiceFigures, InvoiceInput, Left } from '../figures/types';
import { GB } from '../regimes/gb';
import type { SheetContext } from '../sheet/context';
import type { Exchange } from '../money/exchange';
import { readSheet } from '../sheet/read';
import type { Frozen, FrozenLeft } from './types';

/** The input a frozen document was computed from. */
export function frozenInput(frozen: Frozen): InvoiceInput {
	const { seller, customer, corrects, sheet } = frozen;
	const { vatRegistered, vatNumber, ...facts } = seller;
	const { standing, ...who } = customer;
	const context: SheetContext = {
		seller: {
			...facts,
			vatStatuses: [{ from: '0001-01-01', registered: vatRegistered, number: vatNumber }]
		},
		customer: { ...who, standings: [{ ...standing, from: null }] },
		today: frozen.issueDate,
		frozen: true,
		...(frozen.exchange ? { exchange: frozen.exchange } : {}),
		...(corrects
			? { corrects: { taxPoint: frozen.taxPoint, reverseCharge: corrects.reverseCharge } }
			: {}),
		...(frozen.reverseCharge === undefined
			? {}
			: { follows: { reverseCharge: frozen.reverseCharge } })
	};
	const { input } = readSheet(sheet, context);
	if (!input) throw new Error('a frozen document has no lines');
	return { ...input, date: sheet.rateOfWork ? frozen.workFinished : frozen.taxPoint };
}

export function frozenFigures(frozen: Frozen): InvoiceFigures {
	const left = frozen.corrects?.left;
	return computeInvoice(frozenInput(frozen), GB, left && leftOf(left));
}

function leftOf({ all, groups, deduction }: FrozenLeft): Left {
	return {
		all,
		groups: groups.map(({ treatment, net, vat }) => ({
			treatment,
			net: BigInt(net),
			vat: BigInt(vat)
		})),
		deduction: deduction === null ? null : BigInt(deduction)
	};
}

/** The rate with what it makes of the figures: what of them goes into the books. */
export function exchanged(
	{ rate, source }: Exchange,
	{ sterling }: InvoiceFigures
): NonNullable<Frozen['exchange']> {
	if (!sterling) throw new Error('other money has a rate when it is frozen');
	return {
		rate,
		source,
		net: Number(sterling.net),
		vatCharged: Number(sterling.vatCharged),
		vatReverseCharged: Number(sterling.vatReverseCharged)
	};
}
