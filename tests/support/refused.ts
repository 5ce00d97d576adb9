// Where something typed is refused, and what is said there.
import { FieldError } from '../../src/lib/core/refusals';

/** The fields a piece of work is refused at, with what is said; none where it is done. */
export function refusedAt(work: () => unknown): Record<string, string> {
	try {
		work();
	} catch (problem) {
		if (problem instanceof FieldError) return problem.fields;
		throw problem;
	}
	return {};
}
