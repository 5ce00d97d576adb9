// Presses in any order: whatever an owner does with a job and its documents, the books agree and nothing is billed twice.
import { expect } from 'chai';
import { eq, sql } from 'drizzle-orm';
import fc from 'fast-check';
import { describe, it } from 'mocha';
import { documents, openItems, payments } from '../../../src/lib/server/db/schema';
import { expectSoundBooks } from '../../support/books';
import { creditInvoice, creditPart } from '../../../src/lib/server/services/invoices/creditNote';
import { correctAsDraft } from '../../../src/lib/server/services/invoices/corrections';
import { addCustomer } from '../../../src/lib/server/services/customers/customers';
import {
	discardDraft,
	loadDraft,
	saveDraft
} from '../../../src/lib/server/services/invoices/drafts';
import {
	ConflictError,
	FieldError,
	NotFoundError,
	RefusedError
} from '../../../src/lib/core/refusals';
import { issueInvoice } from '../../../src/lib/server/services/invoices/issue';
import { saveTime } from '../../../src/lib/server/services/jobs/time';
import { saveCost } from '../../../src/lib/server/services/jobs/costs';
import { addJob } from '../../../src/lib/server/services/jobs/jobs';
import { moveJob } from '../../../src/lib/server/services/jobs/states';
import { recordPayment } from '../../../src/lib/server/services/money/payments';
import { undoPayment } from '../../../src/lib/server/services/money/undo';
import { billStage } from '../../../src/lib/server/services/billing/stages';
import { billJob, toBill } from '../../../src/lib/server/services/billing/toBill';
import { CONTRACTOR, makeWorld, type TestWorld } from '../../support/world';

const PRESSES = [
	'time',
	'cost',
	'bill',
	'bill',
	'deposit',
	'toDate',
	'rest',
	'issue',
	'issue',
	'issue',
	'discard',
	'restore',
	'credit',
	'creditPart',
	'creditPart',
	'correct',
	'pay',
	'unpay',
	'finish'
] as const;
type Press = { what: (typeof PRESSES)[number]; which: number };

class Bench {
	readonly world: TestWorld = makeWorld();
	readonly job: number;
	private presses = 0;

	constructor(staged: boolean) {
		const customerId = addCustomer(this.world, CONTRACTOR);
		this.job = addJob(this.world, 'job', {
			title: 'Mill Yard',
			customerId,
			contract: 'construction',
			...(staged ? { retention: '5', retentionDue: '2027-11-24' } : {}),
			lines: [
				{ description: 'Lime plaster', quantity: '3', unitPrice: '333.33' },
				{
					kind: 'materials',
					description: 'Lime',
					quantity: '1',
					unitPrice: '77.77',
					cost: '50.01'
				}
			]
		});
		moveJob(this.world, this.job, 'underWay');
	}

	private documents(state: 'draft' | 'issued' | 'discarded') {
		return this.world.db
			.select()
			.from(documents)
			.where(eq(documents.state, state))
			.all()
			.filter((row) => row.kind === 'invoice');
	}

	/** What the owner sees refused is no fault; anything else is. */
	async press({ what, which }: Press): Promise<void> {
		try {
			await this.act(what, which);
		} catch (error) {
			const said = [FieldError, RefusedError, NotFoundError, ConflictError];
			if (!said.some((kind) => error instanceof kind)) throw error;
		}
	}

