<!-- A named box with its message at the place where it belongs. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import type { HTMLInputAttributes } from 'svelte/elements';
	import { frameOf } from './frame';

	interface Props extends Omit<HTMLInputAttributes, 'value'> {
		label: string;
		name: string;
		value?: string | number | null;
		error?: string | undefined;
		hint?: string;
		rows?: number;
		/** The label is said and not shown. */
		quiet?: boolean;
		/** Classes of the whole, for its place. */
		look?: string;
	}
	let {
		label,
		name,
		value = $bindable(''),
		error,
		hint,
		rows,
		look = '',
		quiet = false,
		...rest
	}: Props = $props();
	const id = $props.id();
	const frame = untrack(() => frameOf(name));
	const kept = untrack(() => frame?.kept(name));
	if (typeof kept === 'string') value = kept;
	let wrong = $derived(error ?? frame?.error(name));
	let described = $derived(
		[wrong ? `${id}-wrong` : '', hint ? `${id}-hint` : ''].filter(Boolean).join(' ') || undefined
	);
</script>

<div class="field {look}">
	<label class={quiet ? 'sr-only' : 'name'} for={id}>{label}</label>
	{#if rows}
		<textarea
			class="box"
			{id}
			{name}
			{rows}
			bind:value
			aria-invalid={wrong ? 'true' : undefined}
			aria-describedby={described}
			maxlength={rest.maxlength}
			placeholder={rest.placeholder}></textarea>
	{:else}
		<input
			class="box"
			{id}
			{name}
			bind:value
			aria-invalid={wrong ? 'true' : undefined}
			aria-describedby={described}
			{...rest}
		/>
	{/if}
	{#if hint}<div class="quiet" id="{id}-hint">{hint}</div>{/if}
	{#if wrong}<div class="wrong" id="{id}-wrong">{wrong}</div>{/if}
</div>
