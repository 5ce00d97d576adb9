// The house stays one that somebody new finds their way in: no long file without its reason in the first lines.
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import { describe, it } from 'mocha';

const MOST_LINES = 300;

describe('a source file', () => {
	it('has at most 300 lines, or says in its first five why it has more', () => {
		const files = execFileSync(
			'find',
			['src', 'stand-ins', 'demo', 'scripts', 'bench', 'assault', 'tests', '-type', 'f'],
			{ encoding: 'utf8' }
		)
			.split('\n')
			.filter((name) => /\.(ts|mjs|svelte|css)$/.test(name));
		expect(files.length).to.be.above(500);
		const unexplained = files.filter((name) => {
			const lines = readFileSync(name, 'utf8').split('\n');
			return (
				lines.length > MOST_LINES + 1 && !/Over 300 lines: \w/.test(lines.slice(0, 6).join('\n'))
			);
		});
		expect(unexplained).to.deep.equal([]);
	});
});
