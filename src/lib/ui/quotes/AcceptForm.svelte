<!-- Accepting: what consumer law asks for, a name, a signature, and the button that says that it binds. -->
<script lang="ts">
	import { ACCEPT_WORDS, ACKNOWLEDGE_WORDS, BEGIN_WORDS } from '$lib/core/regimes/gb/consumer';
	import { publicFigures, type PublicQuote } from '$lib/core/quotes/public';
	import type { Picked } from '$lib/core/quotes/chosen';
	import Field from '../parts/Field.svelte';
	import FilePick from '../parts/FilePick.svelte';
	import Fold from '../parts/Fold.svelte';
	import Form from '../parts/Form.svelte';
	import Tick from '../parts/Tick.svelte';
	import Signature from '../signing/Signature.svelte';

	interface Props {
		quote: PublicQuote;
		picked: Picked;
		version: number;
		action: string;
	}
	let { quote, picked, version, action }: Props = $props();
	let total = $derived(String(publicFigures(quote, picked).quote.figures.total));
	let signature = $state('');
	let begin = $state(false);
	let firm = $derived(quote.customer.kind !== 'household');
</script>

<Form
	class="panel mx-5 grid gap-3.5 px-4.5 py-4"
	{action}
	keyed
	hidden={{ n: version, total, picked: JSON.stringify(picked), signature }}
>
	{#snippet children(frame)}
		<h2>Accept</h2>
		{#if quote.right.may}
			<Tick name="begin" bind:checked={begin}>{BEGIN_WORDS}</Tick>
			{#if begin}<Tick name="acknowledged" checked={false}>{ACKNOWLEDGE_WORDS}</Tick>{/if}
		{/if}
		<Field
			label={firm ? 'Your name' : 'Your name, in full'}
			name="name"
			autocomplete="name"
			maxlength={200}
		/>
		{#if firm}
			<Field label="Your position" name="position" maxlength={200} />
			<Field
				label="Your order number{quote.customer.orderNumberRequired ? '' : ', if there is one'}"
				name="orderNumber"
				maxlength={60}
			/>
			<FilePick
				label="The order itself, if you like"
				name="order"
				accept="application/pdf,image/*"
			/>
		{/if}
		<Signature bind:value={signature} error={frame.error('signature')} />
		{#if frame.error('picked')}<p class="wrong">{frame.error('picked')}</p>{/if}
		<button class="button filled min-h-13"
			>{quote.binding ? ACCEPT_WORDS : 'Accept, with obligation to pay for what is done'}</button
		>
		<p class="quiet">
			{#if quote.right.may}{quote.right.why} For work done by then at your request you pay its share.
			{:else if !firm}There is no right to cancel: {quote.right.why}{/if}
			Your name, the moment and where you did this from are kept for six years, as evidence of what was
			agreed.
		</p>
		{#if quote.information.length}<Fold label="How to cancel, and the form">
				<div class="grid gap-2">
					{#each quote.information as words (words)}<p>{words}</p>{/each}
					<div class="border border-(--hair) p-3">
						<b class="font-semibold">Form to cancel with</b>
						<p class="quiet">Complete and return it only if you wish to cancel.</p>
						{#each quote.form as words (words)}<p>{words}</p>{/each}
					</div>
				</div>
			</Fold>{/if}
	{/snippet}
</Form>
