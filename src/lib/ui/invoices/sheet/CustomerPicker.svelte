<!-- Finds the customer by a few letters, or adds a new one with only a name. The best match is always the one chosen. -->
<script lang="ts">
	import NeedsScripts from '$lib/ui/parts/NeedsScripts.svelte';
	import { onMount } from 'svelte';
	import type { CustomerRecord } from '$lib/core/parties';
	import type { CustomerKind } from '$lib/core/regimes/types';

	interface Found {
		id: number;
		name: string;
		address: string;
	}
	interface Props {
		name: string;
		wrong: string | undefined;
		autofocus: boolean;
		onchoose: (record: CustomerRecord, mailTo: string) => void;
	}
	let { name, wrong, autofocus, onchoose }: Props = $props();

	type Option = { key: string; title: string; detail: string; run: () => Promise<Response> };
	const KINDS: { kind: CustomerKind; words: string }[] = [
		{ kind: 'household', words: 'a household' },
		{ kind: 'business', words: 'a business' },
		{ kind: 'contractor', words: 'a contractor (pays under CIS)' }
	];
	let input: HTMLInputElement;
	// The customer may be chosen, or renamed, elsewhere: then its name is what stands here.
	let typed = $derived(name);
	let open = $state(false);
	let found = $state<Found[]>([]);
	let at = $state(0);
	let busy = $state(false);
	let failed = $state('');
	let asked = 0;
	let searching: Promise<void> = Promise.resolve();

	let fresh = $derived(typed.trim() !== '' && typed.trim() !== name);
	let options = $derived<Option[]>([
		...found.map((one) => ({
			key: String(one.id),
			title: one.name,
			detail: one.address.split('\n').slice(0, 2).join(', '),
			run: () => fetch(`/customers/${one.id}/api`)
		})),
		...(fresh
			? KINDS.map(({ kind, words }) => ({
					key: kind,
					title: `Add “${typed.trim().slice(0, 60)}”, ${words}`,
					detail: '',
					run: () =>
						fetch('/customers/api', {
							method: 'POST',
							headers: { 'content-type': 'application/json' },
							body: JSON.stringify({ name: typed.trim(), kind })
						})
				}))
			: [])
	]);

	let active = $derived(options[at]);

	onMount(() => {
		if (autofocus) input.focus();
		// Typed before the page had come to life: taken up as if it had been typed now.
		if (typed && typed !== name) {
			open = true;
			search(typed);
		}
	});
	function search(query: string) {
		const mine = ++asked;
		at = 0;
		searching = fetch(`/customers/api?q=${encodeURIComponent(query)}`)
			.then(async (response) => {
				const answer = await response.json();
				if (mine === asked) found = response.ok ? answer : [];
			})
			.catch(() => {
				if (mine === asked) failed = 'Customers cannot be looked up just now.';
			});
	}

	async function choose(option: Option | undefined) {
		if (!option || busy) return;
		busy = true;
		failed = '';
		open = false;
		try {
			const response = await option.run();
			const answer = await response.json();
			if (!response.ok) failed = answer.message;
			else if ('record' in answer) onchoose(answer.record, answer.mailTo);
			else onchoose(answer, '');
		} catch {
			failed = 'The connection is lost. Try again when it is back.';
		}
		busy = false;
	}

	async function keys(event: KeyboardEvent) {
		if (event.ctrlKey || event.metaKey || event.altKey) return;
		if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
			event.preventDefault();
			if (!open) open = true;
			else
				at =
					(at + (event.key === 'ArrowDown' ? 1 : -1) + options.length) %
					Math.max(options.length, 1);
		} else if (event.key === 'Enter' && open) {
			event.preventDefault();
			await searching;
			await choose(options[at]);
		} else if (event.key === 'Escape' && open) {
			event.preventDefault();
			open = false;
			typed = name;
		}
	}
</script>

<NeedsScripts instead="Begin it from the customer’s own page." />
<!-- What comes first on a new invoice has the cursor. -->
<!-- svelte-ignore a11y_autofocus -->
<div class="field relative">
	<label class="name" for="customer">Customer</label>
	<input
		bind:this={input}
		id="customer"
		data-path="customer"
		class="line-box strong"
		placeholder="Type a name"
		autocomplete="off"
		{autofocus}
		role="combobox"
		aria-expanded={open}
		aria-controls="customer-options"
		aria-autocomplete="list"
		aria-activedescendant={open && active ? `customer-${active.key}` : undefined}
		aria-invalid={wrong || failed ? 'true' : undefined}
		aria-describedby={wrong || failed ? 'customer-wrong' : undefined}
		aria-busy={busy}
		bind:value={typed}
		onfocus={() => {
			input.select();
			search(typed === name ? '' : typed);
		}}
		onclick={() => (open = true)}
		oninput={() => {
			open = true;
			search(typed);
		}}
		onblur={() => {
			open = false;
			if (!busy) typed = name || typed;
		}}
		onkeydown={keys}
	/>
	{#if failed || wrong}<div class="wrong" id="customer-wrong">{failed || wrong}</div>{/if}
	<div
		class="options absolute top-[calc(100%_+_3px)] left-0 bg-(--sheet) border-[1.5px] border-(--ink) rounded-[3px] min-w-[min(360px,calc(100vw_-_40px))] max-h-92.5 overflow-auto z-35 [&[hidden]]:hidden"
		id="customer-options"
		role="listbox"
		aria-label="Customers"
		hidden={!open || options.length === 0}
	>
		{#each options as option, index (option.key)}
			<div
				class="option py-2.25 px-3 grid cursor-pointer min-h-10 [&.on]:bg-(--tape-tint) [&.on]:shadow-[inset_3px_0_var(--tape)]"
				class:on={index === at}
				id="customer-{option.key}"
				role="option"
				tabindex="-1"
				aria-selected={index === at}
				onpointerenter={() => (at = index)}
				onpointerdown={(event) => {
					event.preventDefault();
					void choose(option);
				}}
			>
				{#if option.detail || !KINDS.some(({ kind }) => kind === option.key)}<b>{option.title}</b
					><span class="quiet in-[.on]:text-(--ink)">{option.detail}</span
					>{:else}{option.title}{/if}
			</div>
		{/each}
	</div>
</div>
