<!-- What is wrong, or may be, in plain words, with its fix one press away. -->
<script lang="ts">
	import Info from '@lucide/svelte/icons/info';
	import OctagonAlert from '@lucide/svelte/icons/octagon-alert';
	import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
	import type { Fix, Problem } from '$lib/core/sheet/types';

	let { problems, onfix }: { problems: Problem[]; onfix: (fix: Fix) => void } = $props();
	const ICONS = { stop: OctagonAlert, warning: TriangleAlert, note: Info };
	const WORDS = { stop: 'Must be put right', warning: 'Worth a look', note: 'Good to know' };
</script>

{#each problems as problem (problem.path + problem.message)}
	{@const Icon = ICONS[problem.level]}
	<div class="problem {problem.level}">
		<Icon size={20} aria-hidden="true" />
		<div>
			<span class="sr-only">{WORDS[problem.level]}: </span>{problem.message}
			{#if problem.reference}<span class="quiet"> {problem.reference}</span>{/if}
			{#if problem.fix}
				{@const fix = problem.fix}
				<button onclick={() => onfix(fix)}>{fix.label}</button>
			{/if}
		</div>
	</div>
{/each}

<style>
	.problem {
		display: flex;
		gap: 10px;
		border: 1.5px solid var(--ink);
		background: var(--sheet);
		padding: 10px 12px;
		margin-top: 12px;
		font-size: 0.94rem;
	}
	.problem :global(svg) {
		flex: none;
		margin-top: 1px;
	}
	.warning :global(svg) {
		fill: var(--tape);
		color: var(--on-tape);
	}
	.stop {
		border-color: var(--oxide);
	}
	.stop :global(svg) {
		color: var(--oxide);
	}
	.note {
		border: 0;
		background: var(--quiet-fill);
	}
	button {
		display: block;
		font-weight: 600;
		text-decoration: underline;
		text-underline-offset: 3px;
		min-height: 28px;
		cursor: pointer;
	}
</style>
