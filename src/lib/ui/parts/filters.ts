// A list whose filters stand in its address: with others it begins anew, and what is typed is looked for as it is typed.
import { goto } from '$app/navigation';
import { page } from '$app/state';

/** How long somebody may pause in a word, in milliseconds. */
const PAUSE = 180;

export function filtersOf(path: string) {
	let timer: ReturnType<typeof setTimeout>;
	/** The list with these filters changed; an empty one is taken away. */
	function address(change: Record<string, string>): string {
		const next = new URLSearchParams(page.url.searchParams);
		next.delete('before');
		next.delete('after');
		for (const [name, value] of Object.entries(change)) {
			if (value) next.set(name, value);
			else next.delete(name);
		}
		return `${path}${next.size ? `?${next}` : ''}`;
	}
	function search(typed: string): void {
		clearTimeout(timer);
		timer = setTimeout(
			() =>
				goto(address({ q: typed.trim() }), { keepFocus: true, replaceState: true, noScroll: true }),
			PAUSE
		);
	}
	/** Chooses a filter; who chose it by keyboard stays where they are. */
	const choose = (change: Record<string, string>) =>
		goto(address(change), { keepFocus: true, noScroll: true });
	return { address, search, choose };
}
