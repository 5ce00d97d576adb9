import { readTypedDate } from '$lib/core/calendar/conversion';
import { jobLabels } from '$lib/server/services/jobs/list';
import { marginReport } from '$lib/server/services/jobs/margins';
import type { Margin } from '$lib/core/jobs/margin';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => {
	const given = url.searchParams;
	const today = locals.world.clock.today();
	const date = (name: string) => readTypedDate(given.get(name) ?? '', today) ?? undefined;
	const query = {
		label: given.get('label') ?? '',
		from: date('from'),
		to: date('to'),
		customerId: Number(given.get('customer')) || undefined,
		workKindId: /^\d{1,9}$/.test(given.get('kind') ?? '') ? Number(given.get('kind')) : undefined
	};
	const { rows, kinds, total } = marginReport(locals.world, query);
	const sort = given.get('sort') === 'percent' ? 'percent' : 'money';
	const least = (a: { margin: Margin }, b: { margin: Margin }) =>
		sort === 'percent'
			? (a.margin.perMille ?? -1e9) - (b.margin.perMille ?? -1e9)
			: Number(a.margin.margin - b.margin.margin);
	rows.sort(least);
	kinds.sort(least);
	return {
		query,
		sort,
		by: given.get('by') === 'kind' && query.workKindId === undefined ? 'kind' : 'job',
		kinds,
		rows: rows.slice(0, 300),
		count: rows.length,
		total,
		labels: jobLabels(locals.world.db)
	};
};
