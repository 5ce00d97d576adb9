// Runs the text-message stand-in by itself.
import { startTextStandIn } from './server';

await startTextStandIn({
	port: Number(process.env.AXIOMETER_TEXT_PORT ?? 4428),
	secret: process.env.AXIOMETER_TEXT_SECRET || 'stand-in-text-secret'
});
