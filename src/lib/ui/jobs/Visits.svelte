<!-- The visits of a job, and a row to add one. -->
<script lang="ts">
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { enhance } from '$app/forms';
	import { displayDate } from '$lib/core/calendar/conversion';
	import Field from '../parts/Field.svelte';

	interface Visit {
		id: number;
		date: string;
		from: string;
		to: string;
		person: string;
		note: string;
		done: boolean;
	}
	interface Props {
		visits: Visit[];
		today: string;
		errors: Record<string, string>;
	}
	let { visits, today, errors }: Props = $props();
	let adding = $state(false);
</script>

<section class="panel">
	<h2>Visits</h2>
	<ul>
		{#each visits as visit (visit.id)}
			<li>
				<form method="post" action="?/visit" use:enhance>
					<input type="hidden" name="entry" value={visit.id} />
					<input type="hidden" name="date" value={visit.date} />
					<input type="hidden" name="from" value={visit.from} />
					<input type="hidden" name="to" value={visit.to} />
					<input type="hidden" name="person" value={visit.person} />
					<input type="hidden" name="note" value={visit.note} />
					<label class="check"
						><input
							type="checkbox"
							name="done"
							checked={visit.done}
							onchange={(event) => event.currentTarget.form!.requestSubmit()}
						/><span
							><b>{displayDate(visit.date)}</b>
							{visit.from}{visit.to ? `–${visit.to}` : ''}
							{visit.person}<span class="quiet note">{visit.note}</span></span
						></label
					>
				</form>
				<form method="post" action="?/removeVisit" use:enhance>
					<input type="hidden" name="entry" value={visit.id} />
					<button class="button plain"
						>Remove<span class="sr-only"> the visit of {displayDate(visit.date)}</span></button
					>
				</form>
			</li>
		{:else}
			<li class="quiet">None is booked.</li>
		{/each}
	</ul>
	{#if adding || Object.keys(errors).length}
		<form
			class="add"
			method="post"
			action="?/visit"
			use:enhance={() =>
				async ({ result, update }) => {
					await update({ reset: result.type === 'success' });
					if (result.type === 'success') adding = false;
				}}
		>
			<DateField label="Day" name="date" value={today} error={errors.date} />
			<Field label="From" name="from" inputmode="numeric" placeholder="09:30" error={errors.from} />
			<Field label="To" name="to" inputmode="numeric" placeholder="09:30" error={errors.to} />
			<Field label="Who" name="person" error={errors.person} />
			<Field label="Note" name="note" error={errors.note} />
			<button class="button filled">Add the visit</button>
		</form>
	{:else}
		<button class="button" type="button" onclick={() => (adding = true)}>Add a visit</button>
	{/if}
</section>

<style>
	section {
		padding: 16px 18px;
		display: grid;
		gap: 8px;
		justify-items: start;
	}
	ul {
		width: 100%;
	}
	li {
		display: flex;
		justify-content: space-between;
		gap: 8px;
		border-bottom: 1px solid var(--hair);
		padding: 4px 0;
	}
	.note {
		display: block;
		white-space: pre-line;
	}
	.add {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(130px, 1fr));
		gap: 10px 14px;
		width: 100%;
		align-items: end;
	}
</style>
