// Mail, as SMTP. The interface is what services see; the adapter talks to any SMTP server.
import type { Transporter, TransportOptions } from 'nodemailer';

export interface MailMessage {
	messageId: string;
	from: { name: string; address: string };
	to: string;
	/** Others who get it openly. */
	cc: string;
	bcc: string;
	subject: string;
	text: string;
	html: string;
	attachments: { filename: string; content: Buffer; contentType: string }[];
}

/** An address that the server did not take, while it took others of the same message. */
export interface Missed {
	address: string;
	reason: string;
	/** It said no for good; otherwise trying again may help. */
	forGood: boolean;
}

export type MailOutcome =
	/** Handed over for all, or for all but those who are missed. */
	| { state: 'sent'; missed?: Missed[] }
	/** The server said no for good. */
	| { state: 'refused'; reason: string }
	/** Nothing was handed over; trying again later is safe. */
	| { state: 'later'; reason: string }
	/** The line broke after the message was handed over: it may have gone. */
	| { state: 'unsure'; reason: string };

export interface MailGateway {
	send(message: MailMessage): Promise<MailOutcome>;
}

interface SmtpError extends Error {
	code?: string;
	responseCode?: number;
}

export function smtpGateway(url: string): MailGateway {
	return {
		async send(message) {
			// Loaded by the first mail rather than by each start.
			const { createTransport } = await import('nodemailer');
			const transport = createTransport({
				url,
				connectionTimeout: 20_000,
				greetingTimeout: 20_000,
				socketTimeout: 60_000,
				ignoreTLS: url.startsWith('smtp://127.0.0.1')
			} as TransportOptions);
			const progress = watchHandover(transport);
			try {
				const answer = (await transport.sendMail({
					...message,
					cc: message.cc || undefined,
					bcc: message.bcc || undefined
				})) as { rejectedErrors?: (SmtpError & { recipient?: string })[] };
				const missed = (answer.rejectedErrors ?? []).map(({ recipient, responseCode = 550 }) => ({
					address: recipient ?? '',
					reason: `the mail server answered ${responseCode}`,
					forGood: responseCode >= 500
				}));
				return missed.length ? { state: 'sent', missed } : { state: 'sent' };
			} catch (error) {
				return classify(error as SmtpError, progress.handedOver);
			} finally {
				transport.close();
			}
		}
	};
}

/**
 * Tells whether the text of the message began to go over. The library begins to pipe it when the server has
 * said go ahead; a connection that breaks before can safely be tried again, one that breaks after cannot.
 */
function watchHandover(transport: Transporter): { handedOver: boolean } {
	const progress = { handedOver: false };
	transport.use('stream', (mail, done) => {
		const create = mail.message.createReadStream.bind(mail.message);
		mail.message.createReadStream = (options) => {
			const stream = create(options);
			const pipe = stream.pipe.bind(stream);
			stream.pipe = (target, pipeOptions) => {
				progress.handedOver = true;
				return pipe(target, pipeOptions);
			};
			return stream;
		};
		done();
	});
	return progress;
}

function classify(error: SmtpError, handedOver: boolean): MailOutcome {
	if (error.responseCode !== undefined) {
		const reason = `the mail server answered ${error.responseCode}`;
		return error.responseCode >= 500 ? { state: 'refused', reason } : { state: 'later', reason };
	}
	if (error.code === 'EENVELOPE')
		return { state: 'refused', reason: 'the address is not one mail can be sent to' };
	if (handedOver)
		return { state: 'unsure', reason: 'the line broke while the message was handed over' };
	return { state: 'later', reason: 'the mail server could not be reached' };
}
