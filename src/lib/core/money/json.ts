// Money in JSON, which has no whole numbers of any size: an amount travels as `{ "minor": "123450" }`.

/** For `JSON.stringify`. */
export const writeMinor = (_key: string, value: unknown): unknown =>
	typeof value === 'bigint' ? { minor: String(value) } : value;

/** For `JSON.parse`: what `writeMinor` wrote is money again. */
export function readMinor(_key: string, value: unknown): unknown {
	if (typeof value !== 'object' || value === null || !('minor' in value)) return value;
	return typeof value.minor === 'string' && Object.keys(value).length === 1
		? BigInt(value.minor)
		: value;
}
