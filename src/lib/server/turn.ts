/** Others get their turn: between two steps of long work, so that nobody waits for all of it. */
export const turn = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));
