// By which rule a sheet's supply takes place, and when its lines do.
import type { PlainDate } from '../calendar/types';
import { decideTaxPoint } from '../regimes/gb/taxPoint';
import type { TaxPointRule } from '../regimes/gb/taxPoints';
import type { Sheet, SheetLine } from './types';

/** A stage and a retention released are not tied to the end of the work (VAT Regulations 1995 reg. 89, 93). */
export function taxPointRuleOf(sheet: Pick<Sheet, 'releases' | 'stageId'>): TaxPointRule {
	if (sheet.releases?.length) return 'retention';
	return sheet.stageId === undefined ? 'work' : 'stages';
}

/** Where a line bills work that ended on a day of its own: its tax point, which a credit note copies; null: the document's. */
export function lineTaxPoint(
	line: Pick<SheetLine, 'workDone'>,
	document: { issueDate: PlainDate; corrects?: { issueDate: PlainDate } | null }
): PlainDate | null {
	if (!line.workDone) return null;
	// A run never mixes days on which the seller's standing differed.
	return decideTaxPoint(
		{
			rule: 'work',
			workFinished: line.workDone,
			issued: (document.corrects ?? document).issueDate
		},
		() => true
	).date;
}
