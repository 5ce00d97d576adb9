import { expect } from 'chai';
import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { describe, it } from 'mocha';

function figures(name: string, input: string) {
	const { status, stdout, stderr } = spawnSync(
		process.execPath,
		['--import', 'tsx', 'scripts/figures.ts', name],
		{ input, encoding: 'utf8' }
	);
	return {
		status,
		stdout,
		error: stderr.trim() ? (JSON.parse(stderr) as { error: string; path: string }) : null
	};
}
const [first] = JSON.parse(readFileSync('tests/cases/invoice.json', 'utf8'));

describe('the figures from the shell', () => {
	it('come out as JSON', () => {
		const { status, stdout } = figures('invoice', JSON.stringify(first.input));
		expect([status, JSON.parse(stdout)]).to.deep.equal([0, first.output]);
	});
	it('of many at once, with an error in the place of what could not be computed', () => {
		const { status, stdout } = figures(
			'settlement',
			JSON.stringify([{ total: '10', entries: [] }, { total: '10' }, 7])
		);
		expect(status).to.equal(0);
		const [good, missing, none] = JSON.parse(stdout);
		expect([good.outstanding, missing.path, none.path]).to.deep.equal(['10.00', 'entries', '']);
	});
	for (const [what, name, input, path] of [
		['no JSON', 'invoice', '{', ''],
		['no such computation', 'constructor', '{}', ''],
		[
			'a wrong field',
			'settlement',
			'{"total":"1","entries":[{"date":"2026-02-30"}]}',
			'entries.0.date'
		]
	] as const) {
		it(`end with code 2, an error and nothing else on ${what}`, () => {
			const result = figures(name, input);
			expect([result.status, result.stdout, result.error?.path]).to.deep.equal([2, '', path]);
		});
	}
});
