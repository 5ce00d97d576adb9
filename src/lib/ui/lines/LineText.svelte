<!-- What a line is for. While typing, the price list offers what fits: arrow down goes in, Enter takes it. -->
<script lang="ts">
	import { findOnPriceList, priceWords, type FoundEntry } from '$lib/ui/prices/find';
	import type { Problem, SheetLine } from '$lib/core/sheet/types';

	interface Props {
		value: string;
		path: string;
		number: number;
		problem: Problem | undefined;
		/** The line the price list put here is not searched for again. */
		settled: boolean;
		onchoose: (lines: SheetLine[]) => void;
		fixed?: boolean;
		placeholder?: string | undefined;
	}
	let {
		value = $bindable(),
		path,
		number,
		problem,
		settled,
		onchoose,
		fixed = false,
		placeholder = 'What you did or supplied'
	}: Props = $props();

	const id = $props.id();
	const WAIT_MS = 90;
	let found = $state.raw<FoundEntry[]>([]);
	let at = $state(-1);
	let timer: ReturnType<typeof setTimeout>;
	let asked = 0;
	let open = $derived(found.length > 0);

	function typed() {
		clearTimeout(timer);
		const text = value.trim();
		if (text.length < 2 || text.length > 80 || settled) return close();
		timer = setTimeout(async () => {
			const turn = ++asked;
			const answer = await findOnPriceList(text);
			if (turn !== asked || answer === null) return;
			found = answer.slice(0, 6);
			at = -1;
		}, WAIT_MS);
	}

	function close() {
		asked++;
		clearTimeout(timer);
		found = [];
		at = -1;
	}

	function choose(one: FoundEntry) {
		close();
		onchoose(one.lines);
	}

	function keys(event: KeyboardEvent) {
		if (!open || event.ctrlKey || event.metaKey || event.altKey) return;
		const done = () => {
			event.preventDefault();
			event.stopPropagation();
		};
		if (event.key === 'ArrowDown') {
			done();
			at = Math.min(found.length - 1, at + 1);
		} else if (event.key === 'ArrowUp' && at >= 0) {
			done();
			at--;
		} else if (event.key === 'Enter' && found[at]) {
			done();
			choose(found[at]!);
		} else if (event.key === 'Escape') {
			done();
			close();
		} else if (event.key === 'Enter') close();
	}

	/** Where the browser cannot size a field by its content, this does. */
	function grow(element: HTMLTextAreaElement, _value: string) {
		if (CSS.supports('field-sizing', 'content')) return;
		const fit = () => {
			element.style.height = 'auto';
			element.style.height = `${element.scrollHeight}px`;
		};
		fit();
		return { update: fit };
	}
</script>

<div class="what relative min-w-0">
	<textarea
		class="line-box strong resize-none overflow-hidden [field-sizing:content]"
		rows="1"
		use:grow={value}
		data-path="{path}.description"
		aria-label="Description, line {number}"
		aria-invalid={problem ? 'true' : undefined}
		aria-haspopup="listbox"
		aria-controls="{id}-list"
		aria-autocomplete="list"
		aria-activedescendant={open && at >= 0 ? `${id}-${at}` : undefined}
		{placeholder}
		readonly={fixed}
		bind:value
		oninput={typed}
		onkeydown={keys}
		onblur={() => setTimeout(close, 150)}></textarea>
	<ul
		class="absolute z-25 top-[100%] left-0 w-[max(100%,min(460px,86vw))] bg-(--sheet) border-[1.5px] border-(--ink)"
		id="{id}-list"
		role="listbox"
		aria-label="Price list"
		hidden={!open}
	>
		{#each found as one, index (one.id)}
			<li
				class="flex justify-between gap-3.5 py-2 px-3 cursor-pointer hover:bg-(--tape-tint) [&.on]:bg-(--tape-tint)"
				id="{id}-{index}"
				role="option"
				aria-selected={index === at}
				class:on={index === at}
				onpointerdown={(event) => {
					event.preventDefault();
					choose(one);
				}}
			>
				<span>{one.name} <span class="mono quiet">{one.code}</span></span>
				<span class="numbers whitespace-nowrap">{priceWords(one)}</span>
			</li>
		{/each}
	</ul>
	<!-- A text of several lines may not be a combobox, so what is offered is said. -->
	<span class="sr-only" role="status"
		>{open ? `${found.length} on the price list: arrow down to choose` : ''}</span
	>
	{#if problem}<span class="wrong">{problem.message}</span>{/if}
</div>
