// Runs the mail stand-in by itself.
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { startMailStandIn } from './server';

const folder = process.env.AXIOMETER_DATA ?? 'data';
mkdirSync(folder, { recursive: true });
await startMailStandIn({
	smtpPort: Number(process.env.AXIOMETER_MAIL_PORT ?? 4425),
	inboxPort: Number(process.env.AXIOMETER_INBOX_PORT ?? 4426),
	file: join(folder, 'stand-in-mail.sqlite')
});
