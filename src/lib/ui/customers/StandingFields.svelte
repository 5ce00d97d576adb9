<!-- What tax looks at: VAT, CIS, the end-user statement, and the day from which it holds. -->
<script lang="ts">
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { isVatNumber, readVerificationNumber } from '$lib/core/regimes/gb/checks';
	import type { CisRate } from '$lib/core/regimes/types';
	import Field from '../parts/Field.svelte';
	import type { CustomerValues } from './values';

	interface Props {
		standing: CustomerValues['standing'];
		contractor: boolean;
		errors: Record<string, string>;
	}
	let { standing = $bindable(), contractor, errors }: Props = $props();

	let vatHint = $derived(
		standing.vatNumber && !isVatNumber(standing.vatNumber)
			? 'One of these digits is wrong, or some are missing.'
			: ''
	);
	let verification = $derived(
		standing.verificationNumber ? readVerificationNumber(standing.verificationNumber) : null
	);
</script>

<fieldset class="grid gap-2.5">
	<legend class="font-[650] mb-0.5">Tax standing</legend>
	<label class="check"
		><input type="checkbox" name="standing.vatRegistered" bind:checked={standing.vatRegistered} /> Registered
		for VAT</label
	>
	{#if standing.vatRegistered}
		<Field
			label="VAT number"
			name="standing.vatNumber"
			bind:value={standing.vatNumber}
			error={errors['standing.vatNumber'] ?? (vatHint || undefined)}
		/>
	{/if}
	{#if contractor}
		<label class="check"
			><input type="checkbox" name="standing.cisRegistered" bind:checked={standing.cisRegistered} /> Registered
			for CIS</label
		>
		<label class="field">
			<span class="name">Deducts from what it pays you</span>
			<select
				class="box"
				name="standing.cisRate"
				aria-invalid={errors['standing.cisRate'] ? 'true' : undefined}
				value={standing.cisRate ?? ''}
				onchange={(event) =>
					(standing.cisRate = (event.currentTarget.value || null) as CisRate | null)}
			>
				<option value="">not known yet</option>
				<option value="0">0 %: gross payment status</option>
				<option value="20">20 %: you are registered</option>
				<option value="30">30 %: not matched</option>
			</select>
			{#if errors['standing.cisRate']}<span class="wrong">{errors['standing.cisRate']}</span>{/if}
		</label>
		<Field
			label="Verification number"
			name="standing.verificationNumber"
			bind:value={standing.verificationNumber}
			error={errors['standing.verificationNumber']}
			hint={verification && !verification.matched
				? 'Letters at the end: HMRC found no match, so 30 %.'
				: 'V and ten digits, as the contractor quotes it.'}
		/>
		<label class="check"
			><input type="checkbox" name="standing.endUser" bind:checked={standing.endUser} /> Has said in writing
			that it is an end user or intermediary supplier</label
		>
		{#if standing.endUser}
			<div class="grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-y-2.5 gap-x-3.5">
				<DateField
					label="Day of that statement"
					name="standing.endUserDate"
					bind:value={standing.endUserDate}
					error={errors['standing.endUserDate']}
				/>
			</div>
			<Field
				label="What it says"
				name="standing.endUserStatement"
				rows={2}
				bind:value={standing.endUserStatement}
				error={errors['standing.endUserStatement']}
			/>
		{/if}
	{/if}
	<DateField
		label="From which day is that so?"
		name="standing.from"
		bind:value={standing.from}
		error={errors['standing.from']}
		hint="Empty: from the start. Documents issued before keep theirs."
	/>
</fieldset>
