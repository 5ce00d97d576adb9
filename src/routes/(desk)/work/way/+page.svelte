<script lang="ts">
	import { displayDate, shortMonth } from '$lib/core/calendar/conversion';
	import { addDays, addMonths } from '$lib/core/calendar/manipulation';
	import { shareWon, WAITS, type Outcome, type Underway } from '$lib/core/jobs/way';
	import { displayPounds } from '$lib/core/money/display';
	import { counted } from '$lib/core/words';
	import BarChart from '$lib/ui/desk/BarChart.svelte';
	import WayMark from '$lib/ui/jobs/WayMark.svelte';
	import WayTape from '$lib/ui/jobs/WayTape.svelte';
	import Places from '$lib/ui/parts/Places.svelte';
	import Table from '$lib/ui/parts/Table.svelte';
	import type { Column } from '$lib/ui/parts/table';
	import { WORK_PAGES } from '$lib/ui/jobs/tabs';

	let { data } = $props();
	const pounds = (pence: number) => displayPounds(pence).replace(/\.00$/, '');
	const whole = (pence: number) => pounds(Math.round(pence / 100) * 100);
	const month = (text: string) => {
		const name = shortMonth(text);
		return name === 'Jan' ? `Jan ${text.slice(2, 4)}` : name;
	};
	const percent = (share: number | null) => (share === null ? '–' : `${share} %`);
	const sumOf = (rows: readonly Underway[]) => rows.reduce((sum, row) => sum + (row.sum ?? 0), 0);
	const waitsFor = ({ waits, on }: Underway) =>
		WAITS[waits].words + (on ? `, ${displayDate(on).replace(/ \d{4}$/, '')}` : '');
	const STATES = ['accepted,cancelled', 'declined,expired,withdrawn', 'sent'] as const;
	const quotes = (states: string, more: string) =>
		`/lists/quotes?f=state.is.${states}${more}&c=title&c=number&c=customer&c=total&c=sent&c=state`;
	const sentIn = (name: string) =>
		`&f=sent.from.${name}-01&f=sent.to.${addDays(addMonths(`${name}-01`, 1), -1)}`;
	type Of = Outcome & { name: string };
	const table = (field: string, head: string, none: string): Column<Of>[] => [
		{
			id: 'name',
			head,
			text: ({ name }) => name || none,
			href: ({ name }) =>
				name
					? quotes(
							STATES.join(),
							`&f=${field}.has.${encodeURIComponent(name)}&f=sent.from.${data.from}`
						)
					: null,
			names: true
		},
		{ id: 'won', head: 'Won', text: ({ won, lost }) => `${won} of ${won + lost}`, figures: true },
		{
			id: 'share',
			head: 'Share',
			text: ({ won, lost }) => percent(shareWon(won, lost)),
			figures: true
		},
		{ id: 'sum', head: 'Won, £', text: ({ wonSum }) => whole(wonSum), figures: true },
		{
			id: 'value',
			head: 'Share by value',
			text: ({ wonSum, lostSum }) => percent(shareWon(wonSum, lostSum)),
			figures: true,
			desk: true
		},
		{ id: 'out', head: 'Out, £', text: ({ outSum }) => whole(outSum), figures: true, desk: true }
	];
	let decided = $derived(data.all.won + data.all.lost);
</script>

