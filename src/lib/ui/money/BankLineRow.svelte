<!-- A line of a bank statement with what is proposed for it, and the reasons in words. -->
<script lang="ts">
	import { enhance } from '$app/forms';
	import { displayDate } from '$lib/core/calendar/conversion';
	import type { Proposal } from '$lib/core/bank/types';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import { notices } from '../parts/notices.svelte';

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
		payers: { id: number; name: string }[];
	}
	let { line, payers }: Props = $props();
	let choosing = $state(false);
	let best = $derived(line.proposals[0]);
	const done =
		(words: string) =>
		() =>
		async ({
			result,
			update
		}: {
			result: { type: string };
			update: (options?: { reset: boolean }) => Promise<void>;
		}) => {
			await update({ reset: false });
			if (result.type === 'success') notices.say(words);
		};
	const recordedOf = (one: Proposal) => (one.recorded ? JSON.stringify(one.recorded) : '');
	const sharesOf = (one: Proposal) =>
		JSON.stringify(
			one.shares.map(({ documentId, amount, withheld }) => ({ documentId, amount, withheld }))
		);
</script>

<li>
	<div class="line">
		<span class="quiet day">{displayDate(line.date)}</span>
		<span class="text">{line.payer ? `${line.payer} · ` : ''}{line.text || 'no text'}</span>
		<b class="numbers">{displayAmount(line.amount)}</b>
	</div>
	{#if line.state === 'open' && line.amount > 0}
		{#if best}
			<div class="proposal" class:sure={best.sure}>
				<div>
					<p>
						<b>{best.payer}</b>{best.recorded ? '' : ':'}
						{#each best.shares as share, index (share.documentId)}{index ? ', ' : ''}<a
								class="mono"
								href="/billing/{share.documentId}">{share.number}</a
							>{best.shares.length > 1 ? ` ${displayPounds(share.amount)}` : ''}{/each}{best.over
							? `${best.shares.length ? ', and ' : ''}${displayPounds(best.over)} as credit`
							: ''}
						<span class="tag">{best.sure ? 'sure' : best.score >= 60 ? 'likely' : 'perhaps'}</span>
					</p>
					<p class="quiet">{best.reasons.join('; ')}</p>
				</div>
				<form
					method="post"
					action="?/accept"
					use:enhance={done(best.recorded ? 'It is ticked off.' : 'The payment is recorded.')}
				>
					<input type="hidden" name="line" value={line.id} />
					<input type="hidden" name="payer" value={best.payerId} />
					<input type="hidden" name="shares" value={best.recorded ? '' : sharesOf(best)} />
					<input type="hidden" name="recorded" value={recordedOf(best)} />
					<button class="button"
						>{best.recorded ? 'Tick it off' : 'Accept'}<span class="sr-only">
							{line.text}</span
						></button
					>
				</form>
			</div>
		{:else}
			<p class="quiet none">Nothing open fits this.</p>
		{/if}
		<div class="other">
			<button
				class="button plain"
				type="button"
				aria-expanded={choosing}
				onclick={() => (choosing = !choosing)}>{best ? 'Something else' : 'Choose who paid'}</button
			>
			<form method="post" action="?/notBusiness" use:enhance={done('It is left out.')}>
				<input type="hidden" name="line" value={line.id} />
				<button class="button plain">Not business<span class="sr-only"> {line.text}</span></button>
			</form>
		</div>
		{#if choosing}
			<div class="choices">
				{#each line.proposals.slice(1) as one, index (index)}
					<form method="post" action="?/accept" use:enhance={done('The payment is recorded.')}>
						<input type="hidden" name="line" value={line.id} />
						<input type="hidden" name="payer" value={one.payerId} />
						<input type="hidden" name="shares" value={one.recorded ? '' : sharesOf(one)} />
						<input type="hidden" name="recorded" value={recordedOf(one)} />
						<span
							><b>{one.payer}</b>{one.recorded ? '' : ':'}
							{one.shares.map((share) => share.number).join(', ')}{one.over
								? ` and ${displayPounds(one.over)} as credit`
								: ''} <span class="quiet">{one.reasons.join('; ')}</span></span
						>
						<button class="button">{one.recorded ? 'Tick it off' : 'Accept'}</button>
					</form>
				{/each}
				<form method="post" action="?/accept" use:enhance={done('The payment is recorded.')}>
					<input type="hidden" name="line" value={line.id} />
					<label class="field"
						><span class="name">From</span><select class="box" name="payer" required>
							<option value="">choose who paid</option>
							{#each payers as payer (payer.id)}<option value={payer.id}>{payer.name}</option
								>{/each}</select
						></label
					>
					<button class="button">For what is due first</button>
				</form>
			</div>
		{/if}
	{:else if line.amount < 0}
		{#if line.state === 'accepted'}<p class="quiet">the payment it takes back is undone</p>
		{:else if line.takenBack.length}
			<p class="late">The bank took a payment back. Which one?</p>
			{#each line.takenBack as one (one.id)}
				<form class="back" method="post" action="?/takeBack" use:enhance={done('It is undone.')}>
					<input type="hidden" name="line" value={line.id} />
					<input type="hidden" name="payment" value={one.id} />
					<span
						>{one.payer}, {displayDate(one.date)}
						<span class="quiet">{one.reference}</span></span
					>
					<button class="button"
						>Undo that payment<span class="sr-only"> of {one.payer}</span></button
					>
				</form>
			{/each}
		{:else if line.reversal}<p class="late">
				The bank took a payment back that is not in the books.
			</p>{/if}
	{:else}
		<div class="other">
			<span class="quiet">{line.state === 'accepted' ? 'recorded' : 'not business'}</span>
			<form method="post" action="?/reopen" use:enhance={done('It is open again.')}>
				<input type="hidden" name="line" value={line.id} />
				<button class="button plain"
					>{line.state === 'accepted' ? 'Undo' : 'It is business after all'}</button
				>
			</form>
		</div>
	{/if}
</li>

<style>
	li {
		padding: 12px 16px;
		border-bottom: 1px solid var(--hair);
		display: grid;
		gap: 6px;
	}
	li:last-child {
		border-bottom: 0;
	}
	.line {
		display: grid;
		grid-template-columns: 105px minmax(0, 1fr) auto;
		gap: 12px;
		align-items: baseline;
	}
	.text {
		overflow-wrap: anywhere;
	}
	.proposal {
		display: flex;
		gap: 10px 18px;
		justify-content: space-between;
		align-items: center;
		padding: 8px 12px;
		border-left: 5px solid var(--hair);
		background: var(--quiet-fill);
	}
	.proposal.sure {
		border-left-color: var(--tape);
		background: var(--tape-tint);
	}
	.other,
	.back,
	.choices form {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 14px;
		align-items: end;
	}
	.other {
		align-items: center;
	}
	.choices {
		display: grid;
		gap: 8px;
		padding: 8px 12px;
		border: 1px solid var(--hair);
	}
	.back,
	.choices form {
		justify-content: space-between;
	}
	@media (max-width: 760px) {
		.line {
			grid-template-columns: minmax(0, 1fr) auto;
		}
		.day {
			grid-column: 1 / -1;
		}
		.proposal {
			flex-wrap: wrap;
		}
	}
</style>
