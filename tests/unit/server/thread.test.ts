// A thread that is asked: its answers, what it refuses, and that nobody waits for one that has died.
import { expect } from 'chai';
import { afterEach, describe, it } from 'mocha';
import { troubleOf } from '../../../src/lib/server/db/trouble';
import { Thread, TooLongError } from '../../../src/lib/server/thread';
import type { TestJob } from '../../support/threadJobs';

type Asked = { job: TestJob; given?: number };
let ended: Thread<Asked>[] = [];
let thread: Thread<Asked>;
const begin = (limits = {}) => {
	ended = [];
	thread = new Thread<Asked>('tests/support/threadJobs.ts', (one) => ended.push(one), limits);
};
/** Those before it may end while it goes on. */
const gone = () => ended.filter((one) => one === thread).length;

const failure = (asked: Promise<unknown>) =>
	asked.then(
		() => expect.fail('it was answered'),
		(error: NodeJS.ErrnoException) => error
	);

describe('a thread', () => {
	afterEach(() => thread.end());

	it('answers each who asks with what is theirs, and says how far it is', async () => {
		begin();
		const told: unknown[] = [];
		const asked = [
			thread.ask<number>({ job: 'double', given: 4 }),
			thread.ask<number>({ job: 'tells' }, { progress: (one) => told.push(one) }),
			thread.ask<Uint8Array>({ job: 'bytes', given: 3 })
		] as const;
		expect(thread.load).to.equal(3);
		const [eight, three, bytes] = await Promise.all(asked);
		expect([eight, three, [...bytes]]).to.deep.equal([8, 3, [7, 7, 7]]);
		expect(told).to.deep.equal([1, 2]);
		expect(thread.load).to.equal(0);
	});

	it('hands on what failed with its code, and goes on', async () => {
		begin();
		const error = await failure(thread.ask({ job: 'fails' }));
		expect(error.message).to.equal('no room');
		expect(troubleOf(error)).to.match(/no room left on the disk/);
		expect(await thread.ask({ job: 'double', given: 1 })).to.equal(2);
		expect(gone()).to.equal(0);
	});

	it('that dies fails all it was asked, and says that it is gone', async () => {
		begin();
		const asked = [failure(thread.ask({ job: 'never' })), failure(thread.ask({ job: 'dies' }))];
		const errors = await Promise.all(asked);
		expect(errors.map((one) => one.message)).to.deep.equal([
			'the thread ended (1)',
			'the thread ended (1)'
		]);
		expect([thread.load, gone() > 0]).to.deep.equal([0, true]);
	});

	it('that is ended is gone at once, so that nobody asks it any more', async () => {
		begin();
		expect(await thread.ask({ job: 'double', given: 1 })).to.equal(2);
		expect(gone()).to.equal(0);
		thread.end();
		expect(gone()).to.equal(1);
	});

	it('that takes longer than it may is ended', async () => {
		begin();
		const error = await failure(thread.ask({ job: 'never' }, { patience: 50 }));
		expect(error).to.be.instanceOf(TooLongError);
		expect(gone()).to.equal(1);
		expect(thread.load).to.equal(0);
	});

	it('that takes more memory than it may ends alone', async () => {
		begin({ maxOldGenerationSizeMb: 40 });
		const error = await failure(thread.ask({ job: 'hungry' }));
		expect(error.code).to.equal('ERR_WORKER_OUT_OF_MEMORY');
		expect(thread.load).to.equal(0);
	});
});
