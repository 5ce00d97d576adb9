// The press: draws documents, our statements and letters as PDFs, on threads, while the process goes on answering.
import type { DocumentView } from '../../core/documents/viewTypes';
import type { StatementView } from '../../core/documents/statementView';
import type { Letter } from './letterPdf';
import type { PdfOptions } from './pdfParts';
import type { Summary } from './summaryPdf';
import { PdfThreads } from './pdfThreads';

export interface Press {
	document(view: DocumentView, options: PdfOptions): Promise<Buffer>;
	/** One file of several statements, each with a pay page of its own. */
	statements(views: StatementView[], options: PdfOptions[]): Promise<Buffer>;
	letter(letter: Letter): Promise<Buffer>;
	summary(summary: Summary): Promise<Buffer>;
	/** Gets a thread ready, so that the first document does not wait for it. */
	warm(): void;
}

export function threadPress(): Press {
	const threads = new PdfThreads();
	return {
		document: (view, options) => threads.draw({ what: 'document', view, options }),
		statements: (views, options) => threads.draw({ what: 'statements', views, options }),
		letter: (letter) => threads.draw({ what: 'letter', letter }),
		summary: (summary) => threads.draw({ what: 'summary', summary }),
		warm: () => threads.warm()
	};
}
