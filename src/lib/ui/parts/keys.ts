/** A key that names one press of a button, so that pressing it twice does it once. */
export function pressKey(): string {
	return crypto.randomUUID();
}
