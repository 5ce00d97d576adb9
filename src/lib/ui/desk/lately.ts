// What was opened last in this browser, by whom: offered before anything is typed.
export interface Lately {
	href: string;
	title: string;
}

const MOST = 8;
const THINGS = /^\/(billing|work|customers|owed|costs|work\/prices|billing\/repeats)\/\d+$/;
const keyOf = (person: number) => `lately:${person}`;

export function lately(person: number): Lately[] {
	try {
		const kept: unknown = JSON.parse(localStorage.getItem(keyOf(person)) ?? '[]');
		return Array.isArray(kept)
			? kept
					.filter(
						(one): one is Lately =>
							typeof one?.href === 'string' &&
							typeof one.title === 'string' &&
							THINGS.test(one.href)
					)
					.slice(0, MOST)
			: [];
	} catch {
		return [];
	}
}

/** Notes that something was opened. Where the browser keeps nothing, nothing is offered. */
export function opened(person: number, href: string, title: string): void {
	const plain = title.replace(/^\(\d+\+?\) /, '').replace(/ · Axiometer$/, '');
	if (!THINGS.test(href) || plain === '') return;
	try {
		const rest = lately(person).filter((one) => one.href !== href);
		localStorage.setItem(
			keyOf(person),
			JSON.stringify([{ href, title: plain.slice(0, 120) }, ...rest].slice(0, MOST))
		);
	} catch {
		// Full, or not allowed.
	}
}
