// What a screen reader is told: that names are distinct, hold what is seen, and do not run together.
import type { Page } from 'playwright-core';

/** What is wrong with the names on a page, in words. */
export async function oddNames(page: Page): Promise<string[]> {
	// What runs these tests gives every function its name by this; the page does not know it.
	await page.evaluate('globalThis.__name ??= (one) => one');
	return page.evaluate(() => {
		const plain = (text: string | null | undefined) => (text ?? '').replace(/\s+/g, ' ').trim();
		const seen = (element: Element) =>
			(element as HTMLElement).checkVisibility({ visibilityProperty: true }) &&
			!element.closest('[aria-hidden="true"]');
		const nameOf = (element: Element) => {
			const by = element.getAttribute('aria-labelledby');
			return plain(
				element.getAttribute('aria-label') ??
					(by
						? by
								.split(' ')
								.map((id) => document.getElementById(id)?.textContent)
								.join(' ')
						: element.textContent)
			);
		};
		const odd: string[] = [];
		const main = document.querySelector('main') ?? document.body;

		const byName = new Map<string, Set<string>>();
		for (const link of main.querySelectorAll('a[href]')) {
			if (!seen(link)) continue;
			const name = nameOf(link);
			byName.set(name, (byName.get(name) ?? new Set()).add((link as HTMLAnchorElement).href));
		}
		for (const [name, places] of byName)
			if (places.size > 1) odd.push(`${places.size} links are just “${name}”`);

		const presses = new Map<string, number>();
		for (const button of main.querySelectorAll('button')) {
			if (!seen(button) || button.closest('[data-scope="tags-input"]')) continue;
			const about = document.getElementById(button.getAttribute('aria-describedby') ?? '');
			const name = `${nameOf(button)} ${plain(about?.textContent)}`.trim();
			presses.set(name, (presses.get(name) ?? 0) + 1);
		}
		for (const [name, n] of presses) if (n > 1) odd.push(`${n} buttons are just “${name}”`);

		for (const field of main.querySelectorAll('.field')) {
			const label = [...field.children].find((child) => child.matches('.name'));
			const boxes = [...field.querySelectorAll('input, select, textarea')].filter(seen);
			if (!label || boxes.length !== 1) continue;
			const given = boxes[0]!.getAttribute('aria-label');
			const shown = plain(label.textContent);
			if (given !== null && !given.toLowerCase().includes(shown.toLowerCase()))
				odd.push(`“${shown}” is called “${given}”`);
		}

		for (const hidden of main.querySelectorAll('a .sr-only, button .sr-only')) {
			const before = hidden.previousSibling?.textContent ?? '';
			const text = hidden.textContent ?? '';
			if (plain(before) && plain(text) && /\S$/.test(before) && !/^[\s:,.]/.test(text))
				odd.push(`“${plain(before)}” and “${plain(text)}” run together`);
		}
		return [...new Set(odd)];
	});
}
