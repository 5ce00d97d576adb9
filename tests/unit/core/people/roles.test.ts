// What each role may: all of it, right by right.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { mayDo, RIGHTS, ROLES, startOf } from '../../../../src/lib/core/people/roles';

describe('a role', () => {
	it('may what is written here, and nothing else', () => {
		const may = {
			owner: 'site work bill money books tax settings owner',
			office: 'site work bill money books settings',
			onSite: 'site',
			accountant: 'books tax'
		};
		expect(Object.keys(may)).to.deep.equal([...ROLES]);
		for (const role of ROLES)
			expect(RIGHTS.filter((right) => mayDo(role, right)).join(' '), role).to.equal(may[role]);
	});

	it('begins where its work is', () =>
		expect(ROLES.map(startOf)).to.deep.equal(['/', '/', '/site', '/billing']));
});
