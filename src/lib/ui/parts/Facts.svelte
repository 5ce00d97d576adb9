<!-- What is known of something, each fact by its name. -->
<script lang="ts">
	interface Props {
		facts: readonly (readonly [string, string])[];
		class?: string;
	}
	let { facts, class: look = '' }: Props = $props();
</script>

<dl class="grid gap-1.5 {look}">
	{#each facts as [label, value] (label)}
		<div class="grid grid-cols-[minmax(8.5rem,22%)_minmax(0,1fr)] gap-x-3">
			<dt class="text-(--ink-2)">{label}</dt>
			<dd class="wrap-anywhere whitespace-pre-line">{value}</dd>
		</div>
	{/each}
</dl>
