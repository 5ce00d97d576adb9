import { redirect } from '@sveltejs/kit';
import { orNotFound } from '$lib/server/answers';
import { listForms } from '$lib/server/listForms';
import { listPage } from '$lib/server/services/desk/lists/page';
import { addedFilter } from '$lib/server/services/desk/lists/page';
import { sizeOf, sourceNamed } from '$lib/server/services/desk/lists/rows';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { world }, params, url }) => {
	if (params.list === 'invoices') redirect(308, `/billing${url.search}`);
	const source = orNotFound(() => sourceNamed(params.list));
	const [first] = source.spec.views;
	// What is archived or cancelled is left out until somebody asks for it.
	if (url.search === '' && first!.filters.length)
		redirect(307, `${url.pathname}?view=${first!.id}`);
	const adding = addedFilter(source, url, world.clock.today());
	if (adding && 'address' in adding) redirect(303, adding.address);
	const page = listPage(world, source, url, sizeOf(source));
	return {
		...page,
		list: source.spec.name,
		adding,
		rows: page.rows.map((row) => ({ ...row, href: source.href(row.id, row.more) }))
	};
};

export const actions: Actions = listForms(
	({ params }) => orNotFound(() => sourceNamed(params.list ?? '')).spec.name
);
