// Jobs begun with all there is in one press: from a day and a price, or as a copy of another.
import { must } from '../../actor';
import { z } from 'zod';
import { writeAtOnce, type Transaction } from '../../db/connection';
import { visits } from '../../db/schema';
import type { World } from '../../world';
import { day, parseForm, timeOfDay, typedNumber } from '../business/fields';
import { jobForm, jobOnce, loadJob, type JobValues } from './jobs';
import { noteJob } from '../trail/jobs';
import { jobWork } from './work';

/** A new job, with the day of its first visit and what it comes to, where these are known. */
export const beginForm = jobForm.extend({
	day,
	from: timeOfDay,
	price: typedNumber('a price', { decimals: 4 })
});

/** The same key again gives that job back. @throws FieldError */
export function beginJob(
	world: World,
	key: string,
	input: unknown,
	state: 'enquiry' | 'booked' = 'booked'
): number {
	must('work');
	const form = parseForm(beginForm, input);
	return writeAtOnce(world.db, (tx) => beginOnce(tx, world, key, form, state).id);
}

/** As `beginJob`, within a transaction. @returns its id, and whether it was made now @throws FieldError */
export function beginOnce(
	tx: Transaction,
	world: World,
	key: string,
	{ day: date, from, price, ...form }: z.output<typeof beginForm>,
	state: 'enquiry' | 'booked'
): { id: number; made: boolean } {
	const job = jobOnce(tx, world, key, () => ({ ...form, ...linesAt(form.title, price) }), state);
	if (job.made && date) {
		tx.insert(visits).values({ jobId: job.id, date, from, to: '', person: '', note: '' }).run();
		if (state === 'booked') noteJob(tx, job.id, world.clock.now(), 'booked');
	}
	return job;
}

/** One agreed line, which says what the job is. */
const linesAt = (title: string, price: string): Pick<JobValues, 'lines'> =>
	price === ''
		? {}
		: {
				lines: [
					{
						kind: 'labour',
						description: title,
						quantity: '1',
						unit: '',
						unitPrice: price,
						vat: 'standard',
						vatReason: '',
						discount: '',
						cost: '',
						extra: false,
						itemId: null,
						income: '',
						centre: ''
					}
				]
			};

/**
 * The same job once more: customer, site, what is agreed and how it is priced; nothing of what was done. Its class and
 * what the customer wrote belong to the old contract. The same key again gives that copy back.
 */
export function copyJob(world: World, id: number, key: string): number {
	must('work');
	return writeAtOnce(world.db, (tx) => {
		const job = loadJob(tx, id);
		const { lines } = jobWork(tx, id);
		return jobOnce(
			tx,
			world,
			key,
			() =>
				parseForm(jobForm, {
					...job,
					contract: null,
					contractReason: '',
					endUserStatement: '',
					endUserDate: '',
					retentionDue: '',
					lines: lines.map(({ id: _id, ...line }) => ({ ...line, extra: false }))
				}),
			'booked'
		).id;
	});
}
