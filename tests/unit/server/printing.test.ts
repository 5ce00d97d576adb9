import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { post } from '../../../src/lib/server/db/journal';
import { escapeHtml, fillMessage } from '../../../src/lib/server/documents/mailBody';
import { runs } from '../../../src/lib/server/documents/fonts';
import { renderLetter } from '../../../src/lib/server/documents/letterPdf';
import { layOut, renderPdf, stranded } from '../../../src/lib/server/documents/pdf';
import { documentDetail } from '../../../src/lib/server/services/desk/documents';
import { HOUSEHOLD, issued, line, makeWorld, type TestWorld } from '../../support/world';

const pages = (pdf: Buffer) => (pdf.toString('latin1').match(/\/Type \/Page\b/g) ?? []).length;

describe('printing', () => {
	let world: TestWorld;
	beforeEach(() => (world = makeWorld()));
	afterEach(() => world.end());

	const printed = async (rows: ReturnType<typeof line>[]) => {
		const { id } = await issued(world, HOUSEHOLD, { rows });
		const options = { payUrl: 'http://127.0.0.1/p/x', madeAt: 0 };
		return renderPdf(documentDetail(world, id).view, options);
	};
	const many = (count: number) =>
		Array.from({ length: count }, (_, index) => line(`l${index}`, `Line ${index}`, '10.00'));

	it('is on one page where it fits, and on more where it does not', async () => {
		expect(pages(await printed(many(12)))).to.equal(1);
		expect(pages(await printed(many(90)))).to.be.within(3, 5);
	});

	it('leaves no heading and no sum of a group alone at the foot or the head of a page', async () => {
		const heading = (id: string) => ({ id, type: 'heading' as const, text: `Room ${id}` });
		let moved = 0;
		for (let count = 20; count <= 27; count++) {
			const { id } = await issued(world, HOUSEHOLD, {
				rows: [
					heading('a'),
					...many(count),
					heading('b'),
					...many(14).map((row) => ({ ...row, id: `m${row.id}` }))
				]
			});
			const { view } = documentDetail(world, id);
			const { rows, breaks } = await layOut(view, { payUrl: null, madeAt: 0 });
			expect(stranded(rows), `${count} lines`).to.deep.equal([]);
			expect(rows.filter(({ kind }) => kind === 'line')).to.have.length(count + 14);
			moved += breaks.size;
		}
		// Some of them would have been parted.
		expect(moved).to.be.above(0);
	});

	it('knows what stands apart', () => {
		const laid = (...rows: ['heading' | 'line' | 'sum', number][]) =>
			stranded(
				rows.map(([kind, pageNumber], index) => ({
					kind,
					at: index + 1,
					cell: { text: '', positions: [{ pageNumber }] } as never
				}))
			);
		expect(laid(['heading', 1], ['line', 1], ['line', 2], ['sum', 2])).to.deep.equal([]);
		expect(laid(['line', 1], ['line', 1], ['sum', 2])).to.deep.equal([2]);
		expect(laid(['heading', 1], ['line', 2], ['sum', 2])).to.deep.equal([1]);
		expect(laid(['line', 1], ['heading', 1], ['line', 1], ['sum', 2])).to.deep.equal([2]);
		expect(laid(['line', 1], ['line', 2])).to.deep.equal([]);
	});

	it('has its page as an address that can be pressed, and typed; none where nothing is paid there', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		const { view } = documentDetail(world, id);
		const options = { payUrl: 'http://127.0.0.1/p/x', madeAt: 0 };
		const links = async (online: string) =>
			(await renderPdf({ ...view, online }, options))
				.toString('latin1')
				.match(/\/URI \(http:\/\/127\.0\.0\.1\/p\/x\)/g)?.length;
		expect(await links(view.online)).to.be.above(0);
		expect(await links('')).to.equal(undefined);
	});

	it('says in which language it is, and shows its title', async () => {
		const letter = await renderLetter({
			seller: { name: 'Orrell Lime & Plaster', lines: [] },
			to: ['Paper Ltd'],
			day: '2026-11-24',
			subject: 'Still open: £120.00',
			text: 'To Paper Ltd',
			payUrl: null,
			madeAt: 0
		});
		for (const pdf of [await printed(many(1)), letter]) {
			const raw = pdf.toString('latin1');
			expect(raw).to.contain('/Lang (en-GB)');
			expect(raw).to.match(/\/DisplayDocTitle true/);
		}
	});

	it('loses no end of a text that is longer than a page, a single word be it', async () => {
		expect(pages(await printed([line('a', 'word '.repeat(1_900), '1')]))).to.be.above(1);
		expect(pages(await printed([line('a', 'x'.repeat(9_000), '1')]))).to.be.above(1);
	});

	it('gives the same file for the same document', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		const { view } = documentDetail(world, id);
		const options = { payUrl: 'http://127.0.0.1/p/x', madeAt: 1_000 };
		const strip = (pdf: Buffer) => pdf.toString('latin1').replace(/\/ID \[.*?\]/s, '');
		expect(strip(await renderPdf(view, options))).to.equal(strip(await renderPdf(view, options)));
	});

	it('shows letters of other alphabets in a typeface that has them, and a question mark for the rest', () => {
		expect(runs('Łódź café', 'Text')).to.deep.equal([
			{ text: 'Ł', font: 'TextMore' },
			{ text: 'ód', font: 'Text' },
			{ text: 'ź', font: 'TextMore' },
			{ text: ' café', font: 'Text' }
		]);
		expect(runs('漢', 'Heading')).to.deep.equal([{ text: '?', font: 'Heading' }]);
	});
});

