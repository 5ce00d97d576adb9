<!-- One of many, from a list that opens: the device's own, which works everywhere. The options are its children. -->
<script lang="ts" generics="Value extends string | number | null">
	import { untrack, type Snippet } from 'svelte';
	import { frameOf } from './frame';

	interface Props {
		label: string;
		name?: string;
		value?: Value;
		error?: string | undefined;
		hint?: string;
		/** The label is said and not shown. */
		quiet?: boolean;
		/** Where in a sheet it stands, for what is wrong with it. */
		path?: string | undefined;
		class?: string;
		disabled?: boolean;
		onchange?: (event: Event & { currentTarget: HTMLSelectElement }) => void;
		children: Snippet;
	}
	let {
		label,
		name,
		value = $bindable('' as Value),
		error,
		hint,
		quiet = false,
		path,
		class: look = '',
		disabled = false,
		onchange,
		children
	}: Props = $props();
	const id = $props.id();
	const frame = untrack(() => frameOf(name));
	const kept = untrack(() => (name ? frame?.kept(name) : undefined));
	if (typeof kept === 'string') value = kept as Value;
	let wrong = $derived(error ?? (name ? frame?.error(name) : undefined));
</script>

<div class="field {look}">
	<label class={quiet ? 'sr-only' : 'name'} for={id}>{label}</label>
	<select
		class="box"
		{id}
		{name}
		{disabled}
		data-path={path}
		bind:value
		{onchange}
		aria-invalid={wrong ? 'true' : undefined}
		aria-describedby={wrong ? `${id}-wrong` : undefined}
	>
		{@render children()}
	</select>
	{#if hint}<div class="quiet">{hint}</div>{/if}
	{#if wrong}<div class="wrong" id="{id}-wrong">{wrong}</div>{/if}
</div>
