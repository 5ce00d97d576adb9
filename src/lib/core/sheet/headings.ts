// What the lines under each heading of a sheet come to.
import type { Working } from '../figures/types';
import { money } from '../figures/workings';
import type { SheetReading } from './read';
import type { SheetRow } from './types';

/** The net sum under each heading with its workings, by `heading.<id>`; zero where no line under it comes to anything. */
export function headingSums(
	rows: readonly SheetRow[],
	{ lines, figures }: Pick<SheetReading, 'lines' | 'figures'>
): Map<string, Working> {
	const places = new Map(lines.map((line, index) => [line.id, index]));
	const sums = new Map<string, Working>();
	let current: Working | null = null;
	for (const row of rows) {
		if (row.type === 'heading') {
			current = {
				label: row.text.trim() || 'Under this heading',
				value: 0n,
				operation: 'sum',
				operands: [],
				rule: 'sum'
			};
			sums.set(`heading.${row.id}`, current);
			continue;
		}
		const index = places.get(row.id);
		const net = index === undefined ? undefined : figures?.lines[index]?.net;
		if (!current || net === undefined) continue;
		current.value += net;
		current.operands.push(money(`Line ${index! + 1}`, net, `lines.${index}.net`));
	}
	return sums;
}
