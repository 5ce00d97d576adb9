<!-- A job sheet while it is written: what goes on it on the left, the paper as it will be beside it. -->
<script lang="ts">
	import { onDestroy } from 'svelte';
	import { beforeNavigate } from '$app/navigation';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { hoursOf } from '$lib/core/jobs/billing';
	import { MOST_PHOTOS, type JobSheetSource, type JobSheetWritten } from '$lib/core/jobs/jobSheet';
	import { captionOf, jobSheetView } from '$lib/core/jobs/jobSheetView';
	import Paper from '../invoices/Paper.svelte';
	import Form from '../parts/Form.svelte';
	import Menu from '../parts/Menu.svelte';
	import { SheetKeeper } from './keeper.svelte';

	interface Props {
		id: number;
		number: string;
		today: string;
		version: number;
		written: JobSheetWritten;
		source: JobSheetSource;
		/** Whoever looks may see prices. */
		prices: boolean;
		/** The page it belongs to: a job, or the same on site. */
		back: string;
	}
	let { id, number, today, version, written, source, prices, back }: Props = $props();
	// svelte-ignore state_referenced_locally
	const keeper = new SheetKeeper(id, version, written);
	let sheet = $derived(keeper.written);
	let view = $derived(jobSheetView(source, sheet, { number, on: today, draft: true }));
	$effect(() => keeper.changed());
	onDestroy(() => keeper.leave());
	beforeNavigate(({ willUnload, cancel }) => {
		if (willUnload && keeper.waiting) cancel();
	});

	type Part = 'visits' | 'lines' | 'times' | 'costs' | 'photos';
	interface Row {
		id: number;
		words: string;
		more: string;
	}
	let parts = $derived<{ part: Part; title: string; rows: Row[] }[]>([
		{
			part: 'visits',
			title: 'Visits',
			rows: source.visits.map(({ id, date, from, who, note, done }) => ({
				id,
				words: [displayDate(date), from, who].filter(Boolean).join(', '),
				more: [note, done ? '' : 'not done yet'].filter(Boolean).join(' · ')
			}))
		},
		{
			part: 'lines',
			title: 'Work, as agreed',
			rows: source.work.lines.map(({ id, description, quantity, unit, extra }) => ({
				id,
				words: description,
				more: `${quantity} ${unit}${extra ? ' · extra' : ''}`
			}))
		},
		{
			part: 'times',
			title: 'Time',
			rows: source.work.time
				.filter(({ minutes }) => minutes)
				.map(({ id, date, person, minutes, note }) => ({
					id,
					words: [displayDate(date), person, note].filter(Boolean).join(', '),
					more: `${hoursOf(minutes!)} h`
				}))
		},
		{
			part: 'costs',
			title: 'Materials',
			rows: source.work.costs.map(({ id, description, quantity, unit }) => ({
				id,
				words: description,
				more: `${quantity} ${unit}`
			}))
		}
	]);
</script>

<svelte:head><title>Job sheet {number} · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href={back}>{source.job.number} {source.job.title}</a></p>
	<div class="mb-3.5 flex flex-wrap items-center gap-x-3.5 gap-y-2">
		<h1>Job sheet <span class="mono">{number}</span></h1>
		<span class="quiet" role="status">{keeper.said}</span>
		<span class="flex-1"></span>
		<Form action="?/finish" leaves hidden={{ version: keeper.version, then: 'sign' }}>
			<button class="button filled" onclick={(event) => keeper.first(event)}>Have it signed</button>
		</Form>
		<Form action="?/finish" leaves hidden={{ version: keeper.version, then: '' }}>
			<button class="button" onclick={(event) => keeper.first(event)}>Finish it unsigned</button>
		</Form>
		<Menu entries={[{ label: 'Throw it away', href: '?/discard', post: {} }]} />
	</div>
	{#if keeper.lost}<p class="panel mb-3.5 border-l-6 border-l-(--oxide) px-4.5 py-3" role="alert">
			{keeper.lost}
		</p>{/if}
	<div
		class="grid grid-cols-[minmax(0,400px)_minmax(0,1fr)] items-start gap-4.5 beside:grid-cols-1"
	>
		<div class="grid gap-3.5">
			<section class="panel grid gap-3 px-4.5 py-4">
				<label class="field"
					><span class="name">What was done</span><textarea
						class="box"
						rows="5"
						maxlength="5000"
						aria-invalid={keeper.errors.done ? 'true' : undefined}
						bind:value={sheet.done}></textarea>{#if keeper.errors.done}<span class="wrong"
							>{keeper.errors.done}</span
						>{/if}</label
				>
				<label class="field"
					><span class="name">Still to do, or to watch</span><textarea
						class="box"
						rows="2"
						maxlength="2000"
						bind:value={sheet.remains}></textarea></label
				>
				{#if prices}<label class="check"
						><input type="checkbox" bind:checked={sheet.prices} /><span
							>With prices <span class="quiet">as they will be billed; it is no invoice</span></span
						></label
					>{/if}
			</section>
			{#each parts.filter(({ rows }) => rows.length) as { part, title, rows } (part)}
				<fieldset class="panel grid gap-1.5 px-4.5 py-4">
					<legend class="float-left mb-1 w-full [font:650_1.05rem_var(--font-heading)]"
						>{title}</legend
					>
					{#each rows as row (row.id)}<label class="check min-h-9"
							><input type="checkbox" value={row.id} bind:group={sheet[part]} /><span
								class="wrap-anywhere"
								>{row.words}{#if row.more}<span class="quiet ml-1.5">{row.more}</span>{/if}</span
							></label
						>{/each}
				</fieldset>
			{/each}
			{#if source.photos.length}<fieldset class="panel grid gap-2 px-4.5 py-4">
					<legend class="float-left mb-1 w-full [font:650_1.05rem_var(--font-heading)]"
						>Photos</legend
					>
					<div class="grid grid-cols-3 gap-2">
						{#each source.photos as { id: photo, name } (photo)}<label class="grid gap-1"
								><img
									src="/files/{photo}?small"
									alt=""
									class="h-24 w-full border border-(--hair) object-cover"
									loading="lazy"
								/><span class="check min-h-9"
									><input type="checkbox" value={photo} bind:group={sheet.photos} /><span
										class="wrap-anywhere">{captionOf(name) || 'Photo'}</span
									></span
								></label
							>{/each}
					</div>
					{#if keeper.errors.photos}<span class="wrong">{keeper.errors.photos}</span>
					{:else if source.photos.length > MOST_PHOTOS}<span class="quiet"
							>At most {MOST_PHOTOS}.</span
						>{/if}
				</fieldset>{/if}
			<p class="quiet">
				Visits, times, materials and photos are those of <a href={back}>the job</a>: what is missing
				here is added there.
			</p>
		</div>
		<div>
			<Paper
				{view}
				logo={view.look.logo && `/settings/letterheads/logo/${view.look.logo}`}
				photo={(photo) => `/files/${photo}`}
			/>
		</div>
	</div>
</div>
