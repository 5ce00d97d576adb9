// How jobs stand, as people see it: worked out where it is asked for, so that a payment undone opens its job again.
import { sql } from 'drizzle-orm';
import type { Standing } from '../../../core/jobs/types';
import { jobs } from '../../db/schema';

/** Everything its documents ask for is settled, and nothing is held back any more. */
const settled = sql`not exists (
	select 1 from document_lines l join open_items o on o.document_id = l.document_id
	where l.job_id = ${jobs.id} and o.state in ('open', 'partPaid'))
	and not exists (select 1 from retentions r where r.job_id = ${jobs.id} and r.released_by_id is null)`;

export const standing = sql<Standing>`case
	when ${jobs.state} = 'booked' and not exists (select 1 from visits v where v.job_id = ${jobs.id}) then 'toBook'
	when ${jobs.state} = 'billed' and ${settled} then 'paid'
	else ${jobs.state} end`;
