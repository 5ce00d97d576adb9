import { expect } from 'chai';
import { existsSync, readdirSync } from 'node:fs';
import { describe, it } from 'mocha';
import { CATALOGUE, entriesFor, meantBy } from '../../../src/lib/ui/desk/catalogue';
import { LIST_NAMES } from '../../../src/lib/core/lists/types';
import { PLACES } from '../../../src/lib/ui/desk/places';

const labels = (typed: string) =>
	entriesFor(typed).flatMap(({ entries }) => entries.map(({ label }) => label));

describe('everything by name', () => {
	it('is found by other words too, by the beginnings of several, and not by what is within one', () => {
		expect(labels('csv')).to.include.members([
			'Bring in a bank statement',
			'Bring in prices',
			'Bring in customers',
			'Price list as a file'
		]);
		expect(labels('refund')).to.deep.equal(['Give money back']);
		expect(labels('quote')).to.have.members(['Quotes', 'New quote']);
		expect(labels('settings')).to.include('Settings');
		expect(labels('record pay')).to.deep.equal(['Record a payment']);
		expect(labels('Rec PAY')[0]).to.equal('Record a payment');
		expect(labels('vat')).to.include.members(['Tax', 'Change VAT and CIS']);
		expect(labels('ax')).to.deep.equal([]);
		expect(labels('')).to.have.length(CATALOGUE.flatMap(({ entries }) => entries).length);
	});

	it('leads to pages there are; every place of the strip is in it', () => {
		const routes = new Set(
			(readdirSync('src/routes', { recursive: true }) as string[])
				.filter((path) => /\+(page\.svelte|server\.ts)$/.test(path))
				.map((path) => `/${path.replace(/\([a-z]+\)\/|\/?\+.*$/g, '')}`)
		);
		const all = CATALOGUE.flatMap(({ entries }) => entries);
		const paths = all.map(({ href }) => href.replace(/[?#].*/, ''));
		const lists = new Set(LIST_NAMES.map((list) => `/lists/${list}`));
		expect(paths.filter((path) => !routes.has(path) && !lists.has(path))).to.deep.equal([]);
		expect(PLACES.filter(({ href }) => href !== '/' && !paths.includes(href))).to.deep.equal([]);
		expect(existsSync('src/routes/(desk)/more/+page.svelte')).to.equal(true);
	});

	it('is guessed from an address that leads nowhere', () => {
		const meant = (path: string) => meantBy(path).map(({ href }) => href);
		expect(meant('/invoices/12')[0]).to.match(/^\/billing/);
		expect(meant('/pricelist')).to.include('/work/prices');
		expect(meant('/customer')).to.include('/customers');
		expect(meant('/%E0%A4%A')).to.deep.equal([]);
		expect(meant('/1/2')).to.deep.equal([]);
	});
});
