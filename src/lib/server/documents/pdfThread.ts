// One thread that draws PDFs: takes what is to be drawn, gives back its bytes.
import type { DocumentView } from '../../core/documents/viewTypes';
import type { StatementView } from '../../core/documents/statementView';
import { answerOrders } from '../thread';
import { renderLetter, type Letter } from './letterPdf';
import { renderPdf } from './pdf';
import { type PdfOptions } from './pdfParts';
import { renderSummary, type Summary } from './summaryPdf';
import { renderStatements } from './statementPdf';

export type Drawable =
	| { what: 'document'; view: DocumentView; options: PdfOptions }
	| { what: 'statements'; views: StatementView[]; options: PdfOptions[] }
	| { what: 'letter'; letter: Letter }
	| { what: 'summary'; summary: Summary };

function drawn(drawable: Drawable): Promise<Buffer> {
	switch (drawable.what) {
		case 'document':
			return renderPdf(drawable.view, drawable.options);
		case 'statements':
			return renderStatements(drawable.views, drawable.options);
		case 'letter':
			return renderLetter(drawable.letter);
		case 'summary':
			return renderSummary(drawable.summary);
	}
}

// A copy of its own, so that the bytes can be handed over instead of copied once more.
answerOrders(async (drawable: Drawable) => new Uint8Array(await drawn(drawable)));
