<!-- What a correction does, why, and how it differs from the invoice it is about: before and now, side by side. -->
<script lang="ts">
	import { differences } from '$lib/core/documents/differences';
	import type { Frozen } from '$lib/core/documents/types';
	import Cell from '../../lines/Cell.svelte';
	import type { Draft } from '../../lines/draft.svelte';

	let { draft, corrects }: { draft: Draft; corrects: { number: string; frozen: Frozen } } =
		$props();
	let raises = $derived(draft.sheet.about?.as === 'debit');
	let rows = $derived(raises ? [] : differences(corrects.frozen, draft.plain, draft.reading));
</script>

<section
	class="panel py-3.5 px-4.5 mb-3.5 border-l-6 border-l-(--tape)"
	aria-label={raises ? 'Raises a price' : 'Corrects an invoice'}
>
	<p>
		{#if raises}A debit note adds to {corrects.number} where its price goes up: taxed as that invoice,
			at its tax point.{:else}Put right here what was wrong with {corrects.number}. Issuing this
			also issues the credit note that takes {corrects.number} back, sends both together, and moves what
			was paid, with its deduction.{/if}
	</p>
	<div class="field mt-2.5 max-w-[640px]">
		<span class="name mb-0">Why, printed on {raises ? 'it' : 'the credit note'}</span><Cell
			bind:value={
				() => draft.sheet.about?.reason ?? '',
				(reason) => {
					if (draft.sheet.about) draft.sheet.about = { ...draft.sheet.about, reason };
				}
			}
			label="Why"
			path="about.reason"
			problem={draft.problemAt.get('about.reason')}
			placeholder={raises ? 'such as: a further coat was asked for' : 'such as: wrong rate of VAT'}
		/>
	</div>
	{#if !raises}
		{#if rows.length}
			<table class="mt-3 w-full border-collapse text-[0.94rem]">
				<thead class="phone:sr-only">
					<tr class="text-left text-(--ink-2) text-[0.875rem]"
						><th class="font-normal w-[10.5rem]" scope="col">What differs</th><th
							class="font-normal"
							scope="col">On {corrects.number}</th
						><th class="font-normal" scope="col">Now</th></tr
					>
				</thead>
				<tbody>
					{#each rows as { what, before, now } (what + before)}
						<tr class="border-t border-(--hair) align-top phone:grid phone:py-1">
							<th class="py-1 pr-3 text-left font-semibold" scope="row">{what}</th>
							<td class="py-1 pr-3 [overflow-wrap:anywhere] phone:py-0"
								>{#if before}<del class="text-(--ink-2)">{before}</del>{:else}<span class="quiet"
										>not on it</span
									>{/if}</td
							>
							<td class="py-1 [overflow-wrap:anywhere] phone:py-0"
								>{#if now}<ins class="no-underline bg-(--tape-tint) px-1">{now}</ins>{:else}<span
										class="quiet">taken out</span
									>{/if}</td
							>
						</tr>
					{/each}
				</tbody>
			</table>
		{:else}<p class="quiet mt-2.5">Nothing differs yet.</p>{/if}
	{/if}
</section>
