import { expect } from 'chai';
import { describe, it } from 'mocha';
import type { SheetRow } from '../../../src/lib/core/sheet/types';
import { firstChanged, RowHistory } from '../../../src/lib/ui/lines/rowHistory';
import { line } from '../../support/world';

const rows = (...ids: string[]): SheetRow[] => ids.map((id) => line(id, id, '1'));

describe('what was done to the rows', () => {
	it('is taken back step by step, and done again', () => {
		const history = new RowHistory();
		history.note(rows('a', 'b', 'c'), rows('b', 'a', 'c'));
		history.note(rows('b', 'a', 'c'), rows('b', 'c'));
		expect(history.back(rows('b', 'c'))).to.deep.equal(rows('b', 'a', 'c'));
		expect(history.back(rows('b', 'a', 'c'))).to.deep.equal(rows('a', 'b', 'c'));
		expect(history.back(rows('a', 'b', 'c'))).to.equal(null);
		expect(history.forth(rows('a', 'b', 'c'))).to.deep.equal(rows('b', 'a', 'c'));
		expect(history.forth(rows('b', 'a', 'c'))).to.deep.equal(rows('b', 'c'));
		expect(history.forth(rows('b', 'c'))).to.equal(null);
	});

	it('is left alone while something typed since would be lost', () => {
		const history = new RowHistory();
		history.note(rows('a', 'b'), rows('b'));
		const typed = [line('b', 'typed', '1')];
		expect(history.back(typed)).to.equal(null);
		expect(history.back(rows('b'))).to.deep.equal(rows('a', 'b'));
		expect(history.forth([line('a', 'typed', '1'), line('b', 'b', '1')])).to.equal(null);
	});

	it('begins a new future with a new step; what changed nothing is none', () => {
		const history = new RowHistory();
		history.note(rows('a'), rows('a'));
		expect(history.back(rows('a'))).to.equal(null);
		history.note(rows('a'), rows('a', 'b'));
		history.back(rows('a', 'b'));
		history.note(rows('a'), rows('a', 'c'));
		expect(history.forth(rows('a', 'c'))).to.equal(null);
	});

	it('leads the cursor to the first row that is not as it was', () => {
		expect(firstChanged(rows('a', 'b', 'c'), rows('a', 'c', 'b'))).to.equal('c');
		expect(firstChanged(rows('a', 'c'), rows('a', 'b', 'c'))).to.equal('b');
		expect(firstChanged(rows('a', 'b', 'c'), rows('a', 'b'))).to.equal('b');
	});
});
