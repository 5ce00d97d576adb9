<!-- How far something is: a tape that is drawn out. -->
<script lang="ts">
	import { Progress } from '@skeletonlabs/skeleton-svelte';

	let { value, max, label }: { value: number; max: number; label: string } = $props();
</script>

<Progress value={Math.min(value, max)} max={Math.max(max, 1)} class="my-2 w-full">
	<Progress.Label class="sr-only">{label}</Progress.Label>
	<Progress.Track
		class="h-3 w-full overflow-hidden border border-[var(--hair)] bg-[var(--quiet-fill)]"
	>
		<Progress.Range
			style="width: {(100 * Math.min(value, max)) / Math.max(max, 1)}%"
			class="h-full bg-[var(--tape)] [background-image:repeating-linear-gradient(90deg,#17212b_0_1.5px,transparent_1.5px_8px)] bg-[length:100%_6px] bg-bottom bg-no-repeat"
		/>
	</Progress.Track>
</Progress>
