<!-- The lines: a grid that works by keyboard alone, and by dragging. -->
<script lang="ts">
	import { unitOf } from '$lib/core/money/currencies';
	import { TREATMENT_NAMES } from '$lib/core/words';
	import GripVertical from '@lucide/svelte/icons/grip-vertical';
	import Heading from '@lucide/svelte/icons/heading';
	import Plus from '@lucide/svelte/icons/plus';
	import Trash2 from '@lucide/svelte/icons/trash-2';
	import { tick, type Snippet } from 'svelte';
	import { dragHandle, dragHandleZone } from 'svelte-dnd-action';
	import { displayAmount } from '$lib/core/money/display';
	import { formatDecimal } from '$lib/core/money/decimal';
	import { GB } from '$lib/core/regimes/gb';
	import type { VatTreatment } from '$lib/core/regimes/types';
	import { reasonsOn } from '$lib/core/regimes/gb/reasons';
	import type { SheetLine, SheetRow } from '$lib/core/sheet/types';
	import type { Draft } from './draft.svelte';
	import VatBasis from '../prices/VatBasis.svelte';
	import LineRow from './LineRow.svelte';

	interface Props {
		draft: Draft;
		/** What else belongs to a line, beside its kind. */
		beside?: Snippet<[SheetLine, number]>;
	}
	let { draft, beside }: Props = $props();
	let grid: HTMLElement;
	let taxed = $derived(draft.registered && draft.of !== 'kit');
	/** What can be chosen in the VAT cell on the tax point: a rate other than standard comes with its reason. */
	let rates = $derived.by(() => {
		const date = draft.taxDate;
		const name = (treatment: VatTreatment) => {
			const dated = GB.rateOn(treatment, date);
			return dated ? `${formatDecimal(dated.rate)} %` : TREATMENT_NAMES[treatment];
		};
		return [
			{ id: 'standard', treatment: 'standard' as VatTreatment, label: name('standard') },
			...reasonsOn(date).map(({ id, treatment, label }) => ({
				id,
				treatment,
				label: `${name(treatment)} · ${label}`
			}))
		];
	});
	const UNITS = ['hour', 'day', 'item', 'm', 'm²', 'm³', 'kg', 'bag', 'lot', 'visit', 'mile'];
	/** Enter goes from one to the next, and from the last to a new line. */
	const STEPS = ['description', 'quantity', 'unitPrice'];

	// Only ids go to the drag and drop, because it reads all it is given at every change.
	let order = $derived(draft.sheet.rows.map(({ id }) => ({ id })));
	let byId = $derived(new Map(draft.sheet.rows.map((row) => [row.id, row])));
	/** The order while something is dragged; the place it left then has an id of its own. */
	let moving = $state.raw<{ id: string }[] | null>(null);
	let dragged = $state('');

	async function focus(id: string, field: string) {
		await tick();
		const cell =
			grid?.querySelector<HTMLElement>(`[data-path="rows.${id}.${field}"]`) ??
			grid?.querySelector<HTMLElement>(`[data-path^="rows.${id}."]`);
		cell?.focus();
		if (cell instanceof HTMLInputElement) cell.select();
	}

	function fieldOf(event: KeyboardEvent): string {
		return (event.target as HTMLElement).dataset.path?.split('.').at(-1) ?? 'description';
	}

	/** Whether an arrow key would leave the text rather than move within it. */
	function atEdge(element: HTMLElement, key: string): boolean {
		if (!(element instanceof HTMLTextAreaElement)) return true;
		const text = element.value;
		const caret = element.selectionStart;
		return key === 'ArrowUp'
			? !text.slice(0, caret).includes('\n')
			: !text.slice(caret).includes('\n');
	}

	function keys(event: KeyboardEvent, row: SheetRow) {
		const field = fieldOf(event);
		const command = event.ctrlKey || event.metaKey;
		const done = () => event.preventDefault();
		if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
			done();
			draft.moveRow(row.id, event.key === 'ArrowUp' ? -1 : 1);
			void focus(row.id, field);
		} else if (command && event.key.toLowerCase() === 'd') {
			done();
			const copy = draft.copyRow(row.id);
			if (copy) void focus(copy, field);
		} else if (command && /^[zy]$/i.test(event.key)) {
			const at = draft.undo(event.shiftKey || event.key.toLowerCase() === 'y');
			if (at === null) return;
			done();
			void focus(at, field);
		} else if (event.altKey && event.key === 'Delete') {
			done();
			const next = draft.removeRow(row.id);
			if (next) void focus(next, field);
		} else if (
			event.key === 'Enter' &&
			!event.shiftKey &&
			!command &&
			!(event.target instanceof HTMLSelectElement) &&
			!(event.target instanceof HTMLButtonElement)
		) {
			done();
			goOn(row, field);
		} else if (
			(event.key === 'ArrowUp' || event.key === 'ArrowDown') &&
			!command &&
			!(event.target instanceof HTMLSelectElement) &&
			atEdge(event.target as HTMLElement, event.key)
		) {
			const other = draft.sheet.rows[draft.position(row.id) + (event.key === 'ArrowUp' ? -1 : 1)];
			if (other) {
				done();
				void focus(other.id, field);
			}
		} else if (
			event.key.toLowerCase() === 'w' &&
			row.type === 'line' &&
			(event.altKey || field === 'amount')
		) {
			done();
			const index = draft.lineIndex.get(row.id);
			if (index !== undefined) draft.figure = `lines.${index}.net`;
		}
	}

	function goOn(row: SheetRow, field: string) {
		const step = STEPS.indexOf(field);
		if (row.type === 'line' && step < STEPS.length - 1 && field !== 'amount') {
			void focus(row.id, STEPS[step < 0 ? STEPS.length - 1 : step + 1]!);
			return;
		}
		const next = draft.sheet.rows[draft.position(row.id) + 1];
		void focus(
			next?.id ?? draft.addLine(row.id),
			next?.type === 'heading' ? 'text' : 'description'
		);
	}

	function paste(event: ClipboardEvent, row: SheetRow) {
		const text = event.clipboardData?.getData('text/plain') ?? '';
		if (text.includes('\t') && draft.paste(text, row.id)) event.preventDefault();
	}

	/** Every row has the same columns, and figures of millions stand in one line. */
	let columns = $derived.by(() => {
		const wide = (texts: Iterable<string>, least: number) =>
			`calc(${Math.min(15, Math.max(least, ...[...texts].map((text) => text.length)))}ch + 18px)`;
		const lines = draft.sheet.rows.filter((row) => row.type === 'line');
		const quantity = wide(
			lines.map((line) => line.quantity),
			5
		);
		const price = wide(
			lines.map((line) => line.unitPrice),
			8
		);
		const amount = wide(draft.amounts.values(), 9);
		return `22px minmax(0,1fr) ${quantity} 70px ${price} ${taxed ? '84px' : '0px'} ${amount} 52px`;
	});
	let numbers = $derived.by(() => {
		let n = 0;
		return new Map(draft.sheet.rows.map((row) => [row.id, row.type === 'line' ? ++n : n]));
	});
	export function focusFirst() {
		const row = draft.sheet.rows.find((one) => one.type === 'line');
		if (row) void focus(row.id, 'description');
	}
