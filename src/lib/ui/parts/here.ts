/** Some pages stand by themselves, and belong to the place of what they show. */
const BELONGS: Readonly<Record<string, string>> = {
	'/lists/jobs': '/work',
	'/lists/costs': '/work/costs',
	'/lists/prices': '/work/prices',
	'/lists/payments': '/money',
	'/lists/customers': '/customers',
	'/costs': '/work/costs',
	'/reports': '/tax'
};

const isAt = (path: string, place: string): boolean =>
	path === place || path.startsWith(`${place}/`);

/** Whether a page, or one below it, is the one that is shown. */
export function isHere(href: string, shown: string): boolean {
	if (href === '/') return shown === '/';
	if (isAt(shown, href)) return true;
	const own = Object.keys(BELONGS).find((path) => isAt(shown, path));
	return own !== undefined && isAt(BELONGS[own]!, href);
}
