<script lang="ts">
	import { page } from '$app/state';
	import { untrack } from 'svelte';
	import { displayDate, displayMoment } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import { NOTHING_PICKED, type Picked } from '$lib/core/quotes/chosen';
	import PaymentNews from '$lib/ui/money/PaymentNews.svelte';
	import { publicPayment } from '$lib/ui/money/payment.svelte';
	import Confirm from '$lib/ui/parts/Confirm.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Fold from '$lib/ui/parts/Fold.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import AcceptForm from '$lib/ui/quotes/AcceptForm.svelte';
	import QuotePaper from '$lib/ui/quotes/QuotePaper.svelte';

	let { data } = $props();
	let picked = $state<Picked>(untrack(() => data.accepted?.picked ?? NOTHING_PICKED));
	$effect(() => {
		if (data.accepted) picked = data.accepted.picked;
	});
	const payment = publicPayment(() => data);
	let path = $derived(page.url.pathname);
	/** What a contractor deducts, worked out where it is known what materials cost. */
	let payable = $state<bigint | null>(null);
	$effect(() => {
		if (!data.quote.contractor) return;
		const asked = JSON.stringify(picked);
		void fetch(`${path}/figures`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: asked
		})
			.then((response) => (response.ok ? response.json() : null))
			.then((answer: { payable: string } | null) => {
				if (JSON.stringify(picked) === asked) payable = answer ? BigInt(answer.payable) : null;
			})
			.catch(() => undefined);
	});
	let cancelling = $state(false);
	let notice = $state<HTMLFormElement>();
	let waits = $derived(data.deposit?.state === 'asked');
</script>

<svelte:head>
	<title>{data.quote.name} {data.number} from {data.quote.seller.name}</title>
	<meta name="robots" content="noindex" />
