<!-- Several views of one thing on a page, one at a time. Pages of their own are Places. -->
<script lang="ts" generics="Name extends string">
	import { Tabs } from '@skeletonlabs/skeleton-svelte';
	import type { Snippet } from 'svelte';

	interface Props {
		label: string;
		value: Name;
		views: readonly { name: Name; label: string; body: Snippet }[];
	}
	let { label, value = $bindable(), views }: Props = $props();
</script>

<Tabs {value} onValueChange={(details) => (value = details.value as Name)}>
	<Tabs.List aria-label={label} class="mb-2.5 flex flex-wrap gap-5">
		{#each views as { name, label } (name)}
			<Tabs.Trigger
				value={name}
				class="min-h-10 cursor-pointer border-b-4 border-b-transparent py-1.5 text-(--ink-2) data-[selected]:border-b-(--tape) data-[selected]:font-semibold data-[selected]:text-(--ink)"
				>{label}</Tabs.Trigger
			>
		{/each}
	</Tabs.List>
	{#each views as { name, body } (name)}
		<Tabs.Content value={name}>{@render body()}</Tabs.Content>
	{/each}
</Tabs>
