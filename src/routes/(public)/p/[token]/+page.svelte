<script lang="ts">
	import Download from '@lucide/svelte/icons/download';
	import { page } from '$app/state';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import Paper from '$lib/ui/invoices/Paper.svelte';
	import BankDetails from '$lib/ui/money/BankDetails.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import Money from '$lib/ui/parts/Money.svelte';
	import { publicPayment } from '$lib/ui/money/payment.svelte';

	let { data } = $props();
	let view = $derived(data.view);
	let open = $derived(data.kind === 'invoice' && data.toPay > 0);
	const payment = publicPayment(
		() => data.from !== '',
		() => data.state === 'paid',
		300
	);
	/** Back from where it is paid: the word of it may come a moment later than the customer. */
	let confirming = $derived(
		data.from !== '' && data.state === 'open' && !data.failed && payment.waited < 20
	);
</script>

<svelte:head>
	<title>{view.title} {view.number} from {view.seller.name}</title>
	<meta name="robots" content="noindex" />
</svelte:head>
<main class="max-w-225 my-0 mx-auto pt-6 pb-15 px-3.5 grid gap-4">
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
				<h1 class="text-[2rem]">Credit note of £{view.payable.amount}</h1>
			{:else if data.state === 'paid'}
				<h1 class="text-[2rem]">Paid. Thank you.</h1>
				<p class="quiet">
					{displayPounds(data.paid)} received{data.withheld
						? `, ${displayPounds(data.withheld)} deducted under CIS`
						: ''}
				</p>
			{:else if data.state === 'credited'}
				<h1 class="text-[2rem]">Nothing to pay</h1>
				<p class="quiet">This invoice has been credited.</p>
			{:else if data.state === 'pending'}
				<h1 class="text-[2rem]">Your payment is on its way</h1>
				<p class="quiet">It takes a little to settle. There is nothing more to do.</p>
			{:else}
				<h1 class="text-[2rem]">
					{displayPounds(data.toPay)}
					<small
						class="[font:500_1rem_'Atkinson_Hyperlegible_Next_Variable',sans-serif] tracking-[0]"
						>to pay{view.due ? ` by ${view.due}` : ''}</small
					>
				</h1>
				{#if data.paid || data.credited}<p class="quiet">
						{displayPounds(data.paid + data.credited)} of it is paid or credited already.
					</p>{/if}
				{#if data.failed}<p class="wrong" role="alert">
						Your bank did not carry the transfer out. Nothing was taken.
					</p>{/if}
				{#if confirming}<p role="status">
						Waiting for the word of {data.from === 'bank' ? 'your bank' : 'the card processor'} …
					</p>{/if}
			{/if}
		</div>
		{#if open && data.state !== 'pending' && !confirming}
			<Form
				leaves
				class="grid gap-2.5 min-w-52.5"
				action="{page.url.pathname}?/card"
				hidden={{ key: payment.key }}
			>
				{#snippet children(frame)}
					{#if payment.part || frame.error('amount')}
						<Money
							label="How much"
							name="amount"
							value={displayAmount(data.toPay).replaceAll(',', '')}
						/>
					{/if}
					{#if data.keptCard === '' && !data.trial}<label class="check"
							><input type="checkbox" name="keepCard" /><span
								>Keep this card for agreed repeat invoices <span class="quiet"
									>only the processor’s token is kept; you can take it back here at any time</span
								></span
							></label
						>{/if}
					<button class="button filled">Pay by card</button>
					<button class="button" formaction="{page.url.pathname}?/bank">Pay from your bank</button>
					{#if data.mayBearFee}<p class="quiet">
							A firm’s commercial card bears its own fee; you see it before you pay.
						</p>{/if}
					{#if !payment.part}<button
							type="button"
							class="button plain"
							onclick={() => (payment.part = true)}>Pay a part</button
						>{/if}
				{/snippet}
			</Form>
		{/if}
		{#if data.keptCard}<Form
				class="kept grid gap-2.5 min-w-52.5"
				action="{page.url.pathname}?/forgetCard"
			>
				<p>A card ending {data.keptCard} is kept for agreed repeat invoices.</p>
				<button class="button">Do not keep it any longer</button>
			</Form>{/if}
		{#if open && view.bank}
			<BankDetails bank={view.bank} amount={displayPounds(data.toPay)} />
		{/if}
		<a class="button self-end" href="{page.url.pathname}/pdf"
			><Download size={18} aria-hidden="true" />PDF</a
		>
	</section>
	<Paper {view} />
</main>
