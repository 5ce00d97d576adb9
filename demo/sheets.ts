// Job sheets of the demo business: one signed on the phone, one on its way to be signed.
import sharp from 'sharp';
import { deliverDue } from '../src/lib/server/clockwork/delivery';
import { saveTime } from '../src/lib/server/services/jobs/time';
import { saveCost } from '../src/lib/server/services/jobs/costs';
import { saveVisit } from '../src/lib/server/services/jobs/visits';
import { prepareSheet, sendSheet } from '../src/lib/server/services/signing/send';
import { beginSheet, loadSheet } from '../src/lib/server/services/signing/sheets';
import { finishSheet } from '../src/lib/server/services/signing/sheetPaper';
import { recordSignatures, signSheet } from '../src/lib/server/services/signing/sign';
import type { World } from '../src/lib/server/world';

/** What was done on a job on a day: a visit, hours, and what was built in. */
export function workDone(world: World, jobId: number, date: string, note: string): void {
	saveVisit(world, jobId, null, { date, from: '09:00', to: '12:30', note, done: true });
	saveTime(world, jobId, `demo-sheet:${jobId}`, null, {
		date,
		hours: '3:30',
		rate: '45',
		hourlyCost: '18',
		chargeable: false,
		note: ''
	});
	saveCost(world, jobId, `demo-sheet:${jobId}`, null, {
		date,
		description: 'Lime putty, 20 kg',
		quantity: '2',
		unit: 'tub',
		unitCost: '14.20',
		unitPrice: '19.80',
		chargeable: false
	});
}

/** A name as a finger draws it. */
async function drawn(): Promise<string> {
	const path =
		'M20 92c18-46 40-66 46-48S40 104 62 96s34-58 44-52-18 52 2 50 26-34 38-32-10 34 6 32 24-26 34-24-4 22 8 20 34-22 46-18';
	const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="420" height="130"><path d="${path}" fill="none" stroke="#17212b" stroke-width="4" stroke-linecap="round"/></svg>`;
	const png = await sharp(Buffer.from(svg)).png().toBuffer();
	return `data:image/png;base64,${png.toString('base64')}`;
}

export async function sheetOf(
	world: World,
	jobId: number,
	signer: { name: string; position: string } | null
): Promise<void> {
	const id = beginSheet(world, jobId, `demo-sheet:${jobId}`);
	await finishSheet(world, id, loadSheet(world.db, id).version);
	if (signer) {
		signSheet(
			world,
			id,
			{
				key: 'demo',
				...signer,
				signature: await drawn(),
				of: loadSheet(world.db, id).sha256
			},
			{ way: 'phone', from: { address: '192.0.2.14', agent: 'A phone' } }
		);
		await recordSignatures(world);
		return;
	}
	sendSheet(world, id, { key: 'demo', ...prepareSheet(world, id) });
	await deliverDue(world);
}
