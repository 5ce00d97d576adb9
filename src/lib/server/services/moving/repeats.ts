// Repeats brought in: who is billed what, how often, and when next.
import { eq } from 'drizzle-orm';
import type { RepeatRule } from '../../../core/calendar/recurrence';
import { ruleWords } from '../../../core/calendar/ruleWords';
import { parseMoney } from '../../../core/money/decimal';
import { displayPounds } from '../../../core/money/display';
import {
	REPEAT_COLUMNS,
	readRepeats,
	type MovedRepeat,
	type RepeatField
} from '../../../core/moving/repeats';
import type { CustomerKind } from '../../../core/regimes/types';
import { blankLine, blankSheet, pricesIncludeVatFor } from '../../../core/sheet/blank';
import type { Sheet } from '../../../core/sheet/types';
import { must } from '../../actor';
import { writeAtOnce, type Reader } from '../../db/connection';
import { repeats } from '../../db/schema';
import type { World } from '../../world';
import { rowKeys } from '../business/keys';
import { customersByName, nameOf, unknownName } from '../customers/byName';
import {
	beginMoving,
	fieldsOf,
	noteMoved,
	unreadNote,
	type Looked,
	type MovedRow,
	type MovingForm
} from './book';
import { customerFor, registeredOn } from './opening';

interface PlannedRepeat {
	report: MovedRow;
	/** Null where nothing is brought in. */
	repeat: MovedRepeat | null;
	withVat: boolean;
	key: string;
}

const ruleOf = ({ next, every, unit, ends }: MovedRepeat): RepeatRule => ({
	start: next,
	every,
	unit,
	weekend: 'asIs',
	end: ends === null ? { never: true } : { on: ends }
});

function look(
	{ db, clock }: { db: Reader; clock: World['clock'] },
	bytes: Uint8Array,
	form: MovingForm
): { planned: PlannedRepeat[]; notes: string[] } {
	const { rows, unread } = fieldsOf<RepeatField>(bytes, REPEAT_COLUMNS);
	const known = customersByName(db);
	const isRegistered = registeredOn(db);
	const keyOf = rowKeys('moved');
	const planned = readRepeats(rows, clock.today()).map(({ line, name, repeat, why }) => {
		const row = (outcome: MovedRow['outcome'], detail: string): PlannedRepeat => ({
			report: { line, name, outcome, detail },
			repeat: outcome === 'new' ? repeat : null,
			withVat,
			key
		});
		let withVat = false;
		let key = '';
		if (!repeat) return row('wrong', why);
		key = keyOf([nameOf(repeat.customer), nameOf(repeat.name), repeat.price]);
		if (isThere(db, key)) return row('same', 'is here already');
		const found = known.get(nameOf(repeat.customer)) ?? [];
		const unknown = unknownName(repeat.customer, found.length, form.addCustomers);
		if (unknown) return row('wrong', unknown);
		const kind: CustomerKind = found[0]?.kind ?? 'household';
		const registered = isRegistered(repeat.next);
		withVat = registered && (repeat.withVat ?? pricesIncludeVatFor(kind));
		return row(
			'new',
			[
				found.length ? repeat.customer : `${repeat.customer}, a new customer`,
				`${priceOf(repeat.price)}${registered ? ` ${withVat ? 'with' : 'without'} VAT` : ''}`,
				inALine(ruleWords(ruleOf(repeat))),
				repeat.sends ? 'sent by itself' : 'as a draft'
			].join(' · ')
		);
	});
	return { planned, notes: unreadNote(unread) };
}

const inALine = (sentence: string): string =>
	sentence.charAt(0).toLowerCase() + sentence.slice(1).replace(/\.$/, '');

/** Fractions of a penny are shown as they stand. */
function priceOf(price: string): string {
	const pence = parseMoney(price);
	return pence === null ? `£${price}` : displayPounds(pence);
}

const isThere = (db: Reader, key: string): boolean =>
	db.select({ id: repeats.id }).from(repeats).where(eq(repeats.key, key)).get() !== undefined;

function sheetOf(repeat: MovedRepeat, customerId: number, withVat: boolean): Sheet {
	return {
		...blankSheet(),
		customerId,
		pricesIncludeVat: withVat,
		rows: [
			{
				...blankLine('r1'),
				description: repeat.description,
				unitPrice: repeat.price,
				vat: repeat.treatment
			}
		]
	};
}

/** What the file would bring. @throws FieldError */
export function previewRepeats(world: World, bytes: Uint8Array, form: MovingForm): Looked {
	must('owner');
	const { planned, notes } = look(world, bytes, form);
	return { rows: planned.map(({ report }) => report), notes };
}

/** Brings in what is not here yet, all or nothing. The same press, or the same file again, brings nothing. @throws FieldError */
export function importRepeats(world: World, bytes: Uint8Array, form: MovingForm): Looked {
	must('owner');
	return writeAtOnce(world.db, (tx) => {
		const { planned, notes } = look({ db: tx, clock: world.clock }, bytes, form);
		const movingId = beginMoving(tx, world, 'repeats', form);
		const known = customersByName(tx);
		for (const { repeat, withVat, key } of planned) {
			if (movingId === null || !repeat) continue;
			const customerId = customerFor(tx, world, repeat.customer, known);
			const { id } = tx
				.insert(repeats)
				.values({
					key,
					name: repeat.name,
					customerId,
					rule: ruleOf(repeat),
					sheet: sheetOf(repeat, customerId, withVat),
					action: repeat.sends ? 'send' : 'draft',
					state: 'active',
					madeFrom: repeat.next,
					createdAt: world.clock.now()
				})
				.returning({ id: repeats.id })
				.get();
			noteMoved(tx, movingId, 'repeat', id);
		}
		return { rows: planned.map(({ report }) => report), notes };
	});
}
