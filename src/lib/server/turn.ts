/** What somebody asks takes so many steps of the event loop: taken up, read, answered, written. */
const STEPS = 8;

/**
 * Others get their turn: between two pieces of long work, so that nobody waits for all of it. They get as many steps as an answer takes;
 * with a single one, each of them would wait for a piece of its own. Where nobody asks, it takes no time.
 */
export async function turn(): Promise<void> {
	for (let step = 0; step < STEPS; step++) await new Promise((resolve) => setImmediate(resolve));
}
