<!-- The fields of a message, each with what it becomes; a press puts it where the cursor was last. -->
<script lang="ts">
	import { putIn, type Box } from './fields';

	interface Props {
		fields: Readonly<Record<string, string>>;
		/** The box in which somebody wrote last. */
		box: Box | null;
	}
	let { fields, box }: Props = $props();
</script>

<dl class="grid gap-1.5">
	{#each Object.entries(fields) as [name, what] (name)}
		<div>
			<dt class="mono">
				{#if box}<button
						type="button"
						class="button plain mono min-h-8 px-1.5 -mx-1.5"
						onclick={() => putIn(box, name)}>{`{${name}}`}</button
					>{:else}{`{${name}}`}{/if}
			</dt>
			<dd class="quiet">{what}</dd>
		</div>
	{/each}
</dl>
