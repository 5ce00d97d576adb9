// Runs the pay-by-bank stand-in by itself.
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { startBankStandIn } from './server';

const folder = process.env.AXIOMETER_DATA ?? 'data';
const port = Number(process.env.AXIOMETER_BANK_PORT ?? 4429);
mkdirSync(folder, { recursive: true });
await startBankStandIn({
	port,
	file: join(folder, 'stand-in-bank.sqlite'),
	origin: `http://127.0.0.1:${port}`,
	secret: process.env.AXIOMETER_BANK_SECRET || 'stand-in-bank-secret',
	lateAfter: Number(process.env.AXIOMETER_BANK_LATE_MS ?? 20_000)
});
