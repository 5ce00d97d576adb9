// A page drawn in the standard look is dressed in a letterhead: its typeface, its size of type, its colour.
import type { Look, Typeface } from '../../core/letterheads/look';
import { ACCENT } from './pdfParts';

/** Millimetres as the points of a PDF. */
export const points = (millimetres: number): number => (millimetres * 72) / 25.4;

const SCALE = { small: 0.9, normal: 1, large: 1.15 } as const;

const FACES: Record<Typeface, Record<string, string>> = {
	grotesque: {},
	plain: { Heading: 'Text', HeadingMore: 'TextMore' },
	serif: { Heading: 'Serif', HeadingMore: 'SerifMore', Text: 'Serif', TextMore: 'SerifMore' }
};

/** What of a node is an amount of type, a typeface, a colour. */
const COLOURS = ['color', 'fillColor'] as const;

interface Node {
	font?: string;
	fontSize?: number;
	[key: string]: unknown;
}

/**
 * Changes what was drawn, in place: a row of a table is looked for again after it was laid out. Functions (headers, layouts)
 * draw what they give back in the same dress.
 */
export function dress<T>(drawn: T, look: Look): T {
	const scale = SCALE[look.size];
	const faces = FACES[look.typeface];
	if (scale === 1 && look.typeface === 'grotesque' && look.accent === ACCENT) return drawn;
	const walk = (value: unknown): unknown => {
		if (Array.isArray(value)) {
			for (const one of value) walk(one);
			return value;
		}
		if (typeof value !== 'object' || value === null || ArrayBuffer.isView(value)) return value;
		const node = value as Node;
		if (typeof node.font === 'string') node.font = faces[node.font] ?? node.font;
		if (typeof node.fontSize === 'number') node.fontSize *= scale;
		for (const key of COLOURS) if (node[key] === ACCENT) node[key] = look.accent;
		for (const [key, one] of Object.entries(node)) {
			if (typeof one === 'function') node[key] = dressed(one as (...given: unknown[]) => unknown);
			else walk(one);
		}
		return value;
	};
	const dressed =
		(draws: (...given: unknown[]) => unknown) =>
		(...given: unknown[]): unknown => {
			const made = draws(...given);
			return made === ACCENT ? look.accent : walk(made);
		};
	return walk(drawn) as T;
}
