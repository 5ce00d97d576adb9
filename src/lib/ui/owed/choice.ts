import { addDays } from '$lib/core/calendar/manipulation';

/** What a statement is to look like, out of an address. */
export function statementChoice(params: URLSearchParams, today: string) {
	const activity = params.get('style') === 'activity';
	return {
		options: {
			style: activity ? 'activity' : 'openItems',
			asOf: params.get('asOf') || today,
			from: activity ? params.get('from') || addDays(today, -90) : '',
			ageing: params.get('ageing') === 'issueDate' ? 'issueDate' : 'dueDate',
			withLines: params.get('lines') === '1'
		},
		zero: params.get('zero') === '1',
		archived: params.get('archived') === '1'
	};
}