describe('a message as mail', () => {
	it('puts the link in its place, or at the end, and nothing typed is markup', () => {
		const { text, html } = fillMessage(
			'See {link} & pay <b>now</b>',
			'http://a.example/p/1',
			'Test'
		);
		expect(text).to.equal('Test\n\nSee http://a.example/p/1 & pay <b>now</b>');
		expect(html)
			.to.contain('<a href="http://a.example/p/1">')
			.and.contain('&lt;b&gt;now&lt;/b&gt;');
		expect(fillMessage('No place for it', 'http://a.example').text).to.equal(
			'No place for it\n\nhttp://a.example'
		);
		// One button, whatever stands around the link, and however often it is named.
		const mail = fillMessage(
			'Hello\n\nPay here: {link}\n\nOr here: {link}',
			'http://a.example/p/1',
			'',
			'',
			'See & pay'
		);
		expect(mail.html.match(/>See &amp; pay<\/a>/g)).to.have.length(1);
		expect(mail.html.match(/href="http:\/\/a\.example\/p\/1"/g)).to.have.length(3);
		expect(mail.html.indexOf('See &amp; pay')).to.be.below(mail.html.indexOf('Pay here'));
		expect(mail.text).to.equal(
			'Hello\n\nPay here: http://a.example/p/1\n\nOr here: http://a.example/p/1'
		);
		expect(escapeHtml(`<"&'>`)).to.equal('&lt;&quot;&amp;&#39;&gt;');
	});
});

describe('the journal', () => {
	it('takes only what balances, and each event once', async () => {
		const world = makeWorld();
		const { id, customerId } = await issued(world, HOUSEHOLD);
		const event = {
			key: 'odd',
			event: 'payment' as const,
			date: '2026-11-24',
			documentId: id,
			customerId,
			recordedAt: 0
		};
		const entry =
			(amount: number, key = 'odd') =>
			() =>
				world.db.transaction((tx) =>
					post(tx, {
						...event,
						key,
						postings: [
							{ account: 'bank', amount: 100 },
							{ account: 'receivable', amount }
						]
					})
				);
		expect(entry(-99)).to.throw('do not balance');
		expect(entry(-100)).to.not.throw();
		expect(entry(-100)).to.throw();
		expect(entry(-100.5, 'half')).to.throw();
		world.end();
	});
});
