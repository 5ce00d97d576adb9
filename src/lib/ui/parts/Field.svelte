<!-- A named box with its message at the place where it belongs. -->
<script lang="ts">
	import type { HTMLInputAttributes } from 'svelte/elements';

	interface Props extends Omit<HTMLInputAttributes, 'value'> {
		label: string;
		name: string;
		value?: string | number | null;
		error?: string | undefined;
		hint?: string;
		rows?: number;
	}
	let { label, name, value = $bindable(''), error, hint, rows, ...rest }: Props = $props();
	const id = $props.id();
	let described = $derived(
		[error ? `${id}-wrong` : '', hint ? `${id}-hint` : ''].filter(Boolean).join(' ') || undefined
	);
</script>

<div class="field">
	<label class="name" for={id}>{label}</label>
	{#if rows}
		<textarea
			class="box"
			{id}
			{name}
			{rows}
			bind:value
			aria-invalid={error ? 'true' : undefined}
			aria-describedby={described}
			maxlength={rest.maxlength}
			placeholder={rest.placeholder}></textarea>
	{:else}
		<input
			class="box"
			{id}
			{name}
			bind:value
			aria-invalid={error ? 'true' : undefined}
			aria-describedby={described}
			{...rest}
		/>
	{/if}
	{#if hint}<div class="quiet" id="{id}-hint">{hint}</div>{/if}
	{#if error}<div class="wrong" id="{id}-wrong">{error}</div>{/if}
</div>
