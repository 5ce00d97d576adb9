// The house stays one that somebody new finds their way in: no long file without its reason in the first lines.
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import { describe, it } from 'mocha';

const MOST_LINES = 300;

const filesIn = (...folders: string[]) =>
	execFileSync('find', [...folders, '-type', 'f'], { encoding: 'utf8' }).split('\n');

/** What a service or the core leaves to others, and who does it. */
const ELSEWHERE: [said: RegExp, instead: string][] = [
	[/\bnew Date\(\s*\)|\bDate\.now\b/, 'the clock: time is passed in'],
	// Threads write too: one that reads before it has the lock may find it is too late to write.
	[/\.transaction\(/, 'writeAtOnce']
];
const leftToOthers = (source: string) =>
	ELSEWHERE.filter(([said]) => said.test(source.replace(/\/\*[^]*?\*\/|(?<!:)\/\/.*/g, ''))).map(
		([, instead]) => instead
	);

describe('a source file', () => {
	it('has at most 300 lines, or says in its first five why it has more', () => {
		const files = filesIn(
			...['src', 'stand-ins', 'demo', 'scripts', 'bench', 'assault', 'tests']
		).filter((name) => /\.(ts|mjs|svelte|css)$/.test(name));
		expect(files.length).to.be.above(500);
		const unexplained = files.filter((name) => {
			const lines = readFileSync(name, 'utf8').split('\n');
			return (
				lines.length > MOST_LINES + 1 && !/Over 300 lines: \w/.test(lines.slice(0, 6).join('\n'))
			);
		});
		expect(unexplained).to.deep.equal([]);
	});

	it('of the core or a service reads no clock of the machine and opens no transaction of its own', () => {
		const files = filesIn('src/lib/core', 'src/lib/server/services').filter((name) =>
			name.endsWith('.ts')
		);
		expect(files.length).to.be.above(300);
		const odd = files.flatMap((name) =>
			leftToOthers(readFileSync(name, 'utf8')).map((instead) => `${name}: use ${instead}`)
		);
		expect(odd).to.deep.equal([]);
	});

	it('that does is found, in whatever place, and one that speaks of it is not', () => {
		const [clock, writing] = ELSEWHERE.map(([, instead]) => instead);
		expect(leftToOthers('const at = new Date( );')).to.deep.equal([clock]);
		expect(leftToOthers("a('https://x.example', new Date())")).to.deep.equal([clock]);
		expect(leftToOthers('a(Date.now)')).to.deep.equal([clock]);
		expect(leftToOthers('db.transaction(() => 1)')).to.deep.equal([writing]);
		expect(
			leftToOthers('new Date(0); // Date.now()\n/** `new Date()` */ transaction(1)')
		).to.deep.equal([]);
	});
});
