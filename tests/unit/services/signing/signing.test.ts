// Job sheets from the first word to the signature, and signatures on invoices: once, beside what was signed, never changing it.
// Over 300 lines: a job sheet from its first line to its signature.
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import sharp from 'sharp';
import { auditBooks } from '../../../../scripts/audit/books';
import {
	ConflictError,
	FieldError,
	ForbiddenError,
	NotFoundError,
	RefusedError
} from '../../../../src/lib/core/refusals';
import { asActor } from '../../../../src/lib/server/actor';
import { deliverDue } from '../../../../src/lib/server/clockwork/delivery';
import { files, jobSheets, mails, signatures } from '../../../../src/lib/server/db/schema';
import { billJob } from '../../../../src/lib/server/services/billing/toBill';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { sheetPage } from '../../../../src/lib/server/services/desk/sheetPage';
import { addFile, filesGoingOut } from '../../../../src/lib/server/services/files/files';
import { saveCost } from '../../../../src/lib/server/services/jobs/costs';
import { addJob, removeJob } from '../../../../src/lib/server/services/jobs/jobs';
import { moveJob } from '../../../../src/lib/server/services/jobs/states';
import { saveTime } from '../../../../src/lib/server/services/jobs/time';
import { saveVisit } from '../../../../src/lib/server/services/jobs/visits';
import {
	attachSheets,
	prepareSheet,
	sendSheet,
	sheetByToken,
	sheetsBeside
} from '../../../../src/lib/server/services/signing/send';
import {
	beginSheet,
	discardSheet,
	loadSheet,
	saveSheet,
	sheetSource,
	sheetsOf
} from '../../../../src/lib/server/services/signing/sheets';
import {
	finishSheet,
	sheetPaper,
	sheetPhoto
} from '../../../../src/lib/server/services/signing/sheetPaper';
import {
	recordSignatures,
	signDocument,
	signedHash,
	signingBehind,
	signSheet
} from '../../../../src/lib/server/services/signing/sign';
import { documentDetail } from '../../../../src/lib/server/services/desk/documents';
import { jobSheetView } from '../../../../src/lib/core/jobs/jobSheetView';
import { renderPdf } from '../../../../src/lib/server/documents/pdf';
import { textOf } from '../../../support/pdf';
import { HOUSEHOLD, issued, makeWorld, type TestWorld } from '../../../support/world';

const FROM = { address: '192.0.2.7', agent: 'A phone' };
const PEN = `data:image/png;base64,${Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 1]).toString('base64')}`;
const COST = {
	date: '2026-11-23',
	kind: 'materials',
	quantity: '2',
	unit: 'tub',
	unitCost: '33.33',
	markUp: '',
	unitPrice: '47.50',
	chargeable: true
};

let world: TestWorld;
let jobId: number;
beforeEach(() => {
	world = makeWorld();
	jobId = addJob(world, 'job', {
		title: 'Ceiling in the hall',
		customerId: addCustomer(world, HOUSEHOLD),
		privateNote: 'Dog bites',
		lines: [
			{
				kind: 'labour',
				description: 'Skim the ceiling',
				quantity: '1',
				unitPrice: '480.00',
				cost: '99.99'
			}
		]
	});
	saveVisit(world, jobId, null, {
		date: '2026-11-23',
		from: '9',
		to: '12',
		note: 'Both coats are on.',
		done: true
	});
	saveCost(world, jobId, 'c', null, { ...COST, description: 'Lime putty' });
});
afterEach(() => world.end());

const begun = (key = 'a') => beginSheet(world, jobId, key);
async function finished(): Promise<number> {
	const id = begun();
	await finishSheet(world, id, loadSheet(world.db, id).version);
	return id;
}
const sign = (id: number, more: object = {}, way: 'phone' | 'page' = 'phone') =>
	signSheet(
		world,
		id,
		{ key: 'k', name: 'Odile', of: loadSheet(world.db, id).sha256, ...more },
		{ way, from: FROM }
	);
const rejected = (work: Promise<unknown>): Promise<unknown> =>
	work.then(
		() => null,
		(problem: unknown) => problem
	);
