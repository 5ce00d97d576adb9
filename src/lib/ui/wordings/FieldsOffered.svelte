<!--
	Offers merge fields while words are typed: an open brace lists them, letters narrow them down, Enter or Tab takes one. It stands
	around plain boxes, which work as they are without it.
-->
<script lang="ts">
	import { tick, type Snippet } from 'svelte';
	import { putIn, wordsBox, type Box } from './fields';

	interface Props {
		/** The fields there are, each with what it becomes. */
		fields: Readonly<Record<string, string>>;
		children: Snippet;
	}
	let { fields, children }: Props = $props();
	const id = $props.id();
	let box = $state<Box | null>(null);
	let begun = $state('');
	let chosen = $state(0);
	let list = $state<HTMLElement>();
	let found = $derived(
		box ? Object.entries(fields).filter(([name]) => name.startsWith(begun)) : []
	);
	let at = $derived(Math.min(chosen, found.length - 1));

	function look(event: Event) {
		const here = wordsBox(event.target);
		if (!here) return;
		const before = here.value.slice(0, here.selectionStart ?? 0);
		const open = /\{([a-z]*)$/.exec(before);
		if (!open) return leave();
		if (begun !== open[1]) chosen = 0;
		begun = open[1]!;
		box = here;
		here.setAttribute('aria-autocomplete', 'list');
		here.setAttribute('aria-controls', `${id}-fields`);
	}

	function leave() {
		box?.removeAttribute('aria-activedescendant');
		box = null;
		chosen = 0;
	}

	function take(name: string) {
		const here = box;
		if (!here) return;
		leave();
		putIn(here, name, begun.length + 1);
	}

	async function press(event: KeyboardEvent) {
		if (!box || found.length === 0) return;
		const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
		if (step) chosen = (at + step + found.length) % found.length;
		else if (event.key === 'Enter' || event.key === 'Tab') take(found[at]![0]);
		else if (event.key === 'Escape') leave();
		else return;
		event.preventDefault();
		event.stopPropagation();
		await tick();
		list?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: 'nearest' });
	}

	$effect(() => {
		if (box && found[at]) box.setAttribute('aria-activedescendant', `${id}-${found[at][0]}`);
	});
</script>

<div
	class="relative grid gap-3"
	role="presentation"
	oninput={look}
	onkeydown={press}
	onfocusout={() => setTimeout(leave, 150)}
>
	{@render children()}
	{#if found.length}
		<ul
			bind:this={list}
			id="{id}-fields"
			class="absolute inset-x-0 z-30 max-h-60 overflow-auto rounded-[3px] border-[1.5px] border-(--ink) bg-(--sheet)"
			style:top="{(box?.offsetTop ?? 0) + (box?.offsetHeight ?? 0) + 4}px"
			role="listbox"
			aria-label="Fields"
		>
			{#each found as [name, what], index (name)}
				<li
					id="{id}-{name}"
					role="option"
					aria-selected={index === at}
					class="flex min-h-10 cursor-pointer flex-wrap items-baseline gap-x-3 px-3 py-2 aria-selected:bg-(--tape-tint) aria-selected:shadow-[inset_3px_0_var(--tape)]"
					onpointerdown={(event) => {
						event.preventDefault();
						take(name);
					}}
				>
					<span class="mono">{`{${name}}`}</span><span class="quiet">{what}</span>
				</li>
			{/each}
		</ul>
	{/if}
	<span class="sr-only" role="status"
		>{found.length ? `${found.length} fields, the arrow keys choose` : ''}</span
	>
</div>
