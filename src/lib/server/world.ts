// What services work with: the data, the clock, and the gateways to the outside. Made once, passed in.
import type { Clock } from './clock';
import type { Database } from './db/connection';
import type { Press } from './documents/press';
import type { BankGateway } from './gateways/bank';
import type { CardGateway } from './gateways/card';
import type { MailGateway } from './gateways/mail';
import type { TextGateway } from './gateways/text';

export interface World {
	db: Database;
	clock: Clock;
	mail: MailGateway;
	text: TextGateway;
	card: CardGateway;
	/** Payments from the payer's own bank. */
	bank: BankGateway;
	/** Draws PDFs. */
	press: Press;
	/** Where the app is reached, without a slash at the end. */
	origin: string;
}
