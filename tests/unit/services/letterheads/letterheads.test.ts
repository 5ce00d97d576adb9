// Letterheads in use: chosen by document, customer, kind of work; frozen at issue; logos that are no pictures.
// Over 300 lines: one case for each thing that is done with them.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import { STANDARD_LOOK, type Look } from '../../../../src/lib/core/letterheads/look';
import {
	ConflictError,
	FieldError,
	NotFoundError,
	RefusedError
} from '../../../../src/lib/core/refusals';
import { threadPress } from '../../../../src/lib/server/documents/press';
import { customers, documentFiles, documents, mails } from '../../../../src/lib/server/db/schema';
import {
	archiveWorkKind,
	listWorkKinds,
	saveWorkKind
} from '../../../../src/lib/server/services/business/workKinds';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { copyPdf } from '../../../../src/lib/server/services/desk/documents';
import { drawOn } from '../../../../src/lib/server/services/desk/letterheadPreview';
import { loadDraft } from '../../../../src/lib/server/services/invoices/drafts';
import { sheetContext } from '../../../../src/lib/server/services/invoices/context';
import { issueInvoice } from '../../../../src/lib/server/services/invoices/issue';
import { queueIssued } from '../../../../src/lib/server/services/invoices/send';
import { drawDocument } from '../../../../src/lib/server/services/letterheads/dress';
import {
	archiveLetterhead,
	listLetterheads,
	loadLetterhead,
	lookOfItsOwn,
	makeLetterhead,
	makeStandard,
	renameLetterhead,
	saveLook,
	usersOf
} from '../../../../src/lib/server/services/letterheads/letterheads';
import { loadLogo, saveLogo } from '../../../../src/lib/server/services/letterheads/logos';
import { payPage } from '../../../../src/lib/server/services/money/payPage';
import { frozenView } from '../../../../src/lib/core/documents/view';
import { blankSheet } from '../../../../src/lib/core/sheet/blank';
import type { Sheet } from '../../../../src/lib/core/sheet/types';
import {
	draftOf,
	HOUSEHOLD,
	issued,
	line,
	makeWorld,
	type TestWorld
} from '../../../support/world';
import { textOf, wordsOf } from '../../../support/pdf';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => world.end());

const made = (name: string, more: Partial<Look> = {}): number => {
	const id = makeLetterhead(world, name, null);
	renameLetterhead(world, id, name);
	const { version } = loadLetterhead(world.db, id);
	saveLook(world, id, version, { ...STANDARD_LOOK, ...more });
	return id;
};
const sheet = (more: Partial<Sheet>): Sheet => ({ ...blankSheet(), ...more });
const thrown = (work: () => unknown): unknown => {
	try {
		work();
	} catch (error) {
		return error;
	}
	return null;
};
const fieldsOf = (work: () => unknown) => (thrown(work) as FieldError | null)?.fields;
const refusedLogo = async (bytes: Buffer | string) => {
	try {
		await saveLogo(world, Buffer.from(bytes), 'logo.svg');
	} catch (error) {
		if (error instanceof FieldError) return error.fields.logo;
		throw error;
	}
	return 'taken';
};
describe('which letterhead a document is written on', () => {
	it('is the document’s own, else its customer’s, its kind of work’s, the standard; never an archived one', () => {
		const [standard, ofKind, ofCustomer, own] = [
			made('Standard', { payTitle: 'standard' }),
			made('Kind', { payTitle: 'kind' }),
			made('Customer', { payTitle: 'customer' }),
			made('Own', { payTitle: 'own' })
		];
		const workKindId = saveWorkKind(world, null, { name: 'Damp', letterheadId: ofKind });
		const customerId = addCustomer(world, { ...HOUSEHOLD, letterheadId: ofCustomer });
		const other = addCustomer(world, { ...HOUSEHOLD, name: 'Another' });
		const title = (more: object) =>
			sheetContext(world.db, sheet({ customerId, workKindId, ...more }), '2026-11-24').dress?.look
				?.payTitle;
		expect([
			title({ letterheadId: own }),
			title({}),
			title({ customerId: other }),
			title({ customerId: other, workKindId: undefined })
		]).to.deep.equal(['own', 'customer', 'kind', 'standard']);
		archiveLetterhead(world, own, true);
		archiveLetterhead(world, ofCustomer, true);
		expect(title({ letterheadId: own })).to.equal('kind');
		expect(
			listLetterheads(world.db).map(({ name, standard: s, archived, kinds }) => [
				name,
				s,
				archived,
				kinds
			])
		).to.deep.equal([
			['Standard', true, false, 0],
			['Kind', false, false, 1],
			['Customer', false, true, 0],
			['Own', false, true, 0]
		]);
		expect(thrown(() => archiveLetterhead(world, standard, true))).to.be.instanceOf(RefusedError);
		makeStandard(world, ofKind);
		archiveLetterhead(world, standard, true);
		expect(title({ customerId: other, workKindId: undefined })).to.equal('kind');
	});

	it('is archived while a draft uses it: the draft is issued on the next', async () => {
		made('Standard', { payTitle: 'standard' });
		const own = made('Own', { payTitle: 'own' });
		const { id, version } = draftOf(world, HOUSEHOLD, { letterheadId: own });
		archiveLetterhead(world, own, true);
		await issueInvoice(world, id, version);
		expect(loadDraft(world.db, id).frozen?.look?.payTitle).to.equal('standard');
	});
});

