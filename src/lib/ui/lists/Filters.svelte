<!-- What a list is narrowed down by: each filter as a slip that can be torn off, and one more. It stands in the address, without scripts too. -->
<script lang="ts">
	import X from '@lucide/svelte/icons/x';
	import { writeView } from '$lib/core/lists/address';
	import { HOWS, type How, type ListSpec, type ListView } from '$lib/core/lists/types';
	import { filterWords, saidHow } from '$lib/core/lists/words';
	import { goto } from '$app/navigation';
	import Choice from '../parts/Choice.svelte';
	import Field from '../parts/Field.svelte';
	import Fold from '../parts/Fold.svelte';
	import type { Addresses } from './address';

	interface Props {
		path: string;
		spec: ListSpec;
		view: ListView;
		to: Addresses;
		/** One that could not be read. */
		adding: { field: string; how: string; value: string; wrong: string } | null;
		/** Of the address, what is no filter. */
		wrong: readonly string[];
		/** Of fields whose values the owner made up, those there are. */
		offered: Readonly<Record<string, readonly string[]>>;
	}
	let { path, spec, view, to, adding, wrong, offered }: Props = $props();
	let fields = $derived(spec.fields.filter((field) => field.filter !== false));
	let open = $derived(adding !== null);
	let chosen = $state<string | null>(null);
	let id = $derived(chosen ?? adding?.field ?? fields[0]!.id);
	let field = $derived(fields.find((one) => one.id === id) ?? fields[0]!);
	let hows = $derived<readonly How[]>(HOWS[field.type]);
	let kept = $derived([...writeView(spec, view)]);

	/** Without a whole new page; the same address as the browser would ask for. */
	function add(event: SubmitEvent & { currentTarget: HTMLFormElement }) {
		event.preventDefault();
		const given = new FormData(event.currentTarget);
		const asked = new URLSearchParams([...given].map(([name, value]) => [name, String(value)]));
		chosen = null;
		void goto(`${path}?${asked}`, { keepFocus: true, noScroll: true });
	}
</script>

<div
	class="flex flex-wrap items-center gap-2 mt-2.5 empty:hidden"
	data-sveltekit-keepfocus
	data-sveltekit-noscroll
>
	{#each view.filters as filter, index (index)}
		{@const [what, value] = filterWords(spec, filter)}
		<span
			class="inline-flex min-h-9 items-center rounded-[2px] border border-(--ink-2) bg-(--sheet) pl-2.5"
			><span>{what} <b>{value}</b></span><a
				class="inline-grid min-h-9 min-w-9 place-items-center hover:bg-(--tape-tint)"
				href={to.without(filter)}
				aria-label="Without “{`${what} ${value}`.trim()}”"><X size={15} aria-hidden="true" /></a
			></span
		>
	{/each}
</div>
{#if wrong.length}<p class="wrong mt-2">
		{wrong.length === 1 ? 'A filter' : 'Filters'} of this address {wrong.length === 1
			? 'is'
			: 'are'} not known and left out: {wrong.join(', ')}.
	</p>{/if}
<Fold label="Add a filter" {open} class="mt-1 mb-2">
	<form class="flex flex-wrap items-end gap-2.5 py-1.5" method="get" action={path} onsubmit={add}>
		{#each kept as [name, value] (name + value)}<input type="hidden" {name} {value} />{/each}
		<Choice
			label="What"
			name="ff"
			value={field.id}
			onchange={(event) => (chosen = event.currentTarget.value)}
		>
			{#each fields as one (one.id)}<option value={one.id}>{one.label}</option>{/each}
		</Choice>
		<Choice label="How" name="fh" value={adding?.how ?? hows[0]}>
			{#each hows as how (how)}<option value={how}
					>{field.type === 'yes' ? (how === 'yes' ? 'yes' : 'no') : saidHow(how)}</option
				>{/each}
			<noscript>
				{#each ['has', 'from', 'to', 'least', 'most', 'is', 'not', 'yes', 'no'] as how (how)}<option
						value={how}>{how}</option
					>{/each}
			</noscript>
		</Choice>
		{#if field.type === 'choice'}
			<fieldset class="flex flex-wrap gap-x-3.5 gap-y-1">
				<legend class="name">Which</legend>
				{#each Object.entries(field.choices ?? {}) as [value, words] (value)}<label class="check"
						><input type="checkbox" name="fv" {value} />{words}</label
					>{/each}
			</fieldset>
		{:else if offered[field.id]?.length}
			<Choice label="Which" name="fv" value={adding?.value ?? ''}>
				{#each offered[field.id] ?? [] as name (name)}<option value={name}>{name}</option>{/each}
			</Choice>
		{:else if field.type !== 'yes'}
			<Field
				label={field.type === 'day' ? 'Day' : field.type === 'money' ? 'Amount, £' : 'Value'}
				name="fv"
				look="w-44"
				value={adding?.value ?? ''}
				placeholder={field.type === 'day' ? '24 Nov, or -7' : ''}
				inputmode={field.type === 'money' || field.type === 'number' ? 'decimal' : undefined}
				autocomplete="off"
			/>
		{/if}
		<button class="button">Filter</button>
		{#if adding}<p class="wrong basis-full" role="alert">{adding.wrong}</p>{/if}
	</form>
</Fold>
