/** Lists stand by themselves, and belong to the place of what they list. */
const PLACE_OF_LIST: Readonly<Record<string, string>> = {
	'/lists/jobs': '/work',
	'/lists/costs': '/work/costs',
	'/lists/prices': '/work/prices',
	'/lists/payments': '/money',
	'/lists/customers': '/customers'
};

/** Whether a page, or one below it, is the one that is shown. */
export function isHere(href: string, shown: string): boolean {
	if (href === '/') return shown === '/';
	return [shown, PLACE_OF_LIST[shown] ?? shown].some(
		(path) => path === href || path.startsWith(`${href}/`)
	);
}
