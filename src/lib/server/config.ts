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

/** What the stand-ins sign with: whoever reads the source knows it. */
const KNOWN_SECRETS = {
	AXIOMETER_CARD_SECRET: 'stand-in-card-secret',
	AXIOMETER_TEXT_SECRET: 'stand-in-text-secret',
	AXIOMETER_BANK_SECRET: 'stand-in-bank-secret'
} as const;
const secret = z.string().min(12, 'expected at least 12 characters').optional();

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
		AXIOMETER_CARD_SECRET: secret,
		AXIOMETER_TEXT_URL: z.url({ error: 'expected the address of the text gateway' }).optional(),
		AXIOMETER_TEXT_SECRET: secret,
		AXIOMETER_BANK_URL: z
			.url({ error: 'expected the address of the pay-by-bank service' })
			.optional(),
		AXIOMETER_BANK_SECRET: secret,
		/** Of the key that seals secrets at rest, where it takes one. */
		AXIOMETER_PASSPHRASE: z.string().optional(),
		AXIOMETER_SETUP_CODE: z.string().min(12, 'expected at least 12 characters').optional(),
		/** How many proxies stand in front, each of which adds the address it was asked from. */
		AXIOMETER_PROXIES: z.coerce
			.number({ error: 'expected how many proxies stand in front' })
			.int()
			.min(0)
			.max(9)
			.default(0),
		AXIOMETER_PAY_PAGES: z
			.string()
			.refine(
				(text) => text.split(' ').every((one) => z.url().safeParse(one).success),
				'expected the addresses of the pages on which customers pay, with a space between them'
			)
			.optional()
	})
	.superRefine((env, context) => {
		if (env.AXIOMETER_STAND_INS === '1') return;
		// Without stand-ins whoever knows a secret can say that an invoice is paid: none that is published will do.
		const published: readonly string[] = Object.values(KNOWN_SECRETS);
		for (const name of Object.keys(KNOWN_SECRETS)) {
			const given = env[name as keyof typeof KNOWN_SECRETS];
			if (given === undefined || published.includes(given))
				context.addIssue({
					code: 'custom',
					path: [name],
					message: 'expected a secret of your own, as the service gave it to you'
				});
		}
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
		cardSecret: env.AXIOMETER_CARD_SECRET ?? KNOWN_SECRETS.AXIOMETER_CARD_SECRET,
		textPort: env.AXIOMETER_TEXT_PORT,
		textUrl: (env.AXIOMETER_TEXT_URL ?? `http://127.0.0.1:${env.AXIOMETER_TEXT_PORT}`).replace(
			/\/$/,
			''
		),
		textSecret: env.AXIOMETER_TEXT_SECRET ?? KNOWN_SECRETS.AXIOMETER_TEXT_SECRET,
		bankPort: env.AXIOMETER_BANK_PORT,
		bankUrl: (env.AXIOMETER_BANK_URL ?? `http://127.0.0.1:${env.AXIOMETER_BANK_PORT}`).replace(
			/\/$/,
			''
		),
		bankSecret: env.AXIOMETER_BANK_SECRET ?? KNOWN_SECRETS.AXIOMETER_BANK_SECRET,
		passphrase: env.AXIOMETER_PASSPHRASE,
		setupCode: env.AXIOMETER_SETUP_CODE,
		proxies: env.AXIOMETER_PROXIES,
		/** Where the browser may go to pay: the services' own hosts unless they say otherwise. */
		payPages: (
			env.AXIOMETER_PAY_PAGES?.split(' ') ?? [
				env.AXIOMETER_CARD_URL ?? `http://127.0.0.1:${env.AXIOMETER_CARD_PORT}`,
				env.AXIOMETER_BANK_URL ?? `http://127.0.0.1:${env.AXIOMETER_BANK_PORT}`
			]
		).map((address) => new URL(address).origin)
	}));

export type Config = z.output<typeof schema>;

export class ConfigError extends Error {}

/** A secret is not repeated, where logs may keep it. */
const shown = (name: string, given: Record<string, string | undefined>): string =>
	/SECRET|CODE|PASSPHRASE/.test(name) ? (given[name] ? '…' : '') : (given[name] ?? '');

/** @throws ConfigError that names each wrong variable and what was expected. */
export function readConfig(env: Record<string, string | undefined>): Config {
	const given = Object.fromEntries(
		Object.entries(env).filter(([key, value]) => key.startsWith('AXIOMETER_') && value !== '')
	);
	const result = schema.safeParse(given);
	if (result.success) return result.data;
	const lines = result.error.issues.map(
		(issue) => `  ${issue.path.join('.')}=${shown(String(issue.path[0]), given)}: ${issue.message}`
	);
	throw new ConfigError(
		`Axiometer did not start. These environment variables are wrong:\n${lines.join('\n')}`
	);
}
