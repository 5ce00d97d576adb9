import { expect } from 'chai';
import { describe, it } from 'mocha';
import { headingSums } from '../../../../src/lib/core/sheet/headings';
import type { SheetRow } from '../../../../src/lib/core/sheet/types';
import { customerOf, FULL, lineOf, readWith } from '../../../support/sheets';

const heading = (id: string, text: string): SheetRow => ({ id, type: 'heading', text });

describe('the sums under headings', () => {
	const rows: SheetRow[] = [
		lineOf({ id: 'a', unitPrice: '1' }),
		heading('h1', ' Kitchen '),
		lineOf({ id: 'b', unitPrice: '100' }),
		lineOf({ id: 'c', unitPrice: '20.50', quantity: '-2' }),
		lineOf({ id: 'empty', description: '', unitPrice: '' }),
		heading('h2', ''),
		heading('h3', 'Hall'),
		lineOf({ id: 'd', unitPrice: '7' })
	];
	const reading = readWith(customerOf('contractor', FULL), { rows });

	it('take in the lines from one heading to the next, and none before the first', () => {
		const sums = headingSums(rows, reading);
		expect([...sums].map(([id, { label, value }]) => [id, label, value])).to.deep.equal([
			['heading.h1', 'Kitchen', 59_00n],
			['heading.h2', 'Under this heading', 0n],
			['heading.h3', 'Hall', 7_00n]
		]);
	});

	it('say which lines they are of, as the sheet counts them', () => {
		const { operands } = headingSums(rows, reading).get('heading.h1')!;
		expect(operands).to.have.length(2);
		expect(operands[1]).to.include({ label: 'Line 3', value: -41_00n });
	});

	it('are nothing while the sheet cannot be computed', () => {
		const sums = headingSums(rows, { ...reading, figures: null });
		expect([...sums.values()].map((one) => one.value)).to.deep.equal([0n, 0n, 0n]);
	});
});
