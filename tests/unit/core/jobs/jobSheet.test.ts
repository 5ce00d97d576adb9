// What a job sheet puts forward, what it keeps, and how it reads: against what is written out here by hand.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import {
	onTheSheet,
	putForward,
	type JobSheetSource,
	type JobSheetWritten
} from '../../../../src/lib/core/jobs/jobSheet';
import { captionOf, jobSheetView } from '../../../../src/lib/core/jobs/jobSheetView';
import { STANDARD_LOOK, readLook } from '../../../../src/lib/core/letterheads/look';

const line = (id: number, description: string, quantity: string, unitPrice: string, more = {}) => ({
	id,
	kind: 'labour' as const,
	description,
	quantity,
	unit: 'm²',
	unitPrice,
	vat: 'standard' as const,
	vatReason: '',
	discount: '',
	cost: '11.11',
	extra: false,
	...more
});
const time = (id: number, minutes: number | null, chargeable: boolean) => ({
	id,
	date: '2026-11-23',
	person: 'Joss',
	minutes,
	rate: '40',
	hourlyCost: '22.22',
	chargeable,
	note: 'Skimming'
});
const cost = (id: number, kind: 'materials' | 'plantHire', chargeable: boolean) => ({
	id,
	date: '2026-11-23',
	kind,
	description: kind === 'materials' ? 'Lime putty' : 'Tower',
	quantity: '3',
	unit: 'tub',
	unitCost: '33.33',
	markUp: '20',
	unitPrice: '',
	vat: 'standard' as const,
	vatReason: '',
	chargeable
});
const visit = (id: number, done: boolean, note = '') => ({
	id,
	date: '2026-11-23',
	endDate: null,
	from: '09:00',
	to: '12:30',
	who: 'Tamsin',
	note,
	done
});

const SOURCE: JobSheetSource = {
	job: { number: 'J-0007', title: 'Ceiling in the hall' },
	seller: {
		tradingName: 'Orrell Lime & Plaster',
		ownerName: 'Tamsin Orrell',
		address: 'Kiln Cottage\nHarrowmere',
		email: 'tamsin@orrell-lime.example',
		phone: '',
		vatRegistered: true,
		vatNumber: '444444454',
		utr: '',
		cisSubcontractor: false,
		bank: { accountName: '', sortCode: '', accountNumber: '' },
		terms: { days: 14, endOfMonth: false }
	},
	customer: { name: 'Odile Brancaster', address: 'Lantern House\nHarrowmere' },
	site: { name: 'The mill', address: 'Weir Lane' },
	includes: false,
	visits: [
		visit(1, true, 'First coat is on.'),
		visit(2, true, 'Second coat.'),
		visit(3, false, 'x')
	],
	work: {
		lines: [line(10, 'Skim the ceiling', '12.5', '18.40', { discount: '5%' })],
		time: [time(20, 90, true), time(21, 60, false), time(22, null, true)],
		costs: [cost(30, 'materials', true), cost(31, 'plantHire', true)]
	},
	photos: [
		{ id: 40, name: 'IMG_2041.jpg' },
		{ id: 41, name: 'The rose before.jpg' }
	],
	look: STANDARD_LOOK
};
const ALL = putForward(SOURCE);
const PAPER = { number: 'J-0007/1', on: '2026-11-24' };
const rowsOf = (written: JobSheetWritten, source = SOURCE) =>
	jobSheetView(source, written, PAPER).sections.flatMap(({ heading, rows }) =>
		rows.map(({ description, quantity, amount }) => [heading, description, quantity, amount])
	);

