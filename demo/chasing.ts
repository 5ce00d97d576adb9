// The demo's chasing and payouts: plans, the reminders of the last months, which of them were opened, what was paid out.
import { eq, sql } from 'drizzle-orm';
import { addDays } from '../src/lib/core/calendar/manipulation';
import { isWorkingDay } from '../src/lib/core/calendar/holidays';
import { FIRST_PLAN } from '../src/lib/core/chasing/wording';
import { chaseMessages, payments, payoutParts, payouts } from '../src/lib/server/db/schema';
import { formatMoney } from '../src/lib/core/money/decimal';
import { acceptSure } from '../src/lib/server/services/money/bank/accept';
import { lookInto, takeIn } from '../src/lib/server/services/money/bank/bringIn';
import { matchLines } from '../src/lib/server/services/money/bank/matching';
import { noteReminderOpened } from '../src/lib/server/services/chasing/messages';
import { savePlan } from '../src/lib/server/services/chasing/plans';
import { savePayerChasing } from '../src/lib/server/services/chasing/payers';
import { saveChaseSettings } from '../src/lib/server/services/chasing/settings';
import { runChasing } from '../src/lib/server/services/chasing/tick';
import { deliverDue } from '../src/lib/server/clockwork/delivery';
import { receivePayout } from '../src/lib/server/services/money/payouts';
import type { Setting, Step } from './work';

/** Chasing was turned on so many days ago. */
const SINCE = 95;

export function chasingSteps({ world, ids, today, morning }: Setting): Step[] {
	const daily = Array.from({ length: SINCE }, (_, n) => SINCE - 1 - n)
		.filter((ago) => isWorkingDay(addDays(today, -ago)))
		.map((ago): Step => ({
			// Today's go out when the demo is begun; a little before ten, as every day.
			at: morning(ago, -20),
			async run() {
				await runChasing(world);
				await deliverDue(world);
				openSome(ago);
			}
		}));
	/** Two of three are opened, each with its own delay. */
	function openSome(ago: number): void {
		const rows = world.db
			.select({ id: chaseMessages.id, token: chaseMessages.token })
			.from(chaseMessages)
			.where(eq(chaseMessages.day, addDays(today, -ago)))
			.all();
		for (const row of rows) if (row.id % 3) noteReminderOpened(world, row.token);
	}
	return [
		{
			at: morning(SINCE + 1),
			async run() {
				saveChaseSettings(world, {
					on: true,
					from: '09:00',
					to: '17:00',
					quietHours: 24,
					gapDays: 5
				});
				const [ahead, after, text] = FIRST_PLAN.steps as (typeof FIRST_PLAN.steps)[number][];
				savePlan(world, null, 0, {
					name: 'Gently, for old friends',
					standard: false,
					labels: ['old friends'],
					chargeAfter: null,
					steps: [
						{ ...ahead!, id: 'gentle-ahead' },
						{ ...after!, id: 'gentle-after', offset: 10 },
						{ ...text!, id: 'gentle-last', offset: 30, channel: 'mail', tone: 'plain' }
					]
				});
				const church = ids.get('church');
				if (church)
					savePayerChasing(world, church, {
						planId: null,
						never: true,
						onHold: false,
						note: 'The treasurer pays after each council meeting'
					});
			}
		},
		...daily,
		{
			// An earlier statement of the bank, in which the payouts before were seen.
			at: morning(12, 200),
			async run() {
				const lines = world.db
					.select()
					.from(payouts)
					.all()
					.map(
						({ id, date, amount, reference }) =>
							`<STMTTRN><TRNTYPE>CREDIT<DTPOSTED>${addDays(date, 1).replaceAll('-', '')}<TRNAMT>${formatMoney(BigInt(amount))}<FITID>${id}<NAME>${reference}</STMTTRN>`
					);
				const file = `<OFX><BANKMSGSRSV1><STMTTRNRS><STMTRS><BANKACCTFROM><ACCTID>00012345</BANKACCTFROM><BANKTRANLIST>${lines.join('')}</BANKTRANLIST></STMTRS></STMTTRNRS></BANKMSGSRSV1></OFX>`;
				takeIn(world, lookInto(world, 'october.ofx', new TextEncoder().encode(file)), null);
				await matchLines(world);
				await acceptSure(world);
			}
		},
		// Card money comes to the bank on Fridays; what came this week is still with the processor.
		...[56, 42, 28, 21, 14, 7].map((ago): Step => ({
			at: morning(ago, -90),
			run: async () => payOut(ago)
		}))
	];

	function payOut(ago: number): void {
		const rows = world.db
			.select()
			.from(payments)
			.where(
				sql`${payments.way} = 'card' and ${payments.reference} not in (select ${payoutParts.checkout} from ${payoutParts})`
			)
			.all();
		if (rows.length === 0) return;
		const parts = rows.map(({ reference, amount, fee }) => ({
			checkout: reference,
			type: 'payment' as const,
			amount,
			fee
		}));
		const event = {
			id: `demo-payout-${ago}`,
			type: 'payout.paid' as const,
			payout: `demo-payout-${ago}`,
			amount: parts.reduce((sum, part) => sum + part.amount - part.fee, 0),
			reference: `CARDPAY ${String(4100 + ago)}`,
			parts
		};
		receivePayout(world, event, '{}');
	}
}
