// The thread that reads one bank statement and says what it is, or what is wrong with it.
import { parentPort } from 'node:worker_threads';
import { readBankFile } from '../../../../core/formats/bank/file';
import type { CsvLayout } from '../../../../core/formats/bank/headings';
import { TableError } from '../../../../core/formats/table';
import type { ReadAnswer } from './reading';

parentPort!.on('message', ({ bytes, layout }: { bytes: Uint8Array; layout: CsvLayout | null }) => {
	try {
		parentPort!.postMessage({ file: readBankFile(bytes, layout) } satisfies ReadAnswer);
	} catch (error) {
		if (!(error instanceof TableError)) throw error;
		parentPort!.postMessage({ wrong: error.message } satisfies ReadAnswer);
	}
});