describe('a job sheet', () => {
	it('puts forward what was done and is new, and of costs only what was built in', () => {
		expect(ALL).to.deep.equal({
			done: 'First coat is on.\nSecond coat.',
			remains: '',
			visits: [1, 2],
			lines: [10],
			times: [20, 21],
			costs: [30],
			photos: [40, 41],
			prices: false
		});
		expect(
			putForward(SOURCE, [{ ...ALL, visits: [1], times: [20], photos: [40] }])
		).to.deep.include({
			done: 'Second coat.',
			visits: [2],
			lines: [],
			times: [21],
			costs: [],
			photos: [41]
		});
	});
	it('says of each row its unit, and above all whose, of which job and day it is', () => {
		const view = jobSheetView(SOURCE, ALL, PAPER);
		expect(view.sections.map(({ heading, rows }) => [heading, rows[0]!.unit])).to.deep.equal([
			['Visits', ''],
			['Work', 'm²'],
			['Time', 'h'],
			['Materials', 'tub']
		]);
		expect(view.facts).to.deep.equal([
			{ id: 'issued', label: 'Date', value: '24 Nov 2026' },
			{ id: 'reference', label: 'Job', value: 'J-0007' }
		]);
		expect([view.title, view.number, view.banner, view.customer]).to.deep.equal([
			'Job sheet',
			'J-0007/1',
			'',
			['Odile Brancaster', 'Lantern House', 'Harrowmere']
		]);
		expect(jobSheetView(SOURCE, ALL, { ...PAPER, draft: true }).banner).to.equal(
			'Draft: nobody has it yet'
		);
		const look = readLook({ words: { jobSheet: { title: '  Day sheet ', above: '', below: '' } } });
		expect(jobSheetView({ ...SOURCE, look }, ALL, PAPER).title).to.equal('Day sheet');
	});
	it('tells what was done without a price or a cost', () => {
		expect(rowsOf(ALL)).to.deep.equal([
			['Visits', 'Monday 23 November, 09:00 to 12:30, Tamsin', '', ''],
			['Visits', 'Monday 23 November, 09:00 to 12:30, Tamsin', '', ''],
			['Work', 'Skim the ceiling', '12.5', ''],
			['Time', '23 Nov 2026, Joss, Skimming', '1.5', ''],
			['Time', '23 Nov 2026, Joss, Skimming', '1', ''],
			['Materials', 'Lime putty', '3', '']
		]);
		// What the owner's own words say already is not said twice.
		expect(rowsOf({ ...ALL, done: 'Skimmed.' })[1]![1]).to.equal(
			'Monday 23 November, 09:00 to 12:30, Tamsin\nSecond coat.'
		);
		const view = jobSheetView(SOURCE, ALL, PAPER);
		expect(view.columns.map(({ id }) => id)).to.deep.equal(['description', 'quantity', 'unit']);
		expect([view.payable, view.totals, view.bank]).to.deep.equal([null, [], null]);
		expect(view.statements).to.deep.equal(['This tells what was done; it is no invoice.']);
		expect(view.site).to.deep.equal(['The mill', 'Weir Lane']);
	});
	it('shows prices where asked: 12.5 × 18.40 less 5 %, 1.5 h × 40, 3 × 40.00, and what is included', () => {
		const written = { ...ALL, prices: true, remains: 'Paint in a month' };
		// 12.5 × 18.40 = 230.00, less 11.50; 33.33 and 20 % are 39.996, to the penny 40.00.
		expect(rowsOf(written).map((row) => row[3])).to.deep.equal([
			'',
			'',
			'218.50',
			'60.00',
			'included',
			'120.00'
		]);
		const view = jobSheetView(SOURCE, written, PAPER);
		expect(view.totals).to.deep.equal([
			{ label: 'In all, without VAT', amount: '398.50', strong: true }
		]);
		expect(view.statements).to.deep.equal([
			'Still to do: Paint in a month',
			'This is no invoice: what is charged stands on the invoice.'
		]);
		const including = jobSheetView({ ...SOURCE, includes: true }, written, PAPER);
		expect(including.totals[0]!.label).to.equal('In all, with VAT');
		const seller = { ...SOURCE.seller, vatRegistered: false };
		expect(jobSheetView({ ...SOURCE, seller }, written, PAPER).totals[0]!.label).to.equal('In all');
	});
	it('keeps nothing that the customer may not see, and reads the same from what is kept', () => {
		for (const prices of [false, true]) {
			const written = { ...ALL, visits: [2], times: [], prices };
			const kept = onTheSheet(SOURCE, written);
			const text = JSON.stringify(kept);
			for (const secret of ['11.11', '22.22', '33.33', 'First coat', 'Tower'])
				expect(text, secret).not.to.contain(secret);
			expect(text.includes('18.40')).to.equal(prices);
			expect(rowsOf(written, kept)).to.deep.equal(rowsOf(written));
		}
	});
	it('says who signed, when by the clock in London, where, and what stands for the signature', () => {
		const signed = {
			name: 'Odile',
			position: '',
			at: 1785585600000,
			way: 'page',
			drawn: null
		} as const;
		expect(jobSheetView(SOURCE, ALL, { ...PAPER, signed }).note).to.equal(
			'Signed by Odile on 1 Aug 2026, 13:00, on its page. The typed name stands for the signature.'
		);
		const drawn = 'data:image/png;base64,AAAA';
		const view = jobSheetView(SOURCE, ALL, {
			...PAPER,
			signed: { ...signed, position: 'foreman', way: 'phone', drawn }
		});
		expect(view.note).to.equal('Signed by Odile, foreman on 1 Aug 2026, 13:00, on our phone.');
		expect(view.signature).to.equal(drawn);
	});
	it('is written on the owner’s letterhead, under its own title', () => {
		const look = readLook({
			words: { jobSheet: { title: 'Day sheet', above: 'As agreed:', below: 'Thank you.' } }
		});
		const view = jobSheetView({ ...SOURCE, look }, ALL, PAPER);
		expect([view.title, view.above, view.below]).to.deep.equal([
			'Day sheet',
			['Ceiling in the hall', 'As agreed:', 'First coat is on.\nSecond coat.'],
			['Thank you.']
		]);
	});
	it('shows photos by the names they were given, and not by those of a camera', () => {
		expect(jobSheetView(SOURCE, ALL, PAPER).photos).to.deep.equal([
			{ id: 40, caption: '' },
			{ id: 41, caption: 'The rose before' }
		]);
		expect(
			['DSC-0012.JPG', 'PXL_20261123_101500.jpg', '2026-11-23 (2).jpeg'].map(captionOf)
		).to.deep.equal(['', '', '']);
		expect(captionOf('photo of the damp.png')).to.equal('photo of the damp');
	});
});