	private async act(what: Press['what'], which: number): Promise<void> {
		const { world, job } = this;
		const key = `press-${++this.presses}`;
		const of = <T>(rows: T[]): T => {
			if (rows.length === 0) throw new RefusedError('nothing there');
			return rows[which % rows.length]!;
		};
		switch (what) {
			case 'time':
				saveTime(world, job, key, null, {
					date: '2026-11-20',
					hours: '1:30',
					rate: '45',
					chargeable: true
				});
				return;
			case 'cost':
				saveCost(world, job, key, null, {
					date: '2026-11-20',
					description: 'Sand',
					quantity: '2',
					unitCost: '10',
					unitPrice: '12.34',
					chargeable: true
				});
				return;
			case 'bill':
				billJob(world, job, (['lines', 'kinds', 'single'] as const)[which % 3]!, key);
				return;
			case 'deposit':
				billStage(world, job, key, { kind: 'deposit', by: 'percent', percent: '33.3' });
				return;
			case 'toDate':
				billStage(world, job, key, {
					kind: 'valuation',
					by: 'toDate',
					percent: String(20 + (which % 80))
				});
				return;
			case 'rest':
				billStage(world, job, key, { kind: 'rest', by: 'rest' });
				return;
			case 'issue': {
				const draft = of(this.documents('draft'));
				await issueInvoice(world, draft.id, draft.version);
				return;
			}
			case 'discard':
				return discardDraft(world, of(this.documents('draft')).id, true);
			case 'restore':
				return discardDraft(world, of(this.documents('discarded')).id, false);
			case 'credit':
				await creditInvoice(world, of(this.documents('issued')).id, 'Wrong', key);
				return;
			case 'creditPart':
				await creditPart(world, of(this.documents('issued')).id, {
					key,
					reason: 'Less was done',
					again: true,
					wishes: (left) => {
						const { position, quantity, taxable } = of([...left]);
						return which % 2
							? [{ position, amount: taxable / 3n }]
							: [{ position, quantity: { units: quantity.units * 4n, scale: quantity.scale + 1 } }];
					}
				});
				return;
			case 'correct': {
				const id = correctAsDraft(world, of(this.documents('issued')).id, key);
				const { sheet, version } = loadDraft(world.db, id);
				const rows = sheet.rows.map((row) =>
					row.type === 'line' ? { ...row, quantity: '1' } : row
				);
				saveDraft(world, id, version, { ...sheet, rows, about: { ...sheet.about!, reason: 'x' } });
				await issueInvoice(world, id, version + 1);
				return;
			}
			case 'pay': {
				const item = of(world.db.select().from(openItems).all());
				recordPayment(world, item.documentId, {
					key,
					date: world.clock.today(),
					amount: '100.01',
					withheld: '',
					way: 'bank',
					reference: '',
					allowOverpaid: true
				});
				return;
			}
			case 'unpay':
				return undoPayment(world, of(world.db.select().from(payments).all()).id, 'Wrong one');
			case 'finish':
				return moveJob(world, job, 'finished', '2026-11-23');
		}
	}

	check(after: string): void {
		expectSoundBooks(this.world.db, after);
		const { billed, agreed } = this.world.db.get<{ billed: number; agreed: number }>(sql`
			select coalesce((select sum(-amount) from journal_lines where account = 'sales' and job_id = ${this.job}), 0) as billed,
				107776 + coalesce((select count(*) * 6750 from time_entries), 0)
					+ coalesce((select count(*) * 2468 from job_costs), 0) as agreed`);
		expect(billed, `${after}: billed`).to.be.at.most(agreed).and.at.least(0);
		const waiting = toBill(this.world)
			.filter((one) => one.id === this.job)
			.reduce((sum, one) => sum + Number(one.amount), 0);
		expect(billed + waiting, `${after}: billed and to bill`).to.be.at.most(agreed);
	}
}

const sequence = (...presses: Press['what'][]): [Press[]] => [
	presses.map((what) => ({ what, which: 0 }))
];
/** A draft brought back must not take what another bills in the meantime. */
const FOUND = [
	sequence('bill', 'discard', 'deposit', 'restore', 'issue', 'issue'),
	sequence('deposit', 'discard', 'bill', 'restore', 'issue', 'issue')
];

describe('presses in any order', () => {
	for (const staged of [false, true])
		it(`keep the books of a job ${staged ? 'with retention' : 'without'}, and bill nothing twice`, async function () {
			this.timeout(300_000);
			const press = fc.record({ what: fc.constantFrom(...PRESSES), which: fc.nat(100) });
			await fc.assert(
				fc.asyncProperty(fc.array(press, { minLength: 12, maxLength: 28 }), async (presses) => {
					const bench = new Bench(staged);
					try {
						for (const [n, one] of presses.entries()) {
							await bench.press(one);
							bench.check(`${n}: ${one.what}`);
						}
					} finally {
						bench.world.end();
					}
				}),
				{ numRuns: 10, seed: staged ? 5 : 4, examples: FOUND }
			);
		});
});
