// A receipt's photo, read on this machine: what it seems to say is proposed, and somebody looks at it.
import { must } from '../../actor';
import { readReceipt, type ReceiptRead } from '../../../core/costs/receipt';
import { FieldError } from '../../../core/refusals';
import { readPhoto } from '../../reading/reader';
import type { World } from '../../world';

export interface Proposed extends ReceiptRead {
	/** Nothing on it looked like a receipt. */
	nothing: boolean;
}

/** @throws FieldError where it is no photo that can be read */
export async function proposeFrom(world: World, photo: Buffer): Promise<Proposed> {
	must('work');
	let text: string;
	try {
		text = await readPhoto(photo);
	} catch {
		throw new FieldError({
			file: 'This could not be read. Type what it says; it is kept all the same.'
		});
	}
	const read = readReceipt(text, world.clock.today());
	return { ...read, nothing: read.total === null && read.date === null };
}
