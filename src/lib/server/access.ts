// Who may ask for what, and how much of it: one row for every route, with all that it does. A route without a row answers nobody.
// Over 300 lines: one row for each route.

import type { Right } from '../core/people/roles';

const KB = 1024;
const MB = 1024 * KB;

export interface Rule {
	/**
	 * `anyone`; `link`: whoever has the unguessable link, at a pace a person has; `service`: an outside service, which signs what it says;
	 * `person`: signed in.
	 */
	who: 'anyone' | 'link' | 'service' | 'person';
	/** What somebody signed in has to be allowed to look at it, and to do what it does; null: nothing more than being here. */
	looks: Right | null;
	acts: Right | null;
	/** Its actions, and the methods of what is no page. */
	does: readonly string[];
	/** How large a body may be: more is refused before any of it is kept. */
	bytes: number;
}

/** A file of the largest size that any page takes, and what is posted with it. */
const FILE = 27 * MB;
const of =
	(looks: Right | null, acts = looks) =>
	(...does: string[]): Rule => ({ who: 'person', looks, acts, does, bytes: FILE });
const here = of(null);
const site = of('site');
const work = of('work');
const bill = of('bill');
const books = of('books');
const billing = of('books', 'bill');
const money = of('books', 'money');
const costs = of('books', 'work');
const taxes = of('tax', 'owner');
const words = of('settings');
const owner = of('owner');
const outside =
	(who: Exclude<Rule['who'], 'person'>, bytes: number) =>
	(...does: string[]): Rule => ({ who, looks: null, acts: null, does, bytes });
const link = outside('link', 64 * KB);
const anyone = outside('anyone', 64 * KB);
const service = (bytes: number): Rule => outside('service', bytes)('POST');

/** With a signature that was drawn. */
const signed = outside('link', 640 * KB);

