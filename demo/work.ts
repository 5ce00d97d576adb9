// The work of the demo business: a price list, fourteen months of small jobs billed by runs and one by one, stage
// contracts under way, this week's visits, and what waits to be billed.
// Over 300 lines: a list of what was done, in order of day.
import { addDays } from '../src/lib/core/calendar/manipulation';
import type { PlainDate } from '../src/lib/core/calendar/types';
import { displayAmount } from '../src/lib/core/money/display';
import { customerRecord } from '../src/lib/server/services/customers/parts';
import { continueRuns, billRun, startBillRun } from '../src/lib/server/services/billing/billRun';
import { documentDetail } from '../src/lib/server/services/desk/documents';
import { loadDraft } from '../src/lib/server/services/invoices/drafts';
import { issueInvoice } from '../src/lib/server/services/invoices/issue';
import { saveTime } from '../src/lib/server/services/jobs/time';
import { saveCost } from '../src/lib/server/services/jobs/costs';
import { addMaterial, materialsOf, moveMaterial } from '../src/lib/server/services/jobs/materials';
import { saveVisit } from '../src/lib/server/services/jobs/visits';
import { addJob, type JobForm } from '../src/lib/server/services/jobs/jobs';
import { moveJob } from '../src/lib/server/services/jobs/states';
import { deliverDue } from '../src/lib/server/clockwork/delivery';
import { recordPayment } from '../src/lib/server/services/money/payments';
import { savePriceItem } from '../src/lib/server/services/prices/prices';
import { prepareSending, sendByMail, sendByText } from '../src/lib/server/services/invoices/send';
import { billStage } from '../src/lib/server/services/billing/stages';
import { billJob } from '../src/lib/server/services/billing/toBill';
import { beginSheet } from '../src/lib/server/services/signing/sheets';
import type { World } from '../src/lib/server/world';
import { kindOf } from './letterheads';
import { helperId } from './people';
import { DEMO_KITS, DEMO_PRICES } from './prices';
import { sheetOf, workDone } from './sheets';

export interface Step {
	at: number;
	run: () => Promise<void>;
}
export interface Setting {
	world: World;
	ids: ReadonlyMap<string, number>;
	today: PlainDate;
	/** Ten in the morning so many days before the demo starts, and minutes after that. */
	morning: (ago: number, minutes?: number) => number;
}

export function layOutPrices(world: World): void {
	const byCode = new Map<string, number>();
	for (const entry of DEMO_PRICES) byCode.set(entry.code, savePriceItem(world, null, 1, entry));
	for (const { entry, parts } of DEMO_KITS)
		savePriceItem(world, null, 1, {
			...entry,
			parts: parts.map(([code, quantity]) => ({ itemId: byCode.get(code)!, quantity }))
		});
}

/** The same numbers each time. */
function seeded(seed: number): (below: number) => number {
	let state = seed;
	return (below) => {
		state = (state * 1103515245 + 12345) % 2147483648;
		return Math.floor((state / 2147483648) * below);
	};
}

const SMALL: [title: string, labour: string, hours: number, materials: string, price: number][] = [
	['Patch behind the radiator', 'Patch repair of plaster', 2, 'Lime putty, hair', 28],
	['Crack in the bedroom ceiling', 'Rake out and fill a crack', 3, 'Lime putty, hair', 22],
	['Damp patch by the window', 'Hack off and make good in lime', 4, 'Hydraulic lime, sand', 46],
	['Loose plaster on the stairs', 'Make good in lime', 5, 'Hydraulic lime, mesh', 64],
	['Repoint under the sill', 'Repoint in hydraulic lime', 3, 'Hydraulic lime, sand', 31],
	['Blocked air bricks', 'Air bricks cleared', 1, 'Air brick', 31],
	['Cornice knocked by movers', 'Cornice repair, run in situ', 6, 'Casting plaster', 44],
	['Limewash in the hall', 'Limewash, three coats', 7, 'Limewash', 78],
	['Ceiling rose come loose', 'Refixed and mended', 4, 'Casting plaster, screws', 26]
];

