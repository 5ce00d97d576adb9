<!-- A dialog: Skeleton's behaviour (focus, Escape, what lies behind is out of reach), our tape along its top. -->
<script lang="ts">
	import { Dialog, Portal } from '@skeletonlabs/skeleton-svelte';
	import type { Snippet } from 'svelte';

	interface Props {
		open: boolean;
		/** Said to who cannot see it; shown unless `quiet`. */
		title: string;
		quiet?: boolean;
		/** Without the tape, near the top: a box to type into. */
		bare?: boolean;
		children: Snippet;
		/** What has the focus first, as a selector within the dialog. */
		first?: string;
	}
	let { open = $bindable(), title, quiet = false, bare = false, children, first }: Props = $props();
	let content: HTMLElement | undefined = $state();

	const wanted = () => (first ? (content?.querySelector<HTMLElement>(first) ?? null) : null);

	/** At once, not a frame later: a key that is pressed right after belongs to the dialog. */
	function focusFirst(_inner: HTMLElement) {
		wanted()?.focus();
	}
</script>

<Dialog {open} onOpenChange={(details) => (open = details.open)} initialFocusEl={wanted}>
	<Portal>
		<Dialog.Backdrop class="fixed inset-0 z-40 bg-[rgb(23_33_43_/_0.45)]" />
		<Dialog.Positioner
			class="fixed inset-0 z-50 flex justify-center p-3 {bare
				? 'items-start pt-[9vh]'
				: 'items-center'}"
		>
			<Dialog.Content
				class="panel max-h-[92vh] w-full overflow-auto text-[var(--ink)] {bare
					? 'max-w-[620px] p-3'
					: 'max-w-[560px] border-t-8 border-t-[var(--tape)] px-6 pt-5 pb-3'}"
			>
				<div bind:this={content} use:focusFirst>
					<Dialog.Title class={quiet ? 'sr-only' : 'mb-2 text-[1.35rem]'}
						>{#snippet element(attributes)}<h2 {...attributes}>{title}</h2>{/snippet}</Dialog.Title
					>
					{@render children()}
				</div>
			</Dialog.Content>
		</Dialog.Positioner>
	</Portal>
</Dialog>