const paper = (id: number) => sheetPaper(world.db, loadSheet(world.db, id))!.content.toString();

describe('a job sheet', () => {
	it('is begun once however often one presses, and gone on with until it is finished', async () => {
		const id = begun();
		expect([begun(), begun('b')]).to.deep.equal([id, id]);
		expect(loadSheet(world.db, id).written.done).to.equal('Both coats are on.');
		await finishSheet(world, id, 1);
		const second = begun('c');
		expect(second).not.to.equal(id);
		// Nothing that stands on the first is put forward again.
		expect(loadSheet(world.db, second).written).to.deep.include({
			done: '',
			visits: [],
			lines: [],
			costs: []
		});
		expect(sheetsOf(world.db, jobId).map(({ n, state }) => [n, state])).to.deep.equal([
			[2, 'draft'],
			[1, 'finished']
		]);
		expect(discardSheet(world, second)).to.equal(jobId);
		expect(() => discardSheet(world, id)).to.throw(ConflictError);
	});
	it('is kept as it is written, and tells a second tab', async () => {
		const id = begun();
		const { written } = loadSheet(world.db, id);
		expect(saveSheet(world, id, 1, { ...written, done: ' Skimmed. ', prices: true })).to.equal(2);
		expect(loadSheet(world.db, id).written).to.deep.include({ done: 'Skimmed.', prices: true });
		expect(() => saveSheet(world, id, 1, written)).to.throw(ConflictError);
		expect(() => saveSheet(world, id, 2, { ...written, done: 'x'.repeat(5001) })).to.throw(
			FieldError
		);
		expect(await rejected(finishSheet(world, id, 1))).to.be.instanceOf(ConflictError);
		await finishSheet(world, id, 2);
		await finishSheet(world, id, 2);
		expect(() => saveSheet(world, id, 2, written)).to.throw(ConflictError);
		expect(() =>
			world.db.update(jobSheets).set({ number: 'J-9' }).where(eq(jobSheets.id, id)).run()
		).to.throw(/never changes/);
		expect(() => world.db.delete(jobSheets).run()).to.throw(/never changes/);
	});
	it('is not finished with nothing on it', async () => {
		const id = begun();
		const none = {
			done: ' ',
			remains: 'x',
			visits: [],
			lines: [],
			times: [],
			costs: [],
			photos: []
		};
		saveSheet(world, id, 1, none);
		expect(await rejected(finishSheet(world, id, 2))).to.be.instanceOf(FieldError);
	});
	it('holds what the customer may see and nothing else', async () => {
		const id = await finished();
		for (const secret of ['99.99', '33.33', '47.50', 'Dog bites'])
			expect(paper(id), secret).not.to.contain(secret);
		expect(paper(id)).to.contain('Lime putty');
		// Changed on the job afterwards, it stands on the sheet as it was.
		const before = paper(id);
		saveCost(world, jobId, 'c', 1, { ...COST, description: 'Something else' });
		expect(paper(id)).to.equal(before);
	});
	it('shows the photos that stand on it to whoever has its link, and no others', async () => {
		const photo = async (shade: number) =>
			addFile(
				world,
				{ to: 'job', id: jobId },
				`IMG_${shade}.jpg`,
				await sharp({
					create: { width: 30, height: 20, channels: 3, background: { r: shade, g: 0, b: 0 } }
				})
					.jpeg()
					.toBuffer()
			);
		const [on, off] = [await photo(10), await photo(200)];
		const id = begun();
		const { written } = loadSheet(world.db, id);
		expect(written.photos).to.have.members([on, off]);
		saveSheet(world, id, 1, { ...written, photos: [on, 9999] });
		await finishSheet(world, id, 2);
		const sheet = sheetByToken(world.db, loadSheet(world.db, id).token);
		expect(sheetPhoto(world, sheet, on).subarray(0, 2)).to.deep.equal(Buffer.from([0xff, 0xd8]));
		expect(() => sheetPhoto(world, sheet, off)).to.throw(NotFoundError);
		const { options } = JSON.parse(paper(id).replace('%PDF-paper ', '')) as {
			options: { photos: Record<string, string> };
		};
		expect(Object.keys(options.photos)).to.deep.equal([String(on)]);
	});
	it('is a page of its own only once it is finished', async () => {
		const id = begun();
		const { token } = loadSheet(world.db, id);
		expect(() => sheetByToken(world.db, token)).to.throw(NotFoundError);
		await finishSheet(world, id, 1);
		expect(sheetByToken(world.db, token).id).to.equal(id);
		expect(() => sheetByToken(world.db, `${token}x`)).to.throw(NotFoundError);
	});
	it('keeps its job from being removed', async () => {
		await finished();
		expect(() => removeJob(world, jobId)).to.throw(RefusedError, /job sheet/);
	});
	it('is written on site by whoever goes there, without prices where they see none', async () => {
		world.db.$client.exec(
			`insert into people (id, name, email, role, sees_prices, created_at) values (7, 'Joss', 'joss@x.example', 'onSite', 0, 0)`
		);
		const joss = { id: 7, name: 'Joss', role: 'onSite', seesPrices: false } as const;
		expect(() => asActor(joss, () => begun())).to.throw(ForbiddenError);
		saveVisit(world, jobId, null, { date: '2026-11-24', from: '', to: '', personId: 7, note: '' });
		const id = asActor(joss, () => begun());
		asActor(joss, () =>
			saveSheet(world, id, 1, { ...loadSheet(world.db, id).written, prices: true })
		);
		expect(loadSheet(world.db, id).written.prices).to.equal(false);
		const shown = JSON.stringify(asActor(joss, () => sheetPage(world, id)));
		for (const secret of ['480.00', '99.99', '33.33', '47.50'])
			expect(shown).not.to.contain(secret);
		expect(JSON.stringify(sheetPage(world, id)))
			.to.contain('480.00')
			.and.not.contain('99.99');
	});
});

