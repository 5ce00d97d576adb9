<!-- Labels, typed one after the other with Enter or a comma. Plain text with commas in the server's HTML. -->
<script lang="ts">
	import X from '@lucide/svelte/icons/x';
	import { TagsInput } from '@skeletonlabs/skeleton-svelte';
	import { onMount } from 'svelte';

	interface Props {
		label: string;
		name: string;
		/** With commas between. */
		value: string;
		error?: string | undefined;
		hint?: string;
	}
	let { label, name, value = $bindable(), error, hint }: Props = $props();
	const id = $props.id();
	let alive = $state(false);
	onMount(() => (alive = true));
	let list = $derived(
		value
			.split(',')
			.map((one) => one.trim())
			.filter(Boolean)
	);
</script>

{#if alive}
	<TagsInput
		value={list}
		onValueChange={(details) => (value = details.value.join(', '))}
		addOnPaste
		blurBehavior="add"
		delimiter=","
		max={20}
	>
		<TagsInput.Label class="mb-0.5 block text-[0.906rem] text-[var(--ink-2)]"
			>{label}</TagsInput.Label
		>
		<TagsInput.Control class="box flex flex-wrap items-center gap-1.5">
			{#each list as one, index (one)}
				<TagsInput.Item {index} value={one}>
					<TagsInput.ItemPreview
						class="tag flex items-center gap-1 data-[highlighted]:bg-[var(--tape-tint)]"
					>
						<TagsInput.ItemText>{one}</TagsInput.ItemText>
						<TagsInput.ItemDeleteTrigger
							class="grid size-6 cursor-pointer place-items-center"
							aria-label="Remove {one}"
							><X size={14} aria-hidden="true" /></TagsInput.ItemDeleteTrigger
						>
					</TagsInput.ItemPreview>
					<TagsInput.ItemInput />
				</TagsInput.Item>
			{/each}
			<TagsInput.Input
				class="min-w-24 flex-1 bg-transparent outline-none"
				aria-invalid={error ? 'true' : undefined}
				aria-describedby={error ? `${id}-wrong` : undefined}
			/>
		</TagsInput.Control>
	</TagsInput>
	<input type="hidden" {name} {value} />
{:else}
	<label class="field"
		><span class="name">{label}</span><input class="box" {name} bind:value /></label
	>
{/if}
{#if hint}<div class="quiet">{hint}</div>{/if}
{#if error}<div class="wrong" id="{id}-wrong">{error}</div>{/if}
