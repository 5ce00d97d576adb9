// One thread that draws PDFs: takes a document's view, gives back its bytes.
import { parentPort } from 'node:worker_threads';
import type { DocumentView } from '../../core/documents/view';
import type { StatementView } from '../../core/documents/statementView';
import { renderPdf, type PdfOptions } from './pdf';
import { renderStatements } from './statementPdf';

/** Several statements make one file, each with a pay page of its own. */
export type Drawable = DocumentView | StatementView | StatementView[];

export interface DrawOrder {
	id: number;
	view: Drawable;
	options: PdfOptions;
	payUrls?: (string | null)[] | undefined;
}
export type DrawAnswer = { id: number; pdf: Uint8Array } | { id: number; error: string };

function drawn({ view, options, payUrls }: DrawOrder): Promise<Buffer> {
	if (Array.isArray(view))
		return renderStatements(
			view,
			view.map((_, index) => ({ ...options, payUrl: payUrls?.[index] ?? null }))
		);
	return 'kind' in view ? renderStatements([view], [options]) : renderPdf(view, options);
}

parentPort!.on('message', (order: DrawOrder) => {
	const { id } = order;
	drawn(order).then(
		(pdf) => parentPort!.postMessage({ id, pdf: new Uint8Array(pdf) } satisfies DrawAnswer),
		(error: Error) => parentPort!.postMessage({ id, error: error.message } satisfies DrawAnswer)
	);
});
