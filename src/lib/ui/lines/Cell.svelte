<!-- One cell of the sheet: an input without a frame, its message below it. -->
<script lang="ts">
	import { readTypedNumber } from '$lib/core/money/typed';
	import type { Problem } from '$lib/core/sheet/types';

	interface Props {
		value: string;
		label: string;
		path: string;
		problem?: Problem | undefined;
		numeric?: boolean;
		placeholder?: string;
		list?: string;
		prefix?: string;
		/** Writes a number plainly once the cursor leaves it: `£1,200` becomes `1200`. */
		tidy?: boolean;
		/** Decimals to fill up to when tidied. */
		decimals?: number;
		/** Shown and walked through like the others, and not changed here. */
		fixed?: boolean;
	}
	let {
		value = $bindable(),
		label,
		path,
		problem,
		numeric = false,
		placeholder,
		list,
		prefix,
		tidy = false,
		decimals = 0,
		fixed = false
	}: Props = $props();
	let bad = $derived(problem?.level === 'stop');
	const id = $props.id();

	function leave() {
		if (!tidy) return;
		const read = readTypedNumber(value, { decimals: 4, negative: true });
		if (!read.ok) return;
		const [whole = '', fraction = ''] = read.text.split('.');
		value = decimals ? `${whole}.${fraction.padEnd(decimals, '0')}` : read.text;
	}
</script>

<span class="flex flex-wrap items-center min-w-0" class:numeric>
	{#if prefix}<span class="quiet whitespace-nowrap pr-1" aria-hidden="true">{prefix}</span>{/if}
	<input
		class="line-box flex-1 min-w-0 in-[.numeric]:text-right"
		class:numbers={numeric}
		data-path={path}
		aria-label={label}
		aria-invalid={bad ? 'true' : undefined}
		aria-describedby={problem ? `${id}-wrong` : undefined}
		inputmode={numeric ? 'decimal' : undefined}
		autocomplete="off"
		{placeholder}
		list={fixed ? undefined : list}
		readonly={fixed}
		bind:value
		onblur={leave}
	/>
	{#if problem && bad}<span class="wrong basis-[100%] text-[0.85rem] leading-[1.2]" id="{id}-wrong"
			>{problem.message}</span
		>{:else if problem}<span class="sr-only" id="{id}-wrong">{problem.message}</span>{/if}
</span>
