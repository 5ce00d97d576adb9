<!-- The visits of a job, and a row to add one. -->
<script lang="ts">
	import { fromBin } from '$lib/ui/parts/takeBack';
	import Form from '../parts/Form.svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { displayDate } from '$lib/core/calendar/conversion';
	import Choice from '../parts/Choice.svelte';
	import Field from '../parts/Field.svelte';

	interface Visit {
		id: number;
		date: string;
		from: string;
		to: string;
		person: string;
		personId: number | null;
		note: string;
		done: boolean;
	}
	interface Props {
		visits: Visit[];
		today: string;
		/** Who can be sent. */
		people: readonly { id: number; name: string }[];
	}
	let { visits, today, people }: Props = $props();
	const nameOf = ({ person, personId }: Visit) =>
		people.find(({ id }) => id === personId)?.name || person;
	let adding = $state(false);
</script>

<section class="panel py-4 px-4.5 grid gap-2 justify-items-start">
	<h2>Visits</h2>
	<ul class="w-full">
		{#each visits as visit (visit.id)}
			<li class="flex justify-between gap-2 border-b border-b-(--hair) py-1 px-0">
				<Form
					action="?/visit"
					hidden={{
						entry: visit.id,
						date: visit.date,
						from: visit.from,
						to: visit.to,
						person: visit.person,
						personId: visit.personId,
						note: visit.note
					}}
				>
					<label class="check"
						><input
							type="checkbox"
							name="done"
							checked={visit.done}
							onchange={(event) => event.currentTarget.form!.requestSubmit()}
						/><span
							><b>{displayDate(visit.date)}</b>
							{visit.from}{visit.to ? `–${visit.to}` : ''}
							{nameOf(visit)}<span class="quiet note block whitespace-pre-line">{visit.note}</span
							></span
						></label
					>
				</Form>
				<Form
					action="?/removeVisit"
					hidden={{ entry: visit.id }}
					done="The visit is removed."
					undo={fromBin}
				>
					<button class="button plain"
						>Remove <span class="sr-only">the visit of {displayDate(visit.date)}</span></button
					>
				</Form>
			</li>
		{:else}
			<li class="quiet flex justify-between gap-2 border-b border-b-(--hair) py-1 px-0">
				None is booked.
			</li>
		{/each}
	</ul>
	{#if adding}
		<Form
			class="add grid grid-cols-[repeat(auto-fit,minmax(130px,1fr))] gap-y-2.5 gap-x-3.5 w-full items-end"
			action="?/visit"
			reset
			ondone={() => (adding = false)}
		>
			<DateField label="Day" name="date" value={today} />
			<Field label="From" name="from" inputmode="numeric" placeholder="09:30" />
			<Field label="To" name="to" inputmode="numeric" placeholder="09:30" />
			{#if people.length > 1}<Choice label="Who" name="personId" value="">
					<option value="">nobody yet</option>
					{#each people as one (one.id)}<option value={String(one.id)}>{one.name || 'You'}</option
						>{/each}
				</Choice>{:else}<Field label="Who" name="person" />{/if}
			<Field label="Note" name="note" />
			<button class="button filled">Add the visit</button>
		</Form>
	{:else}
		<button class="button" type="button" onclick={() => (adding = true)}>Add a visit</button>
	{/if}
</section>
