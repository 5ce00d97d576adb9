<!-- What a contractor wrote in our name: its number, and the agreement it rests on. -->
<script lang="ts">
	import Cell from '../../lines/Cell.svelte';
	import type { Draft } from '../../lines/draft.svelte';

	let { draft }: { draft: Draft } = $props();
	let theirs = $derived(draft.sheet.selfBilled ?? { number: '', agreedOn: '' });
	const wrong = (path: string) => draft.problemAt.get(path);
	function set(typed: Partial<typeof theirs>) {
		draft.sheet.selfBilled = { ...theirs, ...typed };
	}
</script>

<section
	class="panel py-3.5 px-4.5 mb-3.5 border-l-6 border-l-(--tape)"
	aria-label="Written by the contractor"
>
	<p>
		The contractor wrote this one in your name. Copy what it says; it is recorded under its own
		number, and goes out to nobody.
	</p>
	<div
		class="mt-2.5 grid grid-cols-[minmax(0,280px)_minmax(0,280px)] gap-x-6 gap-y-2 phone:grid-cols-1"
	>
		<div class="field">
			<span class="name mb-0">Number on it</span><Cell
				bind:value={() => theirs.number, (number) => set({ number })}
				label="Number on their document"
				path="selfBilled.number"
				problem={wrong('selfBilled.number')}
				placeholder="as printed"
			/>
		</div>
		<div class="field">
			<span class="name mb-0">Self-billing agreed on</span><Cell
				bind:value={() => theirs.agreedOn, (agreedOn) => set({ agreedOn })}
				label="Day of the self-billing agreement"
				path="selfBilled.agreedOn"
				problem={wrong('selfBilled.agreedOn')}
				placeholder="such as 1 Apr 2026"
			/>
		</div>
	</div>
</section>
