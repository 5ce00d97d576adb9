/** How money comes in, as a form by hand offers it. */
export const WAYS_BY_HAND = {
	bank: 'Bank transfer',
	cash: 'Cash',
	cheque: 'Cheque',
	card: 'Card, taken elsewhere'
} as const;
