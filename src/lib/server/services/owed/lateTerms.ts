// What customers agreed to for late payment: it stands in place of the Act.
import { must } from '../../actor';
import type { Reader } from '../../db/connection';
import { eq } from 'drizzle-orm';
import { parseDecimal } from '../../../core/money/decimal';
import { type AgreedTerms } from '../../../core/settlement/lateness';
import { lateTerms } from '../../db/schema';
import type { World } from '../../world';
import { FieldError } from '../../../core/refusals';
import { readAmount } from '../money/form';

export interface LateTerms extends AgreedTerms {
	/** The words of the contract. */
	terms: string;
}

export function allLateTerms(db: Reader): Map<number, LateTerms> {
	return new Map(
		db
			.select()
			.from(lateTerms)
			.all()
			.map((row) => [row.customerId, termsFrom(row)])
	);
}

const termsFrom = (row: typeof lateTerms.$inferSelect): LateTerms => ({
	fee: BigInt(row.fee),
	rate: row.rate === null ? null : parseDecimal(row.rate),
	afterDays: row.afterDays,
	terms: row.terms
});

/** What a customer agreed to for late payment; null: the Act for businesses, nothing for households. */
export function lateTermsOf(db: Reader, customerId: number): LateTerms | null {
	const row = db.select().from(lateTerms).where(eq(lateTerms.customerId, customerId)).get();
	return row ? termsFrom(row) : null;
}

/** Keeps the contract's own terms for late payment; without words they are taken away. @throws FieldError, NotFoundError */
export function saveLateTerms(
	world: World,
	customerId: number,
	form: { fee: string; rate: string; afterDays: string; terms: string }
): void {
	must('bill');
	const terms = form.terms.trim();
	if (terms === '') {
		if (form.fee.trim() || form.rate.trim())
			throw new FieldError({ terms: 'Give the words of the contract, as they go on documents.' });
		world.db.delete(lateTerms).where(eq(lateTerms.customerId, customerId)).run();
		return;
	}
	const problems: Record<string, string> = {};
	const fee = form.fee.trim() === '' ? 0 : readAmount(form.fee, 'fee', 'the fee', problems);
	const rateText = form.rate.trim().replace(/\s*%$/, '');
	const rate = rateText === '' ? null : parseDecimal(rateText);
	if (rateText !== '' && (!rate || rate.units < 0n || Number(rateText) > 100 || rate.scale > 4))
		problems.rate = 'Give the interest in percent a year, such as 8.';
	const afterDays = Number(form.afterDays.trim() || '0');
	if (!Number.isInteger(afterDays) || afterDays < 0 || afterDays > 365)
		problems.afterDays = 'Whole days, up to 365.';
	if (terms.length > 300) problems.terms = 'At most 300 characters.';
	if (fee === 0 && !rate) problems.fee ??= 'Give a fee, or interest, or both.';
	if (Object.keys(problems).length) throw new FieldError(problems);
	const values = {
		fee,
		rate: rate ? rateText : null,
		afterDays,
		terms,
		recordedAt: world.clock.now()
	};
	world.db
		.insert(lateTerms)
		.values({ customerId, ...values })
		.onConflictDoUpdate({ target: lateTerms.customerId, set: values })
		.run();
}