describe('a job sheet on paper', () => {
	it('says it all over several pages, with photos, and carries no sum that nobody asked for', async () => {
		const id = begun();
		const photo = await sharp({
			create: { width: 60, height: 40, channels: 3, background: '#a33' }
		})
			.jpeg()
			.toBuffer();
		const source = sheetSource(world, jobId);
		const [one] = source.work.lines;
		const many = {
			...source,
			photos: Array.from({ length: 5 }, (_, n) => ({ id: n + 1, name: `Wall ${n + 1}.jpg` })),
			work: {
				...source.work,
				lines: Array.from({ length: 70 }, (_, n) => ({
					...one!,
					id: n + 1,
					description: `Line ${n + 1}`
				}))
			}
		};
		const written = {
			...loadSheet(world.db, id).written,
			lines: many.work.lines.map((line) => line.id),
			photos: [1, 2, 3, 4, 5]
		};
		const address = `data:image/jpeg;base64,${photo.toString('base64')}`;
		const draw = async (prices: boolean) => {
			const view = jobSheetView(
				many,
				{ ...written, prices },
				{ number: 'J-0001/1', on: '2026-11-24' }
			);
			const photos = Object.fromEntries(written.photos.map((n) => [n, address]));
			return textOf(await renderPdf(view, { payUrl: null, madeAt: 0, photos }));
		};
		const plain = await draw(false);
		for (const words of ['Both coats are on.', 'Line 70', 'Wall 5', 'no invoice', 'page 2 of'])
			expect(plain, words).to.contain(words);
		expect(plain).not.to.match(/Carried over|480\.00/);
		// 70 × 480.00, and the putty at 2 × 47.50.
		const priced = await draw(true);
		expect(priced).to.contain('In all, with VAT 33,695.00').and.contain('Carried over');
	});
});

