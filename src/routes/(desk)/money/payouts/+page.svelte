<script lang="ts">
	import Form from '$lib/ui/parts/Form.svelte';
	import Table from '$lib/ui/parts/Table.svelte';
	import type { Column } from '$lib/ui/parts/table';
	import Pager from '$lib/ui/parts/Pager.svelte';
	import { displayDate, displayMoment } from '$lib/core/calendar/conversion';
	import { displayAmount, displayPounds } from '$lib/core/money/display';

	let { data } = $props();

	type Part = (typeof data.payouts)[number]['parts'][number] & { index: number };
	const amount = (id: string, head: string, of: (part: Part) => number): Column<Part> => ({
		id,
		head: `${head}, £`,
		stacked: `${head}, £`,
		figures: true,
		text: (part) => displayAmount(of(part))
	});
	const parts: Column<Part>[] = [
		{ id: 'from', head: 'From', text: (part) => part.payer || 'unknown here', names: true },
		{ id: 'for', head: 'For', cell: documents },
		amount('collected', 'Collected', (part) => part.amount),
		amount('fee', 'Fee', (part) => part.fee),
		amount('reached', 'Reached the bank', (part) => part.amount - part.fee)
	];
</script>

<svelte:head><title>Card payouts · Money in · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/money">Money in</a></p>
	<h1>
		{data.waiting > 0
			? `${displayPounds(data.waiting)} lies with the card processor`
			: 'Everything paid by card has been paid out'}
	</h1>
	<p class="quiet mb-3.5">
		What was collected, less the fee, comes to your bank in payouts. A line of the bank ticks each
		off.
	</p>
	{#if data.odd.length}
		<section
			class="panel py-3.5 px-4.5 mb-3.5 border-l-6 border-l-(--oxide)"
			id="odd"
			aria-labelledby="odd-title"
		>
			<h2 id="odd-title">What does not fit your books</h2>
			<p class="quiet">
				The card processor sent these, rightly signed. Nothing was booked: ask it, then say what is
				to happen.
			</p>
			<ul>
				{#each data.odd as news (news.id)}
					<li
						class="flex flex-wrap gap-x-4 gap-y-2 items-center py-2 border-b border-b-(--hair) last:border-0"
					>
						<span class="flex-1 min-w-60"
							><b
								>{news.type === 'payout.paid'
									? 'A payout'
									: news.type === 'refund.settled'
										? 'Money given back'
										: 'A payment'}, {displayPounds(news.amount)}</b
							>
							<span class="quiet">{displayMoment(news.receivedAt)}</span><br />{news.why}</span
						>
						{#if news.type === 'payout.paid'}<Form
								action="?/decide"
								hidden={{ news: news.id, decision: 'taken' }}
								done="Booked."
							>
								<button class="button">It did come: book it</button>
							</Form>{/if}
						<Form
							action="?/decide"
							hidden={{ news: news.id, decision: 'dismissed' }}
							done="Put away. Nothing was booked."
						>
							<button class="button plain">It is dealt with</button>
						</Form>
					</li>
				{/each}
			</ul>
		</section>
	{/if}
	{#each data.payouts as payout (payout.id)}
		<section class="panel py-3.5 px-4.5 mb-3.5 overflow-x-auto">
			<div class="flex flex-wrap gap-y-1 gap-x-3.5 items-baseline mb-2">
				<h2>{displayDate(payout.date)}</h2>
				<span class="mono">{payout.reference}</span>
				<span class="tag"
					>{payout.seenOn
						? `at the bank on ${displayDate(payout.seenOn)}`
						: 'not seen at the bank yet'}</span
				>
				<b class="numbers ml-auto text-[1.15rem]">{displayPounds(payout.amount)}</b>
			</div>
			<Table
				label="Payout of {displayDate(payout.date)}"
				rows={payout.parts.map((part, index) => ({ ...part, index }))}
				columns={parts}
				id={(part) => part.index}
				stack
				flush
				class="table-fixed"
			>
				{#snippet foot()}
					<tr class="font-[650] *:py-1.5 *:pr-2.5">
						<th scope="row" colspan="2" class="text-left">Together</th>
						<td class="numbers text-right">{displayAmount(payout.collected)}</td>
						<td class="numbers text-right">{displayAmount(payout.fees)}</td>
						<td class="numbers text-right">{displayAmount(payout.amount)}</td>
					</tr>
				{/snippet}
			</Table>
		</section>
	{:else}
		<div class="panel p-6 grid gap-2">
			<h2>No payout yet</h2>
			<p>When a customer pays by card, the processor sends it on to your bank a little later.</p>
		</div>
	{/each}
	<Pager before={data.before} after={data.after} />
</div>

{#snippet documents(part: Part)}{#each part.documents as one (one.id)}<a
			class="mono"
			href="/billing/{one.id}">{one.number}</a
		>
	{/each}{part.type === 'refund' ? ' given back' : ''}{/snippet}
