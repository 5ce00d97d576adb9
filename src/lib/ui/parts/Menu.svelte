<!--
	What is done less often, behind one button: Skeleton's menu. Each entry is a page, or a form that is posted, so that
	without scripts all of them stand beside each other.
-->
<script lang="ts">
	import ChevronDown from '@lucide/svelte/icons/chevron-down';
	import { Menu, Portal } from '@skeletonlabs/skeleton-svelte';
	import { goto } from '$app/navigation';

	interface Entry {
		label: string;
		/** A page; or where the form below is posted to. */
		href: string;
		/** Posted, with these values. */
		post?: Record<string, string | number>;
		/** Opens in a page of its own, or is a file. */
		leaves?: boolean;
	}
	let { label = 'More', entries }: { label?: string; entries: readonly Entry[] } = $props();
	const id = $props.id();

	function run(label: string) {
		const entry = entries.find((one) => one.label === label);
		if (!entry) return;
		if (entry.post)
			(
				document.getElementById(`${id}-${entries.indexOf(entry)}`) as HTMLFormElement
			).requestSubmit();
		else if (entry.leaves) window.open(entry.href, '_blank', 'noopener');
		else void goto(entry.href, { noScroll: true });
	}
</script>

{#each entries as entry, index (entry.label)}
	{#if entry.post}
		<form class="hidden" id="{id}-{index}" method="post" action={entry.href}>
			{#each Object.entries(entry.post) as [name, value] (name)}<input
					type="hidden"
					{name}
					{value}
				/>{/each}
		</form>
	{/if}
{/each}
<Menu onSelect={({ value }) => run(value)} positioning={{ placement: 'bottom-end', gutter: 4 }}>
	<Menu.Trigger class="button with-scripts"
		>{label}<ChevronDown size={17} aria-hidden="true" /></Menu.Trigger
	>
	<Portal>
		<Menu.Positioner class="z-40">
			<Menu.Content
				class="min-w-52 rounded-[3px] border-[1.5px] border-[var(--ink)] bg-[var(--sheet)] py-1 text-[var(--ink)]"
			>
				{#each entries as entry (entry.label)}
					<Menu.Item
						value={entry.label}
						class="flex min-h-10.5 cursor-pointer items-center px-4 data-[highlighted]:bg-[var(--tape-tint)] data-[highlighted]:shadow-[inset_3px_0_var(--tape)]"
						><Menu.ItemText>{entry.label}</Menu.ItemText></Menu.Item
					>
				{/each}
			</Menu.Content>
		</Menu.Positioner>
	</Portal>
</Menu>
<noscript>
	<span class="flex flex-wrap gap-2.5">
		{#each entries as entry, index (entry.label)}
			{#if entry.post}<button class="button" form="{id}-{index}">{entry.label}</button>
			{:else}<a class="button" href={entry.href}>{entry.label}</a>{/if}
		{/each}
	</span>
</noscript>
