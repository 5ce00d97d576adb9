// Every list there is, by its name.
import { COSTS } from './costs';
import { CUSTOMERS } from './customers';
import { ENQUIRIES } from './enquiries';
import { INVOICES } from './invoices';
import { JOBS } from './jobs';
import { MESSAGES } from './messages';
import { PAYMENTS } from './payments';
import { PRICES } from './prices';
import { QUOTES } from './quotes';
import { SHEETS } from './sheets';
import { VISITS } from './visits';
import type { ListName, ListSpec } from './types';

export const LISTS: Readonly<Record<ListName, ListSpec>> = {
	invoices: INVOICES,
	jobs: JOBS,
	customers: CUSTOMERS,
	payments: PAYMENTS,
	costs: COSTS,
	prices: PRICES,
	messages: MESSAGES,
	quotes: QUOTES,
	enquiries: ENQUIRIES,
	visits: VISITS,
	sheets: SHEETS
};

/** Where a list stands. */
export const pathOfList = (list: ListName): string =>
	list === 'invoices' ? '/billing' : `/lists/${list}`;
