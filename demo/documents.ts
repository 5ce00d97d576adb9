// What the demo business billed: one entry for each document, laid out in days before the day the demo starts.
// Over 300 lines: a list of entries, read from the top like the books themselves.
import type { LineKind } from '../src/lib/core/figures/types';
import type { ContractClass, VatTreatment } from '../src/lib/core/regimes/types';

export interface DemoLine {
	kind: LineKind;
	description: string;
	quantity: string;
	unit: string;
	price: string;
	cost?: string;
	discount?: string;
	vat?: VatTreatment;
	reason?: string;
}

export type Outcome =
	/** Never issued. */
	| { type: 'draft' }
	/** Issued, and nobody has sent it. */
	| { type: 'unsent' }
	/** Sent, and not paid. `seen`: days after issue on which it was opened. */
	| { type: 'sent'; seen?: number }
	/** The mail was refused. */
	| { type: 'bounced' }
	/** Paid in full after so many days; a contractor pays net of its deduction. `reached`: pounds at the bank, for other money. */
	| { type: 'paid'; after: number; way: 'bank' | 'card' | 'cash'; reached?: string }
	| { type: 'part'; after: number; amount: string }
	| { type: 'overpaid'; after: number; amount: string }
	| { type: 'credited'; after: number; reason: string }
	/** Some units of its first line are credited; the rest is paid. */
	| { type: 'partCredited'; after: number; reason: string; units: string }
	/** Paid, found to be wrong in its first line, and put right in one step. */
	| { type: 'corrected'; after: number; reason: string; units: string }
	/** Paid in time, with the discount taken. */
	| { type: 'prompt'; after: number };

export interface DemoDocument {
	customer: string;
	/** Days before today on which it was issued (or begun). */
	ago: number;
	/** Days before issue on which the work ended. */
	finished?: number;
	contract?: ContractClass;
	site?: number;
	orderNumber?: string;
	reference?: string;
	includesVat?: boolean;
	discount?: string;
	retention?: string;
	note?: string;
	headings?: Record<number, string>;
	/** Off for paying in time. */
	prompt?: { percent: string; days: string };
	/** The customer wrote it in our name, under this number. */
	theirs?: string;
	lines: DemoLine[];
	outcome: Outcome;
}

function labour(description: string, quantity: string, unit = 'hour', price = '45.00'): DemoLine {
	return { kind: 'labour', description, quantity, unit, price };
}
function materials(description: string, price: string, cost?: string): DemoLine {
	return {
		kind: 'materials',
		description,
		quantity: '1',
		unit: 'lot',
		price,
		...(cost ? { cost } : {})
	};
}
const zero = (line: DemoLine, reason: string): DemoLine => ({ ...line, vat: 'zero', reason });
const reduced = (line: DemoLine, reason: string): DemoLine => ({ ...line, vat: 'reduced', reason });
const scaffold: DemoLine = {
	kind: 'plantHire',
	description: 'Tower scaffold, hired',
	quantity: '2',
	unit: 'day',
	price: '75.00',
	cost: '150.00'
};
const travel: DemoLine = {
	kind: 'travel',
	description: 'Travel to site',
	quantity: '1',
	unit: 'visit',
	price: '60.00'
};