function small(n: number, more: Partial<JobForm> = {}): Omit<JobForm, 'customerId'> {
	const [title, work, hours, goods, price] = SMALL[n % SMALL.length]!;
	return {
		title,
		lines: [
			{ kind: 'labour', description: work, quantity: String(hours), unit: 'hour', unitPrice: '45' },
			{
				kind: 'materials',
				description: goods,
				quantity: '1',
				unit: 'lot',
				unitPrice: String(price),
				cost: String(Math.round(price * 0.72))
			}
		],
		...more
	};
}

export function workSteps(setting: Setting): Step[] {
	return [...staithe(setting), ...oneByOne(setting), ...contracts(setting), ...underWay(setting)];
}

/** Nine flats: every month the jobs of the month before go onto one invoice. This month's still wait. */
function staithe({ world, ids, today, morning }: Setting): Step[] {
	const customerId = ids.get('staithe')!;
	const sites = customerRecord(world.db, customerId)!.sites;
	const random = seeded(7);
	const steps: Step[] = [];
	for (let month = 12; month >= 0; month--) {
		const count = 3 + random(4);
		for (let n = 0; n < count; n++) {
			const ago = month * 30 + 2 + n * 3;
			const job = small(random(SMALL.length), {
				siteId: sites[random(sites.length)]!.id,
				labels: ['flats']
			});
			steps.push({
				at: morning(ago, n),
				async run() {
					const id = addJob(world, `demo-flat:${month}:${n}`, {
						...job,
						customerId,
						workKindId: kindOf(world, job.title)
					});
					const on = addDays(today, -ago);
					saveVisit(world, id, null, { date: on, from: '09:00', to: '12:00', done: true });
					saveTime(world, id, `demo-flat:${month}:${n}`, null, {
						date: on,
						hours: job.lines![0]!.quantity ?? '1',
						hourlyCost: '18',
						chargeable: false,
						person: n % 2 ? 'Joss Amadi' : '',
						personId: n % 2 ? helperId(world, 'Joss Amadi') : null
					});
					moveJob(world, id, 'finished', on);
				}
			});
		}
		if (month === 0) continue;
		const billed = month * 30 - 2;
		let invoices: number[] = [];
		steps.push({
			at: morning(billed, 30),
			async run() {
				const run = startBillRun(world, `demo-run:${month}`, 'send', { customerId });
				await continueRuns(world);
				await deliverDue(world);
				invoices = billRun(world, run).steps.flatMap((step) => step.documentId ?? []);
			}
		});
		if (month > 1)
			steps.push({
				at: morning(billed - 27 - random(9), 40),
				run: async () => invoices.forEach((id) => pay(world, id, 'bank', `demo-run:${month}`))
			});
	}
	return steps;
}

export function pay(world: World, id: number, way: 'bank' | 'cash', key: string): void {
	const detail = documentDetail(world, id);
	recordPayment(world, id, {
		key: `${key}:${id}`,
		date: world.clock.today(),
		amount: displayAmount(detail.toPay),
		withheld: '',
		way,
		reference: detail.number,
		allowOverpaid: false
	});
}

export async function issueAndSend(world: World, draft: number): Promise<void> {
	await issueInvoice(world, draft, loadDraft(world.db, draft).version);
	const { to, subject, text, mobile, words } = prepareSending(world, draft);
	if (to) sendByMail(world, draft, { key: 'demo', to, subject, text, copyToSelf: true });
	else if (mobile) sendByText(world, draft, { key: 'demo', mobile, words });
	else return;
	await deliverDue(world);
}

/** Households and small firms, a job and an invoice at a time, paid within weeks. */
function oneByOne({ world, ids, today, morning }: Setting): Step[] {
	const random = seeded(23);
	const people = ['penhallow', 'ruben', 'odile', 'corvane', 'vanterpool', 'almshouses'].filter(
		(key) => ids.has(key)
	);
	const steps: Step[] = [];
	for (let n = 0; n < 54; n++) {
		const ago = 400 - n * 7 + random(4);
		if (ago < 30) break;
		const key = people[random(people.length)]!;
		let draft = 0;
		steps.push({
			at: morning(ago, 100 + n),
			async run() {
				const what = small(random(SMALL.length));
				const job = addJob(world, `demo-one:${n}`, {
					...what,
					customerId: ids.get(key)!,
					workKindId: kindOf(world, what.title)
				});
				moveJob(world, job, 'finished', addDays(today, -ago));
				draft = billJob(world, job, 'lines', `demo-one:${n}`);
				await issueAndSend(world, draft);
			}
		});
		steps.push({
			at: morning(ago - 3 - random(14), 150 + n),
			run: async () => pay(world, draft, random(4) ? 'bank' : 'cash', 'demo-one')
		});
	}
	return steps;
}

