/** A key that names one press of a button, so that pressing it twice does it once. */
export function pressKey(): string {
	return crypto.randomUUID();
}

/** Whether keys pressed there are typed: then they are no commands. */
export const typesInto = (target: EventTarget | null): boolean =>
	target instanceof HTMLElement &&
	(target.isContentEditable ||
		target.matches(
			'textarea, select, input:not([type=checkbox], [type=radio], [type=button], [type=submit])'
		));
