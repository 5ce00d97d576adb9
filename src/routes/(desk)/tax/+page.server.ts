import { z } from 'zod';
import { act, box, readJson, rowId } from '$lib/server/answers';
import { TableError } from '$lib/core/formats/table';
import { badDebts, settleRelief } from '$lib/server/services/tax/badDebts';
import {
	importDeductionStatements,
	previewDeductionFile
} from '$lib/server/services/tax/deductionImport';
import {
	deductionsPage,
	removeDeductionStatement,
	saveDeductionStatement
} from '$lib/server/services/tax/deductions';
import { FieldError } from '$lib/core/refusals';
import type { World } from '$lib/server/world';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) =>
	deductionsOf(locals.world, url.searchParams.get('year') ?? undefined);

const deductionsOf = (world: World, year: string | undefined) => ({
	...deductionsPage(world, year),
	badDebts: badDebts(world)
});
const LARGEST = 5 * 1024 * 1024;

const key = { contractor: rowId, month: box };
const statement = z.object({ ...key, gross: box, materials: box, deduction: box, reference: box });

export const actions: Actions = {
	save: (event) =>
		act(event, statement, (values, world) => {
			saveDeductionStatement(world, values);
		}),
	file: (event) =>
		act(event, z.object({}), async (_values, world, posted) => {
			const file = posted.get('file');
			if (!(file instanceof File) || file.size === 0)
				throw new FieldError({ file: 'Choose a CSV file with the statements.' });
			if (file.size > LARGEST) throw new FieldError({ file: 'The file is larger than 5 MB.' });
			try {
				return { preview: previewDeductionFile(world, new Uint8Array(await file.arrayBuffer())) };
			} catch (error) {
				if (error instanceof TableError) throw new FieldError({ file: error.message });
				throw error;
			}
		}),
	bringIn: (event) =>
		act(event, z.object({ rows: box }), ({ rows }, world) => ({
			broughtIn: importDeductionStatements(world, readJson(rows))
		})),
	relief: (event) =>
		act(event, z.object({ document: rowId, key: box }), ({ document, key }, world) => {
			settleRelief(world, document, key);
		}),
	remove: (event) =>
		act(event, z.object(key), ({ contractor, month }, world) => {
			removeDeductionStatement(world, contractor, month);
		})
};
