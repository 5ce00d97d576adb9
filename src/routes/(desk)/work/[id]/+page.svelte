<!-- A job: its visits, work, costs, papers and what it leaves. Over 300 lines: the parts of one page. -->
<script lang="ts">
	import Choice from '$lib/ui/parts/Choice.svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import LateFold from '$lib/ui/parts/LateFold.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import Menu from '$lib/ui/parts/Menu.svelte';
	import Tick from '$lib/ui/parts/Tick.svelte';
	import { pressKey } from '$lib/ui/parts/keys';
	import Whereabouts from '$lib/ui/jobs/Whereabouts.svelte';
	import Camera from '@lucide/svelte/icons/camera';
	import Files from '$lib/ui/files/Files.svelte';
	import { tick, type ComponentProps } from 'svelte';
	import { displayDate, displayMoment } from '$lib/core/calendar/conversion';
	import { lineAmount } from '$lib/core/jobs/billing';
	import { CONTRACT_NAMES } from '$lib/core/words';
	import { STANDING_NAMES } from '$lib/core/jobs/types';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import ClockBar from '$lib/ui/jobs/ClockBar.svelte';
	import Materials from '$lib/ui/jobs/Materials.svelte';
	import MarginPanel from '$lib/ui/jobs/MarginPanel.svelte';
	import StagePanel from '$lib/ui/billing/StagePanel.svelte';
	import TimeAndCosts from '$lib/ui/jobs/TimeAndCosts.svelte';
	import Visits from '$lib/ui/jobs/Visits.svelte';

	let { data } = $props();
	let job = $derived(data.job);
	let site = $derived(data.sites.find((one) => one.id === job.siteId));
	let adding = $state<'time' | 'cost' | null>(null);
	let billed = $derived(
		new Map(data.billed.map((part) => [`${part.type}:${part.partId}`, part.number ?? 'on a draft']))
	);
	let working = $derived(job.state === 'booked' || job.state === 'underWay');
	let staged = $derived(data.stages.some((stage) => stage.state !== 'dropped'));
	let canBill = $derived(
		data.toBillCount > 0 && job.state !== 'dropped' && job.state !== 'enquiry'
	);
	/** Job sheets that are finished: they can go with the bill. */
	let ready = $derived(data.sheets.filter(({ state }) => state === 'finished'));
	let sheetWords = $derived(
		ready.length === 1 ? 'its job sheet' : `its ${ready.length} job sheets`
	);
	let agreement = $derived(data.agreement);
	const QUOTE_STATES: Record<string, string> = {
		draft: 'being written',
		sent: 'out',
		accepted: 'agreed',
		declined: 'declined',
		withdrawn: 'withdrawn',
		cancelled: 'cancelled'
	};
	const copyKey = pressKey();
	let more = $derived<ComponentProps<typeof Menu>['entries']>([
		{ label: 'Change', href: `/work/${job.id}/edit` },
		{ label: 'Copy', href: '?/copy', post: { key: copyKey } },
		...(data.work.lines.length
			? [{ label: 'Repeat it', href: '?/repeat', post: { key: copyKey } }]
			: []),
		...(job.state === 'finished' || job.state === 'billed'
			? [{ label: 'Reopen', href: '?/move', post: { to: 'underWay' } }]
			: []),
		...(job.state !== 'dropped' && !staged && data.billed.length === 0
			? [{ label: 'Cancel the job', href: '?/move', post: { to: 'dropped' } }]
			: []),
		...(data.billed.length === 0 && data.stages.length === 0
			? [{ label: 'Remove it for good', href: '?/remove', post: {} }]
			: [])
	]);
	let files = $state<HTMLElement>();
	let done: HTMLElement;

	/** From the buttons at the thumb: opens the form and brings it into view. */
	function begin(what: 'time' | 'cost'): void {
		adding = what;
		tick().then(() => done.querySelector('form')?.scrollIntoView({ block: 'center' }));
	}
</script>

