// A signature that was drawn on a page, as it comes: the data address of a PNG.

/** A picture of a signature beyond this is none. */
const LARGEST = 300_000;
const PNG = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);

/** Its bytes; null where nothing was drawn. What is wrong with it is added to `problems`, at `signature`. */
export function readDrawn(given: string, problems: Record<string, string>): Buffer | null {
	if (given === '') return null;
	const content = /^data:image\/png;base64,([A-Za-z0-9+/=]+)$/.exec(given)?.[1];
	const bytes = content ? Buffer.from(content, 'base64') : Buffer.alloc(0);
	if (bytes.length > LARGEST)
		problems.signature = 'That drawing is too large. Clear it and sign again.';
	else if (!bytes.subarray(0, 8).equals(PNG))
		problems.signature = 'That is no drawing. Clear it and sign again, or type your name.';
	return bytes;
}

/** As a data address again, for a page or a paper. */
export const drawnAddress = (drawn: Buffer | null): string | null =>
	drawn && `data:image/png;base64,${drawn.toString('base64')}`;
