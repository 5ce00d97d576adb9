// What a new quote says until its owner changes it.
import { blankSheet } from '../sheet/blank';
import type { QuoteTerms, Sheet } from '../sheet/types';

export const blankTerms = (): QuoteTerms => ({
	binding: true,
	title: '',
	detail: 'all',
	validDays: '28',
	begin: '',
	duration: '',
	before: '',
	notIncluded: '',
	assumed: '',
	guarantee: '',
	terms: '',
	deposit: '',
	stages: [],
	place: 'unsettled',
	urgent: false,
	newBuilding: false
});

export const blankQuote = (): Sheet & { quote: QuoteTerms } => ({
	...blankSheet(),
	quote: blankTerms()
});

/** `Quote`, or `Estimate`. */
export const quoteName = ({ binding }: Pick<QuoteTerms, 'binding'>): 'Quote' | 'Estimate' =>
	binding ? 'Quote' : 'Estimate';
