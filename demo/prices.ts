// The price list of the demo business: what it does by the hour, what it buys, and three kits.
import type { PriceForm } from '../src/lib/server/services/prices/prices';

type Entry = PriceForm & { code: string };

const labour = (
	code: string,
	name: string,
	unit: string,
	unitPrice: string,
	category: string
): Entry => ({
	code,
	name,
	kind: 'labour',
	unit,
	unitPrice,
	category
});
const materials = (
	code: string,
	name: string,
	unit: string,
	unitPrice: string,
	cost: string,
	category: string
): Entry => ({ code, name, kind: 'materials', unit, unitPrice, cost, category });

export const DEMO_PRICES: Entry[] = [
	labour('L-PLA', 'Lime plastering', 'hour', '45.00', 'Plastering'),
	labour('L-REN', 'Lime render, two coats', 'm²', '62.00', 'Plastering'),
	labour('L-SKIM', 'Finish coat, fine lime', 'm²', '24.00', 'Plastering'),
	labour('L-LATH', 'Laths, riven oak, fixed', 'm²', '58.00', 'Plastering'),
	labour('L-PATCH', 'Patch repair of plaster', 'item', '95.00', 'Repairs'),
	labour('L-CRACK', 'Rake out and fill a crack', 'm', '14.50', 'Repairs'),
	labour('L-CORN', 'Cornice repair, run in situ', 'm', '110.00', 'Cornices'),
	labour('L-CAST', 'Cornice, cast and fixed', 'm', '74.00', 'Cornices'),
	labour('L-ROSE', 'Ceiling rose, cleaned and mended', 'item', '180.00', 'Cornices'),
	labour('L-POINT', 'Repoint in hydraulic lime', 'm²', '48.00', 'Masonry'),
	labour('L-CHIM', 'Repoint a chimney stack', 'item', '420.00', 'Masonry'),
	labour('L-SILL', 'Stone sill, mended in mortar', 'item', '135.00', 'Masonry'),
	labour('L-HACK', 'Hack off failed plaster', 'm²', '16.00', 'Preparation'),
	labour('L-PROT', 'Protect floors and fittings', 'room', '38.00', 'Preparation'),
	labour('L-CLEAN', 'Clean up and take away', 'hour', '32.00', 'Preparation'),
	labour('D-SURV', 'Damp survey with report', 'visit', '165.00', 'Damp'),
	labour('D-INSP', 'Damp inspection, quarterly', 'visit', '65.00', 'Damp'),
	labour('D-VENT', 'Air brick cleared', 'item', '28.00', 'Damp'),
	labour('I-WALL', 'Wood-fibre wall insulation, fixed', 'm²', '39.00', 'Insulation'),
	materials('M-NHL35', 'Hydraulic lime NHL 3.5, 25 kg', 'bag', '16.80', '12.90', 'Lime'),
	materials('M-NHL5', 'Hydraulic lime NHL 5, 25 kg', 'bag', '18.20', '14.10', 'Lime'),
	materials('M-PUT', 'Lime putty, mature', 'tub', '21.50', '15.40', 'Lime'),
	materials('M-SAND', 'Sharp sand, washed', 'bag', '4.90', '3.20', 'Lime'),
	materials('M-BULK', 'Sharp sand, bulk bag', 'bag', '78.00', '58.00', 'Lime'),
	materials('M-HAIR', 'Goat hair', 'kg', '18.00', '12.00', 'Lime'),
	materials('M-POZZ', 'Pozzolan', 'kg', '3.40', '2.20', 'Lime'),
	materials('M-MESH', 'Glass mesh, 1 m wide', 'm', '3.10', '1.95', 'Boards and mesh'),
	materials('M-LATH', 'Riven oak laths, bundle', 'bundle', '46.00', '33.00', 'Boards and mesh'),
	materials('M-BOARD', 'Wood-fibre board, 60 mm', 'm²', '24.50', '17.80', 'Boards and mesh'),
	materials('M-FIX', 'Insulation fixings', 'box', '19.00', '12.60', 'Boards and mesh'),
	materials('M-BEAD', 'Stainless bead, 3 m', 'item', '7.40', '4.80', 'Boards and mesh'),
	materials('M-PLAS', 'Casting plaster, 25 kg', 'bag', '22.00', '15.50', 'Cornices'),
	materials('M-SIL', 'Silicone for moulds', 'kg', '27.00', '19.00', 'Cornices'),
	materials('M-WASH', 'Limewash', 'litre', '9.80', '6.10', 'Finishes'),
	materials('M-CLAY', 'Clay paint', 'litre', '14.20', '9.90', 'Finishes'),
	materials('M-BRICK', 'Air brick, cast iron', 'item', '31.00', '21.00', 'Damp'),
	{
		code: 'H-TOW',
		name: 'Tower scaffold, hired',
		kind: 'plantHire',
		unit: 'day',
		unitPrice: '75.00',
		cost: '55.00',
		category: 'Hire'
	},
	{
		code: 'H-MIX',
		name: 'Forced-action mixer, hired',
		kind: 'plantHire',
		unit: 'day',
		unitPrice: '42.00',
		cost: '31.00',
		category: 'Hire'
	},
	{
		code: 'T-CALL',
		name: 'Travel to site',
		kind: 'travel',
		unit: 'visit',
		unitPrice: '30.00',
		category: 'Travel'
	},
	{
		code: 'O-SKIP',
		name: 'Skip, 4 yards',
		kind: 'other',
		unit: 'item',
		unitPrice: '260.00',
		cost: '220.00',
		category: 'Hire'
	}
];

export interface DemoKit {
	entry: PriceForm;
	parts: [code: string, quantity: string][];
}

export const DEMO_KITS: DemoKit[] = [
	{
		entry: {
			code: 'K-CRACK',
			name: 'Crack in a ceiling, mended',
			kit: 'line',
			kind: 'labour',
			unit: 'm',
			category: 'Repairs'
		},
		parts: [
			['L-CRACK', '1'],
			['M-PUT', '0.1'],
			['M-HAIR', '0.05']
		]
	},
	{
		entry: {
			code: 'K-WALL',
			name: 'Wall rendered, lime and mesh',
			kit: 'parts',
			kind: 'labour',
			unit: 'm²',
			category: 'Plastering'
		},
		parts: [
			['L-REN', '1'],
			['M-NHL35', '0.6'],
			['M-SAND', '2'],
			['M-MESH', '1.1']
		]
	},
	{
		entry: {
			code: 'K-BRICK',
			name: 'Air brick renewed',
			kit: 'line',
			kind: 'labour',
			unit: 'item',
			unitPrice: '85.00',
			category: 'Damp'
		},
		parts: [
			['L-CRACK', '2'],
			['M-BRICK', '1'],
			['M-NHL35', '0.2']
		]
	}
];
