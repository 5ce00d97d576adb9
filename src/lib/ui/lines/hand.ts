// Handing out what was worked out, so that only what differs is drawn again.

/** Makes `to` hold what `from` holds, touching only what differs. */
export function hand<T>(
	to: Map<string, T>,
	from: Map<string, T>,
	same: (a: T, b: T) => boolean = Object.is
): void {
	for (const key of [...to.keys()]) if (!from.has(key)) to.delete(key);
	for (const [key, value] of from) {
		const before = to.get(key);
		if (before === undefined || !same(before, value)) to.set(key, value);
	}
}
