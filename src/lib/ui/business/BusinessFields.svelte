<!-- One part of the owner's settings, to be changed: only what the law needs is required. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { isUtr, isVatNumber } from '$lib/core/regimes/gb/checks';
	import { formatIban } from '$lib/core/documents/account';
	import Choice from '../parts/Choice.svelte';
	import Field from '../parts/Field.svelte';
	import { frameOf } from '../parts/frame';
	import Tick from '../parts/Tick.svelte';

	interface Props {
		part: 'you' | 'tax' | 'bank' | 'invoices';
		values: Record<string, unknown>;
	}
	let { part, values }: Props = $props();
	const text = (name: string) => String(values[name] ?? '');
	const frame = frameOf(undefined);
	/** As it stood, or as it was ticked before it was refused. */
	const initially = (name: string) => {
		const value = frame?.kept(name) ?? values[name];
		return value === true || value === 'on';
	};
	let registered = $state(initially('vatRegistered'));
	let cis = $state(initially('cisSubcontractor'));
	const chosen = (name: string, otherwise: string) =>
		String(frame?.kept(name) ?? values[name] ?? otherwise);
	let basis = $state(chosen('vatBasis', 'invoice'));
	let vatNumber = $state(text('vatNumber'));
	let utr = $state(text('utr'));
	const wasRegistered = untrack(() => values.vatRegistered === true);
	let vatHint = $derived(
		vatNumber && !isVatNumber(vatNumber) ? 'One of these digits is wrong, or some are missing.' : ''
	);
	let utrHint = $derived(
		utr && !isUtr(utr) ? 'One of these ten digits is wrong, or some are missing.' : ''
	);
</script>

{#if part === 'you'}
	<div class="grid grid-cols-[repeat(auto-fit,minmax(220px,1fr))] gap-y-3 gap-x-4">
		<Field
			label="Your own name"
			name="ownerName"
			value={text('ownerName')}
			autocomplete="name"
			required
			hint="Must be on every invoice, besides a trading name."
		/>
		<Field
			label="Trading name, if you have one"
			name="tradingName"
			value={text('tradingName')}
			autocomplete="organization"
		/>
	</div>
	<Field label="Business address" name="address" value={text('address')} rows={3} />
	<div class="grid grid-cols-[repeat(auto-fit,minmax(220px,1fr))] gap-y-3 gap-x-4">
		<Field
			label="E-mail"
			name="email"
			type="email"
			value={text('email')}
			autocomplete="email"
			hint="For copies, tests, and news of payments."
		/>
		<Field label="Phone" name="phone" type="tel" value={text('phone')} autocomplete="tel" />
	</div>
{:else if part === 'tax'}
	<Tick name="vatRegistered" bind:checked={registered}>I am registered for VAT</Tick>
	{#if registered}
		<Field
			label="VAT number"
			name="vatNumber"
			bind:value={vatNumber}
			hint={vatHint}
			inputmode="numeric"
		/>
		<Choice label="Your VAT periods end with" name="vatStagger" value={text('vatStagger')}>
			<option value="">not said yet</option>
			<option value="march">March, June, September, December</option>
			<option value="april">April, July, October, January</option>
			<option value="may">May, August, November, February</option>
			<option value="monthly">each month</option>
		</Choice>
		<Choice
			label="VAT on your sales counts"
			name="vatBasis"
			value={basis}
			onchange={(event) => (basis = event.currentTarget.value)}
		>
			<option value="invoice">by tax point, as is usual</option>
			<option value="cash">when you are paid (cash accounting)</option>
		</Choice>
		{#if basis === 'cash'}<DateField
				label="On cash accounting since"
				name="vatCashFrom"
				value={text('vatCashFrom')}
				hint="What has its tax point before that day counts by it. Empty: always."
			/>{/if}
	{:else}
		<input type="hidden" name="vatNumber" value={vatNumber} />
		<input type="hidden" name="vatStagger" value={text('vatStagger')} />
		<input type="hidden" name="vatBasis" value={basis} />
		<input type="hidden" name="vatCashFrom" value={text('vatCashFrom')} />
		<p class="quiet">
			Your invoices show no VAT. If you register later, say so here with the day from which it
			holds.
		</p>
	{/if}
	{#if registered !== wasRegistered}
		<DateField label="From which day?" name="vatFrom" value={text('vatFrom')} />
	{/if}
	<Tick name="cisSubcontractor" bind:checked={cis}
		>I work for contractors, as a subcontractor under CIS</Tick
	>
	{#if cis}
		<Field
			label="UTR (unique taxpayer reference)"
			name="utr"
			bind:value={utr}
			inputmode="numeric"
			hint={utrHint || 'Contractors need it to verify you with HMRC.'}
		/>
	{:else}
		<input type="hidden" name="utr" value={utr} />
	{/if}
{:else if part === 'bank'}
	<Field label="Name of the account" name="bankAccountName" value={text('bankAccountName')} />
	<div class="grid grid-cols-[repeat(auto-fit,minmax(220px,1fr))] gap-y-3 gap-x-4">
		<Field label="Sort code" name="bankSortCode" value={text('bankSortCode')} inputmode="numeric" />
		<Field
			label="Account number"
			name="bankAccountNumber"
			value={text('bankAccountNumber')}
			inputmode="numeric"
		/>
		<Field
			label="IBAN, for payers abroad"
			name="bankIban"
			value={formatIban(text('bankIban'))}
			autocomplete="off"
		/>
		<Field label="BIC" name="bankBic" value={text('bankBic')} autocomplete="off" />
	</div>
	{#if text('bankAccountNumber') || text('bankIban')}
		<Field
			label="Your password, to change the account"
			name="current"
			type="password"
			autocomplete="current-password"
			hint="Money goes where this says: you are told by e-mail when it is changed."
		/>
	{/if}
{:else}
	<div class="grid grid-cols-[repeat(auto-fit,minmax(220px,1fr))] gap-y-3 gap-x-4">
		<Field
			label="Number pattern"
			name="invoicePattern"
			value={text('invoicePattern') || 'INV-{nnnn}'}
			hint={'{nnnn} is the running number, {year} the year.'}
		/>
		<Field
			label="Next number"
			name="invoiceNext"
			value={text('invoiceNext') || '1'}
			inputmode="numeric"
			hint="Any you like, as long as it was not taken."
		/>
		<Field
			label="Terms, in days"
			name="termsDays"
			value={text('termsDays') || '14'}
			inputmode="numeric"
		/>
	</div>
	<Tick name="termsEndOfMonth" checked={initially('termsEndOfMonth')}
		>Due at the end of the month those days fall in</Tick
	>
	<Tick name="copyToSelf" checked={values.copyToSelf === undefined || initially('copyToSelf')}
		>Send me a copy of what I send</Tick
	>
	<Field
		label="What a text costs you, £ a part"
		name="textPrice"
		value={text('textPrice')}
		inputmode="decimal"
		placeholder="0.045"
		hint="As your text service charges it: it is shown before a text goes."
	/>
	<Tick name="passOnCardFees" checked={initially('passOnCardFees')}
		>Firms’ commercial cards bear their own fee, at cost (the law forbids it for consumers’ cards)</Tick
	>
{/if}
