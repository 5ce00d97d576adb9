// The position of an open item as its row has it: whole pence in integer columns.
import * as position from '../../../core/settlement/position';

interface Row {
	outstanding: number;
	deduction: number | null;
	withheld: number;
}

const minorOf = ({ outstanding, deduction, withheld }: Row): position.Position => ({
	outstanding: BigInt(outstanding),
	deduction: deduction === null ? null : BigInt(deduction),
	withheld: BigInt(withheld)
});

/** Pence a contractor may yet deduct. */
export const leftToDeduct = (row: Omit<Row, 'outstanding'>): number =>
	Number(position.leftToDeduct(minorOf({ ...row, outstanding: 0 })));

/** Pence a payer still has to send. */
export const stillToPay = (row: Row): number => Number(position.stillToPay(minorOf(row)));
