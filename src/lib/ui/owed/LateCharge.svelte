<!-- What the Act, or the contract, allows to claim on a late invoice today, and how that comes about. -->
<script lang="ts">
	import Fold from '$lib/ui/parts/Fold.svelte';
	import { enhance } from '$app/forms';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import type { LateCharge } from '$lib/core/documents/detail';
	import { pressKey } from '../parts/keys';
	import type { FormAnswer } from '../invoices/answers';

	interface Props {
		number: string;
		claim: LateCharge;
		form: FormAnswer;
	}
	let { number, claim, form }: Props = $props();
	const key = pressKey();
	let left = $derived(
		'interest' in claim ? claim.interest + claim.compensation - claim.charged : 0
	);
</script>

<section class="panel" id="late" aria-label="Late payment">
	{#if 'missingRate' in claim}
		<p>
			Interest by law cannot be worked out: the reference rate for the half year from {displayDate(
				claim.missingRate
			)} is missing. <a href="/settings#late">Enter it</a>
		</p>
	{:else}
		<div class="head">
			<p>
				You could claim <b class="numbers">{displayPounds(claim.interest + claim.compensation)}</b>
				for this today{#if claim.charged}, of which {displayPounds(claim.charged)} is charged already{/if}.
			</p>
			{#if left > 0}
				<form method="post" action="?/claim" use:enhance>
					<input type="hidden" name="key" value={key} />
					<button class="button">Charge {displayPounds(left)}</button>
				</form>
			{/if}
		</div>
		<Fold label="How this comes about">
			<ul class="numbers">
				<li>
					Late since the day after it was due: {claim.daysLate}
					{claim.daysLate === 1 ? 'day' : 'days'}.
				</li>
				{#if claim.reference}
					<li>
						{claim.rate} % a year: {claim.reference.rate} % reference rate for the half year from {displayDate(
							claim.reference.from
						)}, and 8 %. It stays the same for this invoice.
					</li>
				{:else}<li>As agreed: {claim.terms}</li>{/if}
				{#each claim.spans as span (span.from)}
					<li>
						{displayPounds(span.outstanding)} open from {displayDate(span.from)} to {displayDate(
							span.to
						)}: × {span.days}
						{span.days === 1 ? 'day' : 'days'} × {claim.rate} % ÷ 365
					</li>
				{/each}
				<li>Interest, rounded once: <b>{displayPounds(claim.interest)}</b></li>
				<li>
					{claim.reference
						? `Fixed sum, by the ${displayPounds(claim.openWhenDue)} that were open at the end of the due day:`
						: 'The fee that was agreed:'}
					<b>{displayPounds(claim.compensation)}</b>
				</li>
				{#if claim.terms}<li>
						Your contract’s own terms, in place of the Act (s.8). Charged on a document of its own,
						without VAT; {number} stays as it is.
					</li>{:else}<li>
						Late Payment of Commercial Debts (Interest) Act 1998, s.4 and s.5A; SI 2002/1675.
						Charged on a document of its own, without VAT; {number} stays as it is. Where your contract
						gives another remedy for lateness, that applies instead: enter it with the customer.
					</li>{/if}
			</ul>
		</Fold>
		{#if form?.message && !('fields' in form && Object.keys(form.fields ?? {}).length)}<p
				class="wrong"
				role="alert"
			>
				{form.message}
			</p>{/if}
	{/if}
</section>

<style>
	section {
		padding: 12px 18px;
		margin-bottom: 14px;
		border-left: 5px solid var(--oxide);
	}
	.head {
		display: flex;
		flex-wrap: wrap;
		gap: 6px 16px;
		align-items: center;
		justify-content: space-between;
	}
	li {
		padding: 3px 0;
	}
</style>