/** The ones the demo tells of, by hand. */
const TOLD: DemoDocument[] = [
	// Beacon & Lathe: reverse charge, 20 % deduction, net payments, some late, retention on the large one.
	{
		customer: 'beacon',
		ago: 390,
		contract: 'construction',
		site: 0,
		orderNumber: 'BL-1904',
		lines: [
			labour('Hack off and first lime coat, loading bay', '40'),
			materials('Hydraulic lime and sand', '910.00', '780.00')
		],
		outcome: { type: 'paid', after: 56, way: 'bank' }
	},
	{
		customer: 'beacon',
		ago: 300,
		contract: 'construction',
		site: 1,
		orderNumber: 'BL-1988',
		retention: '5',
		lines: [
			labour('Cornice repair, grand stair', '62'),
			materials('Casting plaster, silicone moulds', '640.00', '520.00'),
			scaffold
		],
		outcome: { type: 'paid', after: 58, way: 'bank' }
	},
	{
		customer: 'beacon',
		ago: 190,
		contract: 'construction',
		site: 1,
		orderNumber: 'BL-2102',
		retention: '5',
		lines: [
			labour('Cornice repair, first floor', '48'),
			materials('Casting plaster', '380.00', '301.50')
		],
		outcome: { type: 'paid', after: 55, way: 'bank' }
	},
	{
		customer: 'beacon',
		ago: 69,
		contract: 'construction',
		site: 0,
		orderNumber: 'BL-2240',
		lines: [
			labour('Scratch coat, west elevation', '52'),
			materials('NHL 3.5, sharp sand, mesh', '1,120.00', '940.00'),
			travel
		],
		outcome: { type: 'part', after: 54, amount: '1,500.00' }
	},
	{
		customer: 'beacon',
		ago: 54,
		contract: 'construction',
		site: 0,
		orderNumber: 'BL-2263',
		lines: [labour('Second coat, west elevation', '36'), travel],
		outcome: { type: 'sent', seen: 1 }
	},
	{
		customer: 'beacon',
		ago: 33,
		contract: 'construction',
		site: 1,
		orderNumber: 'BL-2274',
		retention: '5',
		lines: [
			labour('Lime plaster to stair hall, three coats', '74'),
			materials('Lime putty plaster, hair', '860.00', '702.00')
		],
		outcome: { type: 'sent', seen: 2 }
	},
	{
		customer: 'beacon',
		ago: 4,
		finished: 4,
		contract: 'construction',
		site: 0,
		orderNumber: 'BL-2291',
		lines: [
			labour('Lime render to north gable, two coats', '32'),
			materials('Hydraulic lime, sand, mesh', '860.00', '720.00'),
			scaffold,
			travel
		],
		outcome: { type: 'sent' }
	},
	// Quillfeather: new dwellings at zero, deduction all the same.
	{
		customer: 'quillfeather',
		ago: 250,
		contract: 'construction',
		site: 0,
		orderNumber: 'QH/7/311',
		lines: [
			zero(labour('Plaster plot 7', '12', 'day', '260.00'), 'newDwelling'),
			zero(materials('Board, beads and skim', '640.00', '588.20'), 'newDwelling')
		],
		outcome: { type: 'paid', after: 29, way: 'bank' }
	},
	{
		customer: 'quillfeather',
		ago: 160,
		contract: 'construction',
		site: 0,
		orderNumber: 'QH/8/340',
		lines: [
			zero(labour('Plaster plot 8', '11', 'day', '260.00'), 'newDwelling'),
			zero(materials('Board, beads and skim', '590.00', '541.10'), 'newDwelling')
		],
		outcome: { type: 'paid', after: 33, way: 'bank' }
	},
	{
		customer: 'quillfeather',
		ago: 22,
		contract: 'construction',
		site: 0,
		orderNumber: 'QH/9/402',
		lines: [
			zero(labour('Plaster plot 9', '12', 'day', '265.00'), 'newDwelling'),
			zero(materials('Board, beads and skim', '655.00', '600.40'), 'newDwelling')
		],
		outcome: { type: 'sent', seen: 1 }
	},
	// Harrowmere Estates: end user in writing, VAT and deduction both.
	{
		customer: 'estates',
		ago: 220,
		contract: 'construction',
		orderNumber: 'HE-50117',
		lines: [
			labour('Repair ceiling, Corn Exchange', '30'),
			materials('Laths, lime plaster', '412.00', '350.00')
		],
		outcome: { type: 'paid', after: 31, way: 'bank' }
	},
	{
		customer: 'estates',
		ago: 120,
		contract: 'construction',
		orderNumber: 'HE-50402',
		lines: [labour('Monthly maintenance, July', '1', 'lot', '540.00')],
		outcome: { type: 'paid', after: 27, way: 'bank' }
	},
	{
		customer: 'estates',
		ago: 50,
		contract: 'construction',
		orderNumber: 'HE-50688',
		lines: [labour('Monthly maintenance, September', '1', 'lot', '540.00')],
		outcome: { type: 'paid', after: 32, way: 'bank' }
	},
	{
		customer: 'estates',
		ago: 20,
		contract: 'construction',
		orderNumber: 'HE-50731',
		lines: [
			labour('Monthly maintenance, October', '1', 'lot', '540.00'),
			labour('Extra: make safe cornice over entrance', '5')
		],
		outcome: { type: 'sent', seen: 0 }
	},
	// Thrupp Brothers: not VAT registered, so VAT and deduction.
	{
		customer: 'thrupp',
		ago: 140,
		contract: 'construction',
		lines: [labour('Skim two rooms, Ropewalk', '2', 'day', '230.00')],
		outcome: { type: 'paid', after: 16, way: 'bank' }
	},
	{
		customer: 'thrupp',
		ago: 18,
		contract: 'construction',
		lines: [
			labour('Render repair, rear wall', '1', 'day', '230.00'),
			{ ...materials('Render mix', '85.00'), quantity: '1' }
		],
		outcome: { type: 'sent' }
	},
	// Staithe Lettings: three late ones from one run, and the landlords whose bill they get.
	{
		customer: 'staithe',
		ago: 365,
		lines: Array.from({ length: 9 }, (_, flat) =>
			labour(`Damp inspection, flat ${flat + 1}`, '1', 'visit', '34.00')
		),
		outcome: { type: 'paid', after: 30, way: 'bank' }
	},
	{
		customer: 'staithe',
		ago: 270,
		lines: Array.from({ length: 9 }, (_, flat) =>
			labour(`Damp inspection, flat ${flat + 1}`, '1', 'visit', '34.00')
		),
		outcome: { type: 'paid', after: 26, way: 'bank' }
	},
	{
		customer: 'staithe',
		ago: 77,
		site: 2,
		lines: [labour('Patch plaster, hall and bathroom', '9'), materials('Plaster, primer', '64.00')],
		outcome: { type: 'sent', seen: 3 }
	},
	{
		customer: 'staithe',
		ago: 54,
		site: 6,
		lines: [
			labour('Treat chimney breast, rake out and replaster', '22'),
			materials('Salt-resistant plaster', '148.00')
		],
		outcome: { type: 'sent', seen: 2 }
	},
	{
		customer: 'staithe',
		ago: 39,
		site: 4,
		lines: [labour('Repair bathroom ceiling', '11'), materials('Board and skim', '72.00')],
		outcome: { type: 'sent' }
	},
	{
		customer: 'vanterpool',
		ago: 20,
		includesVat: true,
		lines: [labour('Repoint parapet, lime mortar', '1', 'lot', '124.00')],
		outcome: { type: 'sent', seen: 5 }
	},
	// Almshouses: rates with their reasons.
	{
		customer: 'almshouses',
		ago: 95,
		lines: [
			reduced(labour('Grab rails to bath and stair', '3', 'item', '95.00'), 'mobilityAid'),
			labour('Plaster repair behind them', '4')
		],
		site: 0,
		outcome: { type: 'paid', after: 12, way: 'bank' }
	},
	// Corvane Dairy: late, order numbers required.
	{
		customer: 'corvane',
		ago: 210,
		orderNumber: 'CD-8831',
		lines: [labour('Hygienic wall coating, dairy', '26'), materials('Coating system', '1,240.00')],
		outcome: { type: 'paid', after: 41, way: 'bank' }
	},
	{
		customer: 'corvane',
		ago: 61,
		orderNumber: 'CD-9127',
		lines: [labour('Re-render churn store', '27'), materials('Render and beads', '370.15')],
		outcome: { type: 'sent', seen: 6 }
	},
	{
		customer: 'corvane',
		ago: 2,
		orderNumber: 'CD-9166',
		lines: [labour('Survey of damp, cheese room', '1', 'lot', '260.00')],
		outcome: { type: 'sent', seen: 1 }
	},
	// What goes wrong, and is put right: written by them, credited in part, corrected after it was paid, paid in time.
	{
		customer: 'corvane',
		ago: 95,
		theirs: 'CDS-0047',
		orderNumber: 'CD-8902',
		lines: [labour('Wall repair, milking parlour', '9')],
		outcome: { type: 'paid', after: 20, way: 'bank' }
	},
	{
		customer: 'corvane',
		ago: 76,
		orderNumber: 'CD-8977',
		lines: [labour('Seal wall and floor joints', '14'), materials('Sealant', '96.00')],
		outcome: { type: 'partCredited', after: 3, reason: 'Two hours fewer were needed', units: '2' }
	},
	{
		customer: 'corvane',
		ago: 52,
		orderNumber: 'CD-9140',
		prompt: { percent: '2', days: '7' },
		lines: [labour('Lime wash, calf house', '1', 'lot', '640.00')],
		outcome: { type: 'prompt', after: 5 }
	},
	{
		customer: 'ruben',
		ago: 44,
		includesVat: true,
		lines: [labour('Repair reveals, two windows', '3', 'window', '160.00')],
		outcome: { type: 'corrected', after: 8, reason: 'Two windows, not three', units: '2' }
	},
	// All Hallows: a listed building, under headings.
	{
		customer: 'church',
		ago: 130,
		headings: { 0: 'Vestry', 2: 'North aisle' },
		lines: [
			labour('Take down loose cornice', '14'),
			materials('Props and protection', '120.00'),
			labour('Consolidate lime plaster', '31'),
			materials('Nano-lime, tissue', '410.00')
		],
		outcome: { type: 'paid', after: 19, way: 'bank' }
	},
	{
		customer: 'church',
		ago: 3,
		headings: { 0: 'Vestry' },
		lines: [
			labour('Run new cornice, first length', '18'),
			materials('Plaster of Paris, zinc profile', '96.00')
		],
		outcome: { type: 'unsent' }
	},
	// Households: prices including VAT, a deposit, a dispute, a promise, a debt given up.
	{
		customer: 'alaric',
		ago: 262,
		includesVat: true,
		lines: [labour('Patch repairs before letting', '1', 'lot', '286.00')],
		outcome: { type: 'sent' }
	},
	{
		customer: 'odile',
		ago: 31,
		includesVat: true,
		lines: [labour('Lime wash to garden room, two coats', '1', 'lot', '412.50')],
		outcome: { type: 'sent', seen: 4 }
	},
	{
		customer: 'penhallow',
		ago: 26,
		includesVat: true,
		lines: [
			{
				...labour('Insulated lime render, south wall', '1', 'lot', '2,950.00'),
				vat: 'zero',
				reason: 'energyZero'
			}
		],
		outcome: { type: 'paid', after: 3, way: 'card' }
	},
	{
		customer: 'ruben',
		ago: 126,
		includesVat: true,
		lines: [
			labour('Polished plaster, living room', '1', 'lot', '1,250.00'),
			materials('Marble plaster', '124.00')
		],
		outcome: { type: 'sent', seen: 1 }
	},
	{
		customer: 'isolde',
		ago: 23,
		includesVat: true,
		lines: [labour('Repair lath ceiling, landing', '1', 'lot', '560.00')],
		outcome: { type: 'sent', seen: 2 }
	},
	{
		customer: 'tobias',
		ago: 12,
		includesVat: true,
		lines: [labour('Deposit: lime plaster to two bedrooms', '1', 'lot', '600.00')],
		outcome: { type: 'paid', after: 1, way: 'card' }
	},
	{
		customer: 'maud',
		ago: 44,
		includesVat: true,
		lines: [reduced(labour('Grab rails and level threshold', '1', 'lot', '340.00'), 'mobilityAid')],
		outcome: { type: 'paid', after: 6, way: 'cash' }
	},
	{
		customer: 'caspian',
		ago: 9,
		includesVat: true,
		lines: [labour('Damp survey with report', '1', 'lot', '180.00')],
		outcome: { type: 'bounced' }
	},
	{
		customer: 'beatrix',
		ago: 30,
		includesVat: true,
		lines: [labour('Render repair, gable', '1', 'lot', '720.00')],
		outcome: { type: 'credited', after: 4, reason: 'Billed to the wrong house' }
	},
	{
		customer: 'alaric',
		ago: 17,
		includesVat: true,
		discount: '5%',
		lines: [
			labour('Cornice, drawing room', '1', 'lot', '1,480.00'),
			{ ...materials('Ceiling rose', '210.00'), discount: '10.00' }
		],
		outcome: { type: 'overpaid', after: 8, amount: '1,700.00' }
	},
	{
		customer: 'gethin',
		ago: 1,
		includesVat: true,
		lines: [labour('Patch plaster, shop front', '1', 'lot', '260.00'), materials('Sundries', '')],
		outcome: { type: 'draft' }
	},
	// A studio in France: advice not tied to land, outside the scope of UK VAT.
	{
		customer: 'marais',
		ago: 36,
		note: 'General advice on lime finishes, not tied to a building.',
		lines: [
			{
				...labour('Advice on lime finishes, two sessions', '2', 'visit', '240.00'),
				vat: 'outside',
				reason: 'outside'
			}
		],
		outcome: { type: 'paid', after: 20, way: 'bank', reached: '421.37' }
	},
	{
		customer: 'marais',
		ago: 18,
		note: 'General advice on lime finishes, not tied to a building.',
		lines: [
			{
				...labour('Advice on lime finishes, a day with samples', '1', 'day', '780.00'),
				vat: 'outside',
				reason: 'outside'
			}
		],
		outcome: { type: 'sent', seen: 1 }
	}
];

