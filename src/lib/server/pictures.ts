// Pictures, through a library that takes a tenth of a start to load: whoever needs it first fetches it.
import type { Sharp, SharpOptions } from 'sharp';

/** A picture to be turned, made smaller and written anew. What cannot be read is said when it is. */
export async function picture(bytes: Buffer, options: SharpOptions = {}): Promise<Sharp> {
	const { default: sharp } = await import('sharp');
	return sharp(bytes, options);
}
