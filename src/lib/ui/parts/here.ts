/** Whether a page, or one below it, is the one that is shown. */
export const isHere = (href: string, path: string): boolean =>
	href === '/' ? path === '/' : path === href || path.startsWith(`${href}/`);
