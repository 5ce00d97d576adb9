<!-- A box to tick, with the words beside it. -->
<script lang="ts">
	import { untrack, type Snippet } from 'svelte';
	import { frameOf } from './frame';

	interface Props {
		name: string;
		checked?: boolean;
		class?: string;
		children: Snippet;
	}
	let { name, checked = $bindable(false), class: look = '', children }: Props = $props();
	const kept = untrack(() => frameOf(name)?.kept(name));
	if (typeof kept === 'boolean' || kept === 'on') checked = kept === 'on' || kept;
</script>

<label class="check {look}"
	><input type="checkbox" {name} bind:checked /><span>{@render children()}</span></label
>
