import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import {
	matchColumns,
	oddHeadings,
	readTable,
	TableError
} from '../../../src/lib/core/formats/table';
import { kitLines } from '../../../src/lib/core/kits';
import { saveBusiness } from '../../../src/lib/server/services/business/settings';
import { entriesFor } from '../../../src/lib/server/services/prices/entries';
import { ConflictError, FieldError } from '../../../src/lib/core/refusals';
import {
	exportPrices,
	importPrices,
	previewPriceFile
} from '../../../src/lib/server/services/prices/file';
import { PRICE_COLUMNS } from '../../../src/lib/server/services/prices/columns';
import {
	fingerprint,
	previewRaise,
	raisePrices
} from '../../../src/lib/server/services/prices/raise';
import { findPrices, listPrices } from '../../../src/lib/server/services/prices/search';
import { pricePicture, savePicture } from '../../../src/lib/server/services/prices/pictures';
import { bringBack } from '../../../src/lib/server/services/business/bin';
import { pricePictures } from '../../../src/lib/server/db/schema';
import {
	noteUsed,
	priceItem,
	removePriceItem,
	savePriceItem
} from '../../../src/lib/server/services/prices/prices';
import { BUSINESS, makeWorld, type TestWorld } from '../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => world.end());

const add = (name: string, more: object = {}) => savePriceItem(world, null, 1, { name, ...more });
const bytes = (text: string) => new TextEncoder().encode(text);
const found = (typed: string) => findPrices(world, typed).map((row) => row.name);

