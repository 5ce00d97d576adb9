// What the figures refuse, said at the place of the sheet where it can be put right.
import type { FiguresError } from '../figures/types';
import type { Problem, SheetLine } from './types';

const asSentence = (text: string) => `${text[0]!.toUpperCase()}${text.slice(1)}.`;

export function explainFiguresError(error: FiguresError, lines: SheetLine[]): Problem {
	switch (error.path) {
		case 'pricesIncludeVat':
			return {
				path: 'pricesIncludeVat',
				level: 'stop',
				message: 'This customer accounts for the VAT itself, so prices cannot include it.',
				fix: {
					label: 'Make prices without VAT',
					type: 'set',
					field: 'pricesIncludeVat',
					value: false
				},
				reference: 'VATA 1994 s.55A'
			};
		case 'vatRounding':
			return {
				path: 'roundVatDown',
				level: 'stop',
				message: 'VAT may be rounded down only between businesses, on prices without VAT.',
				fix: {
					label: 'Round to the nearest penny',
					type: 'set',
					field: 'roundVatDown',
					value: false
				},
				reference: 'VAT Notice 700 para 17.5'
			};
		case 'cisRate':
			return {
				path: 'currency',
				level: 'stop',
				message: 'CIS deductions are made in pounds: whoever deducts is billed in pounds.',
				fix: { label: 'Bill in pounds', type: 'set', field: 'currency', value: 'GBP' },
				reference: 'FA 2004 s.61'
			};
		case 'retention':
			return {
				path: 'retention',
				level: 'stop',
				message: 'A retention needs prices without VAT and lines that add up to more than nothing.',
				fix: { label: 'Hold nothing back', type: 'set', field: 'retention', value: '' }
			};
		case 'discount':
			return {
				path: 'discount',
				level: 'stop',
				message: 'The discount is larger than the lines it is taken from.',
				fix: { label: 'Take the discount out', type: 'set', field: 'discount', value: '' }
			};
		case 'date':
			return {
				path: 'workFinished',
				level: 'stop',
				message: asSentence(error.message)
			};
		default: {
			const match = /^lines\.(\d+)\.(\w+)$/.exec(error.path);
			const line = match ? lines[Number(match[1])] : undefined;
			const path = line ? `rows.${line.id}.${match![2]}` : error.path;
			return {
				path,
				level: 'stop',
				message: asSentence(error.message)
			};
		}
	}
}
