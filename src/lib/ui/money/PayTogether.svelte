<!-- Several invoices of one payer, paid together: which of them, all or a part, by card or from the bank. -->
<script lang="ts">
	import { untrack, type Snippet } from 'svelte';
	import { page } from '$app/state';
	import { displayDate } from '$lib/core/calendar/conversion';
	import type { Currency } from '$lib/core/money/currencies';
	import type { BankAccount } from '$lib/core/documents/types';
	import { displayAmount, displayMoney } from '$lib/core/money/display';
	import Form from '../parts/Form.svelte';
	import Money from '../parts/Money.svelte';
	import BankDetails from './BankDetails.svelte';
	import type { PayWays } from '$lib/core/payWays';
	import { publicPayment, type Came } from './payment.svelte';
	import PaymentNews from './PaymentNews.svelte';
	import Reach from './Reach.svelte';

	interface Props {
		/** Who is paid. */
		name: string;
		data: Omit<Came, 'last'> & {
			last: (NonNullable<Came['last']> & { amount: number }) | null;
			open: { documentId: number; number: string; dueDate: string; toPay: number; token: string }[];
			toPay: number;
			credit: number;
			pending: boolean;
			reach: { phone: string; email: string };
			ways: PayWays;
			currency: Currency;
			inOtherMoney: { number: string; toPay: number; currency: Currency; token: string }[];
			bank: (BankAccount & { reference: string }) | null;
		};
		/** Each invoice leads to its own page. */
		linked?: boolean;
		/** What stands under it. */
		children?: Snippet;
	}
	let { name, data, linked = false, children }: Props = $props();
	const money = (amount: number) => displayMoney(amount, data.currency);
	let left = $state<Record<number, boolean>>({});
	let chosen = $derived(data.open.filter((item) => !left[item.documentId]));
	let sum = $derived(chosen.reduce((total, item) => total + item.toPay, 0));
	const payment = untrack(() => publicPayment(() => data));
	let part = $derived(['part', '/card', '/bank'].some((one) => page.url.searchParams.has(one)));
</script>

<section
	class="pay panel py-5 px-6 grid grid-cols-[minmax(0,1fr)_minmax(280px,auto)] gap-y-4 gap-x-7.5 items-start border-t-8 border-t-(--ink) max-[640px]:grid-cols-1 max-[640px]:py-4.5 max-[640px]:px-4 max-[640px]:[&_.button]:min-h-12.5"
	aria-label="Payment"
>
	<div class="sum">
		<p>{name}</p>
		<h1 class="text-[2rem]">
			{data.toPay > 0
				? `${money(data.toPay)} to pay`
				: data.from
					? 'Paid. Thank you.'
					: 'Nothing to pay'}
		</h1>
		{#if data.pending}<p role="status">
				Your payment is on its way. It takes a little to settle.
			</p>{/if}
		<PaymentNews {payment} from={data.from} last={data.last} />
		{#if data.credit > 0}<p class="quiet">
				{money(data.credit)} is in your favour and not used yet.
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
									>{#if linked}<a class="underline" href="/p/{item.token}">{item.number}</a
										>{:else}{item.number}{/if}
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
				{#if data.ways.card}<button class="button filled"
						>{part ? 'Pay by card' : `Pay ${money(sum)} by card`}</button
					>{/if}
				{#if data.ways.bank}<button
						class="button"
						class:filled={!data.ways.card}
						formaction="{page.url.pathname}?/bank">Pay from your bank</button
					>{/if}
				{#if data.currency !== 'GBP'}<p class="quiet">Please pay by a transfer of your own.</p>
				{:else if !data.ways.card && !data.ways.bank}<p class="quiet">
						Not all of them can be paid here in the same way: see each by itself, or pay by
						transfer.
					</p>
				{:else if !part}<a class="button plain" href="?part" data-sveltekit-noscroll
						>Pay another amount</a
					>{/if}
			{/snippet}
		</Form>
	{/if}
	{#if data.toPay > 0 && data.bank}
		<BankDetails bank={data.bank} />
	{/if}
	{#if data.inOtherMoney.length}<p class="col-span-full">
			Beside that, in other money: {#each data.inOtherMoney as one, index (one.token)}{index
					? ', '
					: ''}<a class="underline" href="/p/{one.token}"
					>{one.number}, {displayMoney(one.toPay, one.currency)}</a
				>{/each}. Each is paid by itself.
		</p>{/if}
	{@render children?.()}
	<div class="col-span-full"><Reach {name} reach={data.reach} /></div>
</section>
