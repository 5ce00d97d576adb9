<!--
	The diary as a picture: people as rows, hours as ticks of a tape, visits as dockets that are dragged and made longer. It is for
	eyes and pointers alone; the list beside it says and does the same.
	Over 300 lines: one picture, and what a pointer does to it. -->
<script lang="ts">
	import { Calendar, Interaction, ResourceTimeline } from '@event-calendar/core';
	import '@event-calendar/core/index.css';
	import { travelTo } from '$lib/core/diary/conflicts';
	import type { DiaryBlock, DiaryVisit } from '$lib/core/diary/types';

	export interface GridPlace {
		date: string;
		endDate: string;
		from: string;
		to: string;
		personId: number;
	}
	interface Props {
		view: 'day' | 'week' | 'month';
		date: string;
		visits: readonly DiaryVisit[];
		blocks: readonly DiaryBlock[];
		people: readonly { id: number; name: string }[];
		hours: { from: string; to: string };
		conflicts: ReadonlyMap<number, readonly string[]>;
		onmove: (visit: DiaryVisit, place: GridPlace) => void;
		onopen: (visit: DiaryVisit) => void;
		/** A day has more than a month has room for. */
		onmore: (date: string) => void;
	}
	let { view, date, visits, blocks, people, hours, conflicts, onmove, onopen, onmore }: Props =
		$props();
	let calendar = $state<{
		dateFromPoint: (x: number, y: number) => { date: Date; resource?: { id: string } } | null;
	}>();

	const two = (n: number) => String(n).padStart(2, '0');
	const dayOf = (at: Date) => `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
	const timeOf = (at: Date) => `${two(at.getHours())}:${two(at.getMinutes())}`;
	/** Where something that is dragged in from beside it was let go; null beside the grid. */
	export function placeAt(x: number, y: number): GridPlace | null {
		const found = calendar?.dateFromPoint(x, y);
		if (!found) return null;
		return {
			date: dayOf(found.date),
			endDate: '',
			from: view === 'month' ? '09:00' : timeOf(found.date),
			to: '',
			personId: Number(found.resource?.id ?? 0)
		};
	}

	let weekend = $derived(
		visits.some(({ date: day, endDate }) =>
			[day, endDate].some((one) => [0, 6].includes(new Date(`${one}T12:00`).getDay()))
		)
	);
	let nobody = $derived(visits.some(({ people: going }) => going.includes(0)));
	let resources = $derived([
		...people.map(({ id, name }) => ({ id: String(id), title: name })),
		...(nobody || people.length === 0 ? [{ id: '0', title: 'Nobody yet' }] : [])
	]);
	const minutesBefore = (time: string, minutes: number) => {
		const at = Math.max(0, Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5)) - minutes);
		return `${two(Math.floor(at / 60))}:${two(at % 60)}`;
	};
	/** One without an end is drawn so long that it can be read. */
	const drawnTo = (time: string) =>
		`${two(Math.min(Number(time.slice(0, 2)) + (view === 'day' ? 1 : 3), 23))}${time.slice(2)}`;
	/** A month has room for so many of one person's on one day: the others are a press away, and all stand in the list. */
	const MOST_A_DAY = 3;
	let crowded = $derived.by(() => {
		const shown: DiaryVisit[] = [];
		const more = new Map<string, { date: string; who: number; count: number }>();
		const counts = new Map<string, number>();
		for (const visit of visits) {
			const key = `${visit.date} ${visit.people[0] ?? 0}`;
			const count = (counts.get(key) ?? 0) + 1;
			counts.set(key, count);
			if (view !== 'month' || count <= MOST_A_DAY || visit.endDate !== visit.date)
				shown.push(visit);
			else {
				const one = more.get(key) ?? { date: visit.date, who: visit.people[0] ?? 0, count: 0 };
				more.set(key, { ...one, count: one.count + 1 });
			}
		}
		return { shown, more: [...more.values()] };
	});
	/** Whole days take the working day. */
	let events = $derived([
		...crowded.more.map(({ date: day, who, count }) => ({
			id: `m${day}-${who}`,
			resourceIds: [String(who)],
			start: `${day}T${hours.to}:00`,
			end: `${day}T${drawnTo(hours.to)}:00`,
			title: `${count} more`,
			editable: false,
			classNames: ['more'],
			extendedProps: { more: day }
		})),
		...crowded.shown.map((visit) => ({
			id: String(visit.id),
			resourceIds: visit.people.map(String),
			start: `${visit.date}T${visit.from || hours.from}:00`,
			end: `${visit.endDate}T${visit.to || (visit.from ? drawnTo(visit.from) : hours.to)}:00`,
			title: visit.title,
			editable: !visit.done && visit.people.length === 1,
			classNames: [
				'docket',
				...(visit.pencil ? ['pencil'] : []),
				...(visit.told ? ['told'] : []),
				...(visit.done ? ['done'] : []),
				...(conflicts.has(visit.id) ? ['wrong'] : [])
			],
			extendedProps: { visit }
		})),
		// The way there, before it: only where a day has room to show minutes.
		...(view === 'day' ? visits : []).flatMap((visit) => {
			const way = travelTo(visit, visits);
			return way
				? [
						{
							id: `t${visit.id}`,
							resourceIds: visit.people.map(String),
							start: `${visit.date}T${minutesBefore(visit.from, way.minutes)}:00`,
							end: `${visit.date}T${visit.from}:00`,
							title: `${way.minutes} min`,
							display: 'background' as const,
							editable: false,
							classNames: ['way-there'],
							extendedProps: {}
						}
					]
				: [];
		}),
		...blocks.flatMap((block) =>
			(block.personId === null ? people.map(({ id }) => id) : [block.personId]).map((who) => ({
				id: `b${block.id}-${who}`,
				resourceIds: [String(who)],
				start: `${block.from}T00:00:00`,
				end: `${block.to}T23:59:00`,
				title: block.title,
				display: 'background' as const,
				editable: false,
				classNames: ['own-day'],
				extendedProps: {}
			}))
		)
	]);
	interface Moved {
		event: {
			start: Date;
			end: Date;
			resourceIds: string[];
			extendedProps: { visit?: DiaryVisit; more?: string };
		};
		revert: () => void;
	}
	function moved({ event, revert }: Moved, resized = false) {
		const { visit } = event.extendedProps;
		if (!visit) return revert();
		const endDate = dayOf(event.end);
		onmove(visit, {
			date: dayOf(event.start),
			endDate: endDate > dayOf(event.start) ? endDate : '',
			// One without a time stays without.
			from: visit.from === '' ? '' : timeOf(event.start),
			to: visit.from === '' || (visit.to === '' && !resized) ? '' : timeOf(event.end),
			personId: Number(event.resourceIds[0] ?? 0)
		});
	}
	let hoursShown = $derived.by(() => {
		const times = visits.flatMap(({ from, to }) => [from, to]).filter(Boolean);
		const [first, last] = [[hours.from, ...times].sort()[0]!, [hours.to, ...times].sort().at(-1)!];
		return {
			min: `${first.slice(0, 2)}:00`,
			max: `${two(Math.min(24, Number(last.slice(0, 2)) + 1))}:00`
		};
	});
	let options = $derived({
		view: {
			day: 'resourceTimelineDay',
			week: 'resourceTimelineWeek',
			month: 'resourceTimelineMonth'
		}[view],
		date: `${date}T12:00:00`,
		firstDay: 1 as const,
		headerToolbar: { start: '', center: '', end: '' },
		hiddenDays: view === 'week' && !weekend ? [0, 6] : [],
		resources,
		events,
		slotMinTime: hoursShown.min,
		slotMaxTime: hoursShown.max,
		slotDuration: view === 'month' ? { days: 1 } : '01:00',
		slotWidth: view === 'day' ? 76 : view === 'month' ? 84 : 17,
		slotLabelInterval: view === 'day' ? '01:00' : '24:00',
		snapDuration: '00:15',
		dayHeaderFormat: { weekday: 'short' as const, day: 'numeric' as const },
		locale: 'en-GB',
		nowIndicator: true,
		eventTimeFormat: { hour: '2-digit' as const, minute: '2-digit' as const, hour12: false },
		eventLongPressDelay: 300,
		height: 'auto',
		eventDrop: (info: Moved) => moved(info),
		eventResize: (info: Moved) => moved(info, true),
		eventClick: ({ event }: { event: Moved['event'] }) => {
			if (event.extendedProps.visit) onopen(event.extendedProps.visit);
			else if (event.extendedProps.more) onmore(event.extendedProps.more);
		},
		/** The list beside it is the way by keyboard. */
		eventDidMount: ({ el }: { el: HTMLElement }) => {
			el.tabIndex = -1;
			el.removeAttribute('role');
		}
	});
</script>

{#snippet content({ event }: { event: { title: string; extendedProps: { visit?: DiaryVisit } } })}
	{@const visit = event.extendedProps.visit}
	{#if visit}
		<b>{visit.title}</b>
		<span>{visit.place || visit.customer}</span>
		{#if conflicts.get(visit.id)}<em>{conflicts.get(visit.id)![0]}</em>{/if}
	{:else}<span>{event.title}</span>{/if}
{/snippet}

<div class="diary-grid" class:day={view === 'day'} style:--tick="17px" aria-hidden="true">
	<Calendar
		bind:this={calendar as never}
		plugins={[ResourceTimeline, Interaction] as never}
		options={options as never}
		eventContent={content as never}
	/>
</div>

<style>
	.diary-grid :global(.ec) {
		--ec-border-color: var(--hair);
		--ec-bg-color: var(--sheet);
		--ec-text-color: var(--ink);
		--ec-today-bg-color: transparent;
		--ec-now-indicator-color: var(--oxide);
		border: 1.5px solid var(--ink);
		background: var(--sheet);
	}
	.diary-grid :global(.ec-toolbar) {
		display: none;
	}
	/* The head is the tape: a tick for each hour. */
	.diary-grid :global(.ec-header :is(.ec-day-head, .ec-col-head, .ec-col-group)) {
		background-color: var(--tape);
		color: var(--on-tape);
		font-weight: 650;
	}
	.diary-grid:not(.day) :global(.ec-header .ec-slots),
	.diary-grid:not(.day) :global(.ec-header .ec-slot) {
		height: 10px;
		min-height: 10px;
		font-size: 0;
		background: var(--tape)
			repeating-linear-gradient(90deg, var(--on-tape) 0 1px, transparent 1px var(--tick));
		border-color: transparent;
	}
	.diary-grid :global(.docket) {
		background: var(--sheet);
		color: var(--ink);
		border: 1px solid var(--ink);
		border-radius: 2px;
		box-shadow: none;
		padding: 3px 5px;
		min-height: 58px;
		cursor: grab;
		font-size: 0.86rem;
		line-height: 1.2;
		overflow: hidden;
	}
	.diary-grid :global(.docket .ec-event-body) {
		hyphens: auto;
		overflow-wrap: anywhere;
		display: grid;
		grid-template-columns: minmax(0, 1fr);
		align-content: start;
	}
	.diary-grid :global(.docket em) {
		color: var(--oxide);
		font-style: normal;
		font-weight: 600;
		display: -webkit-box;
		-webkit-box-orient: vertical;
		-webkit-line-clamp: 3;
		line-clamp: 3;
		overflow: hidden;
	}
	/* Too short in a week to be read across: its title runs down it, and its red edge says the rest. */
	.diary-grid :global(.docket) {
		container-type: inline-size;
	}
	@container (max-width: 52px) {
		.diary-grid :global(.docket .ec-event-body) {
			writing-mode: vertical-rl;
			display: block;
			block-size: 100%;
			inline-size: 108px;
			hyphens: none;
			overflow: hidden;
			white-space: nowrap;
			text-overflow: ellipsis;
		}
		.diary-grid :global(.docket :is(span, em)) {
			display: none;
		}
	}
	.diary-grid :global(.more) {
		background: transparent;
		color: var(--ink);
		border: 0;
		box-shadow: none;
		text-decoration: underline;
		cursor: pointer;
		font-size: 0.86rem;
	}
	/* What the customer was told has a hatched edge; what is not agreed is dashed. */
	.diary-grid :global(.docket.told) {
		border-top: 6px solid transparent;
		border-image: repeating-linear-gradient(135deg, var(--ink) 0 2px, var(--sheet) 2px 4px) 6;
		border-image-width: 6px 0 0 0;
		outline: 1px solid var(--ink);
	}
	.diary-grid :global(.docket.pencil) {
		border-style: dashed;
	}
	.diary-grid :global(.docket.done) {
		background: var(--quiet-fill);
		color: var(--ink-2);
		cursor: pointer;
	}
	.diary-grid :global(.docket.wrong) {
		border-color: var(--oxide);
		outline-color: var(--oxide);
	}
	.diary-grid :global(.way-there) {
		opacity: 1;
		background: repeating-linear-gradient(90deg, var(--ink-2) 0 2px, transparent 2px 7px) 0 50% /
			100% 2px no-repeat;
		font-size: 0.78rem;
		color: var(--ink-2);
	}
	.diary-grid :global(.own-day) {
		opacity: 1;
		background: repeating-linear-gradient(135deg, transparent 0 8px, var(--hair) 8px 11px);
	}
</style>
