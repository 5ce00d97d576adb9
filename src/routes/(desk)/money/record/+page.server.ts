import { searchCustomers } from '$lib/server/services/customers/customers';
import { payersInHand } from '$lib/server/services/ledger/inHand';
import { owedPage } from '$lib/server/services/owed/owed';
import type { PageServerLoad } from './$types';

/** Whom it may be: who owes, and, by what is typed, who does not. Or, for giving back, who has something in hand. */
export const load: PageServerLoad = ({ locals, url }) => {
	const { world } = locals;
	const typed = (url.searchParams.get('q') ?? '').slice(0, 80);
	const back = url.searchParams.get('back') === '1';
	if (back) {
		const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
		const rows = payersInHand(world.db)
			.filter((one) => words.every((word) => one.payer.toLowerCase().includes(word)))
			.slice(0, 50);
		return {
			typed,
			back,
			rows: rows.map((one) => ({ id: one.payerId, name: one.payer, sum: BigInt(one.amount) })),
			others: []
		};
	}
	const { rows } = owedPage(world, {
		late: false,
		above: 0n,
		label: '',
		hold: '',
		typed,
		page: 1
	});
	const owing = new Set(rows.map((row) => row.payerId));
	const others = typed ? searchCustomers(world, typed, 10).filter((one) => !owing.has(one.id)) : [];
	return {
		typed,
		back,
		rows: rows.map((row) => ({ id: row.payerId, name: row.payer, sum: row.owed })),
		others: others.map(({ id, name }) => ({ id, name }))
	};
};
