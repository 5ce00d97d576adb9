// The same cases on every run: chance would make a test fail one time in a hundred, on somebody else's change.
import { inspect } from 'node:util';
import fc from 'fast-check';
import type { Context } from 'mocha';

fc.configureGlobal({ seed: 20_261_124 });

/** What failed is told to the parent as JSON, which knows no bigint: without this the whole process would end. */
export const mochaHooks = {
	afterEach(this: Context) {
		const problem = this.currentTest?.err as { actual?: unknown; expected?: unknown } | undefined;
		if (!problem || !('actual' in problem)) return;
		try {
			JSON.stringify(problem);
		} catch {
			problem.actual = inspect(problem.actual, { depth: 6, sorted: true });
			problem.expected = inspect(problem.expected, { depth: 6, sorted: true });
		}
	}
};
