import { parseMoney } from '$lib/core/money/decimal';
import { readTypedNumber } from '$lib/core/money/typed';
import { owedPage } from '$lib/server/services/owed/owed';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => {
	const text = (name: string) => url.searchParams.get(name) ?? '';
	const above = readTypedNumber(text('above'), { decimals: 2, digits: 11 });
	const hold = (['dispute', 'promise'] as const).find((one) => one === text('hold')) ?? '';
	const page = /^[1-9]\d{0,5}$/.test(text('page')) ? Number(text('page')) : 1;
	const filter = {
		late: text('late') === '1',
		above: above.ok ? (parseMoney(above.text) ?? 0n) : 0n,
		label: text('label').slice(0, 40),
		hold,
		typed: text('q').slice(0, 80),
		page
	} as const;
	return {
		...owedPage(locals.world, filter),
		filter: { ...filter, aboveTyped: text('above') },
		asTable: text('as') === 'table'
	};
};
