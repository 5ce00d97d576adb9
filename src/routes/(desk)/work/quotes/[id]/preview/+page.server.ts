import { idOf, orNotFound } from '$lib/server/answers';
import { quotePreview } from '$lib/server/services/quotes/send';
import { publicQuote } from '$lib/core/quotes/public';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { world }, params }) => {
	const id = idOf(params.id);
	const preview = orNotFound(() => quotePreview(world, id));
	return { id, quote: preview && publicQuote(preview.frozen) };
};
