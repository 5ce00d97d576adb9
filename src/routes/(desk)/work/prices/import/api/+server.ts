import { z } from 'zod';
import { answer, readForm, readJson } from '$lib/server/answers';
import { LARGEST_FILE } from '$lib/core/formats/table';
import { FieldError } from '$lib/core/refusals';
import { importPrices, previewPriceFile } from '$lib/server/services/prices/file';
import { PRICE_COLUMNS, type PriceMapping } from '$lib/server/services/prices/columns';
import type { RequestHandler } from './$types';

const mappingForm = z.partialRecord(
	z.enum(PRICE_COLUMNS.map((column) => column.field)),
	z.number().int().min(0).max(500)
);

/** The file comes with each question: nothing of it is kept here until it is confirmed. */
export const POST: RequestHandler = async ({ locals, request, url }) => {
	let bytes = new Uint8Array();
	let mapping: PriceMapping | undefined;
	const preview = await answer(async () => {
		const form = await readForm(request, locals.world.clock.today());
		const file = form.get('file');
		if (!(file instanceof File)) throw new FieldError({ file: 'Choose a file.' });
		if (file.size > LARGEST_FILE)
			throw new FieldError({
				file: `The file has ${Math.ceil(file.size / 1024 / 1024)} MB. At most 25 MB can be read: split it.`
			});
		bytes = new Uint8Array(await file.arrayBuffer());
		const given = String(form.get('mapping') ?? '');
		const chosen = given ? mappingForm.safeParse(readJson(given)) : undefined;
		if (chosen?.success === false) throw new FieldError({ mapping: 'Choose the columns again.' });
		mapping = chosen?.data as PriceMapping | undefined;
		return previewPriceFile(locals.world, bytes, mapping);
	});
	if (!url.searchParams.has('write') || !preview.ok || !mapping) return preview;

	const steps = importPrices(locals.world, bytes, mapping);
	const encoder = new TextEncoder();
	return new Response(
		new ReadableStream({
			async pull(controller) {
				const { value, done } = await steps.next();
				if (done) controller.close();
				else controller.enqueue(encoder.encode(`${JSON.stringify(value)}\n`));
			}
		}),
		{ headers: { 'content-type': 'application/x-ndjson' } }
	);
};
