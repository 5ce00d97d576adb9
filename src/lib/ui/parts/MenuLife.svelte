<!-- The menu itself, Skeleton's: loaded when it is first wanted. -->
<script lang="ts">
	import ChevronDown from '@lucide/svelte/icons/chevron-down';
	import { Menu, Portal } from '@skeletonlabs/skeleton-svelte';

	interface Props {
		label: string;
		about: string;
		entries: readonly { label: string }[];
		onchoose: (label: string) => void;
		/** It was pressed before it was there. */
		pressed: boolean;
	}
	let { label, about, entries, onchoose, pressed }: Props = $props();
</script>

<Menu
	defaultOpen={pressed}
	onSelect={({ value }) => onchoose(value)}
	positioning={{ placement: 'bottom-end', gutter: 4 }}
>
	<Menu.Trigger class="button with-scripts"
		>{label}{#if about}<span class="sr-only">: {about}</span>{/if}<ChevronDown
			size={17}
			aria-hidden="true"
		/></Menu.Trigger
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
