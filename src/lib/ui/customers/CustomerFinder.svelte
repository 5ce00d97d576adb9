<!-- Chooses a customer by a few letters: one of those that are found, or nobody. -->
<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import Finder from '../parts/Finder.svelte';
	import { frameOf } from '../parts/frame';

	interface Props {
		label: string;
		/** The box of a form that gets the number. */
		name?: string;
		value?: number | null;
		/** What the chosen one is called, where that is known. */
		called?: string;
		/** What an empty box means. */
		placeholder?: string;
		/** Who is not offered. */
		except?: number | null;
		error?: string | undefined;
	}
	let {
		label,
		name,
		value = $bindable(null),
		called = '',
		placeholder = 'Type a name',
		except = null,
		error
	}: Props = $props();
	const frame = untrack(() => frameOf(name));
	let wrong = $derived(error ?? (name ? frame?.error(name) : undefined));

	interface Found {
		key: string;
		id: number;
		title: string;
		address: string;
	}
	let chosen = $state(untrack(() => called));
	let typed = $state(untrack(() => called));
	let found = $state<Found[]>([]);
	let failed = $state('');
	let asked = 0;

	onMount(async () => {
		if (value === null || chosen) return;
		const response = await fetch(`/customers/${value}/api`).catch(() => null);
		if (!response?.ok || typed) return;
		const { record } = (await response.json()) as { record: { name: string } };
		chosen = typed = record.name;
	});

	async function search(words: string) {
		const turn = ++asked;
		// Whoever was chosen before is not who is typed now.
		if (words !== chosen) value = null;
		const response = await fetch(`/customers/api?q=${encodeURIComponent(words)}`).catch(() => null);
		const answer = response?.ok
			? ((await response.json()) as { id: number; name: string; address: string }[])
			: null;
		if (turn !== asked) return;
		failed = answer ? '' : 'Customers cannot be looked up just now.';
		found = (answer ?? [])
			.filter((one) => one.id !== except)
			.map(({ id, name, address }) => ({
				key: String(id),
				id,
				title: name,
				address: address.split('\n').slice(0, 2).join(', ')
			}));
	}

	/** The first ones stand there before a letter is typed. */
	const come = () => void (found.length || search(typed));
	/** Words that were not chosen are nobody: what stands there is who was chosen. */
	function left(event: FocusEvent) {
		const box = event.currentTarget as HTMLElement;
		if (box.contains(event.relatedTarget as Node | null)) return;
		if (value === null) chosen = '';
		typed = chosen;
	}
</script>

<div class="field" onfocusout={left} onfocusin={come}>
	<Finder
		{label}
		{placeholder}
		bind:typed
		items={found}
		none="No customer is called that."
		onsearch={search}
		onchoose={(one) => {
			value = one.id;
			chosen = typed = one.title;
		}}
	>
		{#snippet item(one)}
			<span>{one.title}</span>
			<span class="quiet min-w-0 truncate">{one.address}</span>
		{/snippet}
	</Finder>
	{#if name}<input type="hidden" {name} value={value ?? ''} />{/if}
	{#if wrong || failed}<div class="wrong">{wrong || failed}</div>{/if}
</div>
