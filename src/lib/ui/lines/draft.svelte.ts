// Lines being written, wherever they are: their sheet, its customer, the figures that follow, and every change one can make.
// Over 300 lines: one object, whose figures, problems and undo all follow from the same rows.
import { blankHeading, blankLine, isBlank, pricesIncludeVatFor } from '$lib/core/sheet/blank';
import { lineAmount } from '$lib/core/jobs/billing';
import { headingSums } from '$lib/core/sheet/headings';
import { linesFromCells } from '$lib/core/sheet/paste';
import { untrack } from 'svelte';
import { SvelteMap } from 'svelte/reactivity';
import { BOOKS, CURRENCY_NAMES, type Currency } from '$lib/core/money/currencies';
import { parseDecimal } from '$lib/core/money/decimal';
import { displayAmount } from '$lib/core/money/display';
import type { PlainDate } from '$lib/core/calendar/types';
import type { Decimal } from '$lib/core/money/types';
import type { VatTreatment } from '$lib/core/regimes/types';
import { onBasis, priceInMoney, priceOn, ratesOn } from '$lib/core/sheet/priceBasis';
import type { SheetContext } from '$lib/core/sheet/context';
import { readSheet, type SheetReading } from '$lib/core/sheet/read';
import { readQuote, type QuoteReading } from '$lib/core/quotes/read';
import { NOTHING_PICKED, type Picked } from '$lib/core/quotes/chosen';
import type { Frozen } from '$lib/core/documents/types';
import type { CustomerRecord, SellerRecord } from '$lib/core/parties';
import type { Fix, Problem, Sheet, SheetLine, SheetRow } from '$lib/core/sheet/types';
import { notices } from '../parts/notices.svelte';
import { hand } from './hand';
import { keepOnList } from './keepOnList';
import { firstChanged, RowHistory } from './rowHistory';

export interface DraftPage {
	draft: { id: number; version: number; sheet: Sheet; savedAt: number };
	seller: SellerRecord;
	customer: CustomerRecord | null;
	mailTo: string;
	ownAddress: string;
	nextNumber: string;
	/** Where the numbers begin, until one has been taken. */
	series: { invoicePattern: string; invoiceNext: string } | null;
	today: string;
	/** What it copies of the invoices whose retention it releases. */
	follows?: SheetContext['follows'];
	/** What other money is worth. */
	rates?: SheetContext['rates'];
	/** The rate of the invoice it corrects. */
	exchange?: SheetContext['exchange'];
	/** The invoice it corrects, as it was issued. */
	corrects?: { number: string; frozen: Frozen } | null;
}

/** What lines are written from, where they are not those of a draft. */
export interface LinesOf extends Pick<
	DraftPage,
	'seller' | 'customer' | 'today' | 'follows' | 'rates' | 'exchange'
> {
	/** A job's have their cost in sight and no headings; a kit's are entries of the price list, with a quantity. */
	of?: 'invoice' | 'job' | 'kit' | 'quote';
	mailTo?: string;
	draft: { id: number; sheet: Sheet };
}

let counter = 0;
/** Unique among the rows of a sheet, also across tabs. */
function rowId(): string {
	return `${Date.now().toString(36)}${(counter++).toString(36)}${Math.floor(Math.random() * 1296).toString(36)}`;
}

export class Draft {
	readonly id: number;
	readonly of: NonNullable<LinesOf['of']>;
	sheet: Sheet;
	customer = $state<CustomerRecord | null>(null);
	mailTo = $state('');
	seller: SellerRecord = $state.raw()!;
	today: string;
	readonly follows: SheetContext['follows'];
	readonly rates: NonNullable<SheetContext['rates']>;
	readonly exchange: SheetContext['exchange'];
	/** Which figure the workings are shown of. */
	figure = $state('payable');
	/** After the first try to issue, what is still missing is said too. */
	triedToIssue = $state(false);
	/** On a quote: what its owner tries out as its customer would choose. */
	picked = $state.raw<Picked>(NOTHING_PICKED);
	/** What the server would not take, by path: said until it is sent again. */
	refused = $state.raw<Record<string, string>>({});
	/** What was just done to the rows, in words: for who does not see them move. */
	done = $state('');
	/** The field a fix sent the cursor to. */
	wanted = $state<string | null>(null);
	customerField = $state<string | null>(null);