/** Contracts billed in stages: one half billed with retention held, one with a deposit. */
function contracts({ world, ids, today, morning }: Setting): Step[] {
	const beacon = ids.get('beacon')!;
	const site = customerRecord(world.db, beacon)!.sites[0]!.id;
	let mill = 0;
	let church = 0;
	const steps: Step[] = [
		{
			at: morning(96, 5),
			async run() {
				mill = addJob(world, 'demo-mill', {
					title: 'Mill Yard, Unit 4: lime plaster throughout',
					workKindId: kindOf(world, 'plaster'),
					customerId: beacon,
					siteId: site,
					contract: 'construction',
					retention: '5',
					retentionDue: addDays(today, 360),
					hourlyCost: '18',
					labels: ['heritage'],
					lines: [
						{
							kind: 'labour',
							description: 'Lime plaster, three coats',
							quantity: '96',
							unit: 'm²',
							unitPrice: '68.50'
						},
						{
							kind: 'labour',
							description: 'Cornice, run in situ',
							quantity: '18.5',
							unit: 'm',
							unitPrice: '110'
						},
						{
							kind: 'materials',
							description: 'Lime, sand, hair',
							quantity: '1',
							unit: 'lot',
							unitPrice: '2834.67',
							cost: '2104.20'
						},
						{
							kind: 'plantHire',
							description: 'Tower scaffold',
							quantity: '12',
							unit: 'day',
							unitPrice: '75',
							cost: '660'
						}
					]
				});
				await issueAndSend(
					world,
					billStage(world, mill, 'demo-mill-1', { kind: 'deposit', by: 'percent', percent: '10' })
				);
			}
		},
		{
			at: morning(38, 5),
			run: async () =>
				issueAndSend(
					world,
					billStage(world, mill, 'demo-mill-2', { kind: 'valuation', by: 'toDate', percent: '45' })
				)
		}
	];
	for (const [n, ago] of [88, 74, 60, 46, 32, 18, 11].entries())
		steps.push({
			at: morning(ago, 60),
			async run() {
				if (n === 0) moveJob(world, mill, 'underWay');
				const date = addDays(today, -ago);
				saveTime(world, mill, `demo-mill-t${n}`, null, {
					date,
					hours: '24',
					hourlyCost: '18',
					person: 'Joss Amadi',
					chargeable: false,
					note: 'Three days on the walls'
				});
				saveCost(world, mill, `demo-mill-c${n}`, null, {
					date,
					description: 'Hydraulic lime, sand, hair',
					quantity: '1',
					unit: 'lot',
					unitCost: String(180 + n * 17),
					chargeable: false
				});
			}
		});
	steps.push({
		at: morning(64, 5),
		run: async () => {
			const first = documentsOf(world, mill)[0];
			if (first) pay(world, first, 'bank', 'demo-mill');
		}
	});
	if (ids.has('church'))
		steps.push({
			at: morning(26, 7),
			async run() {
				church = addJob(world, 'demo-church', {
					title: 'Chancel ceiling: repair and limewash',
					workKindId: kindOf(world, 'cornice'),
					customerId: ids.get('church')!,
					labels: ['heritage'],
					lines: [
						{
							kind: 'labour',
							description: 'Repair of the chancel ceiling',
							quantity: '64',
							unit: 'hour',
							unitPrice: '48'
						},
						{
							kind: 'materials',
							description: 'Lime, laths, hair',
							quantity: '1',
							unit: 'lot',
							unitPrice: '940',
							cost: '702'
						},
						{
							kind: 'labour',
							description: 'Limewash, four coats',
							quantity: '72',
							unit: 'm²',
							unitPrice: '11.50'
						}
					]
				});
				await issueAndSend(
					world,
					billStage(world, church, 'demo-church-1', {
						kind: 'deposit',
						by: 'percent',
						percent: '25'
					})
				);
			}
		});
	return steps;
}

