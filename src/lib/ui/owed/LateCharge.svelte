<!-- What the Act, or the contract, allows to claim on a late invoice today, and how that comes about. -->
<script lang="ts">
	import Form from '../parts/Form.svelte';
	import Fold from '$lib/ui/parts/Fold.svelte';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import type { LateCharge } from '$lib/core/documents/detail';

	interface Props {
		number: string;
		claim: LateCharge;
	}
	let { number, claim }: Props = $props();
	let left = $derived(
		'interest' in claim ? claim.interest + claim.compensation - claim.charged : 0n
	);
</script>

<section
	class="panel py-3 px-4.5 mb-3.5 border-l-5 border-l-(--oxide)"
	id="late"
	aria-label="Late payment"
>
	{#if 'missingRate' in claim}
		<p>
			Interest by law cannot be worked out: the reference rate for the half year from {displayDate(
				claim.missingRate
			)} is missing. <a href="/settings#late">Enter it</a>
		</p>
	{:else}
		<div class="flex flex-wrap gap-y-1.5 gap-x-4 items-center justify-between">
			<p>
				You could claim <b class="numbers">{displayPounds(claim.interest + claim.compensation)}</b>
				for this today{#if claim.charged}, of which {displayPounds(claim.charged)} is charged already{/if}.
			</p>
			{#if left > 0}
				<Form action="?/claim" keyed>
					<button class="button">Charge {displayPounds(left)}</button>
				</Form>
			{/if}
		</div>
		<Fold label="How this comes about">
			<ul class="numbers">
				<li class="py-0.75 px-0">
					Late since the day after it was due: {claim.daysLate}
					{claim.daysLate === 1 ? 'day' : 'days'}.
				</li>
				{#if claim.reference}
					<li class="py-0.75 px-0">
						{claim.rate} % a year: {claim.reference.rate} % reference rate for the half year from {displayDate(
							claim.reference.from
						)}, and 8 %. It stays the same for this invoice.
					</li>
				{:else}<li class="py-0.75 px-0">As agreed: {claim.terms}</li>{/if}
				{#each claim.spans as span (span.from)}
					<li class="py-0.75 px-0">
						{displayPounds(span.outstanding)} open from {displayDate(span.from)} to {displayDate(
							span.to
						)}: × {span.days}
						{span.days === 1 ? 'day' : 'days'} × {claim.rate} % ÷ 365
					</li>
				{/each}
				<li class="py-0.75 px-0">Interest, rounded once: <b>{displayPounds(claim.interest)}</b></li>
				<li class="py-0.75 px-0">
					{claim.reference
						? `Fixed sum, by the ${displayPounds(claim.openWhenDue)} that were open at the end of the due day:`
						: 'The fee that was agreed:'}
					<b>{displayPounds(claim.compensation)}</b>
				</li>
				{#if claim.terms}<li class="py-0.75 px-0">
						Your contract’s own terms, in place of the Act (s.8). Charged on a document of its own,
						without VAT; {number} stays as it is.
					</li>{:else}<li class="py-0.75 px-0">
						Late Payment of Commercial Debts (Interest) Act 1998, s.4 and s.5A; SI 2002/1675.
						Charged on a document of its own, without VAT; {number} stays as it is. Where your contract
						gives another remedy for lateness, that applies instead: enter it with the customer.
					</li>{/if}
			</ul>
		</Fold>
	{/if}
</section>