	/** The sheet as plain data: read once at each change, computed from and saved. */
	plain = $derived.by((): Sheet => ({
		...this.sheet,
		rows: this.sheet.rows.map((row) => ({ ...row }))
	}));
	reading = $derived.by((): SheetReading | QuoteReading => {
		const context: SheetContext = {
			seller: this.seller,
			customer: this.customer,
			today: this.today,
			rates: this.rates,
			...(this.exchange ? { exchange: this.exchange } : {}),
			...(this.follows ? { follows: this.follows } : {})
		};
		return this.of === 'quote'
			? readQuote(this.plain, context, this.picked)
			: readSheet(this.plain, context);
	});
	/** What is said now, the gravest first. */
	problems = $derived([
		...Object.entries(this.refused).map(([path, message]): Problem => ({
			path,
			message,
			level: 'stop'
		})),
		...this.reading.problems
			.filter((problem) => this.triedToIssue || !problem.atIssue)
			.sort((a, b) => LEVELS.indexOf(a.level) - LEVELS.indexOf(b.level))
	]);
	stops = $derived(this.reading.problems.filter((problem) => problem.level === 'stop'));

	// What each line shows of the reading. With hundreds of lines only those that changed may be drawn again
	// at a key, so it is handed out piece by piece, and a piece that is as before touches nothing.
	/** The net amount of a row, as it is shown. */
	readonly amounts = new SvelteMap<string, string>();
	/** From a row's id to its place among the computed lines. */
	readonly lineIndex = new SvelteMap<string, number>();
	readonly problemAt = new SvelteMap<string, Problem>();
	taxDate = $state('');
	registered = $state(true);
	reverseCharge = $state(false);

