import { act, idOf, readJson, readForm } from '$lib/server/answers';
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

export const actions: Actions = {
	save: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		const text = (name: string) => String(form.get(name) ?? '');
		const values = {
			contractor: Number(text('contractor')) || 0,
			month: text('month'),
			gross: text('gross'),
			materials: text('materials'),
			deduction: text('deduction'),
			reference: text('reference')
		};
		return act(() => {
			saveDeductionStatement(locals.world, values);
			return { saved: true as const };
		}, values);
	},
	file: async ({ request, locals }) => {
		const file = (await readForm(request, locals.world.clock.today())).get('file');
		return act(async () => {
			if (!(file instanceof File) || file.size === 0)
				throw new FieldError({ file: 'Choose a CSV file with the statements.' });
			if (file.size > LARGEST) throw new FieldError({ file: 'The file is larger than 5 MB.' });
			try {
				const bytes = new Uint8Array(await file.arrayBuffer());
				return { preview: previewDeductionFile(locals.world, bytes) };
			} catch (error) {
				if (error instanceof TableError) throw new FieldError({ file: error.message });
				throw error;
			}
		});
	},
	bringIn: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() => ({
			broughtIn: importDeductionStatements(locals.world, readJson(form.get('rows')))
		}));
	},
	relief: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() =>
			settleRelief(
				locals.world,
				idOf(String(form.get('document') ?? '')),
				String(form.get('key') ?? '')
			)
		);
	},
	remove: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() =>
			removeDeductionStatement(
				locals.world,
				Number(form.get('contractor')) || 0,
				String(form.get('month') ?? '')
			)
		);
	}
};
