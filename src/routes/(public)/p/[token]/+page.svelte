<script lang="ts">
	import Download from '@lucide/svelte/icons/download';
	import { page } from '$app/state';
	import { displayDate, displayMoment } from '$lib/core/calendar/conversion';
	import { displayAmount, displayMoney } from '$lib/core/money/display';
	import Paper from '$lib/ui/invoices/Paper.svelte';
	import BankDetails from '$lib/ui/money/BankDetails.svelte';
	import KeptCard from '$lib/ui/money/KeptCard.svelte';
	import PaymentNews from '$lib/ui/money/PaymentNews.svelte';
	import Reach from '$lib/ui/money/Reach.svelte';
	import Fold from '$lib/ui/parts/Fold.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import SignForm from '$lib/ui/signing/SignForm.svelte';
	import Money from '$lib/ui/parts/Money.svelte';
	import { publicPayment } from '$lib/ui/money/payment.svelte';

	let { data } = $props();
	let view = $derived(data.view);
	const money = (amount: number) => displayMoney(amount, data.currency);
	let open = $derived(data.kind === 'invoice' && data.toPay > 0);
	const payment = publicPayment(() => data);
	let part = $derived(['part', '/card', '/bank'].some((name) => page.url.searchParams.has(name)));
	const WAYS: Record<string, string> = { card: 'by card', bank: 'by transfer', cash: 'in cash' };
	const paidHow = (one: (typeof data.payments)[number]) =>
		`${money(one.amount)} on ${displayDate(one.date)}${WAYS[one.way] ? ` ${WAYS[one.way]}` : ''}`;
</script>

<svelte:head>
	<title>{view.title} {view.number} from {view.seller.name}</title>
	<meta name="robots" content="noindex" />
