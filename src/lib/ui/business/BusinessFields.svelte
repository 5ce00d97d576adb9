<!-- The owner's business: only what the law needs is required; the same fields at first start and in the settings. -->
<script lang="ts">
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { isUtr, isVatNumber } from '$lib/core/regimes/gb/checks';
	import Field from '../parts/Field.svelte';

	interface Props {
		values: Record<string, unknown>;
		errors: Record<string, string>;
		/** In the settings a change of registration asks from which day it holds. */
		first?: boolean;
	}
	let { values, errors, first = false }: Props = $props();
	const text = (name: string) => String(values[name] ?? '');
	const initially = (name: string) => values[name] === true || values[name] === 'on';
	let registered = $state(initially('vatRegistered'));
	let cis = $state(initially('cisSubcontractor'));
	let vatNumber = $state(text('vatNumber'));
	let utr = $state(text('utr'));
	const wasRegistered = initially('vatRegistered');
	let vatHint = $derived(
		vatNumber && !isVatNumber(vatNumber) ? 'One of these digits is wrong, or some are missing.' : ''
	);
	let utrHint = $derived(
		utr && !isUtr(utr) ? 'One of these ten digits is wrong, or some are missing.' : ''
	);
</script>

<fieldset>
	<legend>You</legend>
	<div class="two">
		<Field
			label="Your own name"
			name="ownerName"
			value={text('ownerName')}
			autocomplete="name"
			required
			error={errors.ownerName}
			hint="Must be on every invoice, besides a trading name."
		/>
		<Field
			label="Trading name, if you have one"
			name="tradingName"
			value={text('tradingName')}
			autocomplete="organization"
			error={errors.tradingName}
		/>
	</div>
	<Field
		label="Business address"
		name="address"
		value={text('address')}
		rows={3}
		error={errors.address}
	/>
	<div class="two">
		<Field
			label="Mail address"
			name="email"
			type="email"
			value={text('email')}
			autocomplete="email"
			error={errors.email}
			hint="For copies, tests, and news of payments."
		/>
		<Field
			label="Phone"
			name="phone"
			type="tel"
			value={text('phone')}
			autocomplete="tel"
			error={errors.phone}
		/>
	</div>
</fieldset>

<fieldset id="vat">
	<legend>VAT</legend>
	<label class="check"
		><input type="checkbox" name="vatRegistered" bind:checked={registered} /> I am registered for VAT</label
	>
	{#if registered}
		<Field
			label="VAT number"
			name="vatNumber"
			bind:value={vatNumber}
			error={errors.vatNumber ?? (vatHint || undefined)}
			inputmode="numeric"
		/>
	{:else}
		<p class="quiet">
			Your invoices show no VAT. If you register later, say so in the settings with the day from
			which it holds.
		</p>
	{/if}
	{#if !first && registered !== wasRegistered}
		<DateField
			label="From which day does that hold?"
			name="vatFrom"
			value={text('vatFrom')}
			error={errors.vatFrom}
		/>
	{/if}
</fieldset>

<fieldset>
	<legend>Construction Industry Scheme</legend>
	<label class="check"
		><input type="checkbox" name="cisSubcontractor" bind:checked={cis} /> I work for contractors, as a
		subcontractor under CIS</label
	>
	{#if cis}
		<Field
			label="UTR (unique taxpayer reference)"
			name="utr"
			bind:value={utr}
			error={errors.utr ?? (utrHint || undefined)}
			inputmode="numeric"
			hint="Contractors need it to verify you with HMRC."
		/>
	{:else}
		<input type="hidden" name="utr" value={utr} />
	{/if}
</fieldset>

<fieldset>
	<legend>Bank, for transfers</legend>
	<Field
		label="Name of the account"
		name="bankAccountName"
		value={text('bankAccountName')}
		error={errors.bankAccountName}
	/>
	<div class="two">
		<Field
			label="Sort code"
			name="bankSortCode"
			value={text('bankSortCode')}
			inputmode="numeric"
			error={errors.bankSortCode}
		/>
		<Field
			label="Account number"
			name="bankAccountNumber"
			value={text('bankAccountNumber')}
			inputmode="numeric"
			error={errors.bankAccountNumber}
		/>
	</div>
</fieldset>

<fieldset>
	<legend>Invoices</legend>
	<div class="two">
		<Field
			label="Number pattern"
			name="invoicePattern"
			value={text('invoicePattern') || 'INV-{nnnn}'}
			error={errors.invoicePattern}
			hint={'{nnnn} is the running number, {year} the year.'}
		/>
		<Field
			label={first ? 'First number' : 'Next number'}
			name="invoiceNext"
			value={text('invoiceNext') || '1'}
			inputmode="numeric"
			error={errors.invoiceNext}
			hint={first ? 'Any you like: no one needs to see that it is the first.' : ''}
		/>
		<Field
			label="Terms, in days"
			name="termsDays"
			value={text('termsDays') || '14'}
			inputmode="numeric"
			error={errors.termsDays}
		/>
	</div>
	<label class="check"
		><input type="checkbox" name="termsEndOfMonth" checked={initially('termsEndOfMonth')} /> Due at the
		end of the month those days fall in</label
	>
	<label class="check"
		><input
			type="checkbox"
			name="copyToSelf"
			checked={values.copyToSelf === undefined || initially('copyToSelf')}
		/> Send me a copy of what I send</label
	>
	<label class="check"
		><input type="checkbox" name="passOnCardFees" checked={initially('passOnCardFees')} /> Firms’ commercial
		cards bear their own fee, at cost (the law forbids it for consumers’ cards)</label
	>
</fieldset>

<style>
	fieldset {
		display: grid;
		gap: 12px;
		padding-block: 4px 20px;
		border-bottom: 1px solid var(--hair);
		margin-bottom: 16px;
	}
	legend {
		font: 650 1.15rem var(--font-heading);
		margin-bottom: 10px;
	}
	.two {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
		gap: 12px 16px;
	}
</style>
