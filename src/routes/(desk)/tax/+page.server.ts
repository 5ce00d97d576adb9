import { z } from 'zod';
import { act, box, fileOf, readJson, rowId } from '$lib/server/answers';
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
import type { World } from '$lib/server/world';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) =>
	deductionsOf(locals.world, url.searchParams.get('year') ?? undefined);

const deductionsOf = (world: World, year: string | undefined) => ({
	...deductionsPage(world, year),
	badDebts: badDebts(world)
});

const key = { contractor: rowId, month: box };
const statement = z.object({ ...key, gross: box, materials: box, deduction: box, reference: box });

export const actions: Actions = {
	save: (event) =>
		act(event, statement, (values, world) => {
			saveDeductionStatement(world, values);
		}),
	file: (event) =>
		act(event, z.object({}), async (_values, world, posted) => {
			const { bytes } = await fileOf(posted, 5, 'Choose a CSV file with the statements.');
			return { preview: previewDeductionFile(world, bytes) };
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
		act(event, z.object(key), ({ contractor, month }, world) => ({
			bin: removeDeductionStatement(world, contractor, month)
		}))
};