describe('the price list', () => {
	it('is found by any words in any order, with small slips, the most used first', () => {
		const lime = add('Hydraulic lime NHL 3.5', { code: 'M-NHL', category: 'Lime' });
		add('Lime putty, mature');
		add('Repoint in hydraulic lime', { kind: 'labour' });
		expect(found('lime hydr')).to.have.members([
			'Hydraulic lime NHL 3.5',
			'Repoint in hydraulic lime'
		]);
		expect(found('hydrualic')).to.have.members([
			'Hydraulic lime NHL 3.5',
			'Repoint in hydraulic lime'
		]);
		expect(found('puty lime')).to.deep.equal(['Lime putty, mature']);
		expect(found('m-nhl')).to.deep.equal(['Hydraulic lime NHL 3.5']);
		expect(found('xyzzy')).to.deep.equal([]);
		expect(found('"; drop table price_items; --')).to.deep.equal([]);
		world.db.transaction((tx) => noteUsed(tx, Array(30).fill(lime)));
		expect(found('lime')[0]).to.equal('Hydraulic lime NHL 3.5');
	});

	it('says what is wrong at its field, and where another tab was first', () => {
		const id = add('A', { code: 'X' });
		const fields: [object, string][] = [
			[{ name: '' }, 'name'],
			[{ name: 'B', code: 'X' }, 'code'],
			[{ name: 'B', unitPrice: 'much' }, 'unitPrice'],
			[{ name: 'B', unitPrice: '1.23456' }, 'unitPrice'],
			[{ name: 'B', vat: 'zero' }, 'vat'],
			[{ name: 'B', kit: 'line', parts: [] }, 'parts'],
			[{ name: 'B'.repeat(300) }, 'name']
		];
		for (const [values, field] of fields)
			expect(() => savePriceItem(world, null, 1, values))
				.to.throw(FieldError)
				.with.nested.property(`fields.${field}`);
		savePriceItem(world, id, 1, { name: 'A2', unitPrice: '£1,250.00' });
		expect(priceItem(world, id).unitPrice).to.equal('1250.00');
		expect(() => savePriceItem(world, id, 1, { name: 'A3' })).to.throw(ConflictError);
	});

	it('a kit is one line that knows the cost of its goods, or its parts', () => {
		const work = add('Fit', { unitPrice: '45', unit: 'hour' });
		const goods = add('Brick', { kind: 'materials', unitPrice: '31', cost: '21' });
		const parts = [
			{ itemId: work, quantity: '2' },
			{ itemId: goods, quantity: '1.5' }
		];
		add('Air brick renewed', { kit: 'line', parts });
		const [entry] = entriesFor(world, 'renewed');
		expect(entry!.price).to.equal('136.50');
		expect(entry!.lines[0]).to.include({ kind: 'labour', unitPrice: '136.50', cost: '31.50' });
		add('As parts', { kit: 'parts', parts });
		const [, other] = entriesFor(world, 'as parts')[0]!.lines;
		expect(other).to.include({
			description: 'Brick',
			quantity: '1.5',
			cost: '31.50',
			itemId: goods
		});
		const kit = {
			id: 1,
			name: 'K',
			text: '',
			kind: 'labour' as const,
			unit: '',
			unitPrice: '',
			withVat: false,
			cost: '',
			vat: 'standard' as const,
			vatReason: '',
			kit: 'parts' as const,
			parts: [
				{
					entry: { ...entry!.lines[0]!, id: 2, name: 'x', text: '', withVat: false },
					quantity: '0.3333'
				}
			]
		};
		expect(
			kitLines(
				kit,
				'3',
				() => 'a',
				() => null
			)[0]!.quantity
		).to.equal('0.9999');
		expect(() => removePriceItem(world, goods)).to.throw(/holds it/);
	});

	it('brings back what was removed, with its parts, its picture, and the words it is found by', async () => {
		const part = add('Lath', { unitPrice: '2', income: 'New work' });
		const kit = add('Lath and nails', { kit: 'line', parts: [{ itemId: part, quantity: '7' }] });
		world.db
			.insert(pricePictures)
			.values({ itemId: kit, type: 'image/png', content: Buffer.from('p') })
			.run();
		const bin = removePriceItem(world, kit)!;
		expect(() => priceItem(world, kit)).to.throw(/not here/i);
		expect(entriesFor(world, 'lath nails')).to.deep.equal([]);
		expect(removePriceItem(world, kit)).to.equal(null);
		bringBack(world, bin);
		expect(priceItem(world, kit)).to.deep.include({ name: 'Lath and nails', hasPicture: true });
		expect(pricePicture(world, kit).content.toString()).to.equal('p');
		const [found] = entriesFor(world, 'lath nails');
		expect(found!.lines[0]!.unitPrice).to.equal('14.00');
		expect(entriesFor(world, 'lath').find(({ id }) => id === part)!.lines[0]).to.include({
			income: 'New work'
		});
		expect(() => bringBack(world, bin)).to.throw(/removed/i);
	});

	it('says of a price whether VAT is in it, and a kit adds up parts of either sort', () => {
		const net = add('Board', { unitPrice: '10', kind: 'materials' });
		const gross = add('Bead', { unitPrice: '6', withVat: true, kind: 'materials' });
		const parts = [
			{ itemId: net, quantity: '2' },
			{ itemId: gross, quantity: '3' }
		];
		add('Boarded', { kit: 'line', parts });
		add('Corner, all in', { kit: 'line', parts, withVat: true });
		// 2 × 10 and 3 × 6 / 1.2; with VAT 2 × 12 and 3 × 6.
		expect(entriesFor(world, 'boarded')[0]).to.include({ price: '35.00', withVat: false });
		expect(entriesFor(world, 'corner')[0]).to.include({ price: '42.00', withVat: true });
		// Who charges no VAT has none to take out.
		saveBusiness(world, { ...BUSINESS, vatRegistered: false, vatFrom: '2026-11-01' });
		expect(entriesFor(world, 'boarded')[0]!.price).to.equal('38.00');
		expect(entriesFor(world, 'bead')[0]!.lines[0]!.listPrice).to.deep.equal({
			price: '6',
			withVat: true
		});
		expect(priceItem(world, gross).withVat).to.equal(true);
		const file = [...exportPrices(world)].join('');
		expect(file)
			.to.match(/,Bead,.*,6,yes,/)
			.and.to.match(/,Board,.*,10,no,/);
	});

	it('is raised by a percentage as the preview showed, or not at all', () => {
		add('A', { unitPrice: '12.34', category: 'Lime' });
		const other = add('B', { unitPrice: '10', category: 'Hire' });
		const raise = { category: 'Lime', percent: '4.5%' };
		const seen = previewRaise(world, raise);
		expect(seen.map((one) => [one.before, one.after])).to.deep.equal([['12.34', '12.90']]);
		expect(raisePrices(world, raise, fingerprint(seen))).to.equal(1);
		expect(() => raisePrices(world, raise, fingerprint(seen))).to.throw(ConflictError);
		expect(priceItem(world, other).unitPrice).to.equal('10');
		for (const percent of ['', 'x', '101', '0'])
			expect(() => previewRaise(world, { category: '', percent })).to.throw(FieldError);
	});

	it('a picture that is none is refused', async () => {
		const error = await savePicture(world, add('A'), Buffer.from('%PDF-1.4')).catch(
			(caught: Error) => caught
		);
		expect(error).to.be.instanceOf(FieldError);
	});
});

