<!-- What a line is on a quote: part of it, one of several, or optional; how its quantity was measured; whether it is provisional. -->
<script lang="ts">
	import { measuredQuantity, measuredWords } from '$lib/core/quotes/measure';
	import type { SheetLine } from '$lib/core/sheet/types';
	import Cell from '../lines/Cell.svelte';
	import type { Draft } from '../lines/draft.svelte';

	interface Props {
		draft: Draft;
		line: SheetLine;
		number: number;
	}
	let { draft, line, number }: Props = $props();
	let path = $derived(`rows.${line.id}`);
	const id = $props.id();
	let measuring = $state(false);
	let sort = $derived(line.choice ? 'choice' : line.extra ? 'extra' : 'in');
	let groups = $derived([
		...new Set(
			draft.sheet.rows.flatMap((row) =>
				row.type === 'line' && row.choice?.group.trim() ? row.choice.group.trim() : []
			)
		)
	]);
	let options = $derived([
		...new Set(
			draft.sheet.rows.flatMap((row) =>
				row.type === 'line' && row.choice?.group.trim() === line.choice?.group.trim()
					? (row.choice?.option.trim() ?? [])
					: []
			)
		)
	]);
	let comes = $derived(line.measured ? measuredQuantity(line.measured) : null);

	function become(next: string) {
		if (next !== 'choice') delete line.choice;
		if (next !== 'extra') {
			delete line.extra;
			delete line.most;
		}
		if (next === 'extra') line.extra = true;
		// The next way of what stands above is the likeliest.
		if (next === 'choice') {
			const at = draft.position(line.id);
			const above = draft.sheet.rows
				.slice(0, at)
				.findLast((row) => row.type === 'line' && row.choice);
			line.choice = { group: above?.type === 'line' ? above.choice!.group : '', option: '' };
		}
	}
	function measure() {
		measuring = !measuring;
		line.measured ??= { length: '', width: '', height: '', off: [] };
	}
	$effect(() => {
		if (measuring && comes !== null && comes !== line.quantity) line.quantity = comes;
	});
	const wrong = (field: string) => draft.problemAt.get(`${path}.${field}`);
	const small =
		'small text-[0.875rem] text-(--ink-2) bg-transparent border-0 p-0.5 min-h-6.5 max-w-full cursor-pointer tight:min-h-10 group-focus-within/row:text-(--ink)';
</script>

<select
	class={small}
	class:font-semibold={sort !== 'in'}
	aria-label="On the quote, line {number}"
	data-path="{path}.extra"
	value={sort}
	onchange={(event) => become(event.currentTarget.value)}
>
	<option value="in">part of it</option>
	<option value="choice">one of several</option>
	<option value="extra">optional</option>
</select>
{#if line.choice}
	<span class="flex flex-wrap gap-x-1.5 text-[0.875rem] [&_input]:min-h-6.5 [&_input]:w-40">
		<Cell
			bind:value={line.choice.group}
			label="What is chosen, line {number}"
			path="{path}.choice"
			problem={wrong('choice')}
			list="{id}-groups"
			placeholder="what is chosen"
		/>
		<Cell
			bind:value={line.choice.option}
			label="This way of it, line {number}"
			path="{path}.choice.option"
			problem={undefined}
			list="{id}-options"
			placeholder="this way of it"
		/>
	</span>
	<datalist id="{id}-groups"
		>{#each groups as one (one)}<option value={one}></option>{/each}</datalist
	>
	<datalist id="{id}-options"
		>{#each options as one (one)}<option value={one}></option>{/each}</datalist
	>
{/if}
{#if line.extra}
	<span class="text-[0.875rem] [&_input]:min-h-6.5 [&_input]:w-14"
		><Cell
			bind:value={() => line.most ?? '', (most) => (line.most = most || undefined!)}
			label="The customer says how many, up to, line {number}"
			path="{path}.most"
			problem={wrong('most')}
			prefix="they choose up to"
			placeholder="–"
			numeric
		/></span
	>
{/if}
<label
	class="shy hidden items-center gap-1 text-[0.875rem] group-[.at]/row:flex"
	class:!flex={line.provisional}
	><input
		type="checkbox"
		checked={line.provisional ?? false}
		onchange={(event) => {
			if (event.currentTarget.checked) line.provisional = true;
			else delete line.provisional;
		}}
	/>
	provisional<span class="sr-only">, line {number}</span></label
>
<button
	type="button"
	class="shy hidden cursor-pointer min-h-6 text-[0.875rem] [text-decoration:underline_dotted] group-[.at]/row:block"
	class:!block={comes !== null}
	aria-expanded={measuring}
	onclick={measure}
	>{comes === null ? 'measure' : measuredWords(line.measured!)}<span class="sr-only"
		>, line {number}</span
	></button
>
{#if measuring && line.measured}
	<span
		class="flex basis-full flex-wrap items-center gap-x-2 gap-y-1 py-1 text-[0.875rem] [&_input]:min-h-7 [&_input]:w-16"
		role="group"
		aria-label="Measured, line {number}"
	>
		{#each ['length', 'width', 'height'] as const as side (side)}
			<Cell
				bind:value={line.measured[side]}
				label="{side}, line {number}"
				path="{path}.measured.{side}"
				problem={undefined}
				numeric
				prefix={side}
				placeholder="–"
			/>
		{/each}
		{#each line.measured.off as opening, place (place)}
			<span class="flex items-center gap-1"
				>less <Cell
					bind:value={opening.width}
					label="Opening {place + 1}, width, line {number}"
					path="{path}.measured.off.{place}"
					problem={undefined}
					numeric
					placeholder="width"
				/>×<Cell
					bind:value={opening.height}
					label="Opening {place + 1}, height, line {number}"
					path="{path}.measured.off.{place}.height"
					problem={undefined}
					numeric
					placeholder="height"
				/></span
			>
		{/each}
		<button
			type="button"
			class="cursor-pointer [text-decoration:underline_dotted]"
			onclick={() => line.measured!.off.push({ width: '', height: '' })}>take off an opening</button
		>
		<span class="numbers">{comes === null ? 'give two lengths' : `comes to ${comes}`}</span>
	</span>
{/if}