describe('what is issued', () => {
	it('keeps its look and its kind of work, whatever becomes of them; its page, mail and copy too', async () => {
		world.press = threadPress();
		const logo = await saveLogo(
			world,
			await sharp({ create: { width: 40, height: 20, channels: 3, background: '#9c2f20' } })
				.png()
				.toBuffer(),
			'mark.png'
		);
		const letterhead = made('Standard', { logo, accent: '#9c2f20', payTitle: 'Paying us' });
		const kind = saveWorkKind(world, null, { name: 'Damp' });
		const { id, version } = draftOf(world, HOUSEHOLD, { workKindId: kind });
		expect(loadDraft(world.db, id).workKindId).to.equal(kind);
		await issueInvoice(world, id, version);
		const stored = () =>
			world.db.select().from(documentFiles).where(eq(documentFiles.documentId, id)).get()!.sha256;
		const before = stored();
		saveLook(world, letterhead, 2, { ...STANDARD_LOOK, payTitle: 'Another' });
		saveWorkKind(world, kind, { name: 'Moisture' });
		archiveWorkKind(world, kind, true);
		const row = loadDraft(world.db, id);
		expect([row.frozen?.look?.payTitle, row.frozen?.workKind, row.workKindId]).to.deep.equal([
			'Paying us',
			{ id: kind, name: 'Damp' },
			kind
		]);
		expect(stored()).to.equal(before);
		expect(payPage(world, row.token!).view.look.logo).to.equal(logo);
		world.db.transaction((tx) => queueIssued(tx, world, id, { key: 'k', who: 'you' }));
		expect(world.db.select().from(mails).get()!.html).to.contain('background:#9c2f20');
		const copy = await textOf((await copyPdf(world, id)).content);
		expect(copy).to.contain('Copy of a document sent before');
		expect(copy).to.contain('INV-0007');
		expect(copy).to.contain('Paying us');
		// The trigger holds: an issued document’s kind cannot be changed.
		expect(() =>
			world.db.update(documents).set({ workKindId: null }).where(eq(documents.id, id)).run()
		).to.throw();
	}).timeout(20_000);
});

describe('a page as a PDF', () => {
	it('has its heads on every page, a slip to cut off, its address behind the window', async () => {
		world.press = threadPress();
		const rows = Array.from({ length: 70 }, (_, n) => line(`r${n}`, `Room ${n + 1}`, '10'));
		const { id } = await issued(world, { ...HOUSEHOLD, address: '1 Staithe\nOrme' }, { rows });
		const look: Look = {
			...STANDARD_LOOK,
			window: 'left',
			slip: true,
			typeface: 'serif',
			size: 'large',
			words: { invoice: { title: 'Bill', above: '', below: '' } }
		};
		const pdf = await drawOn(world, look, id);
		const text = await textOf(pdf);
		expect(text).to.contain('Bill · INV-0007 · page 2 of');
		expect(text).to.contain('Cut here and send it with your payment');
		expect(text).to.contain('£840.00');
		expect(pdf.includes('SourceSerif')).to.equal(true);
		// BS 4264: behind the window of a sheet folded in three, 20 to 113 mm from the left and 45 to 92 mm from the top.
		const point = 72 / 25.4;
		for (const wanted of ['Odile Brancaster', '1 Staithe', 'Orme']) {
			const [word] = (await wordsOf(pdf)).filter((one) => one.text === wanted);
			expect(word!.x, wanted).to.be.within(20 * point, 113 * point);
			expect(word!.y, wanted).to.be.within(45 * point, 92 * point);
		}
	}).timeout(20_000);

	it('shows the pictures and codes of the price list only where they are wished', async () => {
		const { id } = await issued(world, HOUSEHOLD, {
			rows: [line('a', 'Lime', '9', { itemId: 9 })]
		});
		const view = frozenView(
			{ ...loadDraft(world.db, id).frozen!, look: STANDARD_LOOK },
			'INV-1',
			'issued'
		);
		expect(view.columns.map(({ id }) => id)).to.not.include('picture');
		expect((await drawDocument(world, view, null)).length).to.be.greaterThan(0);
	});
});