<svelte:head><title>{job.number} {job.title} · Axiometer</title></svelte:head>
<div class="page phone:pb-45">
	<header
		class="flex gap-y-2 gap-x-3 items-end flex-wrap mb-3.5 pb-3 border-b-8 border-b-(--tape) [border-image:repeating-linear-gradient(90deg,var(--ink)_0_1.5px,var(--tape)_1.5px_12px)_8] phone:-mx-4 phone:-mt-4 phone:px-4 phone:pt-3 phone:bg-(--strip) phone:text-(--strip-text) phone:[&_.quiet]:text-(--strip-text)"
	>
		<div>
			<p class="quiet">
				<span class="mono">{job.number}</span> ·
				<a href="/customers/{data.customer.id}">{data.customer.name}</a>{site
					? ` · ${site.name}`
					: ''}
			</p>
			<h1 class="wrap-anywhere">{job.title}</h1>
			<p class="quiet">
				{STANDING_NAMES[data.standing]}{job.finishedOn
					? ` ${displayDate(job.finishedOn)}`
					: ''}{job.contract && data.customer.kind === 'contractor'
					? ` · ${CONTRACT_NAMES[job.contract]}`
					: ''}{job.retention ? ` · ${job.retention} % held back` : ''}
				{#each job.labels as label (label)}<span class="tag">{label}</span>{/each}
			</p>
		</div>
		<span class="flex-1 phone:hidden"></span>
		<div class="flex gap-2 flex-wrap phone:hidden">{@render presses()}</div>
		{#if canBill}
			<Form class="flex flex-wrap items-center gap-2 phone:hidden" action="?/bill" keyed>
				{#if working}<input type="hidden" name="finish" value="yes" />{/if}
				{#if ready.length}<Tick name="sheets" checked>with {sheetWords}</Tick>{/if}
				<Choice label="How it stands on the invoice" quiet name="shape" value="lines">
					<option value="lines">line by line</option>
					<option value="kinds">by kind</option>
					<option value="single">as one line</option>
				</Choice>
				<button class="button filled"
					>{working ? 'Finished: bill' : 'Bill'} {displayPounds(data.toBill)}</button
				>
			</Form>
		{/if}
	</header>
	{#if data.just === 'copied'}
		<p class="panel py-2.5 px-3.5 bg-(--tape-tint) mb-3.5" role="status">
			This is the copy, {job.number}: what was agreed is on it, and nothing of what was done.
			<a href="/work/{job.id}/edit">Change it</a>
		</p>
	{/if}
	{#if site?.accessNotes || job.privateNote}
		<p class="panel note py-2.5 px-3.5 bg-(--tape-tint) mb-3.5 whitespace-pre-line">
			{#if site?.accessNotes}<b>Access:</b> {site.accessNotes}<br />{/if}
			{#if job.privateNote}<b>Private:</b> {job.privateNote}{/if}
		</p>
	{/if}

	<div
		class="columns grid grid-cols-[minmax(0,1fr)_380px] gap-y-4.5 gap-x-5.5 items-start max-[1050px]:grid-cols-1"
	>
		<div class="grid gap-3.5">
			<ClockBar jobId={job.id} clock={data.clock} now={data.now} canStart={working} />
			<div class="hidden phone:grid phone:grid-cols-[repeat(3,1fr)] phone:gap-2.5">
				<button
					class="button phone:min-h-12 phone:justify-center"
					type="button"
					onclick={() => begin('time')}>Time</button
				>
				<button
					class="button phone:min-h-12 phone:justify-center"
					type="button"
					onclick={() => begin('cost')}>Materials</button
				>
				<button
					class="button phone:min-h-12 phone:justify-center"
					type="button"
					onclick={() => files?.querySelector<HTMLElement>('input[type=file]')?.click()}
					><Camera size={18} aria-hidden="true" />Photo</button
				>
			</div>
			<Whereabouts address={site?.address || data.customer.address} people={data.people} />
			<section class="panel part py-4 px-4.5 grid gap-2 justify-items-start *:w-full">
				<h2>Agreed</h2>
				{#if data.work.lines.length}
					<ul class="lines">
						{#each data.work.lines as line (line.id)}
							{@const holder = billed.get(`line:${line.id}`)}
							<li
								class="grid grid-cols-[minmax(0,1fr)_auto_auto] gap-2.5 py-2.25 px-0 border-b border-b-(--hair) items-center"
							>
								<span class="what"
									><b class="block wrap-anywhere whitespace-pre-line">{line.description}</b><span
										class="quiet block wrap-anywhere whitespace-pre-line"
										>{line.quantity}{line.unit ? ` ${line.unit}` : ''} × {line.unitPrice}{line.extra
											? ' · extra'
											: ''}{line.cost ? ` · cost you ${line.cost}` : ''}</span
									></span
								>
								<b class="numbers">{displayAmount(lineAmount(line))}</b>
								{#if holder}<span class="tag">{holder}</span>{/if}
							</li>
						{/each}
					</ul>
				{:else}
					<p class="quiet">
						{job.fixedPrice ? 'No price is agreed yet.' : 'Billed by time and materials.'}
					</p>
				{/if}
				{#if agreement.quote}<p>
						By <a href="/work/quotes/{agreement.quote.id}">{agreement.quote.number}</a>, agreed {displayDate(
							agreement.quote.on
						)}{agreement.cancel
							? agreement.cancel === 'open'
								? '; they can cancel until 14 days after the last of the materials came'
								: `; they can cancel until the end of ${displayDate(agreement.cancel)}`
							: ''}.
						{#if agreement.mayBegin}<b
								class="block border-l-4 border-l-(--oxide) pl-3 font-semibold"
								>Work may not begin before {displayDate(agreement.mayBegin)}: they did not ask for
								it in writing.</b
							>{/if}
					</p>{/if}
				{#if agreement.goods}<LateFold
						label={agreement.receivedOn
							? `They had the last of the materials on ${displayDate(agreement.receivedOn)}`
							: 'When they had the last of the materials'}
					>
						<Form
							action="?/received"
							done="Kept: the days to cancel run from it."
							class="flex flex-wrap items-end gap-3"
						>
							<DateField
								label="On"
								name="receivedOn"
								value={agreement.receivedOn ?? ''}
								hint="The 14 days to cancel run from that day; empty: from the day the work is finished."
							/>
							<button class="button">Keep it</button>
						</Form>
					</LateFold>{/if}
				{#each agreement.extras as extra (extra.id)}<p>
						Extra work: <a href="/work/quotes/{extra.id}">{extra.number ?? extra.title}</a>,
						{displayPounds(extra.total)}, {QUOTE_STATES[extra.state]}
					</p>{/each}
				<div class="row flex flex-wrap items-center gap-y-1 gap-x-3.5">
					<a class="button plain" href="/work/{job.id}/edit#lines">Change what is agreed</a>
					{#if working}<Form action="/work/quotes/new" leaves keyed hidden={{ job: job.id }}
							><button class="button plain">Quote extra work</button></Form
						>{/if}
				</div>
			</section>
			{#if working || data.materials.length}<Materials
					materials={data.materials}
					agreed={data.work.lines.some(({ kind }) => kind === 'materials')}
					today={data.today}
				/>{/if}
			<section
				class="panel part py-4 px-4.5 grid gap-2 justify-items-start *:w-full later"
				bind:this={done}
			>
				<h2>Done and spent</h2>
				<TimeAndCosts
					work={data.work}
					{billed}
					today={data.today}
					hourlyRate={job.hourlyRate}
					hourlyCost={job.hourlyCost}
					chargeable={!job.fixedPrice}
					includes={data.registered ? job.pricesIncludeVat : null}
					bind:adding
				/>
			</section>
			<section class="panel part later py-4 px-4.5 grid gap-2 justify-items-start *:w-full">
				<h2>Photos and files</h2>
				<Files to="job" id={job.id} files={data.files} bind:root={files} />
			</section>
			<Visits visits={data.visits} today={data.today} people={data.crew} />
		</div>
		<aside class="later grid gap-3.5">
			{#if data.work.lines.length}<StagePanel
					jobId={job.id}
					position={data.position}
					stages={data.stages}
					retentions={data.retentions}
					plan={agreement.plan}
					exact={job.pricesIncludeVat || !data.registered}
					canStage={data.canStage && job.state !== 'dropped' && job.state !== 'enquiry'}
					today={data.today}
				/>{/if}
			<MarginPanel margin={data.margin} />
			{#if data.customer.kind === 'contractor'}
				<section class="panel part py-4 px-4.5 grid gap-2 justify-items-start *:w-full">
					<h2>Class of the contract</h2>
					<p>
						{job.contract ? CONTRACT_NAMES[job.contract] : 'Not decided yet'}{job.contractReason
							? `: ${job.contractReason}`
							: ''}
					</p>
					<ul class="quiet">
						{#each data.contract.workings as step (step)}<li>{step}</li>{/each}
						<li>So the lines make it: {CONTRACT_NAMES[data.contract.contract].toLowerCase()}.</li>
						<li>{data.contract.reference}</li>
					</ul>
				</section>
			{/if}
			{#if data.sheets.length}<section
					class="panel part py-4 px-4.5 grid gap-2 justify-items-start *:w-full"
				>
					<h2>Job sheets</h2>
					<ul class="grid gap-1.5">
						{#each data.sheets as sheet (sheet.id)}<li
								class="flex flex-wrap justify-between gap-x-3"
							>
								<a href="/work/sheets/{sheet.id}">{sheet.number ?? `${job.number}/${sheet.n}`}</a>
								<span class="quiet"
									>{sheet.state === 'draft'
										? 'being written'
										: `${displayDate(sheet.finishedOn!)}, ${sheet.signedBy ? `signed by ${sheet.signedBy}` : 'not signed'}`}</span
								>
							</li>{/each}
					</ul>
				</section>{/if}
			<section class="panel part py-4 px-4.5 grid gap-2 justify-items-start *:w-full">
				<h2>Trail</h2>
				<ul class="trail">
					{#each data.trail as entry (entry.id)}
						<li class="py-1 px-0">
							{entry.words}{entry.detail ? `: ${entry.detail}` : ''}
							<span class="quiet">{displayMoment(entry.at)}</span>
						</li>
					{/each}
				</ul>
			</section>
			<div class="hidden phone:flex gap-2 flex-wrap">{@render presses()}</div>
		</aside>
	</div>

	{#if canBill}
		<Form
			class="thumb hidden low:static! phone:fixed phone:[inset:auto_0_64px_0] phone:z-20 phone:block phone:py-2.5 phone:px-4 phone:bg-(--sheet) phone:border-t-[1.5px] phone:border-t-(--ink)"
			action="?/bill"
			keyed
			hidden={{ shape: 'lines' }}
		>
			{#if working}<input type="hidden" name="finish" value="yes" />{/if}
			{#if ready.length}<input type="hidden" name="sheets" value="yes" />{/if}
			<button class="button filled phone:w-full phone:min-h-13.5"
				>{working ? 'Finished: bill' : 'Bill'} {displayPounds(data.toBill)}</button
			>
		</Form>
	{/if}
</div>

{#snippet presses()}
	{#if job.state === 'enquiry' || job.state === 'dropped'}
		<Form action="?/move"><button class="button" name="to" value="booked">Take it on</button></Form>
	{:else if working}
		<Form action="?/move"
			><button class="button" name="to" value="finished">Finished: bill later</button></Form
		>
	{/if}
	{#if job.state !== 'enquiry' && job.state !== 'dropped'}<Form action="?/sheet" leaves keyed
			><button class="button">Job sheet</button></Form
		>{/if}
	<Menu entries={more} />
{/snippet}
