// What the demo business bills again and again: inspections sent by themselves, a retainer left as a draft, a care
// plan charged to a kept card.
import { addDays } from '../src/lib/core/calendar/manipulation';
import { blankLine, blankSheet } from '../src/lib/core/sheet/blank';
import type { Sheet } from '../src/lib/core/sheet/types';
import { customerRecord } from '../src/lib/server/services/customers/parts';
import { documentDetail } from '../src/lib/server/services/desk/documents';
import { beginInvoice, discardDraft, saveDraft } from '../src/lib/server/services/invoices/drafts';
import { deliverDue } from '../src/lib/server/clockwork/delivery';
import { keepStartingPoint } from '../src/lib/server/services/invoices/startingPoints';
import { addRepeat } from '../src/lib/server/services/repeats/repeats';
import { repeatPage } from '../src/lib/server/services/repeats/page';
import { runRepeats } from '../src/lib/server/services/repeats/making';
import { issueAndSend, pay, type Setting, type Step } from './work';

/** Odile Brancaster's card, as the card stand-in knows it. */
export const DEMO_CARD = { token: 'crd_demo_odile', number: '9000000000000001' };

interface RepeatSetting extends Setting {
	payByCard: (documentId: number, key: string, keep: boolean) => Promise<void>;
	settleCharges: () => Promise<void>;
}

const FIRST = 181;

export function repeatSteps(setting: RepeatSetting): Step[] {
	const { world, ids, today, morning, payByCard, settleCharges } = setting;
	const draft = (key: string, customer: string, more: Partial<Sheet>): number => {
		const customerId = ids.get(customer)!;
		const id = beginInvoice(world, key, customerId);
		saveDraft(world, id, 1, { ...blankSheet(), customerId, ...more });
		return id;
	};
	const line = (id: string, description: string, unit: string, unitPrice: string) => ({
		...blankLine(id),
		description,
		quantity: '1',
		unit,
		unitPrice
	});
	/** Begins a repeat from a draft that is itself never sent. */
	const repeat = (id: number, key: string, values: object) => {
		addRepeat(world, key, id, values);
		discardDraft(world, id, true);
	};
	/** What several invoices begin from, kept from a draft that is itself never sent. */
	const startingPoint = (key: string, name: string, more: Partial<Sheet>) => {
		const id = draft(key, 'staithe', more);
		keepStartingPoint(world, id, name);
		discardDraft(world, id, true);
	};
	let inspections = 0;
	const steps: Step[] = [
		{
			at: morning(FIRST + 6, 2),
			async run() {
				startingPoint('demo-start-survey', 'Damp survey with report', {
					note: 'The report follows within five working days.',
					rows: [
						line('s1', 'Damp survey, ground floor', 'visit', '145.00'),
						line('s2', 'Report with readings and photos', 'report', '85.00')
					]
				});
				startingPoint('demo-start-ceiling', 'Ceiling, overboard and skim', {
					rows: [
						{ id: 'h1', type: 'heading', text: 'Ceiling' },
						line('c1', 'Protect floors and furniture', 'room', '45.00'),
						line('c2', 'Overboard with plasterboard', 'm²', '21.50'),
						line('c3', 'Skim, two coats', 'm²', '16.00'),
						{ ...line('c4', 'Plasterboard, screws, scrim', 'room', '68.00'), kind: 'materials' }
					]
				});
			}
		},
		{
			at: morning(FIRST + 4, 3),
			async run() {
				const flats = customerRecord(world.db, ids.get('staithe')!)!.sites.length;
				const id = draft('demo-inspection', 'staithe', {
					note: 'Damp inspection, {month}: every flat, readings on request.',
					rows: Array.from({ length: flats }, (_, n) =>
						line(`l${n}`, `Damp inspection, flat ${n + 1}`, 'visit', '34.00')
					)
				});
				repeat(id, 'demo-inspection', {
					name: 'Quarterly damp inspection',
					start: addDays(today, -FIRST),
					every: 3,
					unit: 'month',
					weekend: 'nextWorkingDay',
					action: 'send'
				});
				inspections = world.db.$client
					.prepare("select id from repeats where key = 'demo-inspection'")
					.pluck()
					.get() as number;
			}
		},
		{
			at: morning(98, 3),
			async run() {
				const id = draft('demo-care', 'odile', {
					pricesIncludeVat: true,
					rows: [
						line('a', 'Care plan for {month}: lime wash and gutters looked after', 'month', '24.00')
					]
				});
				repeat(id, 'demo-care', {
					name: 'Care plan',
					start: addDays(today, -66),
					every: 1,
					unit: 'month',
					action: 'charge'
				});
				const first = draft('demo-care-first', 'odile', {
					pricesIncludeVat: true,
					rows: [line('a', 'Care plan: first look round', 'visit', '24.00')]
				});
				await issueAndSend(world, first);
				await payByCard(first, 'demo-care', true);
			}
		},
		{
			at: morning(5, 3),
			async run() {
				const id = draft('demo-retainer', 'estates', {
					contract: 'construction',
					rows: [line('a', 'Monthly maintenance, {month}', 'lot', '540.00')]
				});
				repeat(id, 'demo-retainer', {
					name: 'Maintenance retainer',
					start: addDays(today, -1),
					every: 1,
					unit: 'month',
					action: 'draft'
				});
			}
		}
	];
	for (let ago = FIRST; ago >= 0; ago--)
		steps.push({
			at: morning(ago, -55),
			async run() {
				await runRepeats(world);
				await settleCharges();
				await deliverDue(world);
			}
		});
	// Staithe pays a month later.
	for (const ago of [150, 58])
		steps.push({
			at: morning(ago, 90),
			async run() {
				for (const { documentId } of (await repeatPage(world, inspections)).made)
					if (documentId && documentDetail(world, documentId).toPay > 0)
						pay(world, documentId, 'bank', `demo-inspection:${ago}`);
			}
		});
	return steps;
}
