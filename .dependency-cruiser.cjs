/** The direction of imports, as docs/architecture describes it: routes → ui, services → core. */

const SERVICES = 'src/lib/server/services';

/** Rooms of the services: each may import only itself and those above it. */
const ROOMS = [
	'business',
	'trail',
	'files',
	'letterheads',
	'wordings',
	'messages',
	'people',
	'ledger',
	'customers',
	'prices',
	'jobs',
	'costs',
	'invoices',
	'billing',
	'enquiries',
	'quotes',
	'diary',
	'telling',
	'signing',
	'repeats',
	'money',
	'owed',
	'chasing',
	'moving',
	'tax',
	'many',
	'reports',
	'keep',
	'desk'
];

const roomRules = ROOMS.slice(0, -1).map((room, index) => ({
	name: `${room}-knows-nothing-below-it`,
	severity: 'error',
	from: { path: `^${SERVICES}/${room}/` },
	to: { path: `^${SERVICES}/(${ROOMS.slice(index + 1).join('|')})/` }
}));

module.exports = {
	forbidden: [
		...roomRules,
		{
			name: 'services-live-in-rooms',
			comment: 'No file lies loose in services, and no room stands that the order does not name.',
			severity: 'error',
			from: { path: `^${SERVICES}/`, pathNot: `^${SERVICES}/(${ROOMS.join('|')})/` },
			to: {}
		},
		{
			name: 'audit-looks-from-outside',
			comment: 'It shares no code with what it checks but the money types.',
			severity: 'error',
			from: { path: '^scripts/audit/' },
			to: {
				pathNot:
					'^(scripts/audit/|src/lib/core/money/|node_modules/better-sqlite3/|fs$|path$|crypto$)'
			}
		},
		{
			name: 'core-stands-alone',
			comment: 'The core imports nothing but itself and small pure libraries.',
			severity: 'error',
			from: { path: '^src/lib/core/' },
			to: {
				pathNot:
					'^(src/lib/core/|node_modules/(@internationalized/date|zod|papaparse|date-holidays|ical\\.js|fast-xml-parser|chardet)/)'
			}
		},
		{
			name: 'ui-knows-no-server',
			severity: 'error',
			from: { path: '^src/lib/ui/' },
			to: { path: '^src/lib/server/' }
		},
		{
			name: 'db-and-gateways-know-no-services',
			severity: 'error',
			from: { path: '^src/lib/server/(db|gateways|documents)/' },
			to: { path: '^src/(lib/server/(services|clockwork)|routes|lib/ui)/' }
		},
		{
			name: 'services-know-no-interface',
			severity: 'error',
			from: { path: '^src/lib/server/' },
			to: { path: '^src/(routes|lib/ui)/' }
		},
		{
			name: 'routes-go-through-services',
			comment: 'A route parses, calls a service and returns; it writes no SQL of its own.',
			severity: 'error',
			from: { path: '^src/routes/' },
			to: { path: '^(src/lib/server/db/|node_modules/(better-sqlite3|drizzle-orm)/)' }
		},
		{
			name: 'stand-ins-run-by-themselves',
			severity: 'error',
			from: { path: '^stand-ins/' },
			to: { path: '^src/' }
		},
		{ name: 'no-circles', severity: 'error', from: {}, to: { circular: true } }
	],
	options: {
		doNotFollow: { path: 'node_modules' },
		tsPreCompilationDeps: true,
		tsConfig: { fileName: 'tsconfig.json' },
		enhancedResolveOptions: {
			exportsFields: ['exports'],
			conditionNames: ['import', 'svelte', 'default']
		}
	}
};
