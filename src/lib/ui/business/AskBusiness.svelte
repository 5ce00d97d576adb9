<!-- Asks, right where it is missing, for something of the owner's own that a document is the first to need. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import type { SellerRecord } from '$lib/core/parties';
	import { isUtr } from '$lib/core/regimes/gb/checks';
	import type { Asked } from '$lib/core/sheet/types';
	import Field from '../parts/Field.svelte';
	import Form from '../parts/Form.svelte';

	interface Props {
		asks: Asked;
		label: string;
		open?: boolean;
		/** What is known already. */
		values?: Record<string, string>;
		ongiven: (seller: SellerRecord) => void;
	}
	let { asks, label, open = false, values = {}, ongiven }: Props = $props();
	let shown = $state(untrack(() => open));
	let utr = $state('');
	let utrHint = $derived(
		utr && !isUtr(utr) ? 'One of these ten digits is wrong, or some are missing.' : ''
	);
</script>

{#if !shown}
	<button
		type="button"
		class="block font-semibold underline underline-offset-[3px] min-h-7 cursor-pointer"
		onclick={() => (shown = true)}>{label}</button
	>
{:else}
	<Form
		class="grid gap-2.5 mt-2"
		action="/settings?/missing"
		hidden={{ asks }}
		{...open ? {} : { first: 'input:not([type=hidden])' }}
		done="Kept, for every document from now on."
		ondone={(answer) => {
			shown = false;
			ongiven(answer.seller as SellerRecord);
		}}
	>
		{#if asks === 'vatNumber'}
			<Field label="Your VAT number" name="vatNumber" inputmode="numeric" autocomplete="off" />
		{:else if asks === 'utr'}
			<Field
				label="Your UTR (unique taxpayer reference)"
				name="utr"
				inputmode="numeric"
				autocomplete="off"
				bind:value={utr}
				hint={utrHint}
			/>
		{:else if asks === 'bank'}
			<Field
				label="Name of the account"
				name="bankAccountName"
				value={values.bankAccountName ?? ''}
				hint="Empty: your own name."
			/>
			<div class="grid grid-cols-2 gap-2.5">
				<Field label="Sort code" name="bankSortCode" inputmode="numeric" autocomplete="off" />
				<Field
					label="Account number"
					name="bankAccountNumber"
					inputmode="numeric"
					autocomplete="off"
				/>
			</div>
		{:else if asks === 'names'}
			<Field label="Your own name" name="ownerName" value={values.ownerName ?? ''} />
			<Field label="Business address" name="address" rows={3} value={values.address ?? ''} />
		{:else}
			<div class="grid grid-cols-2 gap-2.5">
				<Field
					label="Pattern"
					name="invoicePattern"
					value={values.invoicePattern ?? ''}
					hint={'{nnnn} is the running number, {year} the year.'}
				/>
				<Field
					label="Next number"
					name="invoiceNext"
					inputmode="numeric"
					value={values.invoiceNext ?? ''}
				/>
			</div>
		{/if}
		<div><button class="button">Keep it</button></div>
	</Form>
{/if}
