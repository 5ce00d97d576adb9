<!-- One of a few, side by side: real radio buttons underneath. -->
<script lang="ts" generics="Value extends string">
	import { untrack } from 'svelte';
	import { SegmentedControl } from '@skeletonlabs/skeleton-svelte';
	import { frameOf } from './frame';

	interface Props {
		label: string;
		name?: string;
		value: Value | null;
		options: readonly { value: Value; label: string }[];
		/** The label is said and not shown. */
		quiet?: boolean;
		hint?: string;
		onchange?: (value: Value) => void;
	}
	let {
		label,
		name,
		value = $bindable(),
		options,
		quiet = false,
		hint,
		onchange
	}: Props = $props();
	const id = $props.id();
	const frame = untrack(() => frameOf(name));
	const kept = untrack(() => (name ? frame?.kept(name) : undefined));
	if (untrack(() => options.some((option) => option.value === kept))) value = kept as Value;
	let wrong = $derived(name ? frame?.error(name) : undefined);
</script>

<SegmentedControl
	{...name ? { name } : {}}
	{value}
	onValueChange={(details) => {
		if (details.value === null || details.value === value) return;
		value = details.value as Value;
		onchange?.(value);
	}}
>
	<SegmentedControl.Label
		class={quiet ? 'sr-only' : 'mb-0.5 block text-[0.906rem] text-[var(--ink-2)]'}
		>{label}</SegmentedControl.Label
	>
	<SegmentedControl.Control
		class="relative inline-flex flex-wrap rounded-[3px] border border-[var(--dotted)] bg-[var(--sheet)]"
	>
		{#each options as option (option.value)}
			<SegmentedControl.Item
				value={option.value}
				class="relative flex min-h-10 grow cursor-pointer items-center border-r border-[var(--hair)] px-3.5 last:border-r-0 data-[state=checked]:bg-[var(--ink)] data-[state=checked]:text-[var(--sheet)] has-checked:bg-[var(--ink)] has-checked:text-[var(--sheet)] data-[focus-visible]:outline-3 data-[focus-visible]:outline-[var(--tape)]"
			>
				<SegmentedControl.ItemText>{option.label}</SegmentedControl.ItemText>
				<SegmentedControl.ItemHiddenInput
					aria-invalid={wrong ? 'true' : undefined}
					aria-describedby={wrong ? `${id}-wrong` : hint ? `${id}-hint` : undefined}
				/>
			</SegmentedControl.Item>
		{/each}
	</SegmentedControl.Control>
</SegmentedControl>
{#if hint}<div class="quiet" id="{id}-hint">{hint}</div>{/if}
{#if wrong}<div class="wrong" id="{id}-wrong">{wrong}</div>{/if}
