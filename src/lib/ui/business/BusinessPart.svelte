<!-- A part of the settings: what is set, to be read; changed in its place when that is wanted. -->
<script lang="ts">
	import { tick, type ComponentProps } from 'svelte';
	import { goto } from '$app/navigation';
	import Facts from '../parts/Facts.svelte';
	import Form from '../parts/Form.svelte';
	import BusinessFields from './BusinessFields.svelte';

	interface Props {
		part: ComponentProps<typeof BusinessFields>['part'];
		title: string;
		/** What is set; what is empty is named by what it means. */
		facts: readonly (readonly [string, string])[];
		values: Record<string, unknown>;
		/** Whether it is being changed. */
		open: boolean;
	}
	let { part, title, facts, values, open }: Props = $props();
	let change = $state<HTMLElement>();

	async function close() {
		await goto('/settings', { noScroll: true, replaceState: true });
		await tick();
		change?.focus();
	}
</script>

<section class="panel py-5 px-5.5 max-[900px]:p-4" aria-labelledby="{part}-title" id={part}>
	<div class="flex items-baseline gap-3 mb-2">
		<h2 class="flex-1" id="{part}-title">{title}</h2>
		{#if !open}<a
				class="button plain"
				href="/settings?change={part}"
				data-sveltekit-noscroll
				bind:this={change}>Change <span class="sr-only">{title}</span></a
			>{/if}
	</div>
	{#if open}
		<Form
			class="grid gap-3"
			action="?change={part}&/business"
			hidden={{ part }}
			first="input:not([type=hidden]), textarea"
			done="Saved. Documents issued before keep what they were issued with."
			ondone={close}
		>
			<BusinessFields {part} {values} />
			<div class="flex flex-wrap gap-2.5 mt-1">
				<button class="button filled">Save</button>
				<a class="button plain" href="/settings" data-sveltekit-noscroll>Leave it</a>
			</div>
		</Form>
	{:else}
		<Facts {facts} />
	{/if}
</section>
