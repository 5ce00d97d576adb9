import { error, redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { answer, readForm } from '$lib/server/answers';
import { FieldError } from '$lib/core/refusals';
import { addFile, FILE_OWNERS } from '$lib/server/services/files/files';
import { LARGEST_FILE } from '$lib/server/services/files/prepare';
import type { RequestHandler } from './$types';

const belongsTo = z.object({ to: z.enum(FILE_OWNERS), id: z.coerce.number().int().positive() });

/** Adds what was dropped, pasted or photographed to what it belongs to. */
export const POST: RequestHandler = async ({ request, locals: { world } }) => {
	const back = new URL(request.headers.get('referer') ?? '/', world.origin);
	const posted = await readForm(request, world.clock.today());
	const belongs = belongsTo.safeParse(Object.fromEntries(posted));
	if (!belongs.success) error(400, 'This could not be read.');
	const response = await answer(async () => {
		const given = posted.getAll('file').filter((one): one is File => one instanceof File);
		const files = given.filter((file) => file.size > 0);
		if (files.length === 0) throw new FieldError({ file: 'Choose a photo or file.' });
		for (const file of files) {
			if (file.size > LARGEST_FILE)
				throw new FieldError({ file: `“${file.name}” is larger than 25 MB.` });
			await addFile(world, belongs.data, file.name, Buffer.from(await file.arrayBuffer()));
		}
		return { added: files.length };
	});
	// Without scripts a form was sent, and its page is shown again.
	const plain = !(request.headers.get('accept') ?? '').includes('application/json');
	if (plain && response.ok && back.origin === world.origin) redirect(303, back.pathname);
	return response;
};
