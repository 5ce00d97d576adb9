<!-- After a customer cancelled: what it owes for what was done at its request, and what goes back. -->
<script lang="ts">
	import { displayDate } from '$lib/core/calendar/conversion';
	import { shareOf } from '$lib/core/regimes/gb/consumer';
	import { displayPounds } from '$lib/core/money/display';
	import Form from '../parts/Form.svelte';

	interface Props {
		share: {
			paid: string;
			by: string;
			/** It asked for an early begin, and was told what that costs. */
			owes: boolean;
			lines: { id: number; description: string; agreed: string }[];
		};
		customer: { id: number | null; name: string };
		action: string;
		/** The invoice of its deposit. */
		invoiced: number | null;
	}
	let { share, customer, action, invoiced }: Props = $props();
	let done = $state<Record<number, number>>({});
	const partOf = (agreed: string, percent: number) => shareOf(BigInt(agreed), percent);
	let owed = $derived(
		share.owes
			? share.lines.reduce((sum, { id, agreed }) => sum + partOf(agreed, done[id] ?? 0), 0n)
			: 0n
	);
	let paid = $derived(BigInt(share.paid));
</script>

<section
	class="panel grid gap-3 border-l-6 border-l-(--oxide) px-5 py-4"
	aria-label="What goes back"
>
	<h2>Cancelled: what goes back</h2>
	{#if share.owes}
		<p>
			They asked in writing for an early begin, so they pay the share of what was supplied until
			their notice came. How much of each line was done?
		</p>
		<ul class="grid">
			{#each share.lines as { id, description, agreed } (id)}<li
					class="grid grid-cols-[minmax(0,1fr)_90px_100px] items-center gap-3 border-b border-(--hair) py-1.5"
				>
					<span class="wrap-anywhere">{description}</span>
					<label
						><span class="sr-only">Percent done: {description}</span><input
							class="box text-right"
							inputmode="decimal"
							placeholder="0 %"
							oninput={(event) =>
								(done[id] = Number(event.currentTarget.value.replace('%', '')) || 0)}
						/></label
					>
					<span class="numbers text-right">{displayPounds(partOf(agreed, done[id] ?? 0))}</span>
				</li>{/each}
		</ul>
	{:else}<p>
			Nothing is owed: they did not ask in writing that work begins within the time to cancel (SI
			2013/3134 reg. 36(6)).
		</p>{/if}
	<p>
		They owe <b class="numbers">{displayPounds(owed)}</b> and paid
		<b class="numbers">{displayPounds(paid)}</b>:
		<b class="numbers">{displayPounds(paid > owed ? paid - owed : 0n)}</b> goes back by
		{displayDate(share.by)}, in the way it came.
	</p>
	{#if owed > 0n || invoiced}<Form
			{action}
			hidden={{ done: JSON.stringify(done) }}
			done="The invoice of the deposit is credited."
		>
			{#snippet children(frame)}
				{#if frame.error('done')}<p class="wrong">{frame.error('done')}</p>{/if}
				<button class="button"
					>{[
						invoiced ? 'Credit the deposit’s invoice' : '',
						owed > 0n ? `${invoiced ? 'write' : 'Write'} one for ${displayPounds(owed)}` : ''
					]
						.filter(Boolean)
						.join(', and ')}</button
				>
			{/snippet}
		</Form>
		<p class="quiet">
			What was paid then stands in hand: it pays that invoice, and the rest goes back.
		</p>{/if}
	{#if customer.id && paid > 0n}<p>
			<a href="/owed/{customer.id}">Give it back on {customer.name}’s page</a>
		</p>{/if}
</section>
