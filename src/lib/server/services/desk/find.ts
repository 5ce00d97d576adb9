// The command box: customers, jobs and documents by a few letters, a number or an amount.
import { desc, inArray, sql } from 'drizzle-orm';
import { STANDING_NAMES } from '../../../core/jobs/types';
import { displayMoney, displayPounds } from '../../../core/money/display';
import { documents } from '../../db/schema';
import type { World } from '../../world';
import { searchCustomers } from '../customers/customers';
import { listJobs } from '../jobs/list';
import { searchExpression } from '../trail/search';

export interface Found {
	kind: 'customer' | 'job' | 'document';
	id: number;
	title: string;
	detail: string;
	href: string;
}

export function find(world: World, typed: string): Found[] {
	const expression = searchExpression(typed);
	if (expression === null) return [];
	const customers = searchCustomers(world, typed, 6).map((one): Found => ({
		kind: 'customer',
		id: one.id,
		title: one.name,
		detail: one.owed ? `${displayPounds(one.owed)} open` : 'customer',
		href: `/customers/${one.id}`
	}));
	const jobs = listJobs(world, { typed }).rows.slice(0, 6);
	const ids = world.db
		.all<{ rowid: number }>(
			sql`select rowid from document_search where document_search match ${expression} order by rowid desc limit 40`
		)
		.map((row) => row.rowid);
	const rows = ids.length
		? world.db
				.select()
				.from(documents)
				.where(inArray(documents.id, ids))
				.orderBy(desc(documents.id))
				.all()
				.filter((row) => row.state !== 'discarded')
				.slice(0, 10)
		: [];
	return [
		...customers,
		...jobs.map((job): Found => ({
			kind: 'job',
			id: job.id,
			title: `${job.number} ${job.title}`,
			detail: `${job.customer} · ${STANDING_NAMES[job.standing].toLowerCase()}`,
			href: `/work/${job.id}`
		})),
		...rows.map((row): Found => ({
			kind: 'document',
			id: row.id,
			title: row.number ?? 'Draft',
			detail: `${row.customerName || 'no customer yet'} · ${displayMoney(row.total, row.currency)}`,
			href: `/billing/${row.id}`
		}))
	];
}
