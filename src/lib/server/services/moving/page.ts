// What the pages of moving in need to know of the three kinds of file.
import { DEPOSIT_COLUMNS } from '../../../core/moving/deposits';
import { INVOICE_COLUMNS } from '../../../core/moving/columns';
import { REPEAT_COLUMNS } from '../../../core/moving/repeats';
import { NotFoundError } from '../../../core/refusals';
import type { World } from '../../world';
import { MOVING_KINDS, type MovingKind } from '../../db/schema';
import { vatWays } from '../business/settings';
import { importDeposits, previewDeposits } from './deposits';
import { importOpening, previewOpening, type OpeningForm } from './invoices';
import type { Looked } from './book';
import { importRepeats, previewRepeats } from './repeats';
import { registeredOn } from './opening';

export interface Mover {
	columns: readonly { field: string; label: string; required?: boolean }[];
	preview: (world: World, bytes: Uint8Array, form: OpeningForm) => Looked | Promise<Looked>;
	write: (world: World, bytes: Uint8Array, form: OpeningForm) => Looked | Promise<Looked>;
}

const MOVERS: Readonly<Record<MovingKind, Mover>> = {
	invoices: { columns: INVOICE_COLUMNS, preview: previewOpening, write: importOpening },
	deposits: { columns: DEPOSIT_COLUMNS, preview: previewDeposits, write: importDeposits },
	repeats: { columns: REPEAT_COLUMNS, preview: previewRepeats, write: importRepeats }
};

/** @throws NotFoundError for any other word in the address */
export function moverOf(kind: string): Mover & { kind: MovingKind } {
	const known = MOVING_KINDS.find((one) => one === kind);
	if (!known) throw new NotFoundError('This kind of file');
	return { kind: known, ...MOVERS[known] };
}

/** Whether it matters which returns were made: on the cash basis VAT is due when it is paid. */
export const asksForReturns = ({ db, clock }: World): boolean =>
	registeredOn(db)(clock.today()) && vatWays(db).basis === 'invoice';
