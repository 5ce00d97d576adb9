<!-- How often something repeats, until when, and what happens with it. -->
<script lang="ts">
	import DateField from '$lib/ui/parts/DateField.svelte';
	import Field from '../parts/Field.svelte';

	export interface RepeatFieldValues {
		name: string;
		start: string;
		every: string;
		unit: string;
		ends: string;
		after: string;
		on: string;
		weekend: string;
		action: string;
	}
	let {
		values,
		errors,
		card
	}: { values: RepeatFieldValues; errors: Record<string, string>; card: string } = $props();
	let ends = $derived(values.ends);
</script>

<div class="fields">
	<div class="wide">
		<Field label="Name, for you" name="name" value={values.name} error={errors.name} />
	</div>
	<DateField label="First on" name="start" value={values.start} error={errors.start} />
	<div class="every">
		<Field
			label="Every"
			name="every"
			inputmode="numeric"
			value={values.every}
			error={errors.every}
		/>
		<label class="field"
			><span class="name">&nbsp;</span><select
				class="box"
				name="unit"
				aria-label="Days, weeks, months or years"
				value={values.unit}
			>
				<option value="day">days</option>
				<option value="week">weeks</option>
				<option value="month">months</option>
				<option value="year">years</option>
			</select></label
		>
	</div>
	<label class="field"
		><span class="name">Until</span><select class="box" name="ends" bind:value={ends}>
			<option value="never">further notice</option>
			<option value="after">so many were made</option>
			<option value="on">a day</option>
		</select></label
	>
	{#if ends === 'after'}<Field
			label="How many in all"
			name="after"
			inputmode="numeric"
			value={values.after}
			error={errors.after}
		/>
	{:else if ends === 'on'}<DateField
			label="Last day"
			name="on"
			value={values.on}
			error={errors.on}
		/>{/if}
	<label class="field"
		><span class="name">On a weekend or bank holiday</span><select
			class="box"
			name="weekend"
			value={values.weekend}
		>
			<option value="asIs">leave it there</option>
			<option value="nextWorkingDay">the next working day</option>
			<option value="previousWorkingDay">the working day before</option>
		</select></label
	>
	<fieldset class="wide">
		<legend class="quiet">What happens on the day</legend>
		<label class="check"
			><input type="radio" name="action" value="draft" checked={values.action === 'draft'} /><span
				>It is left as a draft for you</span
			></label
		>
		<label class="check"
			><input type="radio" name="action" value="send" checked={values.action === 'send'} /><span
				>It is issued and sent by itself</span
			></label
		>
		<label class="check"
			><input type="radio" name="action" value="charge" checked={values.action === 'charge'} /><span
				>It is issued, sent and charged to the customer’s kept card <span class="quiet"
					>{card
						? `ending ${card}`
						: 'none is kept yet: until one is, it goes out as an ordinary invoice'}</span
				></span
			></label
		>
	</fieldset>
</div>

<style>
	.fields {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
		gap: 12px 18px;
		align-items: start;
	}
	.wide {
		grid-column: 1 / -1;
	}
	.every {
		display: grid;
		grid-template-columns: 80px 1fr;
		gap: 8px;
	}
</style>
