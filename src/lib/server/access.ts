// Who may ask for what, and how much of it: one row for every route, with all that it does. A route without a row answers nobody.

const KB = 1024;
const MB = 1024 * KB;

export interface Rule {
	/**
	 * `anyone`; `link`: whoever has the unguessable link, at a pace a person has; `service`: an outside service, which signs what it says;
	 * `owner`: signed in.
	 */
	who: 'anyone' | 'link' | 'service' | 'owner';
	/** Its actions, and the methods of what is no page. */
	does: readonly string[];
	/** How large a body may be: more is refused before any of it is kept. */
	bytes: number;
}

/** A file of the largest size that any page takes, and what is posted with it. */
const FILE = 27 * MB;
const owner = (...does: string[]): Rule => ({ who: 'owner', does, bytes: FILE });
const link = (...does: string[]): Rule => ({ who: 'link', does, bytes: 64 * KB });
const anyone = (...does: string[]): Rule => ({ who: 'anyone', does, bytes: 64 * KB });
const service = (bytes: number): Rule => ({ who: 'service', does: ['POST'], bytes });

export const ACCESS: Readonly<Record<string, Rule>> = {
	'/(desk)': owner(),
	'/(desk)/api/find': owner('GET'),
	'/(desk)/billing': owner('choose', 'keepView', 'removeView', 'restore'),
	'/(desk)/billing/csv': owner('GET'),
	'/(desk)/billing/sums': owner('GET'),
	'/(desk)/billing/[id]': owner(
		'claim',
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
		'prompt',
		'correct',
		'raise',
		'credit'
	),
	'/(desk)/billing/[id]/api': owner('PUT', 'POST'),
	'/(desk)/billing/[id]/api/before-issue': owner('GET'),
	'/(desk)/billing/[id]/api/unbilled': owner('GET'),
	'/(desk)/billing/[id]/pdf': owner('GET'),
	'/(desk)/billing/[id]/preview': owner(),
	'/(desk)/billing/[id]/several': owner('default'),
	'/(desk)/billing/new': owner('POST'),
	'/(desk)/billing/repeats': owner(),
	'/(desk)/billing/repeats/[id]': owner('save', 'state', 'skip', 'pile', 'forgetCard'),
	'/(desk)/billing/repeats/[id]/api': owner('GET', 'PUT'),
	'/(desk)/billing/repeats/new': owner('default'),
	'/(desk)/billing/start': owner('begin', 'keep', 'remove'),
	'/(desk)/billing/start/[id]': owner(),
	'/(desk)/billing/start/[id]/api': owner('PUT'),
	'/(desk)/customers': owner(),
	'/(desk)/customers/[id]': owner('archive', 'merge', 'forgetCard', 'remove'),
	'/(desk)/customers/[id]/api': owner('GET', 'PUT'),
	'/(desk)/customers/[id]/data': owner('remove'),
	'/(desk)/customers/[id]/data/zip': owner('GET'),
	'/(desk)/customers/api': owner('GET', 'POST'),
	'/(desk)/customers/export': owner('GET'),
	'/(desk)/customers/import': owner('preview', 'write'),
	'/(desk)/customers/new': owner('default'),
	'/(desk)/costs/[id]': owner('save', 'remove', 'restore'),
	'/(desk)/costs/new': owner('default'),
	'/(desk)/costs/read': owner('POST'),
	'/(desk)/costs/suppliers': owner('save', 'archive', 'restore'),
	'/(desk)/files': owner('POST'),
	'/(desk)/files/[id]': owner('GET', 'PUT'),
	'/(desk)/lists/[list]': owner('choose', 'keepView', 'removeView'),
	'/(desk)/lists/[list]/csv': owner('GET'),
	'/(desk)/lists/[list]/sums': owner('GET'),
	'/(desk)/many/[id]': owner('begin', 'stop', 'resume'),
	'/(desk)/many/[id]/api': owner('GET'),
	'/(desk)/many/[id]/pdf': owner('GET'),
	'/(desk)/many/[id]/zip': owner('GET'),
	'/(desk)/money': owner('file', 'accept', 'takeBack', 'sure', 'notBusiness', 'reopen'),
	'/(desk)/money/api/matching': owner('GET'),
	'/(desk)/money/charts': owner(),
	'/(desk)/money/charts/[of]': owner(),
	'/(desk)/money/learned': owner('forget'),
	'/(desk)/money/look/[id]': owner('take', 'leave', 'forget'),
	'/(desk)/money/payouts': owner('decide'),
	'/(desk)/money/record': owner(),
	'/(desk)/more': owner(),
	'/(desk)/more/keys': owner(),
	'/(desk)/owed': owner(),
	'/(desk)/owed/[id]': owner(
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
		'call'
	),
	'/(desk)/owed/chasing': owner('settings', 'skip', 'posted', 'again'),
	'/(desk)/owed/chasing/[payer]': owner('send', 'keep', 'skip'),
	'/(desk)/owed/chasing/letters/[id]': owner('GET'),
	'/(desk)/owed/chasing/plans': owner(),
	'/(desk)/owed/chasing/plans/[id]': owner('save', 'archive'),
	'/(desk)/owed/statements': owner('start', 'apply'),
	'/(desk)/owed/statements/[run]': owner('again'),
	'/(desk)/owed/statements/[run]/pdf': owner('GET'),
	'/(desk)/owed/statements/preview': owner('GET'),
	'/(desk)/settings': owner('business', 'missing', 'rate', 'look', 'password', 'endSession'),
	'/(desk)/settings/kinds': owner('add', 'save', 'archive', 'restore'),
	'/(desk)/settings/letterheads': owner('make', 'standard', 'archive', 'restore'),
	'/(desk)/settings/letterheads/[id]': owner('rename', 'copy', 'standard', 'archive'),
	'/(desk)/settings/letterheads/[id]/api': owner('GET', 'PUT', 'POST'),
	'/(desk)/settings/letterheads/logo': owner('POST'),
	'/(desk)/settings/letterheads/logo/[hash]': owner('GET'),
	'/(desk)/settings/wordings': owner(),
	'/(desk)/settings/wordings/[kind]': owner('save', 'standard'),
	'/(desk)/settings/wordings/[kind]/api': owner('GET'),
	'/(desk)/settings/keep': owner('backup', 'setting', 'stolen'),
	'/(desk)/settings/keep/[name]': owner('GET'),
	'/(desk)/settings/keep/export': owner('GET'),
	'/(desk)/settings/keep/restored': owner('ask', 'go'),
	'/(desk)/tax': owner('save', 'file', 'bringIn', 'relief', 'remove'),
	'/(desk)/work': owner(),
	'/(desk)/work/[id]': {
		...owner(
			'move',
			'start',
			'stop',
			'time',
			'removeTime',
			'cost',
			'removeCost',
			'visit',
			'removeVisit',
			'copy',
			'repeat',
			'bill',
			'approve',
			'withdraw',
			'release',
			'remove'
		),
		bytes: 105 * MB
	},
	'/(desk)/work/[id]/api': owner('PUT'),
	'/(desk)/work/[id]/application/[stage]': owner('GET'),
	'/(desk)/work/[id]/edit': owner(),
	'/(desk)/work/[id]/stage': owner('preview', 'bill', 'apply'),
	'/(desk)/work/bill': owner('start'),
	'/(desk)/work/bill/api': owner('POST'),
	'/(desk)/work/import': owner('preview', 'write'),
	'/(desk)/work/margins': owner(),
	'/(desk)/work/new': owner('default'),
	'/(desk)/work/prices': owner(),
	'/(desk)/work/prices/[id]': owner('archive', 'picture', 'remove'),
	'/(desk)/work/prices/[id]/api': owner('PUT'),
	'/(desk)/work/prices/[id]/picture': owner('GET'),
	'/(desk)/work/prices/api': owner('GET', 'POST'),
	'/(desk)/work/prices/export': owner('GET'),
	'/(desk)/work/prices/import': owner(),
	'/(desk)/work/prices/import/api': owner('POST'),
	'/(desk)/work/prices/new': owner(),
	'/(desk)/work/prices/raise': owner('preview', 'raise'),
	'/(desk)/work/runs/[id]': owner(),
	'/(desk)/work/runs/[id]/api': owner('GET'),
	'/(public)/p/[token]': link('card', 'bank', 'cardCode', 'showCard', 'forgetCard'),
	'/(public)/p/[token]/files/[id]': link('GET'),
	'/(public)/p/[token]/logo': link('GET'),
	'/(public)/p/[token]/pdf': link('GET'),
	'/(public)/r/[token]': link('card', 'bank'),
	'/(public)/s/[token]': link('card', 'bank'),
	'/(public)/s/[token]/pdf': link('GET'),
	'/(public)/sign-in': anyone('password', 'demo'),
	'/(public)/welcome': anyone('default'),
	'/(public)/welcome/restore': anyone('look', 'restore'),
	'/health': anyone('GET'),
	'/sign-out': owner('POST'),
	'/webhooks/bank': service(20 * KB),
	'/webhooks/card': service(MB)
};

/** What nobody wrote a row for: for nobody. */
export const ruleOf = (routeId: string | null): Rule | undefined =>
	routeId !== null && Object.hasOwn(ACCESS, routeId) ? ACCESS[routeId] : undefined;
