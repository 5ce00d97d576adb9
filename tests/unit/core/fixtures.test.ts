import { readFileSync, readdirSync } from 'node:fs';
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { read } from '../../../scripts/read';
import { TableError } from '../../../src/lib/core/formats/table';

interface Case {
	file: string;
	gives: object | { refused: string };
}
const FOLDER = 'tests/fixtures';
const cases = JSON.parse(readFileSync(`${FOLDER}/gives.json`, 'utf8')) as Record<
	'bank' | 'contacts',
	Case[]
>;

for (const kind of ['bank', 'contacts'] as const)
	describe(`files people have, ${kind}`, () => {
		for (const { file, gives } of cases[kind])
			it(file, () => {
				const bytes = readFileSync(`${FOLDER}/${kind}/${file}`);
				if ('refused' in gives) expect(() => read(kind, bytes)).to.throw(TableError, gives.refused);
				else expect(JSON.parse(JSON.stringify(read(kind, bytes)))).to.deep.equal(gives);
			});

		it('has an answer for each, and no answer without one', () => {
			expect(readdirSync(`${FOLDER}/${kind}`).sort()).to.deep.equal(
				cases[kind].map(({ file }) => file).sort()
			);
		});
	});
