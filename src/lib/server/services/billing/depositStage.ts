// The stage that bills a deposit: what it has to be so that its invoice comes to what was asked for, and what of that is kept back.
import { computeStage, contractPosition } from '../../../core/jobs/stages';
import { readSheet } from '../../../core/sheet/read';
import type { Reader } from '../../db/connection';
import { sheetContext } from '../invoices/context';
import { loadJob } from '../jobs/jobs';
import { contractLines } from '../jobs/stageBooks';
import { stageSheet } from './stages';

/**
 * To the penny where that can be. Amounts in pence.
 * @returns what the stage bills, and what a contractor keeps back of what its invoice comes to: deduction and retention
 */
export function depositStage(
	db: Reader,
	jobId: number,
	asked: bigint,
	today: string
): { net: bigint; keptBack: bigint } {
	const job = loadJob(db, jobId);
	const lines = contractLines(db, jobId);
	const before = contractPosition(lines);
	const billed = (net: bigint): { total: bigint; payable: bigint } => {
		const stage = computeStage(lines, { type: 'amount', amount: net });
		const sheet = stageSheet(db, jobId, 0, 'deposit', stage, before);
		return readSheet(sheet, sheetContext(db, sheet, today)).figures ?? { total: 0n, payable: 0n };
	};
	const exact = (): bigint => {
		if (job.pricesIncludeVat) return asked;
		const whole = billed(before.left).total;
		if (whole <= 0n) return asked;
		const near = (asked * before.left) / whole;
		const tries = [0n, 1n, -1n, 2n, -2n]
			.map((off) => near + off)
			.filter((net) => net > 0n && net <= before.left);
		return tries.find((net) => billed(net).total === asked) ?? tries[0] ?? near;
	};
	const net = exact();
	const { total, payable } = billed(net);
	return { net, keptBack: total - payable };
}