describe('a signature on a job sheet', () => {
	it('stands beside it once, whoever presses twice, and a second is told who was first', async () => {
		const id = await finished();
		const before = paper(id);
		sign(id, { signature: PEN, position: 'owner' });
		sign(id, { signature: PEN });
		expect(() => sign(id, { key: 'other', name: 'Somebody' })).to.throw(RefusedError, /Odile/);
		expect(world.db.select().from(signatures).all()).to.have.length(1);
		expect(paper(id)).to.equal(before);
		await Promise.all([recordSignatures(world), recordSignatures(world)]);
		expect(paper(id)).to.contain('Signed by Odile, owner on 24 Nov 2026, 09:00, on our phone.');
		expect(paper(id)).to.contain(PEN);
		expect(loadSheet(world.db, id).pdf!.toString()).to.equal(before);
		expect(() => world.db.update(signatures).set({ name: 'X' }).run()).to.throw(/never changes/);
		expect(() =>
			world.db
				.update(signatures)
				.set({ record: Buffer.from('x') })
				.run()
		).to.throw(/never changes/);
		expect(() => world.db.delete(signatures).run()).to.throw(/never changes/);
		expect(auditBooks(world.db.$client)).to.deep.equal([]);
	});
	it('is refused without a name, as no drawing, as 5 MB, and for another sheet than lay there', async () => {
		const id = await finished();
		const large = `data:image/png;base64,${'A'.repeat(5_000_000)}`;
		for (const [more, box] of [
			[{ name: '  ' }, 'name'],
			[{ signature: 'data:image/png;base64,AAAA' }, 'signature'],
			[{ signature: 'data:text/html,<script>' }, 'signature'],
			[{ signature: large }, 'signature']
		] as const)
			try {
				sign(id, more);
				expect.fail(box);
			} catch (problem) {
				expect((problem as FieldError).fields, box).to.have.keys(box);
			}
		expect(() => sign(id, { of: 'f'.repeat(64) })).to.throw(ConflictError);
		expect(world.db.select().from(signatures).all()).to.deep.equal([]);
		// Nothing drawn: the name stands for it.
		sign(id);
		expect(world.db.select().from(signatures).get()!.drawn).to.equal(null);
		const draft = begun('c');
		expect(() => sign(draft, { key: 'd' })).to.throw(NotFoundError);
	});
	it('tells the owner where it came by its page, and nobody where the owner held the phone', async () => {
		const id = await finished();
		sign(id, {}, 'page');
		expect(
			world.db
				.select()
				.from(mails)
				.all()
				.map(({ kind, to }) => [kind, to])
		).to.deep.equal([['signed', 'tamsin@orrell-lime.example']]);
	});
});

describe('a job sheet on its way', () => {
	it('goes out with its paper as it stands then, once for each press', async () => {
		const id = await finished();
		const message = prepareSheet(world, id);
		expect(message.to).to.equal('odile@post.example');
		expect(message.subject).to.equal('What was done: Ceiling in the hall');
		expect(message.text).to.contain('Please look at it and sign it');
		sendSheet(world, id, { key: 's', ...message });
		sendSheet(world, id, { key: 's', ...message });
		sign(id, { signature: PEN });
		await recordSignatures(world);
		await deliverDue(world);
		expect(world.sent).to.have.length(1);
		const [file] = world.sent[0]!.attachments!;
		expect(file!.filename).to.equal('Job-sheet-J-0001-1.pdf');
		expect(String(file!.content)).to.contain('Signed by Odile');
		expect(prepareSheet(world, id).text).to.contain('Odile signed it.');
		expect(() => sendSheet(world, id, { key: 't', ...message, to: 'nobody' })).to.throw(FieldError);
		expect(() => sendSheet(world, begun('c'), { key: 't', ...message })).to.throw(RefusedError);
	});
	it('goes with the invoice of its job where that is wished, as it was signed, and once', async () => {
		const id = await finished();
		sign(id, { signature: PEN });
		await recordSignatures(world);
		moveJob(world, jobId, 'finished');
		const draft = billJob(world, jobId, 'lines', 'bill');
		expect(sheetsBeside(world.db, draft)).to.deep.equal([
			{ id, number: 'J-0001/1', signedBy: 'Odile', with: false }
		]);
		attachSheets(world, draft);
		attachSheets(world, draft);
		expect(filesGoingOut(world.db, draft).map(({ name }) => name)).to.deep.equal([
			'Job-sheet-J-0001-1.pdf'
		]);
		expect(sheetsBeside(world.db, draft)[0]!.with).to.equal(true);
		// Taken away it can be put back.
		world.db.update(files).set({ removedAt: 1, goesOut: false }).run();
		expect(sheetsBeside(world.db, draft)[0]!.with).to.equal(false);
		attachSheets(world, draft, id);
		expect(filesGoingOut(world.db, draft)).to.have.length(1);
		const other = (await issued(world, HOUSEHOLD)).id;
		expect(sheetsBeside(world.db, other)).to.deep.equal([]);
	});
});

