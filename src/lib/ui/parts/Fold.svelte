<!-- Something that is there when it is wanted. Without scripts it stands open (`app.html` sees to it). -->
<script lang="ts">
	import ChevronDown from '@lucide/svelte/icons/chevron-down';
	import { Collapsible } from '@skeletonlabs/skeleton-svelte';
	import type { Snippet } from 'svelte';

	interface Props {
		open?: boolean;
		/** What stands on it: words, or a snippet. */
		label: string | Snippet;
		children: Snippet;
		class?: string;
		ontoggle?: (open: boolean) => void;
	}
	let { open = $bindable(false), label, children, class: given = '', ontoggle }: Props = $props();
</script>

<Collapsible
	{open}
	onOpenChange={(details) => {
		open = details.open;
		ontoggle?.(open);
	}}
	class={given}
>
	<Collapsible.Trigger
		type="button"
		class="flex min-h-9 cursor-pointer items-center gap-1.5 py-1 text-left underline decoration-[var(--dotted)] underline-offset-[3px]"
	>
		{#if typeof label === 'string'}{label}{:else}{@render label()}{/if}
		<Collapsible.Indicator class="transition-transform data-[state=open]:rotate-180"
			><ChevronDown size={16} aria-hidden="true" /></Collapsible.Indicator
		>
	</Collapsible.Trigger>
	<Collapsible.Content class="pt-1">{@render children()}</Collapsible.Content>
</Collapsible>
