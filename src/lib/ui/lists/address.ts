// Addresses of a list, from the view that is shown.
import { writeFilter, writeView } from '$lib/core/lists/address';
import type { Filter, ListSpec, ListView } from '$lib/core/lists/types';

export interface Addresses {
	of: (view: Partial<ListView>) => string;
	without: (filter: Filter) => string;
	/** In the order of a field; again, the other way round. */
	ordered: (field: string, down: boolean) => string;
}

export function addressesOf(path: string, spec: ListSpec, view: ListView): Addresses {
	const of = (change: Partial<ListView>): string => {
		const params = writeView(spec, { ...view, ...change });
		return params.size ? `${path}?${params}` : path;
	};
	return {
		of,
		without: (filter) =>
			of({ filters: view.filters.filter((one) => writeFilter(one) !== writeFilter(filter)) }),
		ordered: (field, down) => of({ sort: { field, down } })
	};
}
