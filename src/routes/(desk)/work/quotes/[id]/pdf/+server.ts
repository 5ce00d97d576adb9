import { idOf, orNotFound } from '$lib/server/answers';
import { acceptanceOf } from '$lib/server/services/quotes/accept';
import { loadQuote } from '$lib/server/services/quotes/quotes';
import { quotePreview, versionOf } from '$lib/server/services/quotes/send';
import { drawDocument } from '$lib/server/services/letterheads/dress';
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** What is written now; with `v` a version that went out; with `record` what was accepted. */
export const GET: RequestHandler = async ({ locals: { world }, params, url }) => {
	const id = idOf(params.id);
	const row = orNotFound(() => loadQuote(world.db, id));
	const n = Number(url.searchParams.get('v') ?? 0);
	const record = url.searchParams.has('record') ? acceptanceOf(world.db, id)?.record : undefined;
	const sent = !record && n > 0 ? orNotFound(() => versionOf(world.db, id, n)) : null;
	const preview = record || sent ? null : quotePreview(world, id);
	const content =
		record ?? sent?.content ?? (preview && (await drawDocument(world, preview.view, null)));
	if (!content) error(404, 'Nothing is on it yet.');
	const name = record ? `${row.number}-accepted.pdf` : (sent?.name ?? 'draft.pdf');
	return new Response(new Uint8Array(content), {
		headers: {
			'content-type': 'application/pdf',
			'content-disposition': `${url.searchParams.has('download') ? 'attachment' : 'inline'}; filename="${name}"`,
			'cache-control': 'private, no-store'
		}
	});
};
