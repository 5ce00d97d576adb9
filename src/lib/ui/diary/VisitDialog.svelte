<!-- One visit: when, who, what the customer is told, and everything that can be done with it; by keyboard as by mouse. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import { displayDate, readTypedDate } from '$lib/core/calendar/conversion';
	import { readTypedTime } from '$lib/core/calendar/times';
	import type { DiaryVisit } from '$lib/core/diary/types';
	import DateField from '../parts/DateField.svelte';
	import Dialog from '../parts/Dialog.svelte';
	import Fold from '../parts/Fold.svelte';

	export interface Placing {
		date: string;
		endDate: string;
		from: string;
		to: string;
		personId: number;
		all: boolean;
	}
	interface Props {
		visit: DiaryVisit | null;
		/** A job that is booked in instead. */
		job?: { jobId: number; title: string; mayBegin: string | null } | null;
		day: string;
		people: readonly { id: number; name: string }[];
		warnings: readonly string[];
		/** Minutes from one place to the next, where a visit does not say otherwise. */
		usual: number;
		today: string;
		errors: Readonly<Record<string, string>>;
		onplace: (place: Placing) => void;
		ondo: (action: string, more?: object) => void;
		ontell: (kind: string) => void;
		onclose: () => void;
	}
	let {
		visit,
		job = null,
		day,
		people,
		warnings,
		usual,
		today,
		errors,
		onplace,
		ondo,
		ontell,
		onclose
	}: Props = $props();
	let place = $state<Placing>({ date: '', endDate: '', from: '', to: '', personId: 0, all: false });
	let detail = $state({
		needs: '1',
		pencil: false,
		weekend: false,
		arriveFrom: '',
		arriveTo: '',
		others: [] as number[],
		travel: '',
		note: ''
	});
	let repeat = $state({ every: '1', unit: 'week', times: '4' });
	let open = $derived(visit !== null || job !== null);
	$effect(() => {
		const [one, booking] = [visit, job];
		untrack(() => {
			if (one) {
				const [arriveFrom = '', arriveTo = ''] = one.arrival.match(/\d\d:\d\d/g) ?? [];
				place = {
					date: one.date,
					endDate: one.endDate === one.date ? '' : one.endDate,
					from: one.from,
					to: one.to,
					personId: one.people[0] ?? 0,
					all: false
				};
				detail = {
					needs: String(one.needs),
					pencil: one.pencil,
					weekend: one.weekend,
					arriveFrom: one.from ? arriveFrom : '',
					arriveTo: one.from ? arriveTo : '',
					others: one.people.slice(1),
					travel: one.ownTravel === null ? '' : String(one.ownTravel),
					note: one.note
				};
			} else if (booking)
				place = {
					date: booking.mayBegin && booking.mayBegin > day ? booking.mayBegin : day,
					endDate: '',
					from: '09:00',
					to: '',
					personId: people.length === 1 ? people[0]!.id : 0,
					all: false
				};
		});
	});
	const time = (typed: string) => readTypedTime(typed) ?? typed;
	function submit(event: SubmitEvent) {
		event.preventDefault();
		onplace({
			...place,
			date: readTypedDate(place.date, today) ?? place.date,
			endDate: place.endDate ? (readTypedDate(place.endDate, today) ?? place.endDate) : '',
			from: time(place.from),
			to: time(place.to)
		});
	}
</script>

<Dialog
	bind:open={() => open, (now) => !now && onclose()}
	title={visit ? visit.title : `Book in: ${job?.title ?? ''}`}
	first="input"
