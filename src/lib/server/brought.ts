// What the pages show of a file that is brought in: how many of which, and the first rows.
import { fileOf } from './answers';
import type { Looked } from './services/moving/book';

const SHOWN = 500;

/** What else was said of the file goes along. */
export const looked = ({ rows, notes }: Looked) => ({ ...brought(rows), notes });

export const bytesOf = async (posted: FormData): Promise<Uint8Array> =>
	(await fileOf(posted, 25, 'Choose a file.', 'At most 25 MB can be read.')).bytes;

export function brought<Row extends { outcome: 'new' | 'same' | 'wrong' }>(rows: readonly Row[]) {
	const count = (outcome: Row['outcome']) => rows.filter((row) => row.outcome === outcome).length;
	return {
		// What is left out comes first: it is what somebody has to look at.
		rows: [
			...rows.filter(({ outcome }) => outcome === 'wrong'),
			...rows.filter(({ outcome }) => outcome !== 'wrong')
		].slice(0, SHOWN),
		fresh: count('new'),
		same: count('same'),
		wrong: count('wrong')
	};
}
