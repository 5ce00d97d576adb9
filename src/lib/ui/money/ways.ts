import { WAY_NAMES } from '$lib/core/words';

/** How money comes in, as a form by hand offers it. */
export const WAYS_BY_HAND = { ...WAY_NAMES, card: 'Card, taken elsewhere' } as const;