const SMALL_JOBS = [
	['Skim ceiling', '340.00'],
	['Lime wash, two coats', '285.00'],
	['Patch plaster after electrician', '195.00'],
	['Repair cornice', '430.00'],
	['Damp survey with report', '180.00'],
	['Replaster chimney breast', '520.00'],
	['Render repair', '610.00']
] as const;

/** A fixed sequence: the same demo every time but for the dates. */
function sequence(seed: number): () => number {
	let state = seed;
	return () => {
		state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
		return state / 2_147_483_648;
	};
}

/** Small household jobs through the year, paid within a few weeks. */
function smallJobs(): DemoDocument[] {
	const next = sequence(20_261_124);
	const people = [
		'odile',
		'penhallow',
		'isolde',
		'tobias',
		'philippa',
		'gethin',
		'maud',
		'caspian',
		'beatrix',
		'alaric'
	];
	return Array.from({ length: 70 }, (_, index): DemoDocument => {
		const [description, price] = SMALL_JOBS[Math.floor(next() * SMALL_JOBS.length)]!;
		const after = 1 + Math.floor(next() * 18);
		return {
			customer: people[Math.floor(next() * people.length)]!,
			ago: 415 - Math.round(index * 5.6) + Math.floor(next() * 6),
			finished: Math.floor(next() * 4),
			includesVat: true,
			lines: [labour(description, '1', 'lot', price)],
			outcome: { type: 'paid', after, way: next() < 0.4 ? 'card' : 'bank' }
		};
	});
}

export const DEMO_DOCUMENTS: DemoDocument[] = [...TOLD, ...smallJobs()];