</svelte:head>
<main class="mx-auto my-0 grid max-w-140 gap-5 pb-15">
	{#if data.trial}<p
			class="bg-(--tape) px-5 py-2.5 text-center font-semibold text-(--on-tape)"
			role="status"
		>
			Test: nothing here counts, and nothing is agreed
		</p>{/if}
	{#if data.state !== 'open'}
		<section
			class="panel mx-5 mt-5 grid gap-2 border-t-8 border-t-(--ink) px-5 py-4"
			aria-label="How it stands"
		>
			{#if data.state === 'accepted' && data.accepted}
				<h1 class="text-[1.7rem]">Agreed. Thank you.</h1>
				<p>
					{data.accepted.name} accepted this on {displayDate(data.accepted.on)}, at
					<b>{displayPounds(data.accepted.total)}</b>.
				</p>
				{#if data.deposit}
					{#if waits}
						<p>
							{#if data.deposit.deduction}The deposit is {displayPounds(data.deposit.amount)}, of
								which you keep back {displayPounds(data.deposit.deduction)}. Please pay
								<b>{displayPounds(data.deposit.amount - data.deposit.deduction)}</b>
								now.{:else}Please pay the deposit of <b>{displayPounds(data.deposit.amount)}</b> now.{/if}
							The VAT invoice follows on the day it comes.
						</p>
						<PaymentNews {payment} from={data.from} last={data.last} />
						{#if !payment.confirming && data.last?.state !== 'pending'}<Form
								leaves
								class="flex flex-wrap gap-2.5"
								action="{path}?/card"
								hidden={{ key: payment.key }}
							>
								<button class="button filled min-h-12">Pay the deposit by card</button>
								<button class="button min-h-12" formaction="{path}?/bank">Pay from your bank</button
								>
							</Form>{/if}
					{:else if data.deposit.state !== 'withdrawn'}<p>
							The deposit of {displayPounds(data.deposit.amount - data.deposit.deduction)} is paid. Thank
							you.
						</p>{/if}
				{/if}
				{#if data.accepted.cancelUntil}
					<p class="quiet">
						You can cancel until {data.accepted.cancelUntil === 'open'
							? '14 days after the last of the materials came'
							: `the end of ${displayDate(data.accepted.cancelUntil)}`}.{#if data.accepted.beginsEarly}
							For what is done by then at your request you pay its share.{/if}
					</p>
					{#if data.accepted.mayCancel}
						<Form
							bind:root={notice}
							action="{path}?/cancel"
							done="Your notice has reached us. Its receipt is on its way by e-mail."
						>
							<button
								class="button"
								onclick={(event) => {
									event.preventDefault();
									cancelling = true;
								}}>Cancel this contract</button
							>
						</Form>
						<Confirm
							bind:open={cancelling}
							title="Cancel what was agreed?"
							text="This is your notice that you cancel it. What you paid comes back within 14 days, less the share of what was done at your request."
							yes="Yes, I cancel the contract"
							onyes={() => notice?.requestSubmit()}
						/>
					{/if}
				{/if}
				{#if data.accepted.hasRecord}<p>
						<a href="{path}/pdf">What was agreed, as a PDF</a>
					</p>{/if}
			{:else if data.state === 'cancelled'}
				<h1 class="text-[1.7rem]">Cancelled</h1>
				<p>
					Your notice of {displayDate(data.accepted!.cancelledOn!)} has reached us. What you paid comes
					back to you within 14 days.
				</p>
			{:else if data.state === 'declined'}
				<h1 class="text-[1.7rem]">You declined this</h1>
				<p>Thank you for letting us know. If you think otherwise, tell us.</p>
			{:else if data.state === 'withdrawn'}
				<h1 class="text-[1.7rem]">This has been withdrawn</h1>
				<p>It cannot be accepted any more. Please get in touch.</p>
			{:else}
				<h1 class="text-[1.7rem]">This has expired</h1>
				<p>
					It held until {displayDate(data.validUntil)}. Ask us below, and we look whether it still
					stands.
				</p>
			{/if}
		</section>
	{/if}
	{#if data.differs.length && data.state === 'open'}
		<section class="panel mx-5 mt-5 grid gap-1 border-l-6 border-l-(--tape) px-4.5 py-3.5">
			<h2 class="text-[1.1rem]">This is version {data.version}. What is new:</h2>
			<ul class="list-disc pl-5">
				{#each data.differs as words, index (index)}<li>{words}</li>{/each}
			</ul>
		</section>
	{/if}
	<QuotePaper
		quote={data.quote}
		number={data.number}
		validUntil={data.validUntil}
		bind:picked
		below={data.state !== 'open'}
		fixed={data.accepted !== null}
		{payable}
	/>
	{#if data.files.length}
		<ul class="flex flex-wrap gap-3 px-5" aria-label="With it">
			{#each data.files as file (file.id)}<li>
					<a class="grid gap-1" href="{path}/files/{file.id}" target="_blank" rel="noreferrer"
						>{#if file.picture}<img
								class="h-27.5 border border-(--hair)"
								src="{path}/files/{file.id}?small"
								alt=""
								loading="lazy"
							/>{/if}{file.name}</a
					>
				</li>{/each}
		</ul>
	{/if}
	{#if data.state === 'open'}
		<AcceptForm quote={data.quote} {picked} version={data.version} action="{path}?/accept" />
	{/if}
	<div class="grid gap-3 px-5">
		{#if data.questions.length}
			<h2 class="text-[1.1rem]">Questions</h2>
			<ul class="grid gap-2">
				{#each data.questions as one, index (index)}<li
						class="border-l-4 border-l-(--hair) pl-3 whitespace-pre-line wrap-anywhere"
					>
						{one.question}
						<span class="quiet block">{displayMoment(one.at)}</span>
						{#if one.answer}<p class="pt-1">{one.answer}</p>{:else}<p class="quiet pt-1">
								Not answered yet.
							</p>{/if}
					</li>{/each}
			</ul>
		{/if}
		{#if data.state !== 'withdrawn'}<Fold label="Ask a question">
				<Form action="{path}?/ask" keyed reset done="It is on its way to us." class="grid gap-3">
					<Field label="What would you like to know?" name="question" rows={3} />
					<div><button class="button">Ask</button></div>
				</Form>
			</Fold>{/if}
		{#if data.state === 'open'}<Fold label="Decline">
				<Form action="{path}?/decline" class="grid gap-3">
					<Field label="Why, if you like to say" name="reason" rows={2} />
					<div><button class="button">Decline it</button></div>
				</Form>
			</Fold>{/if}
		<p><a href="{path}/pdf">PDF</a></p>
	</div>
</main>
