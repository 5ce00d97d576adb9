// Next moves of the business itself: details that documents need.
import type { Move } from '../../../core/moves';
import type { World } from '../../world';
import { loadBusiness } from './settings';

export function detailMoves(world: World): Move[] {
	const owner = loadBusiness(world.db);
	const missing = [
		...(owner.bankAccountNumber ? [] : ['bank details, so that people can pay by transfer']),
		...(owner.email ? [] : ['your e-mail address, for copies and for news of payments'])
	];
	if (missing.length === 0) return [];
	return [
		{
			id: 'set-up',
			amount: null,
			late: false,
			title: 'Complete your details',
			detail: `missing: ${missing.join('; ')}`,
			action: 'Complete them',
			href: `/settings?change=${owner.email ? 'bank' : 'you'}`
		}
	];
}
