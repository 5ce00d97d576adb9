// What the environment says, checked at start: a wrong value is a clear message and no start.
import { z } from 'zod';

const port = (standard: number) =>
	z.coerce
		.number({ error: 'expected a port number' })
		.int('expected a whole port number')
		.min(1, 'expected a port from 1 to 65535')
		.max(65535, 'expected a port from 1 to 65535')
		.default(standard);

const clock = z
	.string()
	.refine(
		(text) =>
			text === 'system' ||
			(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2})?$/.test(text) &&
				!Number.isNaN(Date.parse(`${text}Z`))),
		'expected "system", or a moment such as 2026-11-24T09:00'
	)
	.default('system');

const schema = z
	.object({
		AXIOMETER_PORT: port(4400),
		AXIOMETER_HOST: z.string().min(1).default('127.0.0.1'),
		AXIOMETER_ORIGIN: z
			.url({ error: 'expected the address people open, such as https://bills.example' })
			.optional(),
		AXIOMETER_DATA: z.string().min(1, 'expected a folder').default('data'),
		AXIOMETER_CLOCK: clock,
		AXIOMETER_DEMO: z.enum(['0', '1'], { error: 'expected 0 or 1' }).default('0'),
		AXIOMETER_STAND_INS: z.enum(['0', '1'], { error: 'expected 0 or 1' }).default('1'),
		AXIOMETER_MAIL_PORT: port(4425),
		AXIOMETER_INBOX_PORT: port(4426),
		AXIOMETER_CARD_PORT: port(4427),
		AXIOMETER_TEXT_PORT: port(4428),
		AXIOMETER_BANK_PORT: port(4429),
		AXIOMETER_SMTP_URL: z.url({ error: 'expected smtp://host:port' }).optional(),
		AXIOMETER_CARD_URL: z.url({ error: 'expected the address of the card processor' }).optional(),
		AXIOMETER_CARD_SECRET: z
			.string()
			.min(12, 'expected at least 12 characters')
			.default('stand-in-card-secret'),
		AXIOMETER_TEXT_URL: z.url({ error: 'expected the address of the text gateway' }).optional(),
		AXIOMETER_TEXT_SECRET: z
			.string()
			.min(12, 'expected at least 12 characters')
			.default('stand-in-text-secret'),
		AXIOMETER_BANK_URL: z
			.url({ error: 'expected the address of the pay-by-bank service' })
			.optional(),
		AXIOMETER_BANK_SECRET: z
			.string()
			.min(12, 'expected at least 12 characters')
			.default('stand-in-bank-secret')
	})
	.transform((env) => ({
		port: env.AXIOMETER_PORT,
		host: env.AXIOMETER_HOST,
		origin: (env.AXIOMETER_ORIGIN ?? `http://127.0.0.1:${env.AXIOMETER_PORT}`).replace(/\/$/, ''),
		dataFolder: env.AXIOMETER_DATA,
		clock: env.AXIOMETER_CLOCK,
		demo: env.AXIOMETER_DEMO === '1',
		standIns: env.AXIOMETER_STAND_INS === '1',
		mailPort: env.AXIOMETER_MAIL_PORT,
		inboxPort: env.AXIOMETER_INBOX_PORT,
		cardPort: env.AXIOMETER_CARD_PORT,
		smtpUrl: env.AXIOMETER_SMTP_URL ?? `smtp://127.0.0.1:${env.AXIOMETER_MAIL_PORT}`,
		cardUrl: (env.AXIOMETER_CARD_URL ?? `http://127.0.0.1:${env.AXIOMETER_CARD_PORT}`).replace(
			/\/$/,
			''
		),
		cardSecret: env.AXIOMETER_CARD_SECRET,
		textPort: env.AXIOMETER_TEXT_PORT,
		textUrl: (env.AXIOMETER_TEXT_URL ?? `http://127.0.0.1:${env.AXIOMETER_TEXT_PORT}`).replace(
			/\/$/,
			''
		),
		textSecret: env.AXIOMETER_TEXT_SECRET,
		bankPort: env.AXIOMETER_BANK_PORT,
		bankUrl: (env.AXIOMETER_BANK_URL ?? `http://127.0.0.1:${env.AXIOMETER_BANK_PORT}`).replace(
			/\/$/,
			''
		),
		bankSecret: env.AXIOMETER_BANK_SECRET
	}));

export type Config = z.output<typeof schema>;

export class ConfigError extends Error {}

/** @throws ConfigError that names each wrong variable and what was expected. */
export function readConfig(env: Record<string, string | undefined>): Config {
	const given = Object.fromEntries(
		Object.entries(env).filter(([key, value]) => key.startsWith('AXIOMETER_') && value !== '')
	);
	const result = schema.safeParse(given);
	if (result.success) return result.data;
	const lines = result.error.issues.map(
		(issue) =>
			`  ${issue.path.join('.')}=${String(given[String(issue.path[0])] ?? '')}: ${issue.message}`
	);
	throw new ConfigError(
		`Axiometer did not start. These environment variables are wrong:\n${lines.join('\n')}`
	);
}
