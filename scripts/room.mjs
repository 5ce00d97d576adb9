// Where a run of the tests lays out its data files: a folder of its own, which goes with all that is left in it.
import {
	existsSync,
	mkdirSync,
	mkdtempSync,
	readdirSync,
	rmSync,
	statfsSync,
	statSync,
	symlinkSync
} from 'node:fs';
import { freemem, tmpdir } from 'node:os';
import { join } from 'node:path';

const GIGABYTE = 1024 ** 3;
const DAY_MS = 86_400_000;
const BEGINS = 'axiometer-tests-';

/** Memory, where there is plenty: thousands of data files come and go, and with a disk the units take a tenth longer. */
function roomiest() {
	const memory = '/dev/shm';
	if (process.env.TMPDIR || !existsSync(memory)) return tmpdir();
	const { bavail, bsize } = statfsSync(memory);
	return bavail * bsize > 2 * GIGABYTE && freemem() > 4 * GIGABYTE ? memory : tmpdir();
}

/** What a run left that was broken off. @param {string} place */
function clear(place) {
	for (const name of readdirSync(place).filter((one) => one.startsWith(BEGINS))) {
		const path = join(place, name);
		if (Date.now() - statSync(path).mtimeMs > DAY_MS)
			rmSync(path, { recursive: true, force: true });
	}
}

/** From here on this process, and whatever it starts, has a temporary folder that ends with it. */
export function takeRoom() {
	const place = roomiest();
	clear(place);
	const room = mkdtempSync(join(place, BEGINS));
	// What was translated from TypeScript is used again by the next run.
	const translated = `tsx-${process.geteuid?.()}`;
	mkdirSync(join(tmpdir(), translated), { recursive: true });
	symlinkSync(join(tmpdir(), translated), join(room, translated));
	process.env.TMPDIR = room;
	process.once('exit', () => rmSync(room, { recursive: true, force: true }));
	for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, () => process.exit(130));
}
