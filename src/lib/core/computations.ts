// What the core computes for the shell, by name: JSON in, JSON out.
import { readDatesInput, writeDates } from './calendar/json';
import { computeInvoice } from './figures/invoice';
import { readInvoiceInput } from './figures/input';
import { writeInvoiceFigures } from './figures/output';
import { computeQuote } from './quotes/figures';
import { readQuoteInput, writeQuoteFigures } from './quotes/json';
import { GB } from './regimes/gb';
import {
	readReturnInput,
	readTaxPointsInput,
	writeReturn,
	writeTaxPoints
} from './regimes/gb/json';
import { taxPoints } from './regimes/gb/taxPoints';
import { vatReturn } from './regimes/gb/vatReturn';
import {
	readLatenessInput,
	readSettlementInput,
	readStatementInput,
	writeLateness,
	writeSettlement,
	writeStatement
} from './settlement/json';
import { lateness } from './settlement/lateness';
import { settle } from './settlement/settle';
import { statement } from './settlement/statement';

/** @throws FiguresError at the first thing that is wrong */
export const computations: Record<string, (input: unknown) => unknown> = {
	invoice: (input) => writeInvoiceFigures(computeInvoice(readInvoiceInput(input), GB)),
	quote: (input) => writeQuoteFigures(computeQuote(readQuoteInput(input), GB)),
	dates: (input) => writeDates(readDatesInput(input)),
	lateness: (input) => writeLateness(lateness(readLatenessInput(input))),
	settlement: (input) => writeSettlement(settle(readSettlementInput(input))),
	vat: (input) => writeReturn(vatReturn(readReturnInput(input))),
	taxPoints: (input) => writeTaxPoints(taxPoints(readTaxPointsInput(input))),
	statement: (input) => writeStatement(statement(readStatementInput(input)))
};
