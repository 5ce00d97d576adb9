<!-- On or off, at once or with its form: a real box to tick underneath. -->
<script lang="ts">
	import { Switch } from '@skeletonlabs/skeleton-svelte';
	import type { Snippet } from 'svelte';

	interface Props {
		name?: string;
		checked: boolean;
		children: Snippet;
	}
	let { name, checked = $bindable(), children }: Props = $props();
</script>

<Switch
	{...name ? { name } : {}}
	value="on"
	{checked}
	onCheckedChange={(details) => (checked = details.checked)}
	class="flex min-h-9 cursor-pointer items-center gap-2.5"
>
	<Switch.Control
		class="relative h-6 w-11 flex-none rounded-[3px] border-[1.5px] border-[var(--ink)] bg-[var(--sheet)] p-[3px] data-[state=checked]:bg-[var(--ink)]"
	>
		<Switch.Thumb
			class="block h-full w-4 bg-[var(--ink)] transition-transform data-[state=checked]:translate-x-[18px] data-[state=checked]:bg-[var(--tape)]"
		/>
	</Switch.Control>
	<Switch.Label>{@render children()}</Switch.Label>
	<Switch.HiddenInput />
</Switch>
