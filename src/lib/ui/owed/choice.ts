import { BOOKS, isCurrency } from '$lib/core/money/currencies';
import { readTypedDate } from '$lib/core/calendar/conversion';
import { addDays } from '$lib/core/calendar/manipulation';

/** What a statement is to look like, out of an address. */
export function statementChoice(params: URLSearchParams, today: string) {
	const day = (name: string) => {
		const typed = params.get(name) ?? '';
		return readTypedDate(typed, today) ?? typed;
	};
	const currency = params.get('money') ?? '';
	const activity = params.get('style') === 'activity';
	return {
		options: {
			style: activity ? 'activity' : 'openItems',
			asOf: day('asOf') || today,
			from: activity ? day('from') || addDays(today, -90) : '',
			ageing: params.get('ageing') === 'issueDate' ? 'issueDate' : 'dueDate',
			withLines: params.get('lines') === '1',
			currency: isCurrency(currency) ? currency : BOOKS
		},
		zero: params.get('zero') === '1',
		archived: params.get('archived') === '1'
	};
}
