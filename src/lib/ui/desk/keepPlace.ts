// Whoever works by keyboard keeps the place: when what had the focus goes, because it was saved, closed or removed, what it stood in has it.
import type { Attachment } from 'svelte/attachments';

/** What a place is: a row, a part of a page, a form. */
const PLACE = 'li, tr, section, form, fieldset, aside, article, [role="region"], main';

/** Watches what stands in an element. `leaving` says that the page itself is being left, which begins at its top. */
export function keepPlace(leaving: () => boolean): Attachment<HTMLElement> {
	return (root) => {
		let last: { element: Element; places: Element[] } | null = null;
		const remember = ({ target }: FocusEvent) => {
			if (!(target instanceof Element)) return;
			const places: Element[] = [];
			for (
				let place = target.parentElement?.closest(PLACE);
				place && root.contains(place);
				place = place.parentElement?.closest(PLACE)
			)
				places.push(place);
			last = { element: target, places };
		};
		/** Not at once: a dialog gives the focus back by itself, and some forms choose what has it next. */
		let timer: ReturnType<typeof setTimeout> | undefined;
		const look = () => {
			if (!last || last.element.isConnected || timer !== undefined) return;
			timer = setTimeout(() => {
				timer = undefined;
				const lost = last;
				if (!lost || lost.element.isConnected) return;
				last = null;
				if (leaving() || document.activeElement !== document.body) return;
				const place = lost.places.find((one) => one.isConnected) as HTMLElement | undefined;
				if (!place) return;
				place.tabIndex = -1;
				place.focus({ preventScroll: true });
			}, 60);
		};
		const observer = new MutationObserver(look);
		observer.observe(root, { childList: true, subtree: true });
		root.addEventListener('focusin', remember);
		return () => {
			clearTimeout(timer);
			observer.disconnect();
			root.removeEventListener('focusin', remember);
		};
	};
}
