// Any nonsense in any place of any input is answered with where it is wrong, never with a crash.
import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import { describe, it } from 'mocha';
import { computations } from '../../../../src/lib/core/computations';
import { FiguresError } from '../../../../src/lib/core/figures/types';

const NONSENSE: unknown[] = [
	undefined,
	null,
	'',
	'x',
	'-1',
	'1e3',
	' 1',
	7,
	-0.5,
	true,
	[],
	{},
	[null],
	{ x: 1 }
];

/** Every place in a value, as a path. */
function* places(value: unknown, path: (string | number)[] = []): Generator<(string | number)[]> {
	yield path;
	if (Array.isArray(value))
		for (const [index, one] of value.entries()) yield* places(one, [...path, index]);
	else if (typeof value === 'object' && value !== null)
		for (const [key, one] of Object.entries(value)) yield* places(one, [...path, key]);
}

function withNonsense(value: unknown, path: (string | number)[], nonsense: unknown): unknown {
	const [key, ...rest] = path;
	if (key === undefined) return nonsense;
	const copy = structuredClone(value) as Record<string | number, unknown>;
	copy[key] = withNonsense(copy[key], rest, nonsense);
	if (copy[key] === undefined) delete copy[key];
	return copy;
}

describe('nonsense in an input', () => {
	for (const [name, compute] of Object.entries(computations))
		it(`of ${name} is refused at its place`, () => {
			const cases = JSON.parse(readFileSync(`tests/cases/${name}.json`, 'utf8')) as {
				input: unknown;
			}[];
			let refused = 0;
			for (const { input } of cases.slice(0, 12))
				for (const path of places(input))
					for (const nonsense of NONSENSE)
						try {
							compute(withNonsense(input, path, nonsense));
						} catch (error) {
							expect(error, `${JSON.stringify(path)} ${JSON.stringify(nonsense)}`).to.be.instanceOf(
								FiguresError
							);
							refused++;
						}
			expect(refused).to.be.above(100);
		});
});