describe('a price list as a file', () => {
	const CSV =
		'Code;Description;Unit;Trade price;Retail price\nA1;Lime putty;tub;15,40;21.50\nA2;"Sand; washed";bag;3.20;4.90\nA1;Twice;;1;1\n;;;;\nA3;;;1;1\n';

	async function bring(text: string | Uint8Array) {
		const data = typeof text === 'string' ? bytes(text) : text;
		const { mapping } = previewPriceFile(world, data);
		let report: { outcome: string; detail: string }[] = [];
		for await (const step of importPrices(world, data, mapping)) report = step.report ?? report;
		return report;
	}

	it('finds separator and columns, reports each row, and writes nothing before it is told to', () => {
		const preview = previewPriceFile(world, bytes(CSV));
		expect(preview).to.include({ separator: ';', encoding: 'utf-8' });
		expect(preview.mapping).to.deep.include({ code: 0, name: 1, unit: 2, cost: 3 });
		expect(preview.counts).to.deep.equal({ new: 1, changed: 0, same: 0, wrong: 3 });
		expect(preview.rows.map((row) => [row.line, row.detail])).to.deep.include([
			2,
			'Write the cost as a plain number, such as 12.50.'
		]);
		expect(listPrices(world, {}).total).to.equal(0);
	});

	it('the same file twice changes nothing; a changed row changes its entry and says how', async () => {
		const file = 'code,name,price\nA1,Lime,21.50\nA2,Sand,4.90\n';
		expect((await bring(file)).map((row) => row.outcome)).to.deep.equal(['new', 'new']);
		expect((await bring(file)).map((row) => row.outcome)).to.deep.equal(['same', 'same']);
		const [changed] = await bring(file.replace('21.50', '22'));
		expect(changed).to.include({ outcome: 'changed', detail: 'Price: 21.50 → 22' });
		expect(priceItem(world, 1)).to.include({ unitPrice: '22', version: 2 });
	});

	it('goes out and comes in again unchanged, formulas and all', async () => {
		add('=2+2', {
			code: '+A',
			unitPrice: '1.50',
			kind: 'plantHire',
			category: 'Hire, “of” things'
		});
		const file = [...exportPrices(world)].join('');
		expect(file).to.include("'=2+2");
		expect((await bring(file)).map((row) => row.outcome)).to.deep.equal(['same']);
	});

	it('reads what Windows saves, and files with a mark at the start', async () => {
		const windows = Uint8Array.from(
			[...'name,price\nPl']
				.map((c) => c.charCodeAt(0))
				.concat([0xe2, 0x74, 0x72, 0x65, 0x2c, 0x35, 0x0a])
		);
		expect(previewPriceFile(world, windows)).to.include({ encoding: 'windows-1252' });
		await bring(windows);
		expect(found('platre')).to.deep.equal(['Plâtre']);
		expect(readTable(bytes('\ufeffname\tprice\na\t1\n')).headings).to.deep.equal(['name', 'price']);
		const wide = Buffer.from('\ufeffname,price\na,1\n', 'utf16le');
		expect(readTable(new Uint8Array(wide)).encoding).to.equal('utf-16le');
	});

	it('says which columns are missing or stand twice', () => {
		const preview = previewPriceFile(world, bytes('price,price,,x\n1,2,3,4\n'));
		expect(preview.notes).to.deep.equal([
			'The column “price” stands there twice.',
			'1 columns have no heading.',
			'No column looks like a name. Choose it.'
		]);
		expect(preview.counts.wrong).to.equal(1);
		expect(matchColumns(['Item description', 'Nett price'], PRICE_COLUMNS)).to.deep.include({
			name: 0,
			unitPrice: 1
		});
		expect(oddHeadings(['a', 'b'])).to.deep.equal({ double: [], unnamed: 0 });
	});

	const refused: [string, Uint8Array, RegExp][] = [
		['nothing', new Uint8Array(), /empty/],
		['100 MB', new Uint8Array(100 * 1024 * 1024), /100 MB/],
		['a heading alone', bytes('name,price\n'), /nothing under it/],
		['no text', Uint8Array.from([80, 75, 3, 4, 0, 0, 0, 10, 65, 0]), /no text file|nothing under/]
	];
	for (const [name, file, words] of refused)
		it(`refuses ${name}`, () => expect(() => readTable(file)).to.throw(TableError, words));
});
