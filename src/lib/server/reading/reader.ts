// Reads the letters off a photo, on this machine: one after the other, in a thread of its own that ends when nothing is asked for.
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { picture } from '../pictures';
import type { Worker } from 'tesseract.js';

const require = createRequire(import.meta.url);

/** So long nobody waits for a photo. */
const LONGEST_MS = 30_000;
const IDLE_MS = 60_000;

/** Enough for small print, and not so much that it takes long. */
const HEIGHT = 2200;
const WIDTH = 1500;

let worker: Promise<Worker> | null = null;
let queue: Promise<unknown> = Promise.resolve();
let idle: ReturnType<typeof setTimeout> | undefined;

function startWorker(): Promise<Worker> {
	return (async () => {
		// Where the language's data is not there, this fails, and photos are simply not read.
		const data = dirname(require.resolve('@tesseract.js-data/eng/package.json'));
		const { createWorker, OEM } = await import('tesseract.js');
		const made = await createWorker('eng', OEM.LSTM_ONLY, {
			langPath: join(data, '4.0.0_best_int'),
			cacheMethod: 'none',
			gzip: true
		});
		// A receipt is one column of lines; spaces between its columns mean something.
		await made.setParameters({
			tessedit_pageseg_mode: '6' as never,
			preserve_interword_spaces: '1'
		});
		return made;
	})();
}

async function end(): Promise<void> {
	const ending = worker;
	worker = null;
	await ending?.then((one) => one.terminate()).catch(() => undefined);
}

const withLimit = <T>(work: Promise<T>): Promise<T> =>
	Promise.race([
		work,
		new Promise<never>((_, refuse) =>
			setTimeout(() => refuse(new Error('reading took too long')), LONGEST_MS).unref()
		)
	]);

/** Grey, evenly lit, as large as its letters need, and upright: what the machine reads best. */
async function prepared(photo: Buffer, turn: number): Promise<Buffer> {
	const whole = await picture(photo, { limitInputPixels: 100_000_000, failOn: 'error' });
	return whole
		.rotate()
		.flatten({ background: '#ffffff' })
		.resize({ width: WIDTH, height: HEIGHT, fit: 'inside' })
		.greyscale()
		.rotate(turn, { background: '#ffffff' })
		.normalise()
		.sharpen()
		.png()
		.toBuffer();
}

/** How many degrees a photo is turned, from how its rows of ink line up: within ten either way. */
export async function tiltOf(photo: Buffer): Promise<number> {
	const whole = await picture(photo, { limitInputPixels: 100_000_000 });
	const small = await whole
		.rotate()
		.flatten({ background: '#ffffff' })
		.greyscale()
		.resize({ width: 500, height: 700, fit: 'inside' })
		.normalise()
		.raw()
		.toBuffer({ resolveWithObject: true });
	const { width, height } = small.info;
	const ink: [x: number, y: number][] = [];
	const mean = small.data.reduce((sum, one) => sum + one, 0) / small.data.length;
	for (let y = 0; y < height; y++)
		for (let x = 0; x < width; x++) if (small.data[y * width + x]! < mean * 0.6) ink.push([x, y]);
	let best = { angle: 0, score: -1 };
	for (let angle = -10; angle <= 10; angle += 0.5) {
		const slope = Math.tan((angle * Math.PI) / 180);
		const rows = new Float64Array(height * 2);
		for (const [x, y] of ink) {
			const row = Math.round(y + slope * x + height / 2);
			if (row >= 0 && row < rows.length) rows[row]! += 1;
		}
		// Where lines of print lie in rows, some rows are full and others empty.
		let score = 0;
		for (let row = 1; row < rows.length; row++) score += (rows[row]! - rows[row - 1]!) ** 2;
		if (score > best.score) best = { angle, score };
	}
	return best.angle;
}

/** The letters on a photo, a line each. @throws Error where it cannot be read, or nothing here can */
export function readPhoto(photo: Buffer): Promise<string> {
	const work = async (): Promise<string> => {
		clearTimeout(idle);
		try {
			const tilt = await tiltOf(photo);
			const picture = await prepared(photo, tilt);
			worker ??= startWorker();
			const reading = await worker;
			const { data } = await withLimit(reading.recognize(picture));
			return data.text;
		} catch (error) {
			// Whatever state it is in, the next photo begins anew.
			await end();
			throw error;
		} finally {
			idle = setTimeout(() => void end(), IDLE_MS);
			idle.unref();
		}
	};
	const turn = queue.then(work, work);
	queue = turn.catch(() => undefined);
	return turn;
}

/** For tests, and before the process ends. */
export const stopReading = end;
