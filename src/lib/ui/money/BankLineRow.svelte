<!-- A line of a bank statement with what is proposed for it, and the reasons in words. -->
<script lang="ts">
	import Form from '../parts/Form.svelte';
	import { displayDate } from '$lib/core/calendar/conversion';
	import type { Proposal } from '$lib/core/bank/types';
	import { displayAmount, displayMoney, displayPounds } from '$lib/core/money/display';
	import CustomerFinder from '../customers/CustomerFinder.svelte';

	interface Props {
		line: {
			id: number;
			date: string;
			amount: number;
			text: string;
			payer: string;
			reversal: boolean;
			state: 'open' | 'accepted' | 'notBusiness';
			proposals: Proposal[];
			/** Payments it may take back. */
			takenBack: { id: number; payer: string; date: string; reference: string }[];
		};
		/** It has been dealt with. */
		ondone: () => void;
	}
	let { line, ondone }: Props = $props();
	let choosing = $state(false);
	let best = $derived(line.proposals[0]);
	const recordedOf = (one: Proposal) => (one.recorded ? JSON.stringify(one.recorded) : '');
	const sharesOf = (one: Proposal) =>
		JSON.stringify(
			one.shares.map(({ documentId, amount, withheld }) => ({
				documentId,
				amount: Number(amount),
				withheld: withheld === null ? null : Number(withheld)
			}))
		);
</script>

<li class="py-3 px-4 border-b border-b-(--hair) grid gap-1.5 last:border-b-0">
	<div
		class="line grid grid-cols-[105px_minmax(0,1fr)_auto] gap-3 items-baseline phone:grid-cols-[minmax(0,1fr)_auto]"
	>
		<span class="quiet day phone:col-span-full">{displayDate(line.date)}</span>
		<span class="text wrap-anywhere"
			>{line.payer ? `${line.payer} · ` : ''}{line.text || 'no text'}</span
		>
		<b class="numbers">{displayAmount(line.amount)}</b>
	</div>
	{#if line.state === 'open' && line.amount > 0}
		{#if best}
			<div
				class="flex gap-y-2.5 gap-x-4.5 justify-between items-center py-2 px-3 border-l-5 border-l-(--hair) bg-(--quiet-fill) phone:flex-wrap [&.sure]:border-l-(--tape) [&.sure]:bg-(--tape-tint)"
				class:sure={best.sure}
			>
				<div>
					<p>
						<b>{best.payer}</b>{best.recorded ? '' : ':'}
						{#each best.shares as share, index (share.documentId)}{index ? ', ' : ''}<a
								class="mono"
								href="/billing/{share.documentId}">{share.number}</a
							>{best.shares.length > 1 || share.currency
								? ` ${displayMoney(share.amount, share.currency)}`
								: ''}{/each}{best.over
							? `${best.shares.length ? ', and ' : ''}${displayPounds(best.over)} as credit`
							: ''}
						<span class="tag">{best.sure ? 'sure' : best.score >= 60 ? 'likely' : 'perhaps'}</span>
					</p>
					<p class="quiet">{best.reasons.join('; ')}</p>
				</div>
				<Form
					action="?/accept"
					hidden={{
						line: line.id,
						payer: best.payerId,
						shares: best.recorded ? '' : sharesOf(best),
						recorded: recordedOf(best)
					}}
					done={best.recorded ? 'It is matched.' : 'The payment is recorded.'}
					{ondone}
				>
					<button class="button"
						>{best.recorded ? 'It is this one' : 'Accept'}
						<span class="sr-only">{line.text}</span></button
					>
				</Form>
			</div>
		{:else}
			<p class="quiet none">Nothing open fits this.</p>
		{/if}
		<div class="other flex flex-wrap gap-y-1 gap-x-3.5 items-center">
			<button
				class="button plain"
				type="button"
				aria-expanded={choosing}
				onclick={() => (choosing = !choosing)}>{best ? 'Something else' : 'Choose who paid'}</button
			>
			<Form action="?/notBusiness" hidden={{ line: line.id }} done="It is left out." {ondone}>
				<button class="button plain">Not business <span class="sr-only">{line.text}</span></button>
			</Form>
		</div>
		{#if choosing}
			<div class="grid gap-2 py-2 px-3 border border-(--hair)">
				{#each line.proposals.slice(1) as one, index (index)}
					<Form
						class="flex flex-wrap gap-y-1 gap-x-3.5 items-end justify-between"
						action="?/accept"
						hidden={{
							line: line.id,
							payer: one.payerId,
							shares: one.recorded ? '' : sharesOf(one),
							recorded: recordedOf(one)
						}}
						done="The payment is recorded."
						{ondone}
					>
						<span
							><b>{one.payer}</b>{one.recorded ? '' : ':'}
							{one.shares
								.map((share) =>
									share.currency
										? `${share.number} ${displayMoney(share.amount, share.currency)}`
										: share.number
								)
								.join(', ')}{one.over ? ` and ${displayPounds(one.over)} as credit` : ''}
							<span class="quiet">{one.reasons.join('; ')}</span></span
						>
						<button class="button">{one.recorded ? 'It is this one' : 'Accept'}</button>
					</Form>
				{/each}
				<Form
					class="flex flex-wrap gap-y-1 gap-x-3.5 items-end justify-between"
					action="?/accept"
					hidden={{ line: line.id }}
					done="The payment is recorded."
					{ondone}
				>
					<CustomerFinder label="From" name="payer" placeholder="who paid" />
					<button class="button">For what is due first</button>
				</Form>
			</div>
		{/if}
	{:else if line.amount < 0}
		{#if line.state === 'accepted'}<p class="quiet">the payment it takes back is undone</p>
		{:else if line.takenBack.length}
			<p class="late">The bank took a payment back. Which one?</p>
			{#each line.takenBack as one (one.id)}
				<Form
					class="back flex flex-wrap gap-y-1 gap-x-3.5 items-end justify-between"
					action="?/takeBack"
					hidden={{ line: line.id, payment: one.id }}
					done="It is undone."
					{ondone}
				>
					<span
						>{one.payer}, {displayDate(one.date)}
						<span class="quiet">{one.reference}</span></span
					>
					<button class="button"
						>Undo that payment <span class="sr-only">of {one.payer}</span></button
					>
				</Form>
			{/each}
		{:else if line.reversal}<p class="late">
				The bank took a payment back that is not in the books.
			</p>{/if}
	{:else}
		<div class="other flex flex-wrap gap-y-1 gap-x-3.5 items-center">
			<span class="quiet">{line.state === 'accepted' ? 'recorded' : 'not business'}</span>
			<Form action="?/reopen" hidden={{ line: line.id }} done="It is open again." {ondone}>
				<button class="button plain"
					>{line.state === 'accepted' ? 'Undo' : 'It is business after all'}
					<span class="sr-only">: {line.text}</span></button
				>
			</Form>
		</div>
	{/if}
</li>
