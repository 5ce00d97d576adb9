// What happened to a job, when. Rows are only ever added.
import type { Reader } from '../../db/connection';
import { actor } from '../../actor';
import { jobTrail } from '../../db/schema';

export type JobEvent =
	| 'begun'
	| 'booked'
	| 'started'
	| 'finished'
	| 'billed'
	| 'toBillAgain'
	| 'reopened'
	| 'dropped'
	| 'sumChanged'
	| 'contractDecided'
	| 'invoiced'
	| 'applied'
	| 'released'
	| 'sheetFinished'
	| 'sheetSent'
	| 'sheetSigned';

export const JOB_EVENT_WORDS: Record<JobEvent, string> = {
	begun: 'Begun',
	booked: 'Booked',
	started: 'Work started',
	finished: 'Finished',
	billed: 'Everything is billed',
	toBillAgain: 'To bill again',
	reopened: 'Reopened',
	dropped: 'Cancelled',
	sumChanged: 'What is agreed has changed',
	contractDecided: 'Contract decided',
	invoiced: 'Invoice drafted',
	applied: 'Payment applied for',
	released: 'Retention released',
	sheetFinished: 'Job sheet made',
	sheetSent: 'Job sheet sent',
	sheetSigned: 'Job sheet signed'
};

export function noteJob(tx: Reader, jobId: number, at: number, what: JobEvent, detail = ''): void {
	tx.insert(jobTrail)
		.values({ jobId, at, what, detail, personId: actor()?.id ?? null })
		.run();
}
