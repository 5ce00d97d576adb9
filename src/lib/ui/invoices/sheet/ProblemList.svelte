<!-- What is wrong, or may be, in plain words, with its fix one press away. -->
<script lang="ts">
	import Info from '@lucide/svelte/icons/info';
	import OctagonAlert from '@lucide/svelte/icons/octagon-alert';
	import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
	import type { SellerRecord } from '$lib/core/parties';
	import type { Fix, Problem } from '$lib/core/sheet/types';
	import AskBusiness from '../../business/AskBusiness.svelte';

	interface Props {
		problems: Problem[];
		onfix: (fix: Fix) => void;
		/** What was missing of the owner's own has been given. */
		ongiven: (seller: SellerRecord) => void;
		/** What a press that leads to the field says; empty where none does. */
		where: (path: string) => string;
	}
	let { problems, onfix, ongiven, where }: Props = $props();
	const ICONS = { stop: OctagonAlert, warning: TriangleAlert, note: Info };
	const LOOKS = {
		stop: 'border-[1.5px] border-(--oxide) bg-(--sheet) [&_svg]:text-(--oxide)',
		warning:
			'border-[1.5px] border-(--ink) bg-(--sheet) [&_svg]:fill-(--tape) [&_svg]:text-(--on-tape)',
		note: 'bg-(--quiet-fill)'
	};
	const WORDS = { stop: 'Must be put right', warning: 'Worth a look', note: 'Good to know' };
</script>

{#each problems as problem (problem.path + problem.message)}
	{@const Icon = ICONS[problem.level]}
	<div
		class="flex gap-2.5 py-2.5 px-3 mt-3 text-[0.94rem] [&_svg]:flex-none [&_svg]:mt-px {LOOKS[
			problem.level
		]}"
	>
		<Icon size={20} aria-hidden="true" />
		<div class="min-w-0 flex-1">
			<span class="sr-only">{WORDS[problem.level]}: </span>{problem.message}
			{#if problem.reference}<span class="quiet"> {problem.reference}</span>{/if}
			{#if problem.fix?.type === 'business'}
				<AskBusiness
					asks={problem.fix.asks}
					label={problem.fix.label}
					open={problem.level === 'stop'}
					{ongiven}
				/>
			{:else if problem.fix}
				{@const fix = problem.fix}
				<button
					class="block font-semibold underline underline-offset-[3px] min-h-7 cursor-pointer"
					onclick={() => onfix(fix)}>{fix.label}</button
				>
			{:else if where(problem.path)}
				<button
					class="block font-semibold underline underline-offset-[3px] min-h-7 cursor-pointer"
					onclick={() => onfix({ type: 'focus', path: problem.path, label: '' })}
					>{where(problem.path)}</button
				>
			{/if}
		</div>
	</div>
{/each}
