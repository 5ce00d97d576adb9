// How the demo business's documents look: its mark, a letterhead for heritage work, and its own kinds of work.
import { readLook, STANDARD_LOOK, type Look } from '../src/lib/core/letterheads/look';
import { addLineTag } from '../src/lib/server/services/business/lineTags';
import { listWorkKinds, saveWorkKind } from '../src/lib/server/services/business/workKinds';
import {
	loadLetterhead,
	makeLetterhead,
	renameLetterhead,
	saveLook
} from '../src/lib/server/services/letterheads/letterheads';
import { saveLogo } from '../src/lib/server/services/letterheads/logos';
import type { World } from '../src/lib/server/world';

/** An arch, as over a chimney piece. */
const MARK = `<svg xmlns="http://www.w3.org/2000/svg" width="400" height="400" viewBox="0 0 40 40">
<rect width="40" height="40" fill="#1f5d57"/>
<path d="M8 30 C8 14 14 10 20 10 C26 10 32 14 32 30" fill="none" stroke="#fffdf9" stroke-width="3.4"/>
<path d="M4 33 H36" stroke="#f7be16" stroke-width="2"/>
</svg>`;

/** By the words of a job or of an invoice's first line; the first that fits. */
const KINDS: readonly [name: string, words: RegExp][] = [
	['survey', /survey|inspection|advice|report/i],
	['cornice', /cornice|ceiling rose|moulding|run in|centrepiece/i],
	['damp', /damp|hack off|salt/i],
	['insulation', /insulat|cork|wood.?fibre/i],
	['render', /render|roughcast|harling|chimney|repoint/i],
	['plaster', /plaster|skim|three coats|two coats/i],
	['repairs', /./]
];

/** Makes them, with the price list. @returns the kind that words speak of */
export async function layOutLetterheads(world: World): Promise<void> {
	const logo = await saveLogo(world, Buffer.from(MARK), 'orrell-mark.svg');
	const make = (name: string, more: Partial<Look>) => {
		const id = makeLetterhead(world, `demo:${name}`, null);
		renameLetterhead(world, id, name);
		const { version } = loadLetterhead(world.db, id);
		saveLook(world, id, version, readLook({ ...STANDARD_LOOK, logo, logoWidth: 17, ...more }));
		return id;
	};
	make('Orrell', { insurance: 'Insured with Westmarch Mutual, £2,000,000' });
	const heritage = make('Heritage work', {
		typeface: 'serif',
		accent: '#6b4a14',
		tradeBody: 'Guild of Lime Workers, member 118',
		below: 'Lime needs time: please heat gently for four weeks, and keep a window ajar.'
	});
	for (const [name] of KINDS)
		saveWorkKind(world, null, { name, letterheadId: name === 'cornice' ? heritage : null });
	for (const name of ['New work', 'Repairs', 'Advice']) addLineTag(world, 'income', { name });
	for (const name of ['Van', 'Workshop']) addLineTag(world, 'centre', { name });
}

/** What a line of these words is in the reports; most of them nothing in particular. */
export const tagsOfWords = (words: string): { income?: string; centre?: string } =>
	/survey|inspection|report/i.test(words)
		? { income: 'Advice' }
		: /run in|centrepiece/i.test(words)
			? { income: 'New work', centre: 'Workshop' }
			: {};

/** The kind of work that words speak of. */
export function kindOf(world: World, words: string): number {
	const name = KINDS.find(([, fits]) => fits.test(words))![0];
	return listWorkKinds(world.db).find((kind) => kind.name === name)!.id;
}
