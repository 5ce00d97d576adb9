<!-- How often something repeats, until when, and what happens with it. -->
<script lang="ts">
	import DateField from '$lib/ui/parts/DateField.svelte';
	import Choice from '../parts/Choice.svelte';
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
	let { values, card }: { values: RepeatFieldValues; card: string } = $props();
	let ends = $derived(values.ends);
</script>

<div
	class="fields grid grid-cols-[repeat(auto-fit,minmax(200px,1fr))] gap-y-3 gap-x-4.5 items-start"
>
	<div class="col-span-full">
		<Field label="Name, for you" name="name" value={values.name} />
	</div>
	<DateField label="First on" name="start" value={values.start} />
	<div class="every grid grid-cols-[80px_1fr] gap-2">
		<Field label="Every" name="every" inputmode="numeric" value={values.every} />
		<Choice
			label="Days, weeks, months or years"
			quiet
			name="unit"
			value={values.unit}
			class="self-end"
		>
			<option value="day">days</option>
			<option value="week">weeks</option>
			<option value="month">months</option>
			<option value="year">years</option>
		</Choice>
	</div>
	<Choice label="Until" name="ends" bind:value={ends}>
		<option value="never">further notice</option>
		<option value="after">so many were made</option>
		<option value="on">a day</option>
	</Choice>
	{#if ends === 'after'}<Field
			label="How many in all"
			name="after"
			inputmode="numeric"
			value={values.after}
		/>
	{:else if ends === 'on'}<DateField label="Last day" name="on" value={values.on} />{/if}
	<Choice label="On a weekend or bank holiday" name="weekend" value={values.weekend}>
		<option value="asIs">leave it there</option>
		<option value="nextWorkingDay">the next working day</option>
		<option value="previousWorkingDay">the working day before</option>
	</Choice>
	<fieldset class="col-span-full">
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
