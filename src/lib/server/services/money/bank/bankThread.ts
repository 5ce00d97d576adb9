// The thread on which large statements are brought in and looked at, and another on which lines are matched: with connections of their own to the
// books, so that whoever asks for something else meanwhile waits neither for the reading nor for the writing.
import { FieldError, NotFoundError } from '../../../../core/refusals';
import { clockStartingAt } from '../../../clock';
import { connect } from '../../../db/connection';
import { answerOrders } from '../../../thread';
import { forgetColumns, lookInto, takeIn, type Books } from './bringIn';
import { bankPage } from './lines';
import { lookPage } from './lookPage';
import { matchAll } from './matchAll';

type Rest<F> = F extends (books: Books, ...given: infer G) => unknown ? Readonly<G> : never;

export type BankJob =
	| { job: 'lookInto'; given: Rest<typeof lookInto> }
	| { job: 'lookPage'; given: Rest<typeof lookPage> }
	| { job: 'takeIn'; given: Rest<typeof takeIn> }
	| { job: 'forgetColumns'; given: Rest<typeof forgetColumns> }
	| { job: 'bankPage'; given: Rest<typeof bankPage> }
	| { job: 'matchAll' };

/** With the data file, and the moment it is there. */
export type BankOrder = BankJob & { file: string; now: number };

/** What is refused goes back in its own kind: a class does not survive the way to another thread. */
export type BankAnswer =
	{ result: unknown } | { fields: Record<string, string> } | { missing: true };

function worked(order: BankOrder, books: Books, progress: (done: number) => void): unknown {
	switch (order.job) {
		case 'lookInto':
			return lookInto(books, ...order.given);
		case 'lookPage':
			return lookPage(books, ...order.given);
		case 'takeIn':
			return takeIn(books, ...order.given);
		case 'forgetColumns':
			return forgetColumns(books, ...order.given);
		case 'bankPage':
			return bankPage(books, ...order.given);
		case 'matchAll':
			return matchAll(books.db, progress);
	}
}

answerOrders((order: BankOrder, progress): BankAnswer => {
	const db = connect(order.file);
	try {
		return { result: worked(order, { db, clock: clockStartingAt(order.now) }, progress) };
	} catch (error) {
		if (error instanceof FieldError) return { fields: error.fields };
		if (error instanceof NotFoundError) return { missing: true };
		throw error;
	} finally {
		db.$client.close();
	}
});
