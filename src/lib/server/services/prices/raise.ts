// Raising prices of a category, or of all, by a percentage: seen first, then done.
import { must } from '../../actor';
import { and, asc, eq, isNull, ne, sql } from 'drizzle-orm';
import { z } from 'zod';
import { divideRounded, formatMoney, parseDecimal, powerOfTen } from '../../../core/money/decimal';
import { readTypedNumber } from '../../../core/money/typed';
import { writeAtOnce } from '../../db/connection';
import { priceItems } from '../../db/schema';
import type { World } from '../../world';
import { parseForm } from '../business/fields';
import { ConflictError, FieldError } from '../../../core/refusals';
import { text } from '../business/fields';

const raiseForm = z.object({ category: text(80), percent: text(20) });

export interface Raised {
	id: number;
	name: string;
	before: string;
	after: string;
}

/** What the prices would be, rounded to the penny. Lowering is a percentage below zero. @throws FieldError */
export function previewRaise(world: World, input: unknown): Raised[] {
	const { category, percent } = parseForm(raiseForm, input);
	const read = readTypedNumber(percent.replace(/%$/, ''), { decimals: 4, negative: true });
	if (!read.ok || Math.abs(Number(read.text)) > 100)
		throw new FieldError({ percent: 'A percentage from −100 to 100, such as 4.5.' });
	const by = parseDecimal(read.text)!;
	if (by.units === 0n) throw new FieldError({ percent: 'By nothing nothing changes.' });
	const factor = 100n * powerOfTen(by.scale) + by.units;
	return world.db
		.select()
		.from(priceItems)
		.where(
			and(
				isNull(priceItems.archivedAt),
				isNull(priceItems.kit),
				ne(priceItems.unitPrice, ''),
				category === '' ? undefined : eq(priceItems.category, category)
			)
		)
		.orderBy(asc(priceItems.category), asc(priceItems.name))
		.all()
		.map(({ id, name, unitPrice }) => {
			const price = parseDecimal(unitPrice)!;
			const pence = divideRounded(
				price.units * factor * 100n,
				powerOfTen(price.scale + by.scale + 2)
			);
			return { id, name, before: unitPrice, after: formatMoney(pence) };
		});
}

/**
 * Does what the preview showed.
 * @param expected what the preview counted and added up to: where a price has changed since, nothing is done
 * @throws FieldError, ConflictError
 */
export function raisePrices(world: World, input: unknown, expected: string): number {
	must('work');
	return writeAtOnce(world.db, (tx) => {
		const raised = previewRaise(world, input);
		if (fingerprint(raised) !== expected)
			throw new ConflictError('The price list has changed since. Look at the preview again.');
		const now = world.clock.now();
		for (const { id, after } of raised)
			tx.update(priceItems)
				.set({ unitPrice: after, updatedAt: now, version: sql`${priceItems.version} + 1` })
				.where(eq(priceItems.id, id))
				.run();
		return raised.length;
	});
}

/** Names a preview, so that what is done is what was seen. */
export function fingerprint(raised: Raised[]): string {
	let sum = 0;
	for (const { id, before, after } of raised)
		for (const char of `${id}:${before}:${after};`) sum = (sum * 31 + char.charCodeAt(0)) >>> 0;
	return `${raised.length}-${sum.toString(36)}`;
}
