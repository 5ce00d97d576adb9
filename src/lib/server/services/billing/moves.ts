// Next moves of billing: finished work, retentions that fall due, applications to follow up.
import { and, eq, isNull, lte, sql } from 'drizzle-orm';
import { displayDate } from '../../../core/calendar/conversion';
import type { Move } from '../../../core/moves';
import { jobs, retentions, stages } from '../../db/schema';
import type { World } from '../../world';
import { toBill } from './toBill';

/** Finished work no invoice covers, by customer: a run, or one job's bill. */
export function workMoves(world: World): Move[] {
	const byCustomer = new Map<number, ReturnType<typeof toBill>>();
	for (const job of toBill(world))
		if (job.finishedOn !== null)
			byCustomer.set(job.customerId, [...(byCustomer.get(job.customerId) ?? []), job]);
	return [...byCustomer.values()].map((waiting) => {
		const [first] = waiting as [(typeof waiting)[number]];
		const many = waiting.length > 1;
		return {
			id: `work:${first.customerId}`,
			amount: BigInt(waiting.reduce((sum, job) => sum + job.amount, 0)),
			brings: `work:${first.customerId}`,
			late: false,
			title: many
				? `Bill ${first.customer} for ${waiting.length} finished jobs`
				: `Bill ${first.customer}: ${first.title}`,
			detail: `finished ${first.finishedOn === null ? '' : displayDate(first.finishedOn)}${many ? ' and after' : ''}`,
			action: many ? 'Bill them' : 'Bill it',
			href: many
				? `/work/bill?customer=${first.customerId}`
				: first.staged
					? `/work/${first.id}/stage`
					: `/work/${first.id}`
		};
	});
}

export function retentionMoves(world: World): Move[] {
	return world.db
		.select({
			jobId: retentions.jobId,
			title: jobs.title,
			amount: sql<number>`sum(${retentions.amount})`,
			dueOn: sql<string>`min(${retentions.dueOn})`
		})
		.from(retentions)
		.innerJoin(jobs, eq(jobs.id, retentions.jobId))
		.where(and(isNull(retentions.releasedById), lte(retentions.dueOn, world.clock.today())))
		.groupBy(retentions.jobId)
		.all()
		.map((row) => ({
			id: `retention:${row.jobId}`,
			amount: BigInt(row.amount),
			brings: `retention:${row.jobId}`,
			late: false,
			title: `Release the retention of ${row.title}`,
			detail: `held back until ${displayDate(row.dueOn)}`,
			action: 'Release it',
			href: `/work/${row.jobId}`
		}));
}

export function applicationMoves(world: World): Move[] {
	return world.db
		.select({
			id: stages.id,
			jobId: stages.jobId,
			number: stages.applicationNumber,
			appliedOn: stages.appliedOn,
			amount: stages.amount,
			title: jobs.title
		})
		.from(stages)
		.innerJoin(jobs, eq(jobs.id, stages.jobId))
		.where(eq(stages.state, 'applied'))
		.all()
		.map((row) => ({
			id: `application:${row.id}`,
			amount: BigInt(row.amount),
			brings: `application:${row.id}`,
			late: false,
			title: `Is ${row.number} approved or paid? ${row.title}`,
			detail: `applied for on ${row.appliedOn ? displayDate(row.appliedOn) : ''}; the VAT invoice follows`,
			action: 'See',
			href: `/work/${row.jobId}`
		}));
}