function documentsOf(world: World, jobId: number): number[] {
	return world.db.$client
		.prepare("select document_id from stages where job_id = ? and state = 'invoiced' order by id")
		.pluck()
		.all(jobId) as number[];
}

/** What is going on this week: visits, two jobs finished, one by time and materials, an enquiry. */
function underWay({ world, ids, today, morning }: Setting): Step[] {
	const job = (key: string, more: Omit<JobForm, 'customerId'>, customer: string) =>
		addJob(world, `demo-now:${key}`, {
			...more,
			customerId: ids.get(customer)!,
			workKindId: kindOf(world, more.title)
		});
	return [
		{
			at: morning(9, 20),
			async run() {
				const id = job('corvane', small(3, { title: 'Dairy office: loose plaster' }), 'corvane');
				workDone(
					world,
					id,
					addDays(today, -9),
					'Loose plaster off by the door and the window, two coats of lime put on.\nKeep the room aired for three days.'
				);
				moveJob(world, id, 'finished', addDays(today, -9));
				await sheetOf(world, id, { name: 'Ailsa Trevean', position: 'herd manager' });
			}
		},
		{
			at: morning(18, 21),
			async run() {
				const id = job(
					'almshouses',
					small(2, { title: 'No. 4: damp by the window' }),
					'almshouses'
				);
				workDone(
					world,
					id,
					addDays(today, -18),
					'Salted plaster cut out to 60 cm, dubbed out in lime and left to dry.'
				);
				moveJob(world, id, 'finished', addDays(today, -18));
				await sheetOf(world, id, null);
			}
		},
		{
			at: morning(4, 22),
			async run() {
				const id = job(
					'penhallow',
					{
						title: 'Parlour wall after the leak',
						fixedPrice: false,
						hourlyRate: '45',
						hourlyCost: '18',
						description: 'Find out how far it goes, then make good.',
						lines: []
					},
					'penhallow'
				);
				for (const [n, from] of ['09:00', '13:30'].entries())
					saveVisit(world, id, null, {
						date: addDays(today, n),
						from,
						to: n ? '16:00' : '10:30',
						personId: 1,
						note: n ? 'Finish coat' : 'Backing coat'
					});
				saveTime(world, id, 'demo-now:p', null, {
					date: addDays(today, -1),
					hours: '6:30',
					rate: '45',
					hourlyCost: '18',
					chargeable: true,
					note: 'Hacked off, first coat'
				});
				saveCost(world, id, 'demo-now:p', null, {
					date: addDays(today, -1),
					description: 'Hydraulic lime NHL 3.5, 25 kg',
					quantity: '4',
					unit: 'bag',
					unitCost: '12.90',
					unitPrice: '16.80',
					chargeable: true
				});
				moveJob(world, id, 'underWay');
				addMaterial(world, id, {
					key: 'demo-a',
					what: '6 bags hydraulic lime, NHL 3.5',
					expectedOn: addDays(today, -1)
				});
				moveMaterial(world, id, { id: materialsOf(world.db, id)[0]!.id, to: 'here' });
				addMaterial(world, id, {
					key: 'demo-b',
					what: 'Stainless bead, 2.4 m, 12 lengths',
					expectedOn: addDays(today, 2)
				});
				beginSheet(world, id, 'demo-now:p');
			}
		},
		{
			at: morning(2, 23),
			async run() {
				const sites = customerRecord(world.db, ids.get('staithe')!)!.sites;
				for (const [n, from] of ['11:00', '15:00'].entries()) {
					const id = job(
						`flat${n}`,
						small(4 + n, { siteId: sites[n * 4]!.id, labels: ['flats'] }),
						'staithe'
					);
					saveVisit(world, id, null, {
						date: today,
						from,
						person: n ? 'Joss Amadi' : '',
						personId: n ? helperId(world, 'Joss Amadi') : 1
					});
				}
				addJob(
					world,
					'demo-now:ask',
					{ title: 'Could you look at our chimney?', customerId: ids.get('ruben')! },
					'enquiry'
				);
			}
		}
	];
}