describe('a signature on an invoice', () => {
	it('stands beside the frozen document, which stays as it was', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		const { link, view } = documentDetail(world, id);
		const of = signedHash(world.db, id)!;
		const form = { key: 'k', name: 'Odile', signature: PEN, what: 'accepted', of };
		expect(signingBehind(world.db, link.split('/p/')[1]!)).to.deep.equal({ id, of, signed: null });
		signDocument(world, id, form, { way: 'page', from: FROM });
		signDocument(world, id, form, { way: 'page', from: FROM });
		await recordSignatures(world);
		const after = documentDetail(world, id);
		expect(after.signed).to.include({ name: 'Odile', what: 'accepted', drawn: PEN });
		expect(after.view).to.deep.equal(view);
		expect(signedHash(world.db, id)).to.equal(of);
		expect(after.trail.at(-1)).to.include({ what: 'signed', who: 'customer' });
		const record = world.db.select().from(signatures).get()!.record!.toString();
		expect(record).to.contain('The work is done, and I accept it. Signed by Odile');
		expect(record).to.contain(`SHA-256 of the invoice: ${of}`);
		expect(auditBooks(world.db.$client)).to.deep.equal([]);
	});
	it('is asked for nothing but an invoice of one’s own', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		const of = signedHash(world.db, id)!;
		const form = { key: 'k', name: 'Odile', what: 'received', of };
		const signing = { way: 'phone', from: FROM } as const;
		world.db.$client.exec(`drop trigger documents_frozen`.replace('documents_frozen', triggerOf()));
		world.db.$client.exec(`update documents set kind = 'creditNote' where id = ${id}`);
		expect(() => signDocument(world, id, form, signing)).to.throw(RefusedError);
		expect(() => signDocument(world, 99, form, signing)).to.throw(NotFoundError);
	});
	function triggerOf(): string {
		const names = world.db.$client
			.prepare("select name from sqlite_master where type = 'trigger' and tbl_name = 'documents'")
			.pluck()
			.all() as string[];
		for (const name of names.slice(1)) world.db.$client.exec(`drop trigger ${name}`);
		return names[0]!;
	}
});

describe('the audit of signatures', () => {
	it('finds each error put in alone', async () => {
		const sheet = await finished();
		sign(sheet, { signature: PEN });
		const { id } = await issued(world, HOUSEHOLD);
		const of = signedHash(world.db, id)!;
		const form = { key: 'k', name: 'Odile', what: 'received', of };
		signDocument(world, id, form, { way: 'phone', from: FROM });
		saveTime(world, jobId, 't', null, {
			date: '2026-11-23',
			person: '',
			hours: '1',
			rate: '',
			hourlyCost: '',
			chargeable: false,
			note: ''
		});
		await recordSignatures(world);
		const { $client: client } = world.db;
		for (const name of client
			.prepare(
				"select name from sqlite_master where type = 'trigger' and tbl_name in ('job_sheets', 'signatures')"
			)
			.pluck()
			.all() as string[])
			client.exec(`drop trigger ${name}`);
		expect(auditBooks(client)).to.deep.equal([]);
		for (const [change, says] of [
			["update job_sheets set pdf = x'00'", /J-0001\/1 is not what was drawn/],
			['update job_sheets set frozen = null', /neither written nor finished/],
			["update job_sheets set number = 'J-0002/1'", /neither written nor finished/],
			["update job_sheets set state = 'draft'", /neither written nor finished/],
			["update signatures set record = x'00'", /what Odile signed/],
			["update signatures set of_sha256 = 'x' where sheet_id is null", /something else/],
			["update signatures set of_sha256 = 'x' where document_id is null", /something else/],
			["update signatures set what = 'received'", /something else/]
		] as const) {
			client.exec('savepoint one');
			client.exec(change);
			const said = auditBooks(client).join('\n');
			client.exec('rollback to one; release one');
			expect(said, change).to.match(says);
		}
	});
});
