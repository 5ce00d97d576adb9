<!-- The diary: a picture for eyes and pointers, and the list that says and does the same. Over 300 lines: both share what is placed. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import { goto, invalidateAll } from '$app/navigation';
	import ChevronLeft from '@lucide/svelte/icons/chevron-left';
	import ChevronRight from '@lucide/svelte/icons/chevron-right';
	import { displayDate, displayWeekday } from '$lib/core/calendar/conversion';
	import { addDays } from '$lib/core/calendar/manipulation';
	import { isWorkingDay } from '$lib/core/calendar/holidays';
	import { takesDay, travelTo } from '$lib/core/diary/conflicts';
	import type { DiaryVisit } from '$lib/core/diary/types';
	import { counted } from '$lib/core/words';
	import type DiaryGridType from '$lib/ui/diary/DiaryGrid.svelte';
	import type { GridPlace } from '$lib/ui/diary/DiaryGrid.svelte';
	import TellDialog from '$lib/ui/diary/TellDialog.svelte';
	import VisitDialog, { type Placing } from '$lib/ui/diary/VisitDialog.svelte';
	import Choice from '$lib/ui/parts/Choice.svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Fold from '$lib/ui/parts/Fold.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import NeedsScripts from '$lib/ui/parts/NeedsScripts.svelte';
	import Places from '$lib/ui/parts/Places.svelte';
	import Tick from '$lib/ui/parts/Tick.svelte';
	import { notices } from '$lib/ui/parts/notices.svelte';
	import { WORK_PAGES } from '$lib/ui/jobs/tabs';

	let { data } = $props();
	let conflicts = $derived(new Map(data.conflicts));
	let opened = $state<number | null>(untrack(() => data.open));
	let booking = $state<number | null>(untrack(() => data.book));
	let telling = $state<{ visit: number; kind: string } | null>(null);
	let errors = $state.raw<Record<string, string>>({});
	let visit = $derived(data.visits.find(({ id }) => id === opened) ?? null);
	let job = $derived(data.toBook.find(({ jobId }) => jobId === booking) ?? null);
	let days = $derived.by(() => {
		const found: string[] = [];
		for (let day = data.from; day <= data.to; day = addDays(day, 1)) found.push(day);
		return found;
	});
	let nameOf = $derived(
		new Map([[0, 'nobody yet'], ...data.people.map(({ id, name }) => [id, name] as const)])
	);
	const at = (view: string, on: string) => `/work/diary?view=${view}&on=${on}`;
	let grid = $state<ReturnType<typeof DiaryGridType>>();
	let Grid = $state.raw<typeof DiaryGridType>();
	$effect(() => {
		// The picture is not for phones: the list is.
		if (window.innerWidth >= 700)
			void import('$lib/ui/diary/DiaryGrid.svelte').then((module) => (Grid = module.default));
	});

	async function send(method: 'PUT' | 'POST', body: object) {
		errors = {};
		const response = await fetch('/work/diary/api', {
			method,
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify(body)
		}).catch(() => null);
		const answer = await response?.json().catch(() => null);
		if (response?.ok) return answer ?? {};
		errors = answer?.fields ?? {
			'': answer?.message ?? 'The connection is lost. It stands as it was.'
		};
		return null;
	}
	async function move(one: DiaryVisit, place: GridPlace & { all?: boolean }) {
		const answer = await send('PUT', { visit: one.id, sequence: one.sequence, ...place });
		await invalidateAll();
		if (!answer) {
			if (opened === null) notices.say(Object.values(errors)[0] ?? 'It stands as it was.');
			return;
		}
		opened = null;
		const { before, sequence, moved } = answer;
		notices.say(`${one.title}: ${displayWeekday(place.date)} ${place.from}`.trim(), {
			label: 'Undo',
			run: () =>
				void send('PUT', { visit: one.id, sequence, ...before, all: place.all ?? false }).then(() =>
					invalidateAll()
				)
		});
		if (moved && one.knows) telling = { visit: one.id, kind: 'moved' };
	}
	async function book(jobId: number, place: Placing | GridPlace) {
		const answer = await send('POST', { action: 'book', job: jobId, ...place });
		if (!answer) return;
		booking = null;
		await invalidateAll();
		if (place.date < data.from || place.date > data.to) await goto(at(data.view, place.date));
		notices.say('It is in the diary.');
		telling = { visit: answer.visit, kind: 'booked' };
	}
	async function act(action: string, more: object = {}) {
		if (!visit) return;
		const one = visit;
		const answer = await send('POST', { action, visit: one.id, job: one.jobId, ...more });
		if (!answer) return;
		await invalidateAll();
		opened = null;
		if (action === 'remove')
			notices.say('It is out of the diary.', {
				label: 'Undo',
				run: () =>
					void import('$lib/ui/parts/takeBack').then(({ postAction }) =>
						postAction({ action: '/api/bring-back', values: { bin: answer.bin } }, 'Taken back.')
					)
			});
		else if (action === 'callOff')
			notices.say('Written down. The journey can be billed.', {
				label: 'Bill the journey',
				run: () =>
					void send('POST', { action: 'journey', visit: one.id }).then((journey) =>
						journey ? goto(`/work/${one.jobId}/edit#lines`) : undefined
					)
			});
		else
			notices.say(action === 'repeat' ? `It is there ${counted(answer.count, 'time')}.` : 'Kept.');
	}
	let dragged = $state<{ jobId: number; x: number; y: number } | null>(null);
	function drag(event: PointerEvent, jobId: number) {
		if (event.button !== 0) return;
		const begun = { x: event.clientX, y: event.clientY };
		const element = event.currentTarget as HTMLElement;
		const follow = (moved: PointerEvent) => {
			if (!dragged && Math.hypot(moved.clientX - begun.x, moved.clientY - begun.y) < 6) return;
			if (!dragged) element.setPointerCapture(event.pointerId);
			dragged = { jobId, x: moved.clientX, y: moved.clientY };
		};
		const end = (up: PointerEvent) => {
			element.removeEventListener('pointermove', follow);
			const was = dragged;
			dragged = null;
			if (!was) return;
			suppress = true;
			setTimeout(() => (suppress = false));
			const place = up.type === 'pointerup' ? grid?.placeAt(up.clientX, up.clientY) : null;
			if (place) void book(jobId, place);
		};
		element.addEventListener('pointermove', follow);
		element.addEventListener('pointerup', end, { once: true });
		element.addEventListener('pointercancel', end, { once: true });
	}
	/** What was booked or moved has the cursor: the list says where it is now. */
	function focusOn(id: number) {
		setTimeout(() => document.querySelector<HTMLElement>(`[data-visit="${id}"]`)?.focus(), 150);
	}
	let suppress = false;
	let title = $derived(
		`${data.view === 'day' ? displayWeekday(data.date) : data.view === 'week' ? (data.today >= data.from && data.today <= data.to ? 'This week' : `Week of ${displayDate(data.from)}`) : displayDate(`${data.date.slice(0, 7)}-01`).replace(/^1 /, '')}: ${counted(data.visits.length, 'visit')}${data.toBook.length ? `, ${data.toBook.length} to book in` : ''}`
	);
