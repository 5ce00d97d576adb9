// What the demo business quoted: one that waits for an answer with a question, one accepted with its deposit paid, others that
// were declined, expired, or are still being written.
// Over 300 lines: one entry for each quote.
import { displayDate } from '../src/lib/core/calendar/conversion';
import { addDays } from '../src/lib/core/calendar/manipulation';
import type { Picked } from '../src/lib/core/quotes/chosen';
import { blankQuote } from '../src/lib/core/quotes/terms';
import { blankLine } from '../src/lib/core/sheet/blank';
import type { QuoteTerms, SheetLine } from '../src/lib/core/sheet/types';
import { quotes } from '../src/lib/server/db/schema';
import { eq } from 'drizzle-orm';
import {
	invoiceDeposits,
	openDepositCheckout
} from '../src/lib/server/services/money/depositRequests';
import { acceptQuote } from '../src/lib/server/services/quotes/accept';
import { chosenOn } from '../src/lib/server/services/quotes/agree';
import { askQuestion, declineQuote, noteQuoteOpened } from '../src/lib/server/services/quotes/page';
import { beginQuote, loadQuote, saveQuote } from '../src/lib/server/services/quotes/quotes';
import { confirmAcceptances } from '../src/lib/server/services/quotes/record';
import { newestVersion, prepareQuote, sendQuote } from '../src/lib/server/services/quotes/send';
import { deliverDue } from '../src/lib/server/clockwork/delivery';
import { visitsBetween } from '../src/lib/server/services/diary/diary';
import { addBlock } from '../src/lib/server/services/diary/ways';
import { addEnquiry, closeEnquiry } from '../src/lib/server/services/enquiries/enquiries';
import { addQuestion, savePage } from '../src/lib/server/services/enquiries/page';
import { receiveTextEvent } from '../src/lib/server/services/messages/replies';
import { proposeTelling, tellCustomer } from '../src/lib/server/services/telling/telling';
import { kindOf } from './letterheads';
import type { Setting, Step } from './work';

interface DemoQuote {
	key: string;
	customer: string;
	ago: number;
	kind: string;
	rows: readonly ((Partial<SheetLine> & { description: string; unitPrice: string }) | string)[];
	terms: Partial<QuoteTerms> & { title: string };
	/** What became of it, so many days ago. */
	then?: {
		ago: number;
		what: 'accepted' | 'declined' | 'opened' | 'asked';
		picked?: Picked;
		words?: string;
	};
}

const way = (option: string) => ({ choice: { group: 'The ceiling', option } });
const WORDS = {
	guarantee: 'Two years on our work. Insured with Westmarch Mutual up to £2,000,000.',
	terms:
		'Lime needs time: please heat gently for four weeks. What is found behind old work is priced and agreed before it is done.'
};

const DEMO_QUOTES: readonly DemoQuote[] = [
	{
		key: 'ceiling',
		customer: 'penhallow',
		ago: 4,
		kind: 'plaster',
		rows: [
			{
				description: 'Take down the damaged ceiling, bag it and carry it away',
				unitPrice: '480',
				quantity: '1',
				cost: '95'
			},
			{
				...way('Boards and a skim'),
				description: 'Boards, joints taped, skim. Two days; straight and smooth, like new',
				unitPrice: '1560',
				cost: '410',
				kind: 'materials'
			},
			{
				...way('Boards and a skim'),
				description: 'Two people, two days',
				unitPrice: '360',
				cost: '180'
			},
			{
				...way('Laths and lime plaster'),
				description:
					'Riven laths, three coats of lime and hair. Six days; as it was built, it breathes',
				unitPrice: '1960',
				cost: '520',
				kind: 'materials'
			},
			{
				...way('Laths and lime plaster'),
				description: 'Two people, six days',
				unitPrice: '600',
				cost: '420'
			},
			{
				description: 'Repair the ceiling rose: cleaned, missing leaves cast again',
				unitPrice: '200',
				cost: '60',
				extra: true
			},
			{ description: 'Limewash, two coats', unitPrice: '372', cost: '110', extra: true }
		],
		terms: {
			title: 'Front room ceiling, 14 Sluice Lane',
			deposit: '25%',
			stages: [
				{ title: 'When the laths or boards are up', percent: '37.5' },
				{ title: 'When it is done', percent: '' }
			],
			begin: 'from 7 December',
			duration: 'two or six days, as you choose',
			before:
				'The old ceiling has come away from its laths over half the room and cannot be saved.',
			notIncluded: 'Electrical work; moving the piano.',
			assumed: 'The joists are sound.',
			...WORDS
		},
		then: { ago: 2, what: 'asked', words: 'Would the lime one crack less beside the chimney?' }
	},
	{
		key: 'breast',
		customer: 'beatrix',
		ago: 12,
		kind: 'damp',
		rows: [
			'Ground floor',
			{ description: 'Hack off gypsum from the chimney breast', unitPrice: '320', cost: '60' },
			{ description: 'Lime render, two coats, and a skim', unitPrice: '780', cost: '190' },
			'Outside',
			{ description: 'Rake out and repoint the stack in lime', unitPrice: '540', cost: '120' },
			{
				description: 'A new vent brick',
				unitPrice: '45',
				quantity: '1',
				most: '4',
				extra: true,
				cost: '12'
			}
		],
		terms: {
			title: 'Chimney breast, 19 Ropewalk',
			deposit: '400',
			begin: 'in December',
			duration: 'about two days',
			...WORDS
		},
		then: { ago: 3, what: 'accepted', picked: { options: {}, extras: { r5: '2' } } }
	},
	{
		key: 'parlour',
		customer: 'gethin',
		ago: 40,
		kind: 'cornice',
		rows: [
			{ description: 'Run a new cornice to the parlour, in situ', unitPrice: '2150', cost: '700' }
		],
		terms: { title: 'Parlour cornice, 27 Market Place', validDays: '14', ...WORDS },
		then: { ago: 36, what: 'opened' }
	},
	{
		key: 'lodge',
		customer: 'alaric',
		ago: 25,
		kind: 'render',
		rows: [
			{ description: 'Render the west gable in hydraulic lime', unitPrice: '4380', cost: '1600' }
		],
		terms: { title: 'West gable, Gorse Lodge', deposit: '20%', ...WORDS },
		then: { ago: 20, what: 'declined', words: 'We went with somebody who can begin this year.' }
	},
	{
		key: 'lathe',
		customer: 'maud',
		ago: 1,
		kind: 'plaster',
		rows: [{ description: 'Patch the stair wall in lime', unitPrice: '290', cost: '55' }],
		terms: { title: 'Stair wall, 5 Almonry Court', ...WORDS }
	}
];

