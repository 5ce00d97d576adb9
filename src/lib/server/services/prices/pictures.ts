// The picture of an entry of the price list.
import { must } from '../../actor';
import { eq } from 'drizzle-orm';
import { pricePictures } from '../../db/schema';
import type { World } from '../../world';
import { FieldError, NotFoundError } from '../../../core/refusals';
import { prepareFile } from '../files/prepare';
import { priceItem } from './prices';

/** @throws FieldError where it is no picture */
export async function savePicture(world: World, itemId: number, bytes: Buffer): Promise<void> {
	must('work');
	priceItem(world, itemId);
	const { type, thumbnail } = await prepareFile(bytes);
	if (!thumbnail) throw new FieldError({ picture: 'This is no picture, whatever its name says.' });
	const values = { type, content: thumbnail };
	world.db
		.insert(pricePictures)
		.values({ itemId, ...values })
		.onConflictDoUpdate({ target: pricePictures.itemId, set: values })
		.run();
}

/** @throws NotFoundError */
export function pricePicture(world: World, itemId: number): { type: string; content: Buffer } {
	const row = world.db.select().from(pricePictures).where(eq(pricePictures.itemId, itemId)).get();
	if (!row) throw new NotFoundError('This picture');
	return row;
}
