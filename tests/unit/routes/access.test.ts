// Every route, with every action and method, stands in the table that says who may; nothing else does.
import { readdirSync, readFileSync } from 'node:fs';
import { expect } from 'chai';
import { describe, it } from 'mocha';
import ts from 'typescript';
import { ACCESS, ruleOf } from '../../../src/lib/server/access';
import { refusedBody, tooFast } from '../../../src/lib/server/limits';

/** What `listForms` gives every page of a list. */
const LIST_FORMS = ['keepView', 'removeView', 'choose'];

/** What a file of a route exports that does something: methods, and the names of its actions. */
function doneBy(path: string): string[] {
	const source = ts.createSourceFile(
		path,
		readFileSync(path, 'utf8'),
		ts.ScriptTarget.Latest,
		true
	);
	const found: string[] = [];
	for (const statement of source.statements) {
		if (!ts.isVariableStatement(statement)) continue;
		if (!statement.modifiers?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword)) continue;
		for (const { name, initializer } of statement.declarationList.declarations) {
			if (/^(GET|POST|PUT|PATCH|DELETE)$/.test(name.getText())) found.push(name.getText());
			if (name.getText() === 'actions') {
				// Two pages share theirs, which are called by a function.
				if (initializer && ts.isObjectLiteralExpression(initializer))
					found.push(
						...initializer.properties.flatMap((one) =>
							ts.isSpreadAssignment(one) ? LIST_FORMS : [one.name!.getText()]
						)
					);
				// Lists have the same forms everywhere.
				else if (/^listForms/.test(initializer!.getText())) found.push(...LIST_FORMS);
				else found.push('card', 'bank');
			}
		}
	}
	return found;
}

const routes = new Map<string, string[]>();
for (const path of readdirSync('src/routes', { recursive: true }) as string[]) {
	const [, folder, file] =
		/^(.*?)\/?\+(page\.svelte|page\.server\.ts|server\.ts)$/.exec(path) ?? [];
	if (folder === undefined || file === undefined) continue;
	const id = `/${folder}`;
	const does = file.endsWith('.ts') ? doneBy(`src/routes/${path}`) : [];
	routes.set(id, [...(routes.get(id) ?? []), ...does]);
}

describe('who may', () => {
	it('is said of every route and of all it does, and of nothing else', () => {
		expect(Object.keys(ACCESS).sort()).to.deep.equal([...routes.keys()].sort());
		for (const [id, does] of routes)
			expect([...ACCESS[id]!.does].sort(), id).to.deep.equal([...does].sort());
	});

	it('is the owner alone where nobody is meant to come from outside', () => {
		const open = Object.entries(ACCESS).filter(([, rule]) => rule.who !== 'person');
		expect(open.map(([id, { who }]) => `${who} ${id}`).sort()).to.deep.equal([
			'anyone /(public)/sign-in',
			'anyone /(public)/sign-in/passkey',
			'anyone /(public)/welcome',
			'anyone /(public)/welcome/restore',
			'anyone /health',
			'link /(public)/c/[token]',
			'link /(public)/e/[token]',
			'link /(public)/j/[token]',
			'link /(public)/j/[token]/logo',
			'link /(public)/j/[token]/pdf',
			'link /(public)/j/[token]/photos/[id]',
			'link /(public)/join/[token]',
			'link /(public)/k/[token]',
			'link /(public)/k/[token]/pack',
			'link /(public)/p/[token]',
			'link /(public)/p/[token]/files/[id]',
			'link /(public)/p/[token]/logo',
			'link /(public)/p/[token]/pdf',
			'link /(public)/q/[token]',
			'link /(public)/q/[token]/figures',
			'link /(public)/q/[token]/files/[id]',
			'link /(public)/q/[token]/pdf',
			'link /(public)/r/[token]',
			'link /(public)/s/[token]',
			'link /(public)/s/[token]/pdf',
			'link /(public)/v/[token]',
			'link /(public)/v/[token]/calendar',
			'service /webhooks/bank',
			'service /webhooks/card',
			'service /webhooks/text'
		]);
		expect([ruleOf(null), ruleOf('/nowhere'), ruleOf('constructor')]).to.deep.equal([
			undefined,
			undefined,
			undefined
		]);
	});

	const post = (length: string | null, id: string, signedIn: boolean) =>
		refusedBody(
			new Request('http://here/', {
				method: 'POST',
				body: 'x',
				headers: length === null ? {} : { 'content-length': length }
			}),
			ruleOf(id),
			signedIn
		)?.status ?? null;

	it('limits bodies by route, and strangers more', () => {
		const desk = '/(desk)/money';
		expect([post('28311552', desk, true), post('28311553', desk, true)]).to.deep.equal([null, 413]);
		expect([post('65536', desk, false), post('65537', desk, false)]).to.deep.equal([null, 413]);
		expect(post('20481', '/webhooks/bank', false)).to.equal(413);
		expect(post('1048576', '/webhooks/card', false)).to.equal(null);
		// Photos of who asks, and the order of a firm that accepts, come from strangers.
		const asks = '/(public)/e/[token]';
		expect([post('12582912', asks, false), post('12582913', asks, false)]).to.deep.equal([
			null,
			413
		]);
		expect([post('6291456', '/(public)/q/[token]', false)]).to.deep.equal([null]);
		expect(post('65537', '/(public)/v/[token]', false)).to.equal(413);
		expect([post(null, desk, false), post(null, desk, true)]).to.deep.equal([411, null]);
		expect(post('1', '/nowhere', false)).to.equal(413);
	});

	it('lets a link be pressed twenty times a minute, each for itself', () => {
		const rule = ruleOf('/(public)/p/[token]');
		const press = (token: string, at: number, method = 'POST') =>
			tooFast(rule, method, `/p/${token}`, at)?.status ?? null;
		for (let n = 0; n < 20; n++) expect(press('pace', 1000 + n)).to.equal(null);
		expect(press('pace', 2000)).to.equal(429);
		expect(press('other', 2000)).to.equal(null);
		expect(press('pace', 2000, 'GET')).to.equal(null);
		expect(press('pace', 62_000)).to.equal(null);
		expect(tooFast(ruleOf('/(desk)/money'), 'POST', '/money', 0)).to.equal(null);
	});
});
