<!-- The views of a list side by side, the one that is shown marked; what is shown can be kept by a name. -->
<script lang="ts">
	import { fromBin } from '$lib/ui/parts/takeBack';
	import Field from '../parts/Field.svelte';
	import Fold from '../parts/Fold.svelte';
	import Form from '../parts/Form.svelte';

	interface View {
		key: string;
		label: string;
		address: string;
		here: boolean;
		/** Its number, where it was kept and may be taken away. */
		kept: number | null;
		/** Who shares it, where that is somebody else. */
		by?: string;
		count?: number | undefined;
	}
	interface Props {
		path: string;
		views: readonly View[];
		/** What is shown, as an address. */
		written: string;
	}
	let { path, views, written }: Props = $props();
	let here = $derived(views.find((view) => view.here));
	let keeping = $state(false);
</script>

<div class="flex flex-wrap items-end gap-x-5 mt-3.5 border-b border-b-(--hair)">
	<nav
		class="flex flex-wrap gap-x-5 phone:flex-nowrap phone:overflow-x-auto"
		aria-label="Views"
		data-sveltekit-keepfocus
		data-sveltekit-noscroll
	>
		{#each views as { key, label, address, count, by, here: on } (key)}
			<a
				class="pt-2 pb-1.5 no-underline text-(--ink-2) border-b-4 border-b-transparent -mb-px hover:text-(--ink) whitespace-nowrap phone:min-h-11 [&.on]:text-(--ink) [&.on]:font-semibold [&.on]:border-b-(--tape)"
				class:on
				aria-current={on ? 'true' : undefined}
				href={address ? `${path}?${address}` : path}
				>{label}{#if by}<span class="quiet text-[0.85rem]">
						by {by}</span
					>{/if}{#if count !== undefined}
					<span class="numbers ml-1 text-(--ink-2) text-[0.9rem] font-normal"
						>{count.toLocaleString('en-GB')}</span
					>{/if}</a
			>
		{/each}
	</nav>
	{#if here?.kept != null}
		<Form
			action="?/removeView"
			hidden={{ id: here.kept }}
			done="The view is taken away."
			undo={fromBin}
		>
			<button class="button plain min-h-9">Take this view away</button>
		</Form>
	{/if}
</div>
{#if !here}
	<Fold label="Save this view" class="mt-1.5" bind:open={keeping}>
		<Form
			class="flex flex-wrap items-end gap-2.5 py-1.5"
			action="?/keepView"
			hidden={{ address: written }}
			done="The view is kept."
			ondone={() => (keeping = false)}
		>
			<Field label="Name of the view" name="name" look="w-60" maxlength={40} />
			<label class="check"><input type="checkbox" name="shared" /> for everybody here</label>
			<button class="button">Keep it</button>
		</Form>
	</Fold>
{/if}
