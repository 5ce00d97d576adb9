// Files of one thing: only its own, by content, out with the document where they are marked, and not beyond what an e-mail carries.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import sharp from 'sharp';
import { FieldError, NotFoundError, RefusedError } from '../../../../src/lib/core/refusals';
import { deliverDue } from '../../../../src/lib/server/clockwork/delivery';
import { fileResponse } from '../../../../src/lib/server/fileResponse';
import { mergeCustomers } from '../../../../src/lib/server/services/customers/merge';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import {
	addFile,
	changeFile,
	filesOf,
	filesToAttach,
	forgetRemoved,
	loadFile
} from '../../../../src/lib/server/services/files/files';
import { loadDraft } from '../../../../src/lib/server/services/invoices/drafts';
import { prepareSending, sendByMail } from '../../../../src/lib/server/services/invoices/send';
import { fileBehindLink, payPage } from '../../../../src/lib/server/services/money/payPage';
import { HOUSEHOLD, issued, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => world.end());

const photo = (colour: string) =>
	sharp({ create: { width: 60, height: 40, channels: 3, background: colour } })
		.jpeg()
		.withExif({ IFD3: { GPSLatitude: '51/1 30/1 0/1', GPSLatitudeRef: 'N' } })
		.toBuffer();
const text = (words: string) => Buffer.from(words);

describe('files', () => {
	it('belong to one thing, are there once, lose where they were taken, and come back after they were removed', async () => {
		const { id: document, customerId } = await issued(world, HOUSEHOLD);
		const at = { to: 'document', id: document } as const;
		const bytes = await photo('#888');
		expect((await sharp(bytes).metadata()).exif).to.not.equal(undefined);
		const id = await addFile(world, at, 'wall.jpg', bytes);
		expect(await addFile(world, at, 'again.jpg', bytes)).to.equal(id);
		expect((await sharp(loadFile(world, id, false).content).metadata()).exif).to.equal(undefined);
		expect(filesOf(world.db, at).map(({ name, picture }) => [name, picture])).to.deep.equal([
			['wall.jpg', true]
		]);
		expect(filesOf(world.db, { to: 'customer', id: customerId })).to.deep.equal([]);
		expect(() => loadFile(world, id, false, { to: 'customer', id: customerId })).to.throw(
			NotFoundError
		);
		changeFile(world, id, { removed: true });
		expect(() => loadFile(world, id, false)).to.throw(NotFoundError);
		expect(await addFile(world, at, 'wall.jpg', bytes)).to.equal(id);
		expect(filesOf(world.db, at)).to.have.length(1);
		changeFile(world, id, { removed: true });
		world.clock.set(world.clock.now() + 86_400_001);
		forgetRemoved(world);
		expect(() => changeFile(world, id, { removed: false })).to.throw(NotFoundError);
		await addFile(world, { to: 'job', id: 99 }, 'x', text('x')).then(
			() => expect.fail('a file of nothing'),
			(error) => expect(error).to.be.instanceOf(NotFoundError)
		);
	});

	it('go out with the document where they are marked: on its page, and with its e-mail as far as it carries', async () => {
		const { id: document } = await issued(world, HOUSEHOLD);
		const at = { to: 'document', id: document } as const;
		const shown = await addFile(world, at, 'before.jpg', await photo('#111'));
		const kept = await addFile(world, at, 'private.txt', text('for me alone'));
		// Two plans of six megabytes: one of them goes along, the other is on the page.
		const plan = (n: number) => Buffer.concat([text(`%PDF-1.7 ${n}`), Buffer.alloc(6_000_000, n)]);
		const first = await addFile(world, at, 'plan 1.pdf', plan(1));
		const second = await addFile(world, at, 'plan 2.pdf', plan(2));
		for (const id of [shown, first, second]) changeFile(world, id, { goesOut: true });
		expect(filesToAttach(world.db, document).map(({ id }) => id)).to.deep.equal([shown, first]);
		const { to, subject, text: words } = prepareSending(world, document);
		sendByMail(world, document, { key: 'k', to, subject, text: words, copyToSelf: false });
		await deliverDue(world);
		expect(world.sent[0]!.attachments.map(({ filename }) => filename)).to.deep.equal([
			'INV-0007.pdf',
			'before.jpg',
			'plan 1.pdf'
		]);
		const token = loadDraft(world.db, document).token!;
		expect(payPage(world, token).files.map(({ id }) => id)).to.deep.equal([shown, first, second]);
		expect(fileBehindLink(world, token, second, false).name).to.equal('plan 2.pdf');
		expect(() => fileBehindLink(world, token, kept, false)).to.throw(NotFoundError);
		expect(() => fileBehindLink(world, 'x'.repeat(token.length), shown, false)).to.throw(
			NotFoundError
		);
		const { id: other } = await issued(world, HOUSEHOLD);
		expect(() => fileBehindLink(world, loadDraft(world.db, other).token!, shown, false)).to.throw(
			NotFoundError
		);
	});

	it('are renamed, refused a name that is none, and only ever downloaded unless they are pictures', async () => {
		const customer = addCustomer(world, HOUSEHOLD);
		const at = { to: 'customer', id: customer } as const;
		const page = await addFile(world, at, 'page.html', text('<script>alert(1)</script>'));
		changeFile(world, page, { name: ' keys “spare” ' });
		expect(filesOf(world.db, at)[0]!.name).to.equal('keys “spare”');
		for (const name of ['', '  ', 'x'.repeat(201)])
			expect(() => changeFile(world, page, { name })).to.throw(FieldError);
		expect(() => changeFile(world, page, { goesOut: true })).to.throw(RefusedError);
		const headers = [...fileResponse(loadFile(world, page, false)).headers];
		expect(Object.fromEntries(headers)).to.include({
			'content-type': 'application/octet-stream',
			'content-disposition': "attachment; filename*=UTF-8''keys%20%E2%80%9Cspare%E2%80%9D"
		});
		const heic = Buffer.concat([Buffer.alloc(4), text('ftypheic'), Buffer.alloc(40)]);
		await addFile(world, at, 'phone.heic', heic);
		expect(filesOf(world.db, at)[0]).to.include({ type: 'image/heic', picture: false });
	});

	it('of a customer go along when two customers become one; the same one of both is there once', async () => {
		const [from, into] = [1, 2].map((n) =>
			addCustomer(world, { ...HOUSEHOLD, name: `C${n}`, email: '' })
		) as [number, number];
		await addFile(world, { to: 'customer', id: from }, 'a', text('same'));
		await addFile(world, { to: 'customer', id: from }, 'b', text('only here'));
		await addFile(world, { to: 'customer', id: into }, 'c', text('same'));
		mergeCustomers(world, from, into);
		expect(
			filesOf(world.db, { to: 'customer', id: into })
				.map(({ name }) => name)
				.sort()
		).to.deep.equal(['b', 'c']);
	});
});
