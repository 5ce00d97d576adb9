// The customers of the demo business. All of it is invented; numbers pass their check digits and belong to nobody.
import type { CustomerForm } from '../src/lib/server/services/customers/form';

type Entry = CustomerForm & { key: string; billToKey?: string };

const town = 'Harrowmere\nWestmarch WM4 2AB';

function household(
	key: string,
	name: string,
	street: string,
	email: string,
	note = '',
	phone = ''
): Entry {
	const address = `${street}\n${town}`;
	return { key, name, kind: 'household', address, email, phone, privateNote: note };
}

export const DEMO_CUSTOMERS: Entry[] = [
	{
		key: 'beacon',
		name: 'Beacon & Lathe Construction Ltd',
		kind: 'contractor',
		address: 'Foundry House\nLathe Street\nCastle Orme\nWestmarch WM1 4QT',
		email: 'accounts@beacon-lathe.example',
		phone: '01632 960114',
		termsDays: 45,
		privateNote: 'Usually pays about 12 days late. Ask for Mrs Dunn.',
		contacts: [
			{
				name: 'Perpetua Dunn',
				role: 'invoices',
				email: 'accounts@beacon-lathe.example',
				phone: '01632 960115'
			}
		],
		sites: [
			{
				name: 'Mill Yard, Unit 4',
				address: 'Mill Yard\nHarrowmere',
				accessNotes: 'gate code 4471, ask for Dunn'
			},
			{
				name: 'The Old Maltings',
				address: 'Quay Road\nCastle Orme',
				accessNotes: 'sign in at the cabin'
			}
		],
		standing: {
			from: '',
			vatRegistered: true,
			vatNumber: '123456782',
			cisRegistered: true,
			cisRate: '20',
			verificationNumber: 'V1000000101'
		}
	},
	{
		key: 'quillfeather',
		name: 'Quillfeather Homes Ltd',
		kind: 'contractor',
		address: '2 Sandpiper Court\nCastle Orme\nWestmarch WM1 9LE',
		email: 'subcontract@quillfeather.example',
		phone: '01632 960220',
		termsDays: 30,
		sites: [
			{
				name: 'Plots 7 to 12, Heron Rise',
				address: 'Heron Rise\nHarrowmere',
				accessNotes: 'hard hat beyond the gate'
			}
		],
		standing: {
			from: '',
			vatRegistered: true,
			vatNumber: '123456727',
			cisRegistered: true,
			cisRate: '20',
			verificationNumber: 'V1000000202'
		}
	},
	{
		key: 'estates',
		name: 'Harrowmere Estates plc',
		kind: 'contractor',
		address: 'Corn Exchange\nMarket Place\nHarrowmere\nWestmarch WM4 1AA',
		email: 'payables@harrowmere-estates.example',
		phone: '01632 960330',
		termsDays: 30,
		orderNumberRequired: true,
		standing: {
			from: '',
			vatRegistered: true,
			vatNumber: '111111162',
			cisRegistered: true,
			cisRate: '20',
			verificationNumber: 'V1000000303',
			endUser: true,
			endUserDate: '2024-04-08',
			endUserStatement:
				'We are an end user for the purposes of section 55A VATA 1994. Please charge VAT as usual. (Standing statement.)'
		}
	},
	{
		key: 'thrupp',
		name: 'Thrupp Brothers',
		kind: 'contractor',
		address: 'Yard 3, Ropewalk\nHarrowmere\nWestmarch WM4 3RP',
		email: 'thrupp.bros@builders.example',
		phone: '07700 900112',
		standing: { from: '', cisRegistered: true, cisRate: '20', verificationNumber: 'V1000000404' }
	},
	{
		key: 'staithe',
		name: 'Staithe Lettings Ltd',
		kind: 'business',
		address: '11 Staithe Street\nHarrowmere\nWestmarch WM4 2SS',
		email: 'maintenance@staithe-lettings.example',
		phone: '01632 960440',
		termsDays: 30,
		contacts: [
			{
				name: 'Ottoline Frayne',
				role: 'accounts',
				email: 'accounts@staithe-lettings.example',
				phone: ''
			}
		],
		sites: Array.from({ length: 9 }, (_, index) => ({
			name: `Flat ${index + 1}, Tannery Row`,
			address: `${index + 1} Tannery Row\nHarrowmere`,
			accessNotes: [
				'key with neighbour',
				'tenant at home after 4',
				'key safe 1907',
				'ring twice',
				'dog, friendly'
			][index % 5]!,
			// The tenant hears of visits; the agent gets the bills.
			...(index === 0
				? {
						contactName: 'Pia Lorimer',
						contactEmail: 'pia@post.example',
						contactPhone: '07700 900321'
					}
				: {})
		})),
		standing: { from: '', vatRegistered: true, vatNumber: '222222269' }
	},
	{
		key: 'vanterpool',
		name: 'Mr and Mrs Idris Vanterpool',
		kind: 'household',
		address: '40 Quay Cottages\nHarrowmere\nWestmarch WM4 2QC',
		email: 'vanterpool@post.example',
		billToKey: 'staithe'
	},
	{
		key: 'almshouses',
		name: 'Harrowmere Almshouses',
		kind: 'business',
		address: 'The Almonry\nChurch Lane\nHarrowmere\nWestmarch WM4 1CL',
		email: 'warden@almshouses.example',
		labels: ['old friends'],
		phone: '01632 960550',
		sites: [
			{
				name: 'House 6, Almonry Court',
				address: 'Almonry Court\nHarrowmere',
				accessNotes: 'ask the warden'
			}
		]
	},
	{
		key: 'corvane',
		name: 'Corvane Dairy Ltd',
		kind: 'business',
		address: 'Whitegate Farm\nCorvane\nWestmarch WM7 8DD',
		email: 'purchase.ledger@corvane-dairy.example',
		phone: '01632 960660',
		orderNumberRequired: true,
		standing: { from: '', vatRegistered: true, vatNumber: '333333334' }
	},
	{
		key: 'church',
		name: 'Parochial Church Council of All Hallows, Harrowmere',
		kind: 'business',
		address: 'The Vestry\nAll Hallows\nHarrowmere\nWestmarch WM4 1CH',
		email: 'treasurer@all-hallows.example'
	},
	household(
		'odile',
		'Odile Brancaster',
		'Lantern House, Sluice Lane',
		'odile.brancaster@post.example',
		'Promised to pay by Friday.',
		'07700 900318'
	),
	household('penhallow', 'The Penhallow household', '14 Sluice Lane', 'penhallow@post.example'),
	household(
		'ruben',
		'Ruben Achterberg',
		'3 Chandler’s Yard',
		'r.achterberg@post.example',
		'Disputes the second coat; see photos.',
		'07700 900211'
	),
	household(
		'isolde',
		'Isolde Marchbanks',
		'Rook Cottage, Mere Road',
		'isolde.m@post.example',
		'',
		'07700 900427'
	),
	household('tobias', 'Tobias and Wren Aldercott', '8 Kiln Row', 'aldercotts@post.example'),
	household('philippa', 'Philippa Dunstanley', 'The Old Schoolhouse', 'p.dunstanley@post.example'),
	household('gethin', 'Gethin Vaughan-Orme', '27 Market Place', 'gethin@post.example'),
	household('maud', 'Maud Tressilian', '5 Almonry Court', 'maud.tressilian@post.example'),
	household('caspian', 'Caspian Holt', 'Ferry House, Quay Road', 'c.holt@post.example'),
	household('beatrix', 'Beatrix Underhay', '19 Ropewalk', 'beatrix.underhay@post.example'),
	household('alaric', 'Alaric Penrose-Finch', 'Gorse Lodge, Corvane', 'alaric.pf@post.example'),
	{
		key: 'marais',
		name: 'Atelier Marais-Lune SARL',
		kind: 'business',
		address: '6 rue des Tanneurs\n59000 Villebois\nFrance',
		email: 'studio@marais-lune.example',
		currency: 'EUR'
	}
];