export function quoteSteps(
	{ world, ids, today, morning }: Setting,
	settle: (amount: number) => Promise<void>
): Step[] {
	const known = new Map<string, number>();
	const asked: Step[] = [
		{
			at: morning(6, 40),
			async run() {
				savePage(world, {
					on: true,
					intro: 'Lime, plaster, damp and old walls: tell us what you see.',
					next: 'We read it the same day and call you within two working days.'
				});
				addQuestion(world, { question: 'How old is the house?', kind: 'text' });
				addQuestion(world, {
					question: 'Is the wall wet after rain?',
					kind: 'yesNo',
					workKindId: kindOf(world, 'damp')
				});
			}
		},
		{
			at: morning(1, 20),
			async run() {
				addEnquiry(
					world,
					'demo:gable',
					{
						name: 'Ines Achterberg',
						phone: '01632 960044',
						email: 'ines.achterberg@post.example',
						place: 'Mill House, Corvane',
						what: 'The gable is damp inside since the spring. Two rooms smell of it.',
						wanted: 'before Christmas',
						source: 'recommended by a neighbour',
						workKindId: kindOf(world, 'damp'),
						answers: [{ question: 'Is the wall wet after rain?', answer: 'yes' }]
					},
					'page'
				);
			}
		},
		{
			at: morning(9, 20),
			async run() {
				const id = addEnquiry(world, 'demo:far', {
					name: 'Osric Thane',
					email: 'osric@post.example',
					place: 'Westmarch Point',
					what: 'A new ceiling in a holiday flat.',
					source: 'the web'
				});
				closeEnquiry(world, id, { reason: 'Two hours away.' });
			}
		},
		{
			at: morning(0, -60),
			async run() {
				// The next visits to come are told, as the owner would.
				for (const { id } of visitsBetween(world.db, today, addDays(today, 2)).slice(0, 2)) {
					const said = proposeTelling(world, id, 'booked');
					if (said.to) tellCustomer(world, id, said);
				}
				receiveTextEvent(world, {
					id: 'demo-reply',
					type: 'reply',
					from: '+447700900321',
					text: 'Hi, I am back from work at four today. Is that still all right? Pia, flat 1'
				});
				addBlock(world, {
					title: 'Heritage course',
					from: addDays(today, 3),
					to: addDays(today, 3)
				});
				await deliverDue(world);
			}
		}
	];
	return asked.concat(
		DEMO_QUOTES.flatMap((one, index): Step[] => [
			{
				at: morning(one.ago, 300 + index),
				async run() {
					const id = beginQuote(world, `demo:${one.key}`, { customerId: ids.get(one.customer)! });
					known.set(one.key, id);
					const { sheet, version } = loadQuote(world.db, id);
					saveQuote(world, id, version, {
						...sheet,
						issueDate: displayDate(addDays(today, -one.ago)),
						workKindId: kindOf(world, one.kind),
						pricesIncludeVat: true,
						rows: one.rows.map((row, at) =>
							typeof row === 'string'
								? { id: `h${at}`, type: 'heading', text: row }
								: { ...blankLine(`r${at}`), ...row }
						),
						quote: { ...blankQuote().quote, ...one.terms }
					});
					// The last one is still being written.
					if (!one.then) return;
					const sending = prepareQuote(world, id);
					await sendQuote(world, id, version + 1, { key: 'demo', ...sending });
				}
			},
			...(one.then
				? [
						{
							at: morning(one.then.ago, 330 + index),
							run: () => answered(known.get(one.key)!, one.then!)
						}
					]
				: [])
		])
	);

	async function answered(id: number, { what, picked, words }: NonNullable<DemoQuote['then']>) {
		const { token, customerName } = loadQuote(world.db, id);
		noteQuoteOpened(world, token);
		if (what === 'asked') askQuestion(world, token, { key: 'demo', question: words! });
		if (what === 'declined') declineQuote(world, token, words!);
		if (what !== 'accepted') return;
		const { quote } = chosenOn(newestVersion(world.db, id)!, picked!);
		acceptQuote(
			world,
			id,
			{
				key: 'demo',
				n: 1,
				total: Number(quote.figures.total),
				picked: JSON.stringify(picked),
				name: customerName,
				begin: true,
				acknowledged: true
			},
			{ way: 'page', informed: 'page', from: { address: '192.0.2.14', agent: 'A phone' } }
		);
		await confirmAcceptances(world);
		await openDepositCheckout(world, token, 'card:demo-quote', 'card');
		await settle(Number(quote.deposit));
		await invoiceDeposits(world);
		if (world.db.select().from(quotes).where(eq(quotes.id, id)).get()?.state !== 'accepted')
			throw new Error('the demo quote was not accepted');
	}
}