</svelte:head>
<main class="max-w-225 my-0 mx-auto pt-6 pb-15 px-3.5 grid grid-cols-[minmax(0,1fr)] gap-4">
	{#if data.trial}<p
			class="bg-(--tape) text-(--on-tape) font-[650] text-center p-2 border-[1.5px] border-(--on-tape)"
		>
			Test: nothing here counts, and nothing is owed
		</p>{/if}
	<section
		class="pay panel py-5 px-6 grid grid-cols-[minmax(0,1fr)_minmax(0,330px)] gap-y-4 gap-x-7.5 items-start border-t-8 border-t-(--ink) max-[640px]:grid-cols-1 max-[640px]:py-4.5 max-[640px]:px-4 max-[640px]:[&_.button]:min-h-12.5"
		aria-label="Payment"
	>
		<div class="sum">
			<p>{view.seller.name}</p>
			{#if data.kind === 'creditNote'}
				<h1 class="text-[2rem]">Credit note of {view.sign}{view.payable?.amount}</h1>
			{:else if data.state === 'paid'}
				<h1 class="text-[2rem]">Paid. Thank you.</h1>
				{#if data.payments.length}<ul class="quiet">
						{#each data.payments as one, index (index)}<li>{paidHow(one)}</li>{/each}
					</ul>{:else}<p class="quiet">{money(data.paid)} received</p>{/if}
				{#if data.withheld}<p class="quiet">
						{money(data.withheld)} deducted under CIS
					</p>{/if}
			{:else if data.state === 'credited'}
				<h1 class="text-[2rem]">Nothing to pay</h1>
				<p class="quiet">This invoice has been credited.</p>
			{:else if data.state === 'pending'}
				<h1 class="text-[2rem]">Your payment is on its way</h1>
				<p class="quiet">It takes a little to settle. There is nothing more to do.</p>
			{:else}
				<h1 class="text-[2rem]">
					{money(data.toPay)}
					<small
						class="[font:500_1rem_'Atkinson_Hyperlegible_Next_Variable',sans-serif] tracking-[0]"
						>{#if data.due?.late}to pay<span class="late block"
								>it was due on {displayDate(data.due.date)}</span
							>{:else}to pay{data.due ? ` by ${displayDate(data.due.date)}` : ''}{/if}</small
					>
				</h1>
				{#if data.payments.length || data.credited || data.withheld}<div class="quiet">
						<p>Of the {money(data.total)} it came to:</p>
						<ul>
							{#each data.payments as one, index (index)}<li>{paidHow(one)}, paid</li>{/each}
							{#if data.withheld}<li>{money(data.withheld)} deducted under CIS</li>{/if}
							{#if data.leftToDeduct}<li>
									{money(data.leftToDeduct)} you deduct under CIS
								</li>{/if}
							{#if data.credited}<li>{money(data.credited)} credited</li>{/if}
						</ul>
					</div>{/if}
			{/if}
			<PaymentNews {payment} from={data.from} last={data.last} />
		</div>
		{#if open && data.state !== 'pending' && !payment.confirming && (data.ways.card || data.ways.bank)}
			<Form
				leaves
				class="grid gap-2.5 min-w-52.5"
				action="{page.url.pathname}?/card"
				hidden={{ key: payment.key }}
			>
				{#snippet children(frame)}
					{#if part || frame.error('amount')}
						<Money
							label="How much"
							name="amount"
							value={displayAmount(data.toPay).replaceAll(',', '')}
						/>
					{/if}
					{#if data.ways.card && !data.trial}<label class="check"
							><input type="checkbox" name="keepCard" /><span
								>Keep the card for agreed repeat invoices. <span class="quiet"
									>Only the processor’s token is kept, and you can take it back on this page at any
									time.</span
								></span
							></label
						>{/if}
					{#if data.ways.card}<button class="button filled">Pay by card</button>{/if}
					{#if data.ways.bank}<button
							class="button"
							class:filled={!data.ways.card}
							formaction="{page.url.pathname}?/bank">Pay from your bank</button
						>{/if}
					{#if data.ways.card && data.mayBearFee}<p class="quiet">
							A firm’s commercial card bears its own fee; you see it before you pay.
						</p>{/if}
					{#if !part}<a class="button plain" href="?part" data-sveltekit-noscroll>Pay a part</a
						>{/if}
				{/snippet}
			</Form>
		{/if}
		{#if !data.trial}<KeptCard path={page.url.pathname} />{/if}
		{#if open && view.bank}
			<BankDetails
				bank={view.bank}
				amount={money(data.toPay)}
				only={!data.ways.card && !data.ways.bank}
			/>
		{/if}
		<a class="button self-end" href="{page.url.pathname}/pdf"
			><Download size={18} aria-hidden="true" />PDF</a
		>
		<div class="col-span-full"><Reach name={view.seller.name} reach={data.reach} /></div>
	</section>
	{#if data.files.length}
		<section class="panel grid gap-2 max-w-225 mx-auto mb-4 py-3.5 px-4.5">
			<h2 class="text-[1.1rem]">With it</h2>
			<ul class="flex flex-wrap gap-3">
				{#each data.files as file (file.id)}<li>
						<a
							class="grid gap-1"
							href="/p/{page.params.token}/files/{file.id}"
							target="_blank"
							rel="noreferrer"
							>{#if file.picture}<img
									class="h-27.5 border border-(--hair)"
									src="/p/{page.params.token}/files/{file.id}?small"
									alt=""
									loading="lazy"
								/>{/if}{file.name}</a
						>
					</li>{/each}
			</ul>
		</section>
	{/if}
	<Paper {view} logo={view.look.logo && `/p/${page.params.token}/logo`} />
	{#if data.signing?.signed}<p class="panel px-6 py-4" role="status">
			Signed by {data.signing.signed.name} on {displayMoment(data.signing.signed.at)}.
		</p>
	{:else if data.signing}<section class="panel px-6 py-4" aria-label="Sign for it">
			<Fold label="Sign for it">
				<SignForm action="{page.url.pathname}?/sign" of={data.signing.of} about="invoice" />
			</Fold>
		</section>{/if}
</main>
