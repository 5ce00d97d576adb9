<!--
	A day, typed as people type it (3/11, 3 nov, +14, fri) or picked. Plain text in the server's HTML; once the page is alive it
	says at once what is wrong, sends the day itself, and has a calendar that is loaded when it is first opened.
-->
<script lang="ts">
	import Calendar from '@lucide/svelte/icons/calendar';
	import { onMount, tick, untrack } from 'svelte';
	import { page } from '$app/state';
	import { displayDate, readTypedDate } from '$lib/core/calendar/conversion';
	import { isPlainDate } from '$lib/core/calendar/queries';
	import { frameOf } from './frame';

	interface Props {
		label: string;
		name?: string;
		/** `2026-11-03`, what was typed where it is no day, or empty. */
		value?: string | null;
		error?: string | undefined;
		hint?: string;
		/** The first and the last day that may be picked. */
		min?: string;
		max?: string;
		/** The label is said and not shown. */
		quiet?: boolean;
		disabled?: boolean;
		/** Where it stands on the sheet: without a frame, and what is typed is kept at every key. */
		path?: string;
		placeholder?: string;
		onchange?: (day: string) => void;
	}
	let {
		label,
		name,
		value = $bindable(''),
		error,
		hint,
		min,
		max,
		quiet = false,
		disabled = false,
		path,
		placeholder = '3 Nov 2026',
		onchange
	}: Props = $props();
	const id = $props.id();
	const frame = untrack(() => frameOf(name));
	const kept = untrack(() => (name ? frame?.kept(name) : undefined));
	if (typeof kept === 'string') value = kept;
	let alive = $state(false);
	let open = $state(false);
	let trigger: HTMLButtonElement | undefined = $state();
	onMount(() => (alive = true));

	const shown = (day: string) => (isPlainDate(day) ? displayDate(day) : day);
	// What stands in the box follows the day, unless somebody is typing in it.
	let typing = $state<string | null>(null);
	let text = $derived(typing ?? shown(value ?? ''));
	let today = $derived<string>(page.data.today ?? '');
	let unread = $derived(typing === null && value !== null && value !== '' && !isPlainDate(value));
	let wrong = $derived(
		unread
			? `“${value}” is no day. Write it as 3 Nov 2026, 3/11, fri or +14.`
			: (error ?? (name ? frame?.error(name) : undefined))
	);
	let described = $derived(
		[wrong ? `${id}-wrong` : '', hint ? `${id}-hint` : ''].filter(Boolean).join(' ') || undefined
	);

	function take(typed: string) {
		typing = null;
		const day = typed.trim() === '' ? '' : (readTypedDate(typed, today) ?? typed.trim());
		if (day === (value ?? '')) return;
		value = day;
		onchange?.(day);
	}

	async function pick(day: string) {
		open = false;
		take(day);
		await tick();
		trigger?.focus();
	}
</script>

<div class="field">
	<label class={quiet ? 'sr-only' : path ? 'name mb-0' : 'name'} for={id} id="{id}-label"
		>{label}</label
	>
	<div class="relative flex">
		<input
			class="{path ? 'line-box min-w-0' : 'box'} pr-11"
			data-path={path}
			{id}
			type="text"
			name={alive ? undefined : name}
			autocomplete="off"
			{placeholder}
			{disabled}
			value={text}
			aria-invalid={wrong ? 'true' : undefined}
			aria-describedby={described}
			oninput={(event) => {
				typing = event.currentTarget.value;
				if (path) value = typing;
			}}
			onchange={(event) => take(event.currentTarget.value)}
			onkeydown={(event) => {
				// Enter sends the form: what was typed is read before it goes.
				if (event.key === 'Enter') take(event.currentTarget.value);
				if (event.key === 'ArrowDown' && event.altKey) open = true;
			}}
		/>
		{#if alive}
			<input type="hidden" {name} value={value ?? ''} disabled={!name || disabled} />
			<button
				bind:this={trigger}
				type="button"
				class="absolute inset-y-0 right-0 grid w-10 place-items-center text-[var(--ink-2)]"
				aria-label="Pick from a calendar"
				aria-describedby="{id}-label"
				aria-expanded={open}
				aria-haspopup="dialog"
				{disabled}
				onclick={() => (open = !open)}><Calendar size={18} aria-hidden="true" /></button
			>
			{#if open}
				{#await import('./DayPicker.svelte') then { default: DayPicker }}
					<DayPicker
						value={isPlainDate(value ?? '') ? value! : ''}
						{today}
						{min}
						{max}
						onpick={pick}
						onclose={() => (open = false)}
					/>
				{/await}
			{/if}
		{:else if name}<input type="hidden" name="typed-day" value={name} />{/if}
	</div>
	{#if hint}<div class="quiet" id="{id}-hint">{hint}</div>{/if}
	{#if wrong}<div class="wrong" id="{id}-wrong">{wrong}</div>{/if}
</div>
