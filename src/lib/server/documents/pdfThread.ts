// One thread that draws PDFs: takes what is to be drawn, gives back its bytes.
import { parentPort } from 'node:worker_threads';
import type { DocumentView } from '../../core/documents/viewTypes';
import type { StatementView } from '../../core/documents/statementView';
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

export interface DrawOrder {
	id: number;
	drawable: Drawable;
}
export type DrawAnswer = { id: number; pdf: Uint8Array } | { id: number; error: string };

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

parentPort!.on('message', ({ id, drawable }: DrawOrder) => {
	drawn(drawable).then(
		(buffer) => {
			// A copy of its own, so that the bytes can be handed over instead of copied once more.
			const pdf = new Uint8Array(buffer);
			parentPort!.postMessage({ id, pdf } satisfies DrawAnswer, [pdf.buffer]);
		},
		(error: Error) => parentPort!.postMessage({ id, error: error.message } satisfies DrawAnswer)
	);
});