export const ACCESS: Readonly<Record<string, Rule>> = {
	'/(desk)': work(),
	'/(desk)/api/bring-back': here('default'),
	'/(desk)/api/find': work('GET'),
	'/(desk)/api/quick': bill('GET', 'POST'),
	'/(desk)/api/waiting': work('GET'),
	'/(desk)/billing': billing('choose', 'keepView', 'removeView', 'restore'),
	'/(desk)/billing/csv': billing('GET'),
	'/(desk)/billing/sums': billing('GET'),
	'/(desk)/billing/[id]/evidence/[dispute]': money('GET'),
	'/(desk)/billing/[id]': billing(
		'claim',
		'sheet',
		'renewLink',
		'send',
		'text',
		'textAgain',
		'again',
		'arrived',
		'handed',
		'pay',
		'undo',
		'refund',
		'giveBack',
		'useCredit',
		'answered',
		'prompt',
		'correct',
		'raise',
		'credit'
	),
	'/(desk)/billing/[id]/api': billing('PUT', 'POST'),
	'/(desk)/billing/[id]/api/before-issue': bill('GET'),
	'/(desk)/billing/[id]/api/unbilled': bill('GET'),
	'/(desk)/billing/[id]/pdf': billing('GET'),
	'/(desk)/billing/[id]/preview': billing(),
	'/(desk)/billing/[id]/sign': bill('default'),
	'/(desk)/billing/[id]/several': bill('default'),
	'/(desk)/billing/new': bill('POST'),
	'/(desk)/billing/repeats': bill(),
	'/(desk)/billing/repeats/[id]': bill('save', 'state', 'skip', 'pile', 'forgetCard'),
	'/(desk)/billing/repeats/[id]/api': bill('GET', 'PUT'),
	'/(desk)/billing/repeats/new': bill('default'),
	'/(desk)/billing/start': bill('begin', 'keep', 'remove'),
	'/(desk)/billing/start/[id]': bill(),
	'/(desk)/billing/start/[id]/api': bill('PUT'),
	'/(desk)/customers': work(),
	'/(desk)/customers/[id]': work('archive', 'merge', 'forgetCard', 'look', 'remove'),
	'/(desk)/customers/[id]/api': work('GET', 'PUT'),
	'/(desk)/customers/[id]/data': work('remove'),
	'/(desk)/customers/[id]/data/zip': work('GET'),
	'/(desk)/customers/api': work('GET', 'POST'),
	'/(desk)/customers/export': work('GET'),
	'/(desk)/customers/import': work('preview', 'write'),
	'/(desk)/customers/new': work('default'),
	'/(desk)/costs/[id]': costs('save', 'remove', 'restore'),
	'/(desk)/costs/new': work('default'),
	'/(desk)/costs/read': work('POST'),
	'/(desk)/costs/suppliers': work('save', 'archive', 'restore'),
	'/(desk)/files': site('POST'),
	'/(desk)/files/[id]': site('GET', 'PUT'),
	'/(desk)/lists/[list]': billing('choose', 'keepView', 'removeView'),
	'/(desk)/lists/[list]/csv': books('GET'),
	'/(desk)/lists/[list]/sums': books('GET'),
	'/(desk)/many/[id]': bill('begin', 'stop', 'resume'),
	'/(desk)/many/[id]/api': books('GET'),
	'/(desk)/many/[id]/pdf': books('GET'),
	'/(desk)/many/[id]/zip': books('GET'),
	'/(desk)/money': money('file', 'accept', 'takeBack', 'sure', 'notBusiness', 'reopen'),
	'/(desk)/money/api/matching': money('GET'),
	'/(desk)/money/charts': books(),
	'/(desk)/money/charts/[of]': books(),
	'/(desk)/money/learned': money('forget'),
	'/(desk)/money/look/[id]': money('take', 'leave', 'forget'),
	'/(desk)/money/payouts': money('decide'),
	'/(desk)/money/record': money(),
	'/(desk)/more': here(),
	'/(desk)/more/keys': here(),
	'/(desk)/owed': billing(),
	'/(desk)/owed/[id]': billing(
		'pay',
		'apply',
		'giveBack',
		'deposit',
		'hold',
		'release',
		'writeOff',
		'takeUp',
		'undo',
		'chasing',
		'terms',
		'call',
		'breathe',
		'breatheNoMore'
	),
	'/(desk)/owed/chasing': bill('settings', 'skip', 'posted', 'again'),
	'/(desk)/owed/chasing/[payer]': bill('send', 'keep', 'skip'),
	'/(desk)/owed/chasing/claim/[payer]': bill('write'),
	'/(desk)/owed/chasing/letters/[id]': bill('GET'),
	'/(desk)/owed/chasing/plans': bill('archive', 'restore', 'quotes'),
	'/(desk)/owed/chasing/plans/[id]': bill('save'),
	'/(desk)/owed/statements': billing('start', 'apply'),
	'/(desk)/owed/statements/[run]': billing('again'),
	'/(desk)/owed/statements/[run]/pdf': billing('GET'),
	'/(desk)/owed/statements/preview': billing('GET'),
	'/(desk)/reports': of('books', 'owner')('sendPack', 'revokePack'),
	'/(desk)/reports/pack': of('tax')('GET'),
	'/(desk)/reports/vat': of('tax')(),
	'/(desk)/settings': owner('business', 'missing', 'rate', 'look', 'password', 'endSession'),
	'/(desk)/settings/people': owner('invite', 'again', 'role', 'remove'),
	'/(desk)/settings/moving': owner('back'),
	'/(desk)/settings/moving/[kind]': owner('preview', 'write'),
	'/(desk)/settings/moving/[kind]/template': owner('GET'),
	'/(desk)/settings/exchange': money('add', 'file', 'remove', 'restore'),
	'/(desk)/settings/kinds': words('add', 'save', 'archive', 'restore'),
	'/(desk)/settings/categories': words('add', 'archive', 'restore'),
	'/(desk)/settings/letterheads': words('make', 'standard', 'archive', 'restore'),
	'/(desk)/settings/letterheads/[id]': words('rename', 'copy', 'standard', 'archive'),
	'/(desk)/settings/letterheads/[id]/api': words('GET', 'PUT', 'POST'),
	'/(desk)/settings/letterheads/logo': words('POST'),
	'/(desk)/settings/letterheads/logo/[hash]': here('GET'),
	'/(desk)/settings/wordings': words(),
	'/(desk)/settings/wordings/[kind]': words('save', 'standard'),
	'/(desk)/settings/wordings/[kind]/api': words('GET'),
	'/(desk)/settings/keep': owner('backup', 'setting', 'stolen'),
	'/(desk)/settings/keep/[name]': owner('GET'),
	'/(desk)/settings/keep/export': owner('GET'),
	'/(desk)/settings/keep/restored': owner('ask', 'go'),
	'/(desk)/site': site(),
	'/(desk)/site/[job]': {
		...site('start', 'stop', 'time', 'cost', 'note', 'done', 'sheet'),
		bytes: 105 * MB
	},
	'/(desk)/tax': taxes('save', 'file', 'bringIn', 'relief', 'remove'),
	'/(desk)/work/diary': work('block', 'removeBlock', 'ways', 'feed', 'revoke'),
	'/(desk)/work/diary/api': work('GET', 'PUT', 'POST'),
	'/(public)/v/[token]': link('answer'),
	'/(public)/v/[token]/calendar': link('GET'),
	'/(public)/c/[token]': link('GET'),
	'/(desk)/work/enquiries/new': work('default'),
	'/(desk)/work/enquiries/[id]': work(
		'save',
		'answer',
		'answered',
		'close',
		'reopen',
		'visit',
		'job',
		'quote'
	),
	'/(desk)/settings/enquiries': words('page', 'renew', 'add', 'remove'),
	'/(public)/e/[token]': outside('link', 12 * MB)('default'),
	'/(desk)/work/quotes/new': bill('POST'),
	'/(desk)/work/quotes/[id]': bill(
		'again',
		'withdraw',
		'declined',
		'reopen',
		'prolong',
		'quiet',
		'answer',
		'byHand',
		'cancelled',
		'settle',
		'deposit'
	),
	'/(desk)/work/quotes/[id]/api': bill('GET', 'PUT', 'POST'),
	'/(desk)/work/quotes/[id]/preview': bill(),
	'/(desk)/work/quotes/[id]/pdf': bill('GET'),
	'/(desk)/work/quotes/[id]/sign': bill('accept'),
	// A firm's order goes along.
	'/(public)/q/[token]': outside('link', 6 * MB)(
		'accept',
		'decline',
		'ask',
		'cancel',
		'card',
		'bank'
	),
	'/(public)/q/[token]/pdf': link('GET'),
	'/(public)/q/[token]/figures': link('POST'),
	'/(public)/q/[token]/files/[id]': link('GET'),
	'/(desk)/work/way': work(),
	'/(desk)/work/replies': work('read'),
	'/(desk)/work/sheets/[id]': site('finish', 'discard', 'send'),
	'/(desk)/work/sheets/[id]/api': site('PUT'),
	'/(desk)/work/sheets/[id]/pdf': site('GET'),
	'/(desk)/work/sheets/[id]/sign': site('default'),
	'/(public)/j/[token]': signed('default'),
	'/(public)/j/[token]/logo': link('GET'),
	'/(public)/j/[token]/pdf': link('GET'),
	'/(public)/j/[token]/photos/[id]': link('GET'),
	'/(desk)/work': work(),
	'/(desk)/work/[id]': {
		...work(
			'move',
			'start',
			'stop',
			'time',
			'removeTime',
			'cost',
			'removeCost',
			'visit',
			'removeVisit',
			'addMaterial',
			'material',
			'materialsAsAgreed',
			'received',
			'copy',
			'repeat',
			'sheet',
			'bill',
			'approve',
			'withdraw',
			'release',
			'remove'
		),
		bytes: 105 * MB
	},
	'/(desk)/work/[id]/api': work('PUT'),
	'/(desk)/work/[id]/application/[stage]': work('GET'),
	'/(desk)/work/[id]/edit': work(),
	'/(desk)/work/[id]/stage': work('preview', 'bill', 'apply'),
	'/(desk)/work/bill': work('start'),
	'/(desk)/work/bill/api': work('POST'),
	'/(desk)/work/import': work('preview', 'write'),
	'/(desk)/work/margins': work(),
	'/(desk)/work/new': work('default'),
	'/(desk)/work/prices': work(),
	'/(desk)/work/prices/[id]': work('archive', 'picture', 'remove'),
	'/(desk)/work/prices/[id]/api': work('PUT'),
	'/(desk)/work/prices/[id]/picture': work('GET'),
	'/(desk)/work/prices/api': work('GET', 'POST'),
	'/(desk)/work/prices/export': work('GET'),
	'/(desk)/work/prices/import': work(),
	'/(desk)/work/prices/import/api': work('POST'),
	'/(desk)/work/prices/new': work(),
	'/(desk)/work/prices/raise': work('preview', 'raise'),
	'/(desk)/work/runs/[id]': work(),
	'/(desk)/work/runs/[id]/api': work('GET'),
	'/(desk)/you': here('look', 'password', 'endSession', 'removePasskey', 'factorOn', 'factorOff'),
	'/(desk)/you/passkey': here('POST'),
	'/(public)/join/[token]': link('default'),
	'/(public)/p/[token]': signed('sign', 'card', 'bank', 'cardCode', 'showCard', 'forgetCard'),
	'/(public)/p/[token]/files/[id]': link('GET'),
	'/(public)/p/[token]/logo': link('GET'),
	'/(public)/p/[token]/pdf': link('GET'),
	'/(public)/r/[token]': link('card', 'bank'),
	'/(public)/s/[token]': link('card', 'bank'),
	'/(public)/s/[token]/pdf': link('GET'),
	'/(public)/k/[token]': link(),
	'/(public)/k/[token]/pack': link('GET'),
	'/(public)/sign-in': anyone('password', 'demo'),
	'/(public)/sign-in/passkey': anyone('POST'),
	'/(public)/welcome': anyone('default'),
	'/(public)/welcome/restore': anyone('look', 'restore'),
	'/health': anyone('GET'),
	'/sign-out': here('POST'),
	'/webhooks/bank': service(20 * KB),
	'/webhooks/card': service(MB),
	'/webhooks/text': service(20 * KB)
};

/** What nobody wrote a row for: for nobody. */
export const ruleOf = (routeId: string | null): Rule | undefined =>
	routeId !== null && Object.hasOwn(ACCESS, routeId) ? ACCESS[routeId] : undefined;
