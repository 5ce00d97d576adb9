// How a customer stands for one contract: what it wrote of that alone counts as what it wrote of all.
import { readTypedDate } from '../calendar/conversion';
import type { CustomerFacts } from '../documents/types';
import type { SheetContext } from './context';
import type { Sheet } from './types';

/**
 * The customer as it stands for this contract: what it said for it alone counts as what it says of everything. Without
 * statement and day it is no end user, whatever is ticked (docs/tax-gb.md 1).
 */
export function contracting(
	customer: CustomerFacts,
	{ endUser }: Sheet,
	context: SheetContext
): CustomerFacts {
	if (customer.kind !== 'contractor' || context.frozen) return customer;
	const { standing } = customer;
	const said = endUser
		? {
				endUser: true,
				endUserStatement: endUser.statement.trim(),
				endUserDate: readTypedDate(endUser.date, context.today)
			}
		: standing;
	return {
		...customer,
		standing: {
			...standing,
			...said,
			endUser: said.endUser && said.endUserStatement.trim() !== '' && said.endUserDate !== null
		}
	};
}
