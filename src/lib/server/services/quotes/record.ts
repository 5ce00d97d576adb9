// The record of an acceptance: the PDF of exactly what was accepted, drawn after it, kept for good, and sent to both.
import { and, asc, eq, isNull } from 'drizzle-orm';
import { displayMoment, displayDate } from '../../../core/calendar/conversion';
import { quoteMessage } from '../../../core/quotes/wording';
import { quoteView } from '../../../core/quotes/view';
import { ACKNOWLEDGE_WORDS, BEGIN_WORDS } from '../../../core/regimes/gb/consumer';
import { writeAtOnce } from '../../db/connection';
import { acceptances, depositRequests, quoteVersions } from '../../db/schema';
import type { World } from '../../world';
import { sha256 } from '../business/keys';
import { loadBusiness } from '../business/settings';
import { mailAddresses } from '../customers/parts';
import { drawDocument } from '../letterheads/dress';
import { queueMail } from '../messages/outbox';
import { greetedOf, voiceFor } from '../wordings/voice';
import type { Acceptance } from './accept';
import { chosenOn } from './agree';
import { cancelLimit } from './cancel';
import { loadQuote, noteQuote } from './quotes';
import { quoteLink } from './send';

const WAYS: Record<Acceptance['way'], string> = {
	page: 'on its page',
	spot: 'on the spot',
	byHand: 'as written down by us'
};

let drawing: Promise<void> | null = null;

/** Draws what is missing, and queues what goes out with it. Safe to run twice: the record is set once, mails are keyed. */
export function confirmAcceptances(world: World): Promise<void> {
	drawing ??= confirmAll(world).finally(() => (drawing = null));
	return drawing;
}

async function confirmAll(world: World): Promise<void> {
	const waiting = world.db
		.select()
		.from(acceptances)
		.where(isNull(acceptances.record))
		.orderBy(asc(acceptances.id))
		.all();
	for (const acceptance of waiting) await confirm(world, acceptance);
}

async function confirm(world: World, acceptance: Acceptance): Promise<void> {
	const { db } = world;
	const version = db
		.select()
		.from(quoteVersions)
		.where(eq(quoteVersions.id, acceptance.versionId))
		.get()!;
	const { frozen } = version;
	const row = loadQuote(db, acceptance.quoteId);
	const { quote } = chosenOn(version, acceptance.picked);
	const view = quoteView(frozen, {
		number: row.number!,
		version: version.n,
		validUntil: version.validUntil,
		accepted: {
			picked: acceptance.picked,
			name: acceptance.name,
			on: displayDate(acceptance.agreedOn),
			way: WAYS[acceptance.way]
		}
	});
	const { law } = acceptance;
	const pdf = await drawDocument(
		world,
		{
			...view,
			note: [
				`Accepted by ${[acceptance.name, acceptance.position].filter(Boolean).join(', ')} on ${displayMoment(acceptance.at)}, ${WAYS[acceptance.way]}.`,
				acceptance.orderNumber ? `Order number ${acceptance.orderNumber}.` : '',
				law.begin ? `Asked for: “${BEGIN_WORDS}” “${ACKNOWLEDGE_WORDS}”` : '',
				acceptance.signature
					? 'The signature stands beside this record.'
					: 'The typed name stands for the signature.',
				`SHA-256 of the version: ${version.sha256}`
			]
				.filter(Boolean)
				.join('\n'),
			...(acceptance.signature
				? { signature: `data:image/png;base64,${acceptance.signature.toString('base64')}` }
				: {})
		},
		null
	);
	const limit = cancelLimit(db, acceptance);
	writeAtOnce(db, (tx) => {
		const { changes } = tx
			.update(acceptances)
			.set({ record: pdf, recordSha256: sha256(pdf) })
			.where(and(eq(acceptances.id, acceptance.id), isNull(acceptances.record)))
			.run();
		if (!changes) return;
		const to =
			row.customerId === null ? undefined : mailAddresses(tx, row.customerId, frozen.sheet)[0];
		if (!to) return;
		const asked = tx
			.select()
			.from(depositRequests)
			.where(and(eq(depositRequests.quoteId, row.id), eq(depositRequests.state, 'asked')))
			.get();
		const tell = {
			number: row.number!,
			validUntil: version.validUntil,
			quote,
			accepted: {
				total: BigInt(acceptance.total),
				deposit: BigInt(acceptance.deposit - (asked?.deduction ?? 0)),
				cancel: !limit
					? ''
					: limit.until
						? `You can cancel until the end of ${displayDate(limit.until)}.`
						: 'You can cancel until 14 days after the last of the materials came.'
			}
		};
		const voice = voiceFor(tx, greetedOf(frozen));
		const link = quoteLink(tx, world, row);
		const { email } = loadBusiness(tx);
		queueMail(tx, world, {
			key: `confirmed:${acceptance.id}`,
			kind: 'quote',
			quoteId: row.id,
			to,
			bcc: email,
			...quoteMessage(frozen, tell, voice, 'accepted'),
			link,
			attachPdf: true
		});
		noteQuote(tx, row.id, world.clock.now(), 'confirmed', to, null);
		if (asked)
			queueMail(tx, world, {
				key: `deposit:${asked.id}`,
				kind: 'deposit',
				quoteId: row.id,
				to,
				...quoteMessage(frozen, tell, voice, 'depositRequest'),
				link
			});
	});
}
