// Rows that somebody chose, kept while the list is leafed through, narrowed down and put in order: the set as it was looked at.
import { SvelteMap } from 'svelte/reactivity';

export interface ChosenRow {
	/** Pence. */
	amount: number;
}

export class Chosen {
	readonly rows = new SvelteMap<number, ChosenRow>();
	/** All that a view has, and what it came to when that was said; null: rows one by one. */
	all = $state.raw<{ written: string; count: number; amount: number } | null>(null);
	/** Where a stretch began that Shift extends. */
	private from: number | null = null;

	get count(): number {
		return this.all?.count ?? this.rows.size;
	}
	get amount(): number {
		if (this.all) return this.all.amount;
		let sum = 0;
		for (const row of this.rows.values()) sum += row.amount;
		return sum;
	}
	has(id: number): boolean {
		return this.all !== null || this.rows.has(id);
	}
	/** Chooses a row or lets it go; with `stretch`, all from the last one to it. */
	press(id: number, shown: readonly { id: number; amount: number }[], stretch: boolean): void {
		// Of all of them one is let go: what is left is what is seen.
		if (this.all) {
			this.all = null;
			for (const row of shown) this.rows.set(row.id, row);
		}
		const on = !this.rows.has(id);
		const ids = shown.map((row) => row.id);
		const edge = this.from === null ? -1 : ids.indexOf(this.from);
		const here = ids.indexOf(id);
		const [low, high] =
			stretch && edge >= 0 ? [Math.min(edge, here), Math.max(edge, here)] : [here, here];
		for (const row of shown.slice(low, high + 1)) {
			if (on) this.rows.set(row.id, { amount: row.amount });
			else this.rows.delete(row.id);
		}
		this.from = id;
	}
	/** All rows that are shown, or none of them. */
	page(shown: readonly { id: number; amount: number }[], on: boolean): void {
		this.all = null;
		for (const row of shown) {
			if (on) this.rows.set(row.id, { amount: row.amount });
			else this.rows.delete(row.id);
		}
	}
	clear(): void {
		this.all = null;
		this.rows.clear();
		this.from = null;
	}
}
