// A customer's account as of a day: what is open, or what moved; aged; with what stands unapplied.
import { daysBetween } from '../calendar/queries';
import type { PlainDate } from '../calendar/types';
import { min } from '../money/decimal';
import type { Minor } from '../money/types';

export const ACCOUNT_TYPES = [
	'invoice',
	'credit',
	'payment',
	'writeOff',
	'withholding',
	'charge',
	'refund'
] as const;
export type AccountType = (typeof ACCOUNT_TYPES)[number];

export const AGES = ['notDue', '1-30', '31-60', '61-90', 'over90'] as const;
export type Age = (typeof AGES)[number];

export interface StatementItem {
	id: string;
	type: AccountType;
	date: PlainDate;
	/** Invoices and charges; may be null where ageing is by issue date. */
	due: PlainDate | null;
	/** Above zero. */
	amount: Minor;
	/** The invoice or charge it settles. */
	against: string | null;
}

export interface StatementInput {
	asOf: PlainDate;
	/** Null for open items; the first day of an activity statement. */
	from: PlainDate | null;
	ageing: 'dueDate' | 'issueDate';
	items: readonly StatementItem[];
}

export interface StatementRow {
	item: StatementItem;
	/** Signed: what lowers the balance is negative. */
	amount: Minor;
	/** Open items: what is left of it, signed. Activity: the balance after it. */
	left: Minor;
}

export interface Statement {
	rows: StatementRow[];
	/** Activity only. */
	opening: Minor | null;
	balance: Minor;
	ageing: Record<Age, Minor> & { unapplied: Minor };
}

const RAISES: ReadonlySet<AccountType> = new Set(['invoice', 'charge', 'refund']);

/** Whether a type can be settled by what stands against it. */
export const canBeSettled = (type: AccountType): boolean => type === 'invoice' || type === 'charge';

export const signed = ({ type, amount }: Pick<StatementItem, 'type' | 'amount'>): Minor =>
	RAISES.has(type) ? amount : -amount;

/** Ages by days past due (or past the issue day): day 0 is not due yet. */
export function ageOf(days: number): Age {
	if (days <= 0) return 'notDue';
	if (days <= 30) return '1-30';
	if (days <= 60) return '31-60';
	return days <= 90 ? '61-90' : 'over90';
}

/**
 * The account as of a day. Items after that day do not exist yet. What stands against an invoice or charge is applied
 * to it by date; refunds then use up what is unapplied, earliest first.
 */
export function statement({ asOf, from, ageing, items }: StatementInput): Statement {
	const ordered = items
		.filter((item) => item.date <= asOf)
		.map((item, index) => ({ item, index, left: item.amount }))
		.sort((a, b) =>
			a.item.date === b.item.date ? a.index - b.index : a.item.date < b.item.date ? -1 : 1
		);
	const targets = new Map(
		ordered.filter(({ item }) => canBeSettled(item.type)).map((one) => [one.item.id, one])
	);
	const use = (source: { left: Minor }, target: { left: Minor }): void => {
		const applied = min(source.left, target.left);
		source.left -= applied;
		target.left -= applied;
	};
	for (const one of ordered) {
		if (RAISES.has(one.item.type) || one.item.against === null) continue;
		const target = targets.get(one.item.against);
		if (target) use(one, target);
	}
	const unapplied = ordered.filter(({ item }) => !RAISES.has(item.type));
	let next = 0;
	for (const refund of ordered) {
		if (refund.item.type !== 'refund') continue;
		while (refund.left > 0n && next < unapplied.length) {
			use(unapplied[next]!, refund);
			if (unapplied[next]!.left === 0n) next++;
		}
	}

	const aged: Statement['ageing'] = {
		notDue: 0n,
		'1-30': 0n,
		'31-60': 0n,
		'61-90': 0n,
		over90: 0n,
		unapplied: 0n
	};
	let balance = 0n;
	for (const { item, left } of ordered) {
		if (left === 0n) continue;
		if (!RAISES.has(item.type)) {
			aged.unapplied -= left;
			balance -= left;
			continue;
		}
		const counted = ageing === 'dueDate' ? (item.due ?? item.date) : item.date;
		aged[ageOf(daysBetween(counted, asOf))] += left;
		balance += left;
	}
	if (from === null) {
		const rows = ordered
			.filter(({ left }) => left > 0n)
			.map(({ item, left }) => ({
				item,
				amount: signed(item),
				left: RAISES.has(item.type) ? left : -left
			}));
		return { rows, opening: null, balance, ageing: aged };
	}
	let running = 0n;
	let opening = 0n;
	const rows: StatementRow[] = [];
	for (const { item } of ordered) {
		running += signed(item);
		if (item.date < from) opening = running;
		else rows.push({ item, amount: signed(item), left: running });
	}
	return { rows, opening, balance, ageing: aged };
}
