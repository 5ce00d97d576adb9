// The drafts of a bill run, some hundred in a transaction, with statements prepared once.
import type { Sheet } from '../../../core/sheet/types';
import { writeAtOnce } from '../../db/connection';
import type { World } from '../../world';
import { takenBySheet } from '../jobs/takenParts';
import { indexWords } from '../trail/search';

const AT_ONCE = 200;

interface Step {
	position: number;
	customerId: number;
	customer: string;
	total: number;
	jobIds: string;
	worked: string;
	sheet: string;
}

/**
 * Drafts the next steps of a run and marks them, in one transaction: after a crash either both stand or neither.
 * A step whose jobs were changed, deleted or billed by others in the meantime is skipped, and says so.
 * @returns how many steps were worked off; 0 when none is left
 */
export function runDrafts(world: World, runId: number): number {
	// By hand: a run writes thousands of rows, and building each statement anew takes longer than running it.
	const { $client: client } = world.db;
	const now = world.clock.now();
	const next = client.prepare(
		`select position, customer_id as customerId, customer_name as customer, total,
		 job_ids as jobIds, worked, sheet from bill_run_steps
		 where run_id = ? and state = 'waiting' order by position limit ${AT_ONCE}`
	);
	const customer = client.prepare('select 1 from customers where id = ?');
	const job = client
		.prepare('select worked from jobs where id = ? and finished_on is not null')
		.pluck();
	const taken = client.prepare('select 1 from billed_parts where type = ? and part_id = ?');
	const insert = client.prepare(
		`insert into documents (kind, state, origin, key, customer_id, customer_name, sheet, total, created_at, updated_at)
		 values ('invoice', 'draft', 'run', ?, ?, ?, ?, ?, ?, ?)`
	);
	const claim = client.prepare(
		'insert into billed_parts (type, part_id, job_id, document_id) values (?, ?, ?, ?)'
	);
	const trail = client.prepare(
		`insert into trail (document_id, at, who, what, detail) values (?, ?, 'you', 'begun', '')`
	);
	const search = client.prepare('insert into document_search (rowid, words) values (?, ?)');
	const done = client.prepare(
		`update bill_run_steps set state = 'drafted', document_id = ? where run_id = ? and position = ?`
	);
	const skip = client.prepare(
		`update bill_run_steps set state = 'skipped', note = ? where run_id = ? and position = ?`
	);

	const changed = ({ jobIds, worked }: Step) => {
		const before = JSON.parse(worked) as number[];
		return (JSON.parse(jobIds) as number[]).some((id, index) => job.get(id) !== before[index]);
	};

	return writeAtOnce(world.db, () => {
		const steps = next.all(runId) as Step[];
		for (const step of steps) {
			const sheet = JSON.parse(step.sheet) as Sheet;
			const claims = takenBySheet(sheet);
			const gone = !customer.get(step.customerId)
				? 'The customer was removed.'
				: changed(step)
					? 'One of its jobs was changed or removed after the run was started.'
					: claims.some(({ type, id }) => taken.get(type, id))
						? 'Another invoice bills one of its jobs by now.'
						: null;
			if (gone) {
				skip.run(gone, runId, step.position);
				continue;
			}
			const documentId = Number(
				insert.run(
					`run:${runId}:${step.position}`,
					step.customerId,
					step.customer,
					step.sheet,
					step.total,
					now,
					now
				).lastInsertRowid
			);
			for (const { type, id, jobId } of claims) claim.run(type, id, jobId, documentId);
			trail.run(documentId, now);
			search.run(
				documentId,
				indexWords({ number: '', customer: step.customer, total: step.total, sheet })
			);
			done.run(documentId, runId, step.position);
		}
		return steps.length;
	});
}
