<script lang="ts">
	import Table from '$lib/ui/parts/Table.svelte';
	import Download from '@lucide/svelte/icons/download';
	import { page } from '$app/state';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import BankDetails from '$lib/ui/money/BankDetails.svelte';
	import PaymentNews from '$lib/ui/money/PaymentNews.svelte';
	import Reach from '$lib/ui/money/Reach.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import Money from '$lib/ui/parts/Money.svelte';
	import { publicPayment } from '$lib/ui/money/payment.svelte';

	let { data } = $props();
	let view = $derived(data.view);
	let left = $state<Record<number, boolean>>({});
	let chosen = $derived(data.open.filter((item) => !left[item.documentId]));
	let sum = $derived(chosen.reduce((total, item) => total + item.toPay, 0));
	const payment = publicPayment(() => data);
	let part = $derived(['part', '/card', '/bank'].some((name) => page.url.searchParams.has(name)));
</script>

<svelte:head>
	<title>Statement from {view.seller.name}</title>
	<meta name="robots" content="noindex" />
</svelte:head>
<main class="max-w-225 my-0 mx-auto pt-6 pb-15 px-3.5 grid gap-4">
	<section
		class="pay panel py-5 px-6 grid grid-cols-[minmax(0,1fr)_minmax(280px,auto)] gap-y-4 gap-x-7.5 items-start border-t-8 border-t-(--ink) max-[640px]:grid-cols-1 max-[640px]:py-4.5 max-[640px]:px-4 max-[640px]:[&_.button]:min-h-12.5"
		aria-label="Payment"
	>
		<div class="sum">
			<p>{view.seller.name}</p>
			<h1 class="text-[2rem]">
				{data.toPay > 0
					? `${displayPounds(data.toPay)} to pay`
					: data.from
						? 'Paid. Thank you.'
						: 'Nothing to pay'}
			</h1>
			{#if data.pending}<p role="status">
					Your payment is on its way. It takes a little to settle.
				</p>{/if}
			<PaymentNews {payment} from={data.from} last={data.last} />
			{#if data.credit > 0}<p class="quiet">
					{displayPounds(data.credit)} is in your favour and not used yet.
				</p>{/if}
		</div>
		{#if data.toPay > 0 && !data.pending && !payment.confirming}
			<Form
				leaves
				class="grid gap-2.5"
				action="{page.url.pathname}?/card"
				hidden={{ key: payment.key }}
			>
				{#snippet children(frame)}
					<ul>
						{#each data.open as item (item.documentId)}
							<li
								class="flex justify-between gap-3.5 items-center py-1 px-0 border-b border-b-(--hair)"
							>
								<label class="check"
									><input
										type="checkbox"
										name="invoice"
										value={item.documentId}
										checked={!left[item.documentId]}
										onchange={(event) => (left[item.documentId] = !event.currentTarget.checked)}
									/><span
										>{item.number}
										<span class="quiet">due {displayDate(item.dueDate)}</span></span
									></label
								>
								<span class="numbers">{displayAmount(item.toPay)}</span>
							</li>
						{/each}
					</ul>
					{#if part || frame.error('amount')}
						<Money label="How much" name="amount" value={displayAmount(sum).replaceAll(',', '')} />
					{/if}
					<button class="button filled"
						>{part ? 'Pay by card' : `Pay ${displayPounds(sum)} by card`}</button
					>
					<button class="button" formaction="{page.url.pathname}?/bank">Pay from your bank</button>
					{#if !part}<a class="button plain" href="?part" data-sveltekit-noscroll
							>Pay another amount</a
						>{/if}
				{/snippet}
			</Form>
		{/if}
		{#if data.toPay > 0 && view.bank}
			<BankDetails bank={view.bank} />
		{/if}
		<a class="button self-end" href="{page.url.pathname}/pdf"
			><Download size={18} aria-hidden="true" />PDF</a
		>
		<div class="col-span-full"><Reach name={view.seller.name} reach={data.reach} /></div>
	</section>
	<article class="panel py-6.5 px-7 grid gap-4.5 max-[640px]:py-4.5 max-[640px]:px-4">
		<header class="flex flex-wrap gap-y-2.5 gap-x-6 justify-between">
			<div>
				<h2>{view.seller.name}</h2>
				{#each view.seller.lines as line, index (index)}<p class="quiet">{line}</p>{/each}
			</div>
			<h2 class="title text-(--verdigris) text-[1.4rem]">{view.title}</h2>
		</header>
		<div class="flex flex-wrap gap-y-2.5 gap-x-6 justify-between">
			<div>
				{#each view.payer as line, index (index)}<p
						class="[&.strong]:font-[650]"
						class:strong={index === 0}
					>
						{line}
					</p>{/each}
			</div>
			<dl>
				{#each view.facts as fact (fact.label)}<div class="grid grid-cols-[100px_1fr]">
						<dt class="text-(--ink-2)">{fact.label}</dt>
						<dd class="numbers">{fact.value}</dd>
					</div>{/each}
			</dl>
		</div>
		<Table
			label="Statement of account"
			rows={view.rows.map((row, index) => ({ ...row, index }))}
			columns={[
				{ id: 'date', head: 'Date', text: (row) => row.date },
				{ id: 'what', head: 'What', cell: what },
				{ id: 'amount', head: view.columns[0], text: (row) => row.amount, figures: true },
				{ id: 'left', head: view.columns[1], text: (row) => row.left, figures: true }
			]}
			id={(row) => row.index}
			flush
		>
			{#snippet lead()}
				{#if view.opening !== null}<tr class="*:border-b *:border-b-(--hair) *:py-1.5 *:pr-2.5"
						><td></td><td>Balance before</td><td></td><td class="numbers text-right"
							>{view.opening}</td
						></tr
					>{/if}
			{/snippet}
			{#snippet foot()}
				<tr class="font-[650] *:py-1.5 *:pr-2.5"
					><td></td><td>Balance</td><td></td><td class="numbers text-right">{view.balance}</td></tr
				>
			{/snippet}
		</Table>
		<dl class="ages numbers flex flex-wrap gap-y-2 gap-x-6">
			{#each view.ages as age (age.label)}<div>
					<dt class="text-(--ink-2)">{age.label}</dt>
					<dd>{age.amount}</dd>
				</div>{/each}
		</dl>
		{#each view.notes as note, index (index)}<p>{note}</p>{/each}
	</article>
</main>

{#snippet what(row: (typeof view.rows)[number])}
	{row.what}{#if row.due}<span class="quiet"> due {row.due}</span>{/if}
	{#each row.details as line, n (n)}<span class="block text-[0.875rem] text-(--ink-2)">{line}</span
		>{/each}
{/snippet}