describe('a logo', () => {
	const svg = (inner: string) =>
		`<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" width="40" height="20">${inner}</svg>`;

	it('becomes a PNG of at most 1,200 dots, whatever it was; the same twice is one', async () => {
		const hash = await saveLogo(world, Buffer.from(svg('<rect width="40" height="20"/>')), 'a.svg');
		const { format, width, height } = await sharp(loadLogo(world.db, hash)).metadata();
		expect([format, Math.round((10 * width!) / height!)]).to.deep.equal(['png', 20]);
		const large = await sharp({
			create: { width: 3000, height: 1500, channels: 3, background: '#fff' }
		})
			.jpeg()
			.toBuffer();
		const shrunk = await sharp(
			loadLogo(world.db, await saveLogo(world, large, 'b.jpg'))
		).metadata();
		expect([shrunk.width, shrunk.height]).to.deep.equal([1200, 600]);
		expect(await saveLogo(world, large, 'again.jpg')).to.equal(
			await saveLogo(world, large, 'b.jpg')
		);
	});

	it('that is no picture, holds a script, loads something, or unpacks into too much is refused in words', async () => {
		expect(await refusedLogo('%PDF-1.7 not a picture')).to.contain('no picture');
		expect(await refusedLogo('')).to.contain('empty');
		for (const inner of [
			'<script>alert(1)</script>',
			'<rect onclick="alert(1)" width="9" height="9"/>',
			'<image href="https://elsewhere.example/a.png"/>',
			'<use xlink:href="file:///etc/passwd"/>',
			'<style>@import "https://elsewhere.example/a.css";</style>',
			'<foreignObject><p>hello</p></foreignObject>'
		])
			expect(await refusedLogo(svg(inner)), inner).to.contain('more than a drawing');
		// Twenty thousand dots each way, as its header says.
		const bomb = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#fff' } })
			.jpeg()
			.toBuffer();
		const frame = bomb.indexOf(Buffer.from([0xff, 0xc0]));
		bomb.writeUInt16BE(20_000, frame + 5);
		bomb.writeUInt16BE(20_000, frame + 7);
		expect(await refusedLogo(bomb)).to.contain('too many points');
	});
});

describe('a letterhead that is changed', () => {
	it('refuses what the law keeps, another tab’s older state, a name there is, a logo that is gone', () => {
		const id = made('Standard');
		const other = made('Other');
		const columns = STANDARD_LOOK.columns.map((one) => ({ ...one, shown: one.id !== 'vat' }));
		expect(fieldsOf(() => saveLook(world, id, 2, { ...STANDARD_LOOK, columns }))).to.have.property(
			'columns.vat'
		);
		expect(
			fieldsOf(() => saveLook(world, id, 2, { ...STANDARD_LOOK, logo: 'a'.repeat(64) }))
		).to.have.property('logo');
		expect(thrown(() => saveLook(world, id, 1, STANDARD_LOOK))).to.be.instanceOf(ConflictError);
		expect(fieldsOf(() => renameLetterhead(world, other, 'STANDARD'))).to.have.property('name');
		expect(makeLetterhead(world, 'Other', null)).to.equal(other);
		expect(loadLetterhead(world.db, makeLetterhead(world, 'c', other)).name).to.equal('Other 2');
	});

	it('of one customer alone is a copy by its name, made once, and nobody’s standard', () => {
		const standard = makeLetterhead(world, 'Mine', null);
		const [a, b] = ['A', 'B'].map((name) => addCustomer(world, { ...HOUSEHOLD, name }));
		const own = lookOfItsOwn(world, a!);
		expect(loadLetterhead(world.db, own)).to.include({ name: 'A', standard: false });
		expect(loadLetterhead(world.db, own).look).to.deep.equal(
			loadLetterhead(world.db, standard).look
		);
		expect(lookOfItsOwn(world, a!)).to.equal(own);
		expect(usersOf(world.db, own)).to.deep.equal({ customers: ['A'], kinds: [] });
		// Shared by two, it is copied before one of them changes it.
		world.db.update(customers).set({ letterheadId: own }).where(eq(customers.id, b!)).run();
		const another = lookOfItsOwn(world, b!);
		expect(another).to.not.equal(own);
		expect(usersOf(world.db, own).customers).to.deep.equal(['A']);
		expect(() => lookOfItsOwn(world, 999)).to.throw(NotFoundError);
	});

	it('kinds of work: one of each name, archived ones come back by it', () => {
		const id = saveWorkKind(world, null, { name: ' Damp ' });
		expect(fieldsOf(() => saveWorkKind(world, null, { name: 'damp' }))).to.have.property('name');
		archiveWorkKind(world, id, true);
		expect(saveWorkKind(world, null, { name: 'damp' })).to.equal(id);
		expect(listWorkKinds(world.db)).to.deep.equal([
			{ id, name: 'Damp', letterheadId: null, archived: false }
		]);
		expect(
			fieldsOf(() => saveWorkKind(world, id, { name: 'Damp', letterheadId: 99 }))
		).to.have.property('letterheadId');
	});
});
