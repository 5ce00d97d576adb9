// What a thread of the tests does: answers, refuses, tells, dies, never ends, takes all memory.
import { answerOrders } from '../../src/lib/server/thread';

export type TestJob = 'double' | 'bytes' | 'fails' | 'tells' | 'dies' | 'never' | 'hungry';

answerOrders(async ({ job, given = 0 }: { job: TestJob; given?: number }, progress) => {
	switch (job) {
		case 'double':
			return given * 2;
		case 'bytes':
			return new Uint8Array(given).fill(7);
		case 'fails':
			throw Object.assign(new Error('no room'), { code: 'SQLITE_FULL' });
		case 'tells':
			progress(1);
			progress(2);
			return 3;
		case 'dies':
			process.exit(1);
			break;
		case 'never':
			return new Promise(() => undefined);
		case 'hungry': {
			const kept: object[] = [];
			for (;;) kept.push({ more: kept.length });
		}
	}
	return null;
});
