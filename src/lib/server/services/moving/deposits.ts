// Money held for customers brought in: in hand where nothing was written for it, else as its deposit invoice, paid.
import { displayDate } from '../../../core/calendar/conversion';
import { displayPounds } from '../../../core/money/display';
import {
	DEPOSIT_COLUMNS,
	readHeldMoney,
	type DepositField,
	type HeldMoney
} from '../../../core/moving/deposits';
import { must } from '../../actor';
import { eq } from 'drizzle-orm';
import type { Reader } from '../../db/connection';
import { payments } from '../../db/schema';
import type { World } from '../../world';
import { rowKeys } from '../business/keys';
import { customersByName, nameOf, unknownName } from '../customers/byName';
import { oneAtATime } from '../invoices/issuing';
import { takeShared } from '../money/taking';
import { fieldsOf, noteMoved, type Looked, type MovedRow } from './book';
import { bringIn, lookAt, type OpeningForm } from './invoices';
import { customerFor, registeredOn, type Planned } from './opening';

interface InHand {
	report: MovedRow;
	/** Null where nothing is brought in. */
	held: HeldMoney | null;
	key: string;
}

interface Looking {
	invoices: Planned[];
	inHand: InHand[];
	notes: string[];
}

async function look(world: World, bytes: Uint8Array, form: OpeningForm): Promise<Looking> {
	const { db, clock } = world;
	const { rows, unread } = fieldsOf<DepositField>(bytes, DEPOSIT_COLUMNS);
	const isRegistered = registeredOn(db);
	const read = readHeldMoney(rows, clock.today(), isRegistered);
	const invoiced = read.filter(({ held }) => held?.invoice);
	const { planned, notes } = await lookAt(
		world,
		invoiced.map(({ line, held }) => ({
			line,
			name: `${held!.invoice!.number}, ${held!.customer}`,
			invoice: held!.invoice,
			why: ''
		})),
		unread,
		form
	);
	const known = customersByName(db);
	const keyOf = rowKeys('held');
	const inHand = read
		.filter(({ held }) => !held?.invoice)
		.map(({ line, name, held, why }): InHand => {
			const row = (outcome: MovedRow['outcome'], detail: string, key = ''): InHand => ({
				report: { line, name, outcome, detail },
				held: outcome === 'new' ? held : null,
				key
			});
			if (!held) return row('wrong', why);
			const key = keyOf([nameOf(held.customer), String(held.amount), held.date, held.reference]);
			if (isThere(db, key)) return row('same', 'is here already');
			const found = known.get(nameOf(held.customer)) ?? [];
			const unknown = unknownName(held.customer, found.length, form.addCustomers);
			if (unknown) return row('wrong', unknown);
			const words = [
				`${displayPounds(held.amount)} of ${displayDate(held.date)} in hand`,
				found.length ? '' : 'a new customer',
				isRegistered(held.date) ? 'on no invoice yet: VAT is due on it if it is for work' : ''
			];
			return row('new', words.filter(Boolean).join(' · '), key);
		});
	return { invoices: planned, inHand, notes };
}

const isThere = (db: Reader, key: string): boolean =>
	db.select({ id: payments.id }).from(payments).where(eq(payments.key, key)).get() !== undefined;

const reported = ({ invoices, inHand, notes }: Looking): Looked => ({
	rows: [...invoices, ...inHand].map(({ report }) => report).sort((a, b) => a.line - b.line),
	notes
});

/** What the file would bring. @throws FieldError */
export async function previewDeposits(
	world: World,
	bytes: Uint8Array,
	form: OpeningForm
): Promise<Looked> {
	must('owner');
	return reported(await look(world, bytes, form));
}

/** Brings in what is not here yet. The same press, or the same file again, brings nothing. @throws FieldError */
export function importDeposits(
	world: World,
	bytes: Uint8Array,
	form: OpeningForm
): Promise<Looked> {
	must('owner');
	return oneAtATime(async () => {
		const found = await look(world, bytes, form);
		await bringIn(world, 'deposits', found.invoices, form, (tx, movingId) => {
			const known = customersByName(tx);
			for (const { held, key } of found.inHand) {
				if (!held || isThere(tx, key)) continue;
				const { id } = takeShared(tx, world, {
					key,
					payerId: customerFor(tx, world, held.customer, known),
					date: held.date,
					amount: Number(held.amount),
					way: 'bank',
					source: 'opening',
					reference: held.reference,
					fee: 0,
					who: 'you',
					shares: []
				});
				noteMoved(tx, movingId, 'payment', id);
			}
		});
		return reported(found);
	});
}
