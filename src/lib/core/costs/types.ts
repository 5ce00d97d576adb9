// What a self-employed person buys, by the boxes of the self-assessment return (SA103F, 17 to 30).

export const PURCHASE_KINDS = ['bill', 'credit', 'mileage'] as const;
export type PurchaseKind = (typeof PURCHASE_KINDS)[number];

export const COST_CATEGORIES = [
	'goods',
	'subcontractors',
	'wages',
	'travel',
	'premises',
	'repairs',
	'office',
	'advertising',
	'interest',
	'charges',
	'professional',
	'other'
] as const;
export type CostCategory = (typeof COST_CATEGORIES)[number];

/** As its box of the return is called, and which one it is. */
export const CATEGORY_NAMES: Readonly<Record<CostCategory, { name: string; box: number }>> = {
	goods: { name: 'Goods and materials', box: 17 },
	subcontractors: { name: 'Subcontractors (construction)', box: 18 },
	wages: { name: 'Wages and staff', box: 19 },
	travel: { name: 'Car, van and travel', box: 20 },
	premises: { name: 'Rent, rates, power and insurance', box: 21 },
	repairs: { name: 'Repairs of property and equipment', box: 22 },
	office: { name: 'Phone, stationery and office', box: 23 },
	advertising: { name: 'Advertising', box: 24 },
	interest: { name: 'Interest on loans', box: 25 },
	charges: { name: 'Bank and card charges', box: 26 },
	professional: { name: 'Accountant and other fees', box: 28 },
	other: { name: 'Everything else', box: 30 }
};
