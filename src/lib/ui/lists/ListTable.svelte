<!-- The rows of a list: each column by its field, in the order its head asks for; on a phone as cards. -->
<script lang="ts">
	import { onMount, type Snippet } from 'svelte';
	import { displayDate, londonDate } from '$lib/core/calendar/conversion';
	import type { ListField, ListSpec, ListView } from '$lib/core/lists/types';
	import { displayAmount } from '$lib/core/money/display';
	import Table from '../parts/Table.svelte';
	import type { Column } from '../parts/table';
	import type { Addresses } from './address';
	import type { Chosen } from './chosen.svelte';

	type Cell = string | number | null;
	interface Row {
		id: number;
		cells: Record<string, Cell>;
		more: Record<string, Cell>;
	}
	interface Props {
		label: string;
		spec: ListSpec;
		view: ListView;
		rows: readonly Row[];
		to: Addresses;
		/** Where a row leads, and what tells it from all others, for those who hear it. */
		href: (row: Row) => string;
		name: (row: Row) => string;
		/** Cells that are more than their value, by field: what names a row leads to it. */
		cells?: Record<string, Snippet<[Row]>>;
		/** Rows that somebody chose; absent: nothing is done with many. */
		chosen?: Chosen;
		/** What a row is worth where it is chosen. Pence. */
		amount?: (row: Row) => number;
		/** What all of it comes to, by field; null: not known yet. */
		sums: { count: number; sums: Record<string, number> } | null;
	}
	let {
		label,
		spec,
		view,
		rows,
		to,
		href,
		name,
		cells = {},
		chosen,
		amount,
		sums
	}: Props = $props();
	let alive = $state(false);
	onMount(() => (alive = true));
	let shownRows = $derived(rows.map((row) => ({ id: row.id, amount: amount?.(row) ?? 0 })));
	let allHere = $derived(rows.length > 0 && rows.every((row) => chosen?.has(row.id)));
	let someHere = $derived(!allHere && rows.some((row) => chosen?.has(row.id)));

	/** Up and down from box to box; with Shift what is passed is chosen too. */
	function walk(event: KeyboardEvent) {
		const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
		if (!step || !(event.target instanceof HTMLInputElement) || !event.target.dataset.row) return;
		const boxes = [...frame!.querySelectorAll<HTMLInputElement>('input[data-row]')];
		const next = boxes[boxes.indexOf(event.target) + step];
		if (!next) return;
		event.preventDefault();
		next.focus();
		const id = Number(next.dataset.row);
		if (event.shiftKey && !chosen!.has(id)) chosen!.press(id, shownRows, false);
	}
	let frame = $state<HTMLElement>();
	let fields = $derived(view.columns.map((id) => spec.fields.find((field) => field.id === id)!));
	const figures = (field: ListField) => field.type === 'money' || field.type === 'number';

	/** None of its words is so long that it has to break: a reminder stands on one line. */
	const isShort = ({ choices }: ListField) =>
		choices !== undefined && Object.values(choices).every((words) => words.length <= 20);

	function shown(field: ListField, cell: Cell): string {
		if (cell === null || cell === undefined || cell === '') return '–';
		if (field.type === 'money') return displayAmount(Number(cell));
		if (field.type === 'number') return Number(cell).toLocaleString('en-GB');
		if (field.type === 'yes') return cell ? 'yes' : 'no';
		if (field.type === 'choice') return field.choices?.[String(cell)] ?? String(cell);
		if (field.type !== 'day') return String(cell);
		return displayDate(field.moment ? londonDate(Number(cell)) : String(cell));
	}
	/** A link in the words of a text may break: unbroken it would push the columns after it out of sight. */
	const breaking = (words: string) =>
		words.replace(/https?:\/\/\S+/g, (link) => link.replace(/.{15}/g, '$&\u200b'));
	let choosing = $derived<Column<Row>[]>(
		chosen && alive ? [{ id: 'choose', head: 'Choose', top: chooseAll, cell: choose }] : []
	);
	const ofFields = () =>
		fields.map((field, index): Column<Row> => {
			const here = view.sort.field === field.id;
			const cell = cells[field.id];
			return {
				id: field.id,
				head: field.head ?? field.label,
				names: field.names ?? false,
				figures: figures(field),
				look: () => (field.type === 'day' || isShort(field) ? 'whitespace-nowrap' : ''),
				// The first column leads on, whatever it is; so does what names the row.
				...(cell
					? { cell }
					: field.names || (index === 0 && !fields.some((one) => one.names))
						? { cell: leading }
						: { text: (row: Row) => breaking(shown(field, row.cells[field.id] ?? null)) }),
				...(field.names ? {} : { stacked: `${field.head ?? field.label}:` }),
				...(field.sort === false
					? {}
					: {
							ordered: here ? (view.sort.down ? 'descending' : 'ascending') : null,
							// Figures and days are wanted from the largest down first.
							order: to.ordered(
								field.id,
								here ? !view.sort.down : figures(field) || field.type === 'day'
							)
						})
			};
		});
	let columns = $derived<Column<Row>[]>([...choosing, ...ofFields()]);
	let summed = $derived(fields.some((field) => field.sum));
</script>

{#snippet leading(row: Row)}
	{@const field = fields.find((one) => one.names) ?? fields[0]!}
	{@const words = shown(field, row.cells[field.id] ?? null)}
	<a class="font-semibold" href={href(row)}
		>{words}<span class="sr-only"
			>{name(row).startsWith(words) ? name(row).slice(words.length) : `, ${name(row)}`}</span
		></a
	>
{/snippet}
{#snippet allBox(look: string)}
	<input
		type="checkbox"
		class="size-5 accent-(--ink) align-middle {look}"
		aria-label="All rows of this page"
		checked={allHere}
		indeterminate={someHere}
		onchange={(event) => chosen!.page(shownRows, event.currentTarget.checked)}
	/>
{/snippet}
{#snippet chooseAll()}<span class="sr-only">Choose</span>{@render allBox('phone:hidden')}{/snippet}
{#snippet choose(row: Row)}
	<input
		type="checkbox"
		class="size-5 accent-(--ink) align-middle"
		data-row={row.id}
		aria-label="Choose {name(row)}"
		checked={chosen!.has(row.id)}
		onclick={(event) => chosen!.press(row.id, shownRows, event.shiftKey)}
	/>
{/snippet}

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div class="panel overflow-x-auto" bind:this={frame} onkeydown={walk}>
	{#if choosing.length}<label class="hidden phone:flex items-center gap-2.5 px-4 py-2.5"
			>{@render allBox('')} Choose all of this page</label
		>{/if}
	<Table
		{label}
		{rows}
		{columns}
		id={(row) => row.id}
		marked={(row) => chosen?.has(row.id) ?? false}
		stack
	>
		{#snippet foot()}
			{#if sums && summed}
				<tr class="font-semibold">
					{#if choosing.length}<td></td>{/if}
					{#each fields as field, index (field.id)}
						<td class="py-2 px-3.5 {figures(field) ? 'numbers text-right' : ''}"
							>{index === 0
								? `${sums.count.toLocaleString('en-GB')} in all`
								: field.sum
									? displayAmount(sums.sums[field.id] ?? 0)
									: ''}</td
						>
					{/each}
				</tr>
			{/if}
		{/snippet}
	</Table>
</div>