<svelte:head><title>From asking to billing · Axiometer</title></svelte:head>
<div class="page">
	<h1>Work</h1>
	<Places label="Work" pages={WORK_PAGES} />
	{#if data.groups.length === 0}
		<div class="panel grid justify-items-start gap-2.5 p-6.5">
			<h2>Nothing is on its way</h2>
			<p>Who asks, what you quote and what is agreed stands here until it is billed.</p>
			<a class="button filled" href="/work/enquiries/new">New enquiry</a>
		</div>
	{:else}
		<section aria-label="From asking to billing, by days since the last answer">
			<div
				class="sticky top-0 z-4 grid grid-cols-[minmax(0,1fr)_minmax(0,1.25fr)_7.5rem] items-end bg-(--plaster) phone:static phone:grid-cols-1"
			>
				<span class="quiet px-3.5 pb-1.5 phone:hidden">Days since the last answer</span>
				<div class="phone:mx-3.5"><WayTape /></div>
				<span class="quiet px-3.5 text-right pb-1.5 phone:hidden">£</span>
			</div>
			{#each data.groups as group (group.turn)}
				<h2
					class="flex flex-wrap items-baseline justify-between gap-x-4 border border-t-0 border-(--hair) bg-(--plaster) px-3.5 pt-3 pb-1.5"
				>
					{group.title}
					<span class="quiet numbers text-[1rem]"
						>{group.rows.length}{sumOf(group.rows) ? `, ${whole(sumOf(group.rows))}` : ''}</span
					>
				</h2>
				<ul class="border border-t-0 border-(--hair) bg-(--sheet)">
					{#each group.rows as row (row.key)}
						<li
							class="grid min-h-14 grid-cols-[minmax(0,1fr)_minmax(0,1.25fr)_7.5rem] items-center border-b border-(--hair) last:border-b-0 phone:grid-cols-[minmax(0,1fr)_auto] phone:gap-y-1 phone:py-2"
						>
							<span class="px-3.5 py-1.5">
								<a class="block font-semibold wrap-anywhere" href={row.href}>{row.title}</a>
								<span class="quiet block wrap-anywhere"
									>{row.customer}; waits for {waitsFor(row)}</span
								>
							</span>
							<WayMark turn={group.turn} days={row.days} />
							<span class="numbers px-3.5 text-right phone:col-start-2 phone:row-start-1"
								>{row.sum === null
									? ''
									: pounds(
											row.sum
										)}{#if row.most !== null && whole(row.most) !== whole(row.sum ?? 0)}<span
										class="quiet block text-[0.875rem]">to {whole(row.most)}</span
									>{/if}</span
							>
						</li>
					{/each}
				</ul>
			{/each}
		</section>
	{/if}
	{#if decided + data.all.out}
		<section class="mt-7 grid gap-4" aria-labelledby="won">
			<div>
				<h2 id="won" class="text-[1.4rem]">
					{#if data.likely !== null && data.all.outSum}About {whole(data.likely)} of {whole(
							data.all.outSum
						)} that is out is likely to come{:else if data.all.outSum}{whole(data.all.outSum)} is out{:else}Nothing
						is out{/if}
				</h2>
				<p class="quiet">
					{#if decided}Of {counted(decided, 'quote')} sent in the last twelve months and decided,
						{data.all.won}
						{data.all.won === 1 ? 'was' : 'were'} won: {percent(
							shareWon(data.all.won, data.all.lost)
						)}, by value {percent(shareWon(data.all.wonSum, data.all.lostSum))}{data.likely !==
							null && data.all.outSum
							? `, ${whole(data.all.wonSum)} of ${whole(data.all.wonSum + data.all.lostSum)}; so much of what is out is likely`
							: ''}.{:else}None is decided yet, so nothing can be said of it.{/if}
				</p>
			</div>
			<div class="grid grid-cols-2 items-start gap-4 narrow:grid-cols-1">
				<BarChart
					title="What became of quotes, by the month they were sent"
					note="Accepted, not taken (declined, expired, withdrawn), and still out."
					categories={data.months.map(({ name }) => month(`${name}-01`))}
					stacked
					series={[
						{
							name: 'won',
							color: 'verdigris',
							pattern: 'plain',
							values: data.months.map(({ wonSum }) => wonSum)
						},
						{
							name: 'not taken',
							color: 'oxide',
							pattern: 'hatch',
							values: data.months.map(({ lostSum }) => lostSum)
						},
						{
							name: 'out',
							color: 'tape',
							pattern: 'dots',
							values: data.months.map(({ outSum }) => outSum)
						}
					]}
					write={whole}
					href={(series, index) => quotes(STATES[series]!, sentIn(data.months[index]!.name))}
				/>
				<div class="grid gap-4">
					<div class="panel relative overflow-x-auto">
						<Table
							label="Share won, by kind of work"
							rows={data.kinds}
							columns={table('workKind', 'Kind of work', 'no kind')}
							id={({ name }) => name}
						/>
					</div>
					<div class="panel relative overflow-x-auto">
						<Table
							label="Share won, by how they found you"
							rows={data.sources}
							columns={table('source', 'How they found you', 'not known')}
							id={({ name }) => name}
						/>
					</div>
				</div>
			</div>
		</section>
	{/if}
</div>