>
	<div class="grid gap-3 pb-3">
		{#if visit}<p class="quiet">
				<a href="/work/{visit.jobId}">{visit.customer}{visit.place ? `, ${visit.place}` : ''}</a>
				{#if visit.confirmed}· they confirmed it{:else if visit.told}· they were told{/if}
			</p>{/if}
		{#each warnings as words (words)}<p class="border-l-4 border-l-(--oxide) pl-3">
				{words}
			</p>{/each}
		{#if errors['']}<p class="wrong" role="alert">{errors['']}</p>{/if}
		<form class="grid gap-3" onsubmit={submit} novalidate>
			<div class="grid grid-cols-2 gap-3 phone:grid-cols-1">
				<DateField label="Day" path="date" bind:value={place.date} error={errors.date} />
				<DateField
					label="To, where it takes several days"
					path="endDate"
					bind:value={place.endDate}
					error={errors.endDate}
				/>
				<label class="field"
					><span class="name">From</span><input
						class="box"
						bind:value={place.from}
						placeholder="09:00"
						aria-invalid={errors.from ? 'true' : undefined}
					/>{#if errors.from}<span class="wrong">{errors.from}</span>{/if}</label
				>
				<label class="field"
					><span class="name">To</span><input
						class="box"
						bind:value={place.to}
						placeholder="12:00"
						aria-invalid={errors.to ? 'true' : undefined}
					/>{#if errors.to}<span class="wrong">{errors.to}</span>{/if}</label
				>
				<label class="field"
					><span class="name">Who</span><select class="box" bind:value={place.personId}>
						<option value={0}>nobody yet</option>
						{#each people as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
					</select></label
				>
			</div>
			{#if visit?.series}<label class="check"
					><input type="checkbox" bind:checked={place.all} /> All of them from here, by as many days</label
				>{/if}
			<div class="flex flex-wrap gap-2">
				<button class="button filled">{visit ? 'Keep it so' : 'Book it in'}</button>
				{#if visit && !visit.done}<button
						type="button"
						class="button"
						onclick={() => ontell(visit!.knows ? 'moved' : 'booked')}>Tell them</button
					>
					<button type="button" class="button" onclick={() => ontell('onTheWay')}>On the way</button
					>{:else if visit}<button type="button" class="button" onclick={() => ontell('finished')}
						>Tell them it is finished</button
					>{/if}
			</div>
		</form>
		{#if visit}
			<Fold label="Arrival time, people, note">
				<div class="grid gap-3">
					<div class="grid grid-cols-2 gap-3">
						<label class="field"
							><span class="name">They are told from</span><input
								class="box"
								bind:value={detail.arriveFrom}
								placeholder="13:00"
							/></label
						>
						<label class="field"
							><span class="name">until</span><input
								class="box"
								bind:value={detail.arriveTo}
								placeholder="15:00"
							/>{#if errors.arriveTo}<span class="wrong">{errors.arriveTo}</span>{/if}</label
						>
						<label class="field"
							><span class="name">People it takes</span><input
								class="box"
								inputmode="numeric"
								bind:value={detail.needs}
							/></label
						>
						<label class="field"
							><span class="name">Minutes to get there</span><input
								class="box"
								inputmode="numeric"
								bind:value={detail.travel}
								placeholder={String(usual)}
								aria-invalid={errors.travel ? 'true' : undefined}
							/>{#if errors.travel}<span class="wrong">{errors.travel}</span>{/if}</label
						>
					</div>
					{#if people.length > 1}<fieldset class="flex flex-wrap gap-x-5">
							<legend class="name">Also goes</legend>
							{#each people.filter(({ id }) => id !== place.personId) as one (one.id)}<label
									class="check"
									><input type="checkbox" value={one.id} bind:group={detail.others} />
									{one.name}</label
								>{/each}
						</fieldset>{/if}
					<label class="check"
						><input type="checkbox" bind:checked={detail.pencil} /> Pencilled in, not agreed yet</label
					>
					{#if visit.endDate !== visit.date}<label class="check"
							><input type="checkbox" bind:checked={detail.weekend} /> It goes on over the weekend and
							holidays in between</label
						>{/if}
					<label class="field"
						><span class="name">Note</span><textarea class="box" rows="2" bind:value={detail.note}
						></textarea></label
					>
					<div>
						<button
							type="button"
							class="button"
							onclick={() =>
								ondo('detail', {
									...detail,
									arriveFrom: time(detail.arriveFrom),
									arriveTo: time(detail.arriveTo)
								})}>Keep this</button
						>
					</div>
				</div>
			</Fold>
			{#if visit.series === '' && !visit.done}<Fold label="Repeat it">
					<div class="flex flex-wrap items-end gap-3">
						<label class="field w-20"
							><span class="name">Every</span><input
								class="box"
								inputmode="numeric"
								bind:value={repeat.every}
							/></label
						>
						<label class="field w-32"
							><span class="name">Unit</span><select class="box" bind:value={repeat.unit}>
								<option value="day">days</option>
								<option value="week">weeks</option>
								<option value="month">months</option>
							</select></label
						>
						<label class="field w-24"
							><span class="name">Times</span><input
								class="box"
								inputmode="numeric"
								bind:value={repeat.times}
							/></label
						>
						<button type="button" class="button" onclick={() => ondo('repeat', repeat)}
							>Repeat</button
						>
					</div>
					{#if errors.every || errors.times}<p class="wrong">{errors.every ?? errors.times}</p>{/if}
				</Fold>{/if}
			{#if !visit.done}<Fold label="It did not happen, or falls away">
					<div class="flex flex-wrap gap-2">
						<button
							type="button"
							class="button"
							onclick={() => ondo('callOff', { why: 'nobodyIn' })}>Nobody was in</button
						>
						<button type="button" class="button" onclick={() => ondo('callOff', { why: 'weather' })}
							>Called off for weather</button
						>
						<button type="button" class="button plain" onclick={() => ondo('remove')}
							>Take it out of the diary<span class="sr-only">: {displayDate(visit.date)}</span
							></button
						>
					</div>
				</Fold>{/if}
		{/if}
	</div>
</Dialog>
