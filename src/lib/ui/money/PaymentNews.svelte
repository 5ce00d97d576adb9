<!-- What became of the payment somebody has just come back from. -->
<script lang="ts">
	import { page } from '$app/state';
	import { displayPounds } from '$lib/core/money/display';
	import type { publicPayment } from './payment.svelte';

	interface Props {
		payment: ReturnType<typeof publicPayment>;
		from: string;
		last: { amount: number } | null;
	}
	let { payment, from, last }: Props = $props();
	let who = $derived(from === 'bank' ? 'your bank' : 'the card processor');
</script>

<svelte:head
	>{#if payment.confirming}<noscript><meta http-equiv="refresh" content="4" /></noscript
		>{/if}</svelte:head
>
<div role="status">
	{#if payment.confirming}
		<p>Waiting for the word of {who} …</p>
		<p class="quiet"><a href={page.url.pathname}>Not paid yet? Go back to paying</a></p>
	{:else if payment.silent}
		<p>
			{who[0]!.toUpperCase() + who.slice(1)} has not said yet what became of it. If you have paid, do
			not pay again: it will show here.
		</p>
	{:else if payment.arrived && last}
		<p class="font-semibold">{displayPounds(last.amount)} has just been received. Thank you.</p>
	{/if}
</div>
{#if payment.failed}<p class="wrong" role="alert">
		Your bank did not carry the transfer out. Nothing was taken.
	</p>{/if}
