import { json } from '@sveltejs/kit';
import { idOf, orNotFound } from '$lib/server/answers';
import { fieldsFor, somethingReal } from '$lib/server/services/desk/wordingPreview';
import { readKind } from '$lib/server/services/wordings/wordings';
import type { RequestHandler } from './$types';

/** `?about=` one thing: what the fields become for it. Else what matches `?q=`. */
export const GET: RequestHandler = ({ locals, params, url }) =>
	orNotFound(() => {
		const kind = readKind(params.kind);
		const about = url.searchParams.get('about');
		return about === null
			? json(somethingReal(locals.world.db, kind, url.searchParams.get('q') ?? ''))
			: json(fieldsFor(locals.world, kind, idOf(about)));
	});