</script>

<div class="@container/lines" style:--line-columns={columns} bind:this={grid} data-path="rows">
	<div
		class="grid grid-cols-(--line-columns) items-end gap-y-0 gap-x-1.5 text-(--ink-2) text-[0.85rem] font-medium pt-2 pb-1.5 px-0 border-b-[1.5px] border-b-(--ink) tight:flex tight:justify-end [&_span]:px-2 tight:[&_span]:hidden"
	>
		<span></span><span aria-hidden="true"
			>{draft.of === 'kit' ? 'From the price list' : 'Description'}</span
		><span class="text-right" aria-hidden="true">Quantity</span>
		{#if taxed}<div class="col-span-2 text-right">
				<VatBasis
					includes={draft.sheet.pricesIncludeVat}
					onchange={(includes) => draft.takePrices(includes)}
					path="pricesIncludeVat"
				/>
			</div>{:else}<span aria-hidden="true">Unit</span><span class="text-right" aria-hidden="true"
				>Price, {unitOf(draft.currency)}</span
			>{/if}
		<span aria-hidden="true">{taxed ? 'VAT' : ''}</span><span class="text-right" aria-hidden="true"
			>Amount, {unitOf(draft.currency)}</span
		><span></span>
	</div>
	<div
		use:dragHandleZone={{
			items: moving ?? order,
			flipDurationMs: 120,
			autoAriaDisabled: true,
			zoneTabIndex: -1,
			zoneItemTabIndex: -1,
			dropTargetStyle: {}
		}}
		onconsider={(event) => {
			dragged = event.detail.info.id;
			moving = event.detail.items;
		}}
		onfinalize={(event) => {
			moving = null;
			draft.reorder(event.detail.items.map((item) => item.id));
		}}
	>
		{#each moving ?? order as item (item.id)}
			{@const row = byId.get(item.id) ?? byId.get(dragged)!}
			<div>
				{#if row.type === 'line'}
					<LineRow
						{draft}
						line={row}
						number={numbers.get(row.id) ?? 0}
						{rates}
						{beside}
						onkeydown={(event) => keys(event, row)}
						onpaste={(event) => paste(event, row)}
					/>
				{:else}
					<!-- svelte-ignore a11y_no_static_element_interactions -->
					<div
						class="heading grid grid-cols-[22px_minmax(0,1fr)_auto_52px] gap-1.5 items-center pt-2 pb-1 px-0 border-b border-b-(--hair) bg-(--sheet) focus-within:bg-(--tape-tint)"
						onkeydown={(event) => keys(event, row)}
					>
						<span class="text-(--dotted) cursor-grab" use:dragHandle aria-label="Drag heading"
							><GripVertical size={18} aria-hidden="true" /></span
						>
						<input
							class="line-box [font:650_1.1rem_var(--font-heading)]"
							data-path="rows.{row.id}.text"
							aria-label="Heading"
							placeholder="Heading, such as a room"
							bind:value={row.text}
						/>
						<button
							type="button"
							class="numbers sum py-1 px-2 [cursor:help] [&:not(.sum)]:grid [&:not(.sum)]:place-items-center [&:not(.sum)]:h-8 [&:not(.sum)]:w-8 [&:not(.sum)]:cursor-pointer"
							title="Workings"
							onclick={() => (draft.figure = `heading.${row.id}`)}
							>{displayAmount(draft.headingSums.get(`heading.${row.id}`)?.value ?? 0n)}</button
						>
						<button
							type="button"
							class="[&:not(.sum)]:grid [&:not(.sum)]:place-items-center [&:not(.sum)]:h-8 [&:not(.sum)]:w-8 [&:not(.sum)]:cursor-pointer"
							tabindex="-1"
							aria-label="Remove heading"
							onclick={() => draft.removeRow(row.id)}
							><Trash2 size={17} aria-hidden="true" /></button
						>
					</div>
				{/if}
			</div>
		{/each}
	</div>
	{#if draft.problemAt.get('rows')}<p class="wrong">{draft.problemAt.get('rows')?.message}</p>{/if}
	<div class="flex gap-y-1.5 gap-x-3.5 flex-wrap items-center pt-1">
		<button type="button" class="button plain" onclick={() => focus(draft.addLine(), 'description')}
			><Plus size={18} aria-hidden="true" />{draft.of === 'kit' ? 'Part' : 'Line'}</button
		>
		{#if draft.of === 'invoice' || draft.of === 'quote'}
			<button type="button" class="button plain" onclick={() => focus(draft.addHeading(), 'text')}
				><Heading size={17} aria-hidden="true" />Heading</button
			>
			{#if draft.of === 'invoice'}<label
					class="check ml-auto items-center text-(--ink-2) text-[0.906rem]"
					><input
						type="checkbox"
						checked={draft.sheet.grouping === 'kinds'}
						onchange={(event) =>
							(draft.sheet.grouping = event.currentTarget.checked ? 'kinds' : 'headings')}
					/> Print by kind, with sums</label
				>{/if}
		{/if}
	</div>
	<datalist id="units"
		>{#each UNITS as unit (unit)}<option value={unit}></option>{/each}</datalist
	>
</div>
