import { lookInto, takeIn, type Changed } from '../../src/lib/server/services/money/bank/bringIn';
import type { World } from '../../src/lib/server/world';

/** Brings a statement in as somebody does who looks at it and finds it right. */
export function bringIn(
	world: World,
	name: string,
	bytes: Uint8Array,
	changed: Changed | null = null
) {
	const importId = lookInto(world, name, bytes);
	return { importId, ...takeIn(world, importId, changed) };
}
