// Runs the card stand-in by itself.
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { startCardStandIn } from './server';

const folder = process.env.AXIOMETER_DATA ?? 'data';
const port = Number(process.env.AXIOMETER_CARD_PORT ?? 4427);
mkdirSync(folder, { recursive: true });
await startCardStandIn({
	port,
	file: join(folder, 'stand-in-card.sqlite'),
	origin: `http://127.0.0.1:${port}`,
	secret: process.env.AXIOMETER_CARD_SECRET || 'stand-in-card-secret',
	lateAfter: Number(process.env.AXIOMETER_CARD_LATE_MS ?? 20_000),
	payOutAfter: Number(process.env.AXIOMETER_CARD_PAYOUT_MS ?? 120_000),
	twice: process.env.AXIOMETER_CARD_TWICE === '1',
	outOfOrder: process.env.AXIOMETER_CARD_OUT_OF_ORDER === '1'
});
