// What was done to the rows of a sheet as a whole, for Ctrl+Z: moved, copied, removed, pasted. Typing in a box is the box's own.
import type { SheetRow } from '$lib/core/sheet/types';

/** So many steps can be taken back. */
const STEPS = 100;

interface Step {
	before: SheetRow[];
	after: SheetRow[];
}

const same = (a: readonly SheetRow[], b: readonly SheetRow[]) =>
	JSON.stringify(a) === JSON.stringify(b);

export class RowHistory {
	#past: Step[] = [];
	#undone: Step[] = [];

	note(before: SheetRow[], after: SheetRow[]): void {
		if (same(before, after)) return;
		this.#past = [...this.#past.slice(-STEPS + 1), { before, after }];
		this.#undone = [];
	}

	/** The rows before the last step; null where there is none, or something else was changed since. */
	back(now: readonly SheetRow[]): SheetRow[] | null {
		const step = this.#past.at(-1);
		if (!step || !same(step.after, now)) return null;
		this.#past.pop();
		this.#undone.push(step);
		return step.before;
	}

	/** The rows after the step that was taken back last. */
	forth(now: readonly SheetRow[]): SheetRow[] | null {
		const step = this.#undone.at(-1);
		if (!step || !same(step.before, now)) return null;
		this.#undone.pop();
		this.#past.push(step);
		return step.after;
	}
}

/** The first row that is not as it was: where the cursor goes. */
export function firstChanged(before: readonly SheetRow[], after: readonly SheetRow[]): string {
	const old = new Map(before.map((row, index) => [row.id, index]));
	const changed = after.find((row, index) => old.get(row.id) !== index);
	return (changed ?? after.at(-1))?.id ?? '';
}
