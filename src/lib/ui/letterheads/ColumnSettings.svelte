<!-- Which columns a document has, in which order and under which name: by mouse, touch or keys. -->
<script lang="ts">
	import ArrowDown from '@lucide/svelte/icons/arrow-down';
	import ArrowUp from '@lucide/svelte/icons/arrow-up';
	import { tick } from 'svelte';
	import { columnRule } from '$lib/core/letterheads/law';
	import type { ColumnId } from '$lib/core/letterheads/look';
	import { COLUMN_NAMES } from '$lib/core/letterheads/names';
	import type { LookEditor } from './look.svelte';

	let { editor, registered }: { editor: LookEditor; registered: boolean } = $props();
	let columns = $derived(
		// Who is not registered for VAT has no column for it.
		editor.look.columns.filter(({ id }) => registered || (id !== 'vat' && id !== 'withoutVat'))
	);
	let list: HTMLElement;
	/** Those that some documents alone have. */
	const WHERE: Partial<Record<ColumnId, string>> = {
		discount: 'where there is one',
		withoutVat: 'where prices include VAT',
		picture: 'of the price list',
		code: 'of the price list'
	};
	async function move(id: ColumnId, by: number) {
		const all = [...editor.look.columns];
		const shown = columns.map((column) => column.id);
		const other = shown[shown.indexOf(id) + by];
		if (other === undefined) return;
		const [from, to] = [id, other].map((one) => all.findIndex((column) => column.id === one));
		const [column] = all.splice(from!, 1);
		all.splice(to!, 0, column!);
		editor.look.columns = all;
		await tick();
		list
			.querySelector<HTMLElement>(`[data-column="${id}"] [data-by="${by}"]:not(:disabled)`)
			?.focus();
	}
</script>

<ol class="grid gap-1" bind:this={list}>
	{#each columns as column, index (column.id)}
		{@const rule = columnRule(column.id, { vatRegistered: registered })}
		<li data-column={column.id}>
			<div class="grid grid-cols-[minmax(0,1fr)_118px_auto] items-center gap-x-2">
				<label class="check min-w-0"
					><input
						type="checkbox"
						checked={column.shown || rule !== null}
						disabled={rule !== null}
						onchange={(event) => {
							const shown = event.currentTarget.checked;
							editor.look.columns = editor.look.columns.map((one) =>
								one.id === column.id ? { ...one, shown } : one
							);
						}}
					/><span
						>{COLUMN_NAMES[column.id]}{#if rule}<span class="quiet" title={rule.reference}
								>&#32;· {rule.because}</span
							>{:else if WHERE[column.id]}<span class="quiet">&#32;· {WHERE[column.id]}</span
							>{/if}</span
					></label
				>
				<input
					class="box min-h-9"
					aria-label="What {COLUMN_NAMES[column.id]} is called"
					placeholder={COLUMN_NAMES[column.id]}
					maxlength="24"
					value={column.title}
					oninput={(event) => {
						const title = event.currentTarget.value;
						editor.look.columns = editor.look.columns.map((one) =>
							one.id === column.id ? { ...one, title } : one
						);
					}}
				/>
				<span class="flex">
					<button
						class="button plain"
						type="button"
						data-by="-1"
						disabled={index === 0}
						aria-label="{COLUMN_NAMES[column.id]} further to the left"
						onclick={() => move(column.id, -1)}><ArrowUp size={17} /></button
					>
					<button
						class="button plain"
						type="button"
						data-by="1"
						disabled={index === columns.length - 1}
						aria-label="{COLUMN_NAMES[column.id]} further to the right"
						onclick={() => move(column.id, 1)}><ArrowDown size={17} /></button
					>
				</span>
			</div>
			{#if editor.problems[`columns.${column.id}`]}<p class="wrong">
					{editor.problems[`columns.${column.id}`]}
				</p>{/if}
		</li>
	{/each}
</ol>
