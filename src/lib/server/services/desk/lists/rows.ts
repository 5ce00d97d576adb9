// The rows of a list for what is done with many of them: which a view has, and what they are called.
import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { readView } from '../../../../core/lists/address';
import { LIST_NAMES, type ListName } from '../../../../core/lists/types';
import type { Right } from '../../../../core/people/roles';
import { NotFoundError } from '../../../../core/refusals';
import { must } from '../../../actor';
import type { World } from '../../../world';
import { COST_LIST } from './costs';
import { CUSTOMER_LIST } from './customers';
import { ENQUIRY_LIST } from './enquiries';
import type { ListSource } from './where';
import { idsOfList } from './engine';
import { INVOICE_LIST } from './invoices';
import { JOB_LIST } from './jobs';
import { MESSAGE_LIST } from './messages';
import { PAYMENT_LIST } from './payments';
import { PRICE_LIST } from './prices';
import { QUOTE_LIST } from './quotes';
import { SHEET_LIST } from './sheets';
import { VISIT_LIST } from './visits';

export const SOURCES: Readonly<Record<ListName, ListSource>> = {
	invoices: INVOICE_LIST,
	jobs: JOB_LIST,
	customers: CUSTOMER_LIST,
	payments: PAYMENT_LIST,
	costs: COST_LIST,
	prices: PRICE_LIST,
	messages: MESSAGE_LIST,
	quotes: QUOTE_LIST,
	enquiries: ENQUIRY_LIST,
	visits: VISIT_LIST,
	sheets: SHEET_LIST
};

/** Who may look at each. */
const LOOKS: Readonly<Record<ListName, Right>> = {
	invoices: 'books',
	jobs: 'work',
	customers: 'work',
	payments: 'books',
	costs: 'books',
	prices: 'work',
	messages: 'work',
	quotes: 'bill',
	enquiries: 'work',
	visits: 'work',
	sheets: 'work'
};

/** @throws NotFoundError, ForbiddenError */
export function sourceNamed(name: string): ListSource {
	const list = z.enum(LIST_NAMES).safeParse(name);
	if (!list.success) throw new NotFoundError('This list');
	must(LOOKS[list.data]);
	return SOURCES[list.data];
}

export const rowsOfList =
	(list: ListName) =>
	(world: World, view: URLSearchParams): number[] =>
		idsOfList(world, SOURCES[list], readView(SOURCES[list].spec, view));

/** What rows are called and where they lead. */
export function namesOf(
	world: World,
	list: ListName,
	ids: readonly number[]
): Map<number, { name: string; href: string }> {
	if (ids.length === 0) return new Map();
	const { names, href } = SOURCES[list];
	return new Map([...names(world, ids)].map(([id, name]) => [id, { name, href: href(id, {}) }]));
}

/** How many rows a list has at all, at most so many: said quickly. */
export const sizeOf =
	({ from, id }: ListSource, most = 6_000) =>
	(world: World): number =>
		world.db.get<{ n: number }>(
			sql`select count(*) as n from (select ${id} from ${from} limit ${most})`
		)!.n;
