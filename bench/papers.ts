// What is drawn and read while somebody waits: the preview of a letterhead after a change, and a receipt from its photo.
// Asked for: a preview within a second of a change. Ratios: against the same document drawn as it was issued; a crooked photo
// against a straight one.
import { readFileSync } from 'node:fs';
import { readReceipt } from '../src/lib/core/costs/receipt';
import { SIZES, STANDARD_LOOK } from '../src/lib/core/letterheads/look';
import { drawOn } from '../src/lib/server/services/desk/letterheadPreview';
import { readPhoto, stopReading } from '../src/lib/server/reading/reader';
import { HOUSEHOLD, issued, makeWorld } from '../tests/support/world';
import { threadPress } from '../src/lib/server/documents/press';

const TIMES = 9;
const median = (times: number[]): number => times.sort((a, b) => a - b)[times.length >> 1]!;

const world = makeWorld();
world.press = threadPress();
const { id } = await issued(world, HOUSEHOLD);
const took = async (work: () => Promise<unknown>): Promise<number> => {
	const began = performance.now();
	await work();
	return performance.now() - began;
};

console.log('A letterhead’s preview, after a change');
const first = await took(() => drawOn(world, STANDARD_LOOK, id));
const same: number[] = [];
const changed: number[] = [];
for (let n = 0; n < TIMES; n++) {
	same.push(await took(() => drawOn(world, STANDARD_LOOK, id)));
	const size = SIZES[n % 3]!;
	changed.push(
		await took(() =>
			drawOn(world, { ...STANDARD_LOOK, accent: `#${(0x204060 + n * 7).toString(16)}`, size }, id)
		)
	);
}
console.log(`the first, with its thread   ${first.toFixed(0)} ms`);
console.log(
	`after a change   ${median(changed).toFixed(0)} ms, ${(median(changed) / median(same)).toFixed(2)} times one without (asked: within 1,000 ms)`
);

interface Made {
	name: string;
	date: string;
	total: number;
}
const made = JSON.parse(readFileSync('tests/fixtures/receipts/expected.json', 'utf8')) as Made[];
console.log('Receipts read from their photos');
const times: number[] = [];
let right = 0;
let wrong = 0;
await readPhoto(readFileSync(`tests/fixtures/receipts/${made[0]!.name}`));
for (const { name, date, total } of made) {
	let text = '';
	times.push(
		await took(async () => {
			text = await readPhoto(readFileSync(`tests/fixtures/receipts/${name}`));
		})
	);
	const read = readReceipt(text, '2026-11-27');
	if (read.total?.value === total && read.date?.value === date) right++;
	if (
		(read.total?.sure && read.total.value !== total) ||
		(read.date?.sure && read.date.value !== date)
	)
		wrong++;
}
const slowest = Math.max(...times);
console.log(
	`${right} of ${made.length} right, ${wrong} wrong and shown as certain; ${median(times).toFixed(0)} ms each, the slowest ${(slowest / median(times)).toFixed(1)} times that`
);
await stopReading();
world.end();
process.exit(0);