	#handOut(reading: SheetReading, problems: Problem[]): void {
		const { lines, figures } = reading;
		hand(this.lineIndex, new Map(lines.map((line, index) => [line.id, index])));
		hand(
			this.amounts,
			new Map(
				this.of === 'kit'
					? lines.map((line) => [line.id, displayAmount(lineAmount(line))])
					: figures
						? lines.map((line, index) => [line.id, displayAmount(figures.lines[index]!.net)])
						: []
			)
		);
		const first = new Map<string, Problem>();
		for (const problem of problems) if (!first.has(problem.path)) first.set(problem.path, problem);
		hand(this.problemAt, first, (a, b) => a.message === b.message && a.level === b.level);
		this.taxDate = reading.dates.taxPoint.date;
		this.registered = reading.seller.vatRegistered;
		this.reverseCharge = figures?.vat.some((group) => group.reverseCharge) ?? false;
	}

	/** The sum of the lines under each heading, with its workings, by `heading.<id>`. */
	headingSums = $derived(headingSums(this.plain.rows, this.reading));

	constructor(page: LinesOf) {
		this.id = page.draft.id;
		this.of = page.of ?? 'invoice';
		const rows = page.draft.sheet.rows.length ? page.draft.sheet.rows : [blankLine(rowId())];
		this.sheet = $state({ ...page.draft.sheet, rows });
		this.customer = page.customer;
		this.mailTo = page.mailTo ?? '';
		this.seller = page.seller;
		this.today = page.today;
		this.follows = page.follows;
		this.rates = page.rates ?? [];
		this.exchange = page.exchange;
		this.#handOut(this.reading, this.problems);
		$effect.pre(() => {
			const { reading, problems } = this;
			untrack(() => this.#handOut(reading, problems));
		});
	}

	/** The sheet as it is saved: without the empty line that waits at the end. */
	json(): string {
		const { rows } = this.plain;
		const kept = rows.length === 1 && isBlank(rows[0]!) ? [] : rows;
		return JSON.stringify({ ...this.plain, rows: kept });
	}

	replace(sheet: Sheet): void {
		Object.assign(this.sheet, sheet);
		if (!this.sheet.rows.length) this.sheet.rows = [blankLine(rowId())];
	}

	chooseCustomer(record: CustomerRecord | null, mailTo = ''): void {
		const before = this.customer?.kind;
		this.customer = record;
		this.mailTo = mailTo;
		this.sheet.customerId = record?.id ?? null;
		this.sheet.siteId = null;
		if (record && !this.#priced) this.sheet.currency = record.currency;
		if (!record || record.kind === before) return;
		if (record.kind !== 'contractor') this.sheet.contract = null;
		// Only while nothing is priced yet: afterwards the owner decides.
		if (!this.#priced)
			this.sheet.pricesIncludeVat =
				this.reading.seller.vatRegistered && pricesIncludeVatFor(record.kind);
	}

	get #priced(): boolean {
		return this.sheet.rows.some((row) => row.type === 'line' && row.unitPrice.trim() !== '');
	}

	/** What a quote comes to, as it is tried out. */
	get quote(): QuoteReading | null {
		return 'quote' in this.reading ? this.reading : null;
	}

	/** What it is in. */
	get currency(): Currency {
		return this.sheet.currency ?? BOOKS;
	}

	/** Pounds for one of its money: null in pounds; undefined where no rate is known. */
	get rate(): Decimal | null | undefined {
		if (this.currency === BOOKS) return null;
		const { exchange } = this.reading;
		return exchange ? parseDecimal(exchange.rate)! : undefined;
	}

	/** Takes its amounts in other money. What is typed stays; converting it is offered where the rates are known. */
	takeMoney(currency: Currency): void {
		if (this.currency === currency) return;
		const from = this.rate;
		this.sheet.currency = currency;
		this.sheet.exchange = undefined;
		if (!this.#priced) return;
		const to = this.rate;
		const lines = () => this.sheet.rows.filter((row) => row.type === 'line');
		const before = new Map(lines().map((line) => [line.id, line.unitPrice]));
		const { many } = CURRENCY_NAMES[currency];
		const stand = `The prices stand as they were, and are ${many} now.`;
		if (from === undefined || to === undefined) return void notices.say(stand);
		notices.say(stand, {
			label: `Convert them into ${many}`,
			run: () => {
				for (const line of lines())
					if (line.unitPrice === before.get(line.id)) {
						line.unitPrice = priceInMoney(line.unitPrice, from, to);
						if (line.cost.trim()) line.cost = priceInMoney(line.cost, from, to);
						delete line.listPrice;
					}
			}
		});
	}

	/** An entry of the price list is in pounds: on a document in other money at its rate, or without a price where none is known. */
	#inItsMoney(line: SheetLine): SheetLine {
		if (this.currency === BOOKS) return line;
		const { listPrice: _pounds, ...plain } = line;
		const { rate } = this;
		return rate
			? {
					...plain,
					unitPrice: priceInMoney(line.unitPrice, null, rate),
					cost: line.cost.trim() ? priceInMoney(line.cost, null, rate) : ''
				}
			: { ...plain, unitPrice: '', cost: '' };
	}

	updateCustomer(record: CustomerRecord, mailTo: string): void {
		this.customer = record;
		this.mailTo = mailTo;
	}

	readonly #history = new RowHistory();
	#rows = () => $state.snapshot(this.sheet.rows) as SheetRow[];

	/** A step that Ctrl+Z takes back. */
	#step<T>(work: () => T): T {
		const before = this.#rows();
		const result = work();
		this.#history.note(before, this.#rows());
		return result;
	}

	/** Takes the last step back, or does it again. Returns the row the cursor goes to; null where there is nothing to. */
	undo(again = false): string | null {
		const now = this.#rows();
		const rows = again ? this.#history.forth(now) : this.#history.back(now);
		if (!rows) return null;
		this.sheet.rows = rows;
		this.done = again ? 'Done again.' : 'Taken back.';
		return firstChanged(now, rows);
	}

	position(id: string): number {
		return this.sheet.rows.findIndex((row) => row.id === id);
	}

	/** A line after the given row, taking over its settings. Returns its id. */
	addLine(after?: string): string {
		const at = after === undefined ? this.sheet.rows.length - 1 : this.position(after);
		const above = this.sheet.rows.slice(0, at + 1).findLast((row) => row.type === 'line');
		const line = blankLine(rowId(), above);
		this.sheet.rows.splice(at + 1, 0, line);
		return line.id;
	}

	addHeading(after?: string): string {
		const at = after === undefined ? this.sheet.rows.length - 1 : this.position(after);
		const heading = blankHeading(rowId());
		const last = this.sheet.rows[at];
		// Before an empty line that waits, so that what is typed next stands under the heading.
		this.sheet.rows.splice(last && isBlank(last) ? at : at + 1, 0, heading);
		return heading.id;
	}

	copyRow(id: string): string | null {
		const at = this.position(id);
		const row = this.sheet.rows[at];
		if (!row) return null;
		const copy: SheetRow = { ...$state.snapshot(row), id: rowId() };
		// What the first one bills cannot be billed by its copy too.
		if (copy.type === 'line') {
			delete copy.bills;
			delete copy.stageLineId;
		}
		this.#step(() => this.sheet.rows.splice(at + 1, 0, copy));
		this.done = `Copied: row ${at + 2} of ${this.sheet.rows.length}.`;
		return copy.id;
	}

	/** Puts an entry of the price list, or the parts of a kit, in place of a line; its quantity stays. */
	useEntry(id: string, lines: SheetLine[]): void {
		const at = this.position(id);
		const line = this.line(id);
		if (!line || lines.length === 0) return;
		const quantity = line.quantity.trim() || '1';
		const made = lines.map((one, index) => ({
			...this.#inItsMoney(onBasis(one, this.sheet.pricesIncludeVat, this.rateOf)),
			id: index === 0 ? id : rowId(),
			quantity: lines.length === 1 ? quantity : one.quantity
		}));
		this.#step(() => this.sheet.rows.splice(at, 1, ...made));
		if (this.currency !== BOOKS)
			notices.say(
				this.rate
					? `The price list is in pounds: converted at ${this.reading.exchange!.rate}.`
					: `The price list is in pounds, and no rate is known: type the price in ${CURRENCY_NAMES[this.currency].many}.`
			);
		this.wanted = `rows.${id}.quantity`;
	}

	/**
	 * Puts the lines of a job onto it. What holds for the whole job (site, class, dates, retention) comes along where the
	 * sheet is still bare; otherwise its lines keep the day on which they were finished.
	 */
	takeWork(job: Sheet, bare: boolean): void {
		const { rows, customerId: _customer, ...whole } = job;
		const lines = rows.map((row) =>
			row.type === 'line' && !bare && job.workFinished
				? { ...row, workDone: job.workFinished as PlainDate }
				: row
		);
		// A job is priced in pounds.
		if (this.currency !== BOOKS) this.sheet.currency = undefined;
		this.#step(() => {
			if (bare) Object.assign(this.sheet, whole, { grouping: this.sheet.grouping });
			const kept = this.sheet.rows.filter((row) => !isBlank(row));
			this.sheet.rows = [...kept, ...lines];
		});
	}

	/** Percent of VAT on the tax point; null where the seller charges none, or the supply bears none. */
	rateOf = (treatment: VatTreatment): Decimal | null =>
		ratesOn(this.taxDate, this.registered)(treatment);

	/** Takes prices with VAT, or without. What is typed stays; converting it is offered. */
	takePrices(includes: boolean): void {
		if (this.sheet.pricesIncludeVat === includes) return;
		this.sheet.pricesIncludeVat = includes;
		const lines = () => this.sheet.rows.filter((row) => row.type === 'line');
		const before = new Map(lines().map((line) => [line.id, line.unitPrice]));
		if (![...before.values()].some((price) => price.trim() !== '')) return;
		const now = includes ? 'with VAT' : 'without VAT';
		notices.say(`The prices stand as they were, and are ${now} now.`, {
			label: includes ? 'Put VAT into them' : 'Take VAT out of them',
			run: () => {
				for (const line of lines())
					if (line.unitPrice === before.get(line.id))
						line.unitPrice = priceOn(line.unitPrice, !includes, includes, this.rateOf(line.vat));
			}
		});
	}

	/** Saves a typed line to the price list in passing. */
	async keepOnList(id: string): Promise<void> {
		const line = this.line(id);
		if (line && this.currency !== BOOKS)
			return void notices.say(
				'The price list is in pounds, and this price is not: add it to the list by hand.'
			);
		const kept = line && (await keepOnList(line, this.registered && this.sheet.pricesIncludeVat));
		if (kept) line.itemId = kept;
	}

	/** What a press that leads to a field says; empty for what is not on the sheet. */
	whereIs(path: string): string {
		const id = /^rows\.([^.]+)/.exec(path)?.[1];
		if (id === undefined) return path === '' || path.startsWith('customer') ? '' : 'Go there';
		const at = this.position(id);
		if (at < 0) return '';
		if (this.sheet.rows[at]!.type === 'heading') return 'Go to its heading';
		const n = this.sheet.rows.slice(0, at + 1).filter((row) => row.type === 'line').length;
		return `Go to line ${n}`;
	}

	/** Moves a row up or down by one. */
	moveRow(id: string, by: 1 | -1): void {
		const at = this.position(id);
		const to = at + by;
		if (at < 0 || to < 0 || to >= this.sheet.rows.length) return;
		this.#step(() => {
			const [row] = this.sheet.rows.splice(at, 1);
			this.sheet.rows.splice(to, 0, row!);
		});
		this.done = `Moved ${by < 0 ? 'up' : 'down'}: row ${to + 1} of ${this.sheet.rows.length}.`;
	}

	/** Puts the rows into the order of the given ids. */
	reorder(ids: string[]): void {
		const rows = new Map(this.sheet.rows.map((row) => [row.id, row]));
		this.#step(() => (this.sheet.rows = ids.flatMap((id) => rows.get(id) ?? [])));
	}

	/** The rows that count: not the empty line that waits at the end. */
	get kept(): SheetRow[] {
		return this.plain.rows.filter((row) => !isBlank(row));
	}

	/** Removes a row and offers to bring it back. Returns the row the cursor goes to. */
	removeRow(id: string): string | null {
		const at = this.position(id);
		if (at < 0) return null;
		const removed = $state.snapshot(this.sheet.rows[at]!) as SheetRow;
		this.#step(() => {
			this.sheet.rows.splice(at, 1);
			if (this.sheet.rows.length === 0) this.sheet.rows.push(blankLine(rowId()));
		});
		if (!isBlank(removed)) {
			const what =
				removed.type === 'line' ? removed.description.trim().slice(0, 40) || 'Line' : 'Heading';
			notices.say(`“${what}” removed.`, {
				label: 'Undo',
				run: () =>
					this.#step(() => this.sheet.rows.splice(Math.min(at, this.sheet.rows.length), 0, removed))
			});
		}
		return this.sheet.rows[Math.min(at, this.sheet.rows.length - 1)]?.id ?? null;
	}

	/** Takes some rows away, whatever became of the others meanwhile. */
	#removeAll(ids: ReadonlySet<string>): void {
		this.#step(() => {
			this.sheet.rows = this.sheet.rows.filter((row) => !ids.has(row.id));
			if (this.sheet.rows.length === 0) this.sheet.rows.push(blankLine(rowId()));
		});
	}

	/** Rows copied from a spreadsheet become lines; one step takes them back. */
	paste(text: string, at: string): boolean {
		const above = this.sheet.rows[this.position(at)];
		const lines = linesFromCells(text, rowId, above);
		if (!lines) return false;
		const position = this.position(at);
		const replaced = above && isBlank(above) ? 1 : 0;
		this.#step(() =>
			this.sheet.rows.splice(replaced ? position : position + 1, replaced, ...lines)
		);
		notices.say(`${lines.length} ${lines.length === 1 ? 'line' : 'lines'} pasted.`, {
			label: 'Undo',
			run: () => this.#removeAll(new Set(lines.map((line) => line.id)))
		});
		return true;
	}

	line(id: string): SheetLine | undefined {
		const row = this.sheet.rows[this.position(id)];
		return row?.type === 'line' ? row : undefined;
	}

	apply(fix: Fix): void {
		switch (fix.type) {
			case 'set':
				if (fix.field === 'currency') return this.takeMoney(fix.value as Currency);
				Object.assign(this.sheet, { [fix.field]: fix.value });
				break;
			case 'setLine': {
				const line = this.line(fix.rowId);
				if (line)
					Object.assign(line, {
						[fix.field]: fix.value,
						...(fix.field === 'vat' ? { vatReason: '' } : {})
					});
				break;
			}
			case 'focus':
				this.wanted = fix.path;
				break;
			case 'customer':
				this.customerField = fix.field;
		}
	}
}

const LEVELS: Problem['level'][] = ['stop', 'warning', 'note'];