</script>

<svelte:head><title>Diary · Axiometer</title></svelte:head>
<div class="page">
	<div class="flex flex-wrap items-center gap-x-3 gap-y-2">
		<h1>Work</h1>
	</div>
	<Places label="Work" pages={WORK_PAGES} />
	<div class="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
		<h2 class="text-[1.35rem]">{title}</h2>
		<span class="flex-1"></span>
		<span class="flex items-center gap-1">
			<a class="button plain" href={at(data.view, data.before)} aria-label="Before"
				><ChevronLeft size={20} aria-hidden="true" /></a
			>
			<a class="button plain" href={at(data.view, data.today)}>Today</a>
			<a class="button plain" href={at(data.view, data.after)} aria-label="After"
				><ChevronRight size={20} aria-hidden="true" /></a
			>
		</span>
		<span class="flex gap-1" role="group" aria-label="Show">
			{#each [['day', 'Day'], ['week', 'Week'], ['month', 'Month']] as const as [view, words] (view)}
				<a
					class="border-b-4 border-b-transparent px-3 pt-2 pb-1.25 text-(--ink) no-underline [&.on]:border-b-(--tape) [&.on]:font-[650]"
					class:on={data.view === view}
					aria-current={data.view === view ? 'page' : undefined}
					href={at(view, data.date)}>{words}</a
				>
			{/each}
		</span>
		<button class="button print:hidden" type="button" onclick={() => window.print()}>Print</button>
	</div>
	<NeedsScripts instead="Visits can be added on each job." />
	<div class="grid grid-cols-[260px_minmax(0,1fr)] items-start gap-4 beside:grid-cols-1">
		<section aria-labelledby="to-book" class="print:hidden">
			<h3 class="mb-2 text-[1.05rem]" id="to-book">To book in</h3>
			<ul class="grid gap-2 beside:grid-cols-2 phone:grid-cols-1">
				{#each data.toBook as one (one.jobId)}
					<li>
						<button
							type="button"
							class="w-full cursor-grab touch-none border border-(--hair) border-t-[5px] border-t-(--ink) bg-(--sheet) px-3 py-2 text-left [&.look]:border-t-dashed"
							class:look={one.lookAt}
							onpointerdown={(event) => drag(event, one.jobId)}
							onclick={() => !suppress && (booking = one.jobId)}
						>
							<b class="block font-semibold wrap-anywhere">{one.title}</b>
							<span class="quiet block"
								>{one.customer}{one.lookAt ? ', to look at' : ''}{one.duration
									? ` · ${one.duration}`
									: ''}</span
							>
							{#if one.mayBegin && one.mayBegin > data.today}<span class="quiet block"
									>may begin from {displayDate(one.mayBegin)}</span
								>{/if}
						</button>
					</li>
				{:else}<li class="quiet">Everything has a day.</li>{/each}
			</ul>
			{#if data.toBook.length}<p class="quiet mt-2 phone:hidden">
					Drag one into the week, or press it and give it a day.
				</p>{/if}
		</section>
		<div class="grid min-w-0 gap-4">
			{#if Grid}<div class="overflow-x-auto phone:hidden">
					<Grid
						bind:this={grid}
						view={data.view}
						date={data.date}
						visits={data.visits}
						blocks={data.blocks}
						people={data.people}
						hours={data.ways}
						{conflicts}
						onmove={(one, place) => void move(one, place)}
						onopen={(one) => (opened = one.id)}
						onmore={(date) => void goto(at('day', date))}
					/>
					<p class="quiet mt-1">
						Hatched edge: the customer was told. Dashed: pencilled in. Red: something is in the way.
					</p>
				</div>{/if}
			<section class="panel px-4.5 py-3" aria-label="The visits as a list">
				<ol class="grid">
					{#each days as day (day)}
						{@const here = data.visits.filter((one) => takesDay(one, day))}
						{@const own = data.blocks.filter((block) => block.from <= day && block.to >= day)}
						{#if here.length || own.length || data.view !== 'month'}<li
								class="border-b border-(--hair) py-2 [contain-intrinsic-block-size:auto_150px] [content-visibility:auto] last:border-b-0 print:[content-visibility:visible]"
							>
								<h3 class="text-[1.02rem]" class:text-(--ink-2)={!isWorkingDay(day)}>
									{displayWeekday(day)}{day === data.today ? ', today' : ''}
								</h3>
								{#each own as block (block.id)}<p class="quiet">
										{block.title}{block.personId ? `, ${nameOf.get(block.personId)}` : ''}
									</p>{/each}
								<ul class="grid gap-1">
									{#each here as one (one.id)}
										{@const way = travelTo(one, here)}
										<li class="flex flex-wrap items-center gap-x-3 gap-y-1">
											{#if way}<span
													class="quiet basis-full border-l-3 border-dotted border-l-(--hair) pl-3"
													>{way.minutes} min from {way.from.place || way.from.customer}</span
												>{/if}
											<button
												type="button"
												class="min-h-11 flex-1 cursor-pointer text-left wrap-anywhere phone:basis-full"
												data-visit={one.id}
												onclick={() => (opened = one.id)}
											>
												<span class="numbers"
													>{one.from || 'all day'}{one.to ? `–${one.to}` : ''}</span
												>
												<b class="font-semibold">{one.title}</b>
												<span class="quiet"
													>{one.place || one.customer}, {one.people
														.map((who) => nameOf.get(who) ?? '')
														.join(' and ')}{one.pencil ? ', pencilled in' : ''}{one.done
														? ', done'
														: one.confirmed
															? ', confirmed'
															: one.told
																? ', told'
																: ', not told yet'}</span
												>
												{#each conflicts.get(one.id) ?? [] as words (words)}<span
														class="wrong block">{words}</span
													>{/each}
											</button>
											{#if data.view !== 'month'}<span class="hidden gap-1 phone:flex">
													{#if one.phone}<a class="button" href="tel:{one.phone.replace(/\s/g, '')}"
															>Call<span class="sr-only">: {one.customer}</span></a
														>{/if}
													{#if one.address}<a
															class="button"
															href="geo:0,0?q={encodeURIComponent(
																one.address.replaceAll('\n', ', ')
															)}">Go there<span class="sr-only">: {one.title}</span></a
														>{/if}
													<a class="button" href="/work/{one.jobId}"
														>Start<span class="sr-only">: {one.title}</span></a
													>
												</span>{/if}
										</li>{:else}{#if own.length === 0}<li class="quiet">Nothing.</li>{/if}{/each}
								</ul>
							</li>{/if}
					{/each}
				</ol>
			</section>
			<section class="panel grid gap-1 px-4.5 py-3 print:hidden">
				<Fold label="A day of your own: holiday, training">
					<Form action="?/block" reset done="It is in the diary." class="grid gap-3">
						<div class="grid grid-cols-[repeat(auto-fit,minmax(160px,1fr))] items-end gap-3">
							<Field label="What for" name="title" maxlength={100} />
							<DateField label="From" name="from" />
							<DateField label="To" name="to" />
							{#if data.people.length > 1}<Choice label="Whose" name="personId" value="">
									<option value="">everybody’s</option>
									{#each data.people as one (one.id)}<option value={String(one.id)}
											>{one.name}</option
										>{/each}
								</Choice>{/if}
							<button class="button">Block it</button>
						</div>
					</Form>
					{#each data.blocks as block (block.id)}<div
							class="flex items-center justify-between gap-3"
						>
							<span>{block.title}, {displayDate(block.from)} to {displayDate(block.to)}</span>
							<Form action="?/removeBlock" hidden={{ id: block.id }} done="It is gone."
								><button class="button plain"
									>Remove<span class="sr-only">: {block.title}</span></button
								></Form
							>
						</div>{/each}
				</Fold>
				<Fold label="Calendar link for the phone">
					{#if data.feed}<p class="mono wrap-anywhere">{data.feed}</p>
						<p class="quiet">
							Whoever has it sees your visits. Subscribe to it in your phone’s calendar.
						</p>
						<div class="flex gap-2">
							<Form action="?/feed" done="Another link: the old one opens nothing."
								><button class="button">Give it another link</button></Form
							>
							<Form action="?/revoke" done="The link opens nothing any more."
								><button class="button">Take it back</button></Form
							>
						</div>
					{:else}<Form action="?/feed" done="There it is."
							><button class="button">Make a link</button></Form
						>{/if}
				</Fold>
				<Fold label="Working hours, and what customers are told">
					<Form action="?/ways" done="Kept." class="grid gap-3">
						<div class="grid grid-cols-[repeat(auto-fit,minmax(140px,1fr))] items-end gap-3">
							<Field label="Work from" name="from" value={data.ways.from} />
							<Field label="to" name="to" value={data.ways.to} />
							<Field
								label="Arrival time, minutes wide"
								name="arrivalMinutes"
								inputmode="numeric"
								value={String(data.ways.arrivalMinutes)}
							/>
							<Field
								label="From one place to the next, minutes"
								name="travelMinutes"
								inputmode="numeric"
								value={String(data.ways.travelMinutes)}
							/>
						</div>
						<Tick name="dayBefore" checked={data.ways.dayBefore}
							>Customers are told the day before, by itself, by day</Tick
						>
						<div><button class="button">Keep it</button></div>
					</Form>
				</Fold>
			</section>
		</div>
	</div>
</div>
{#if dragged}<div
		class="pointer-events-none fixed z-50 border-2 border-(--ink) bg-(--tape) px-2 py-1 text-(--on-tape)"
		style:left="{dragged.x + 8}px"
		style:top="{dragged.y + 8}px"
		aria-hidden="true"
	>
		{data.toBook.find(({ jobId }) => jobId === dragged!.jobId)?.title}
	</div>{/if}
<VisitDialog
	{visit}
	{job}
	day={data.date >= data.today ? data.date : data.today}
	people={data.people}
	warnings={visit ? (conflicts.get(visit.id) ?? []) : []}
	usual={data.ways.travelMinutes}
	today={data.today}
	{errors}
	onplace={(place) => {
		if (visit) void move(visit, place);
		else if (job) void book(job.jobId, place);
	}}
	ondo={(action, more) => void act(action, more)}
	ontell={(kind) => {
		telling = { visit: visit!.id, kind };
		opened = null;
	}}
	onclose={() => {
		opened = null;
		booking = null;
		errors = {};
	}}
/>
<TellDialog
	about={telling}
	onclose={() => {
		const visit = telling?.visit;
		telling = null;
		if (visit) focusOn(visit);
	}}
/>
