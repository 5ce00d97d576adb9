// The computing core from the shell: `npm run -s figures -- invoice < input.json > output.json`.
import { readFileSync } from 'node:fs';
import { readDatesInput, writeDates } from '../src/lib/core/calendar/json';
import { computeInvoice } from '../src/lib/core/figures/invoice';
import { readInvoiceInput } from '../src/lib/core/figures/input';
import { writeInvoiceFigures } from '../src/lib/core/figures/output';
import { FiguresError } from '../src/lib/core/figures/types';
import { GB } from '../src/lib/core/regimes/gb';
import {
	readReturnInput,
	readTaxPointsInput,
	writeReturn,
	writeTaxPoints
} from '../src/lib/core/regimes/gb/json';
import { taxPoints } from '../src/lib/core/regimes/gb/taxPoints';
import { vatReturn } from '../src/lib/core/regimes/gb/vatReturn';
import {
	readLatenessInput,
	readSettlementInput,
	readStatementInput,
	writeLateness,
	writeSettlement,
	writeStatement
} from '../src/lib/core/settlement/json';
import { lateness } from '../src/lib/core/settlement/lateness';
import { settle } from '../src/lib/core/settlement/settle';
import { statement } from '../src/lib/core/settlement/statement';

const computations: Record<string, (input: unknown) => unknown> = {
	invoice: (input) => writeInvoiceFigures(computeInvoice(readInvoiceInput(input), GB)),
	dates: (input) => writeDates(readDatesInput(input)),
	lateness: (input) => writeLateness(lateness(readLatenessInput(input))),
	settlement: (input) => writeSettlement(settle(readSettlementInput(input))),
	vat: (input) => writeReturn(vatReturn(readReturnInput(input))),
	taxPoints: (input) => writeTaxPoints(taxPoints(readTaxPointsInput(input))),
	statement: (input) => writeStatement(statement(readStatementInput(input)))
};

function fail(error: { error: string; path: string }): never {
	process.stderr.write(`${JSON.stringify(error)}\n`);
	process.exit(2);
}

function describe(error: unknown): { error: string; path: string } {
	if (error instanceof FiguresError) return { error: error.message, path: error.path };
	throw error;
}

const name = process.argv[2] ?? '';
const compute = Object.hasOwn(computations, name) ? computations[name] : undefined;
if (!compute) {
	fail({ error: `expected one of ${Object.keys(computations).join(', ')}`, path: '' });
}

let input: unknown;
try {
	input = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(readFileSync(0)));
} catch {
	fail({ error: 'expected JSON on standard input', path: '' });
}

if (Array.isArray(input)) {
	const outputs = input.map((one) => {
		try {
			return compute(one);
		} catch (error) {
			return describe(error);
		}
	});
	process.stdout.write(`${JSON.stringify(outputs)}\n`);
} else {
	try {
		process.stdout.write(`${JSON.stringify(compute(input))}\n`);
	} catch (error) {
		fail(describe(error));
	}
}
