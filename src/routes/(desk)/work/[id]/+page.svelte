<script lang="ts">
	import Camera from '@lucide/svelte/icons/camera';
	import FilePick from '$lib/ui/parts/FilePick.svelte';
	import { tick } from 'svelte';
	import { enhance } from '$app/forms';
	import { displayDate, displayMoment } from '$lib/core/calendar/conversion';
	import { lineAmount } from '$lib/core/jobs/billing';
	import { JOB_STATE_NAMES } from '$lib/core/jobs/types';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import { pressKey } from '$lib/ui/parts/keys';
	import ClockBar from '$lib/ui/jobs/ClockBar.svelte';
	import MarginPanel from '$lib/ui/jobs/MarginPanel.svelte';
	import StagePanel from '$lib/ui/billing/StagePanel.svelte';
	import TimeAndCosts from '$lib/ui/jobs/TimeAndCosts.svelte';
	import Visits from '$lib/ui/jobs/Visits.svelte';

	let { data, form } = $props();
	let job = $derived(data.job);
	let site = $derived(data.sites.find((one) => one.id === job.siteId));
	let adding = $state<'time' | 'cost' | null>(null);
	let billKey = $state(pressKey());
	const repeatKey = pressKey();
	let billed = $derived(
		new Map(data.billed.map((part) => [`${part.type}:${part.partId}`, part.number ?? 'on a draft']))
	);
	let errors = $derived<Record<string, string>>((form && 'fields' in form && form.fields) || {});
	let wrongForm = $derived(form && 'values' in form ? String(form.values?.form ?? '') : '');
	let message = $derived(form && 'message' in form && !wrongForm ? form.message : '');
	let working = $derived(job.state === 'booked' || job.state === 'underWay');
	let staged = $derived(data.stages.some((stage) => stage.state !== 'dropped'));
	const CLASSES = {
		construction: 'Construction contract',
		minor: 'Construction at most 5 %',
		none: 'No construction work'
	};
	let files: HTMLFormElement;
	let done: HTMLElement;

	/** From the buttons at the thumb: opens the form and brings it into view. */
	function begin(what: 'time' | 'cost'): void {
		adding = what;
		tick().then(() => done.querySelector('form')?.scrollIntoView({ block: 'center' }));
	}
</script>

<svelte:head><title>{job.number} {job.title} · Axiometer</title></svelte:head>
<div class="page">
	<header>
		<div>
			<p class="quiet">
				<span class="mono">{job.number}</span> ·
				<a href="/customers/{data.customer.id}">{data.customer.name}</a>{site
					? ` · ${site.name}`
					: ''}
			</p>
			<h1>{job.title}</h1>
			<p class="quiet">
				{JOB_STATE_NAMES[job.state]}{job.finishedOn
					? ` ${displayDate(job.finishedOn)}`
					: ''}{job.contract && data.customer.kind === 'contractor'
					? ` · ${CLASSES[job.contract]}`
					: ''}{job.retention ? ` · ${job.retention} % held back` : ''}
				{#each job.labels as label (label)}<span class="tag">{label}</span>{/each}
			</p>
		</div>
		<span class="gap"></span>
		<a class="button" href="/work/{job.id}/edit">Change</a>
		<form method="post" action="?/move" use:enhance>
			{#if job.state === 'enquiry' || job.state === 'dropped'}<button
					class="button"
					name="to"
					value="booked">Book it</button
				>{/if}
			{#if working}<button class="button" name="to" value="finished">Finished: bill later</button
				>{/if}
			{#if job.state === 'finished' || job.state === 'billed'}<button
					class="button"
					name="to"
					value="underWay">Take it up again</button
				>{/if}
			{#if job.state !== 'dropped' && !staged && data.billed.length === 0}<button
					class="button plain"
					name="to"
					value="dropped">Drop it</button
				>{/if}
		</form>
		{#if data.toBillCount > 0 && job.state !== 'dropped' && job.state !== 'enquiry'}
			<form
				class="bill wide-only"
				method="post"
				action="?/bill"
				use:enhance={() =>
					async ({ update }) => {
						billKey = pressKey();
						await update();
					}}
			>
				<input type="hidden" name="key" value={billKey} />
				{#if working}<input type="hidden" name="finish" value="yes" />{/if}
				<select class="box" name="shape" aria-label="How it stands on the invoice">
					<option value="lines">line by line</option>
					<option value="kinds">by kind</option>
					<option value="single">as one line</option>
				</select>
				<button class="button filled"
					>{working ? 'Finished: bill' : 'Bill'} {displayPounds(data.toBill)}</button
				>
			</form>
		{/if}
	</header>
	{#if message}<p class="wrong" role="alert">{message}</p>{/if}
	{#if site?.accessNotes || job.privateNote}
		<p class="panel note">
			{#if site?.accessNotes}<b>Access:</b> {site.accessNotes}<br />{/if}
			{#if job.privateNote}<b>Private:</b> {job.privateNote}{/if}
		</p>
	{/if}

	<div class="columns">
		<div class="main">
			<ClockBar jobId={job.id} clock={data.clock} now={data.now} canStart={working} />
			<div class="quick">
				<button class="button" type="button" onclick={() => begin('time')}>Time</button>
				<button class="button" type="button" onclick={() => begin('cost')}>Materials</button>
				<label class="button" for="job-file"><Camera size={18} aria-hidden="true" />Photo</label>
			</div>
			<section class="panel part">
				<h2>Agreed</h2>
				{#if data.work.lines.length}
					<ul class="lines">
						{#each data.work.lines as line (line.id)}
							{@const holder = billed.get(`line:${line.id}`)}
							<li>
								<span class="what"
									><b>{line.description}</b><span class="quiet"
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
				<div class="row">
					<a class="button plain" href="/work/{job.id}/edit#lines">Change what is agreed</a>
					{#if data.work.lines.length}
						<form method="post" action="?/repeat" use:enhance>
							<input type="hidden" name="key" value={repeatKey} />
							<button class="button plain">Bill it again and again</button>
						</form>
					{/if}
				</div>
			</section>
			<section class="panel part" bind:this={done}>
				<h2>Done and spent</h2>
				<TimeAndCosts
					work={data.work}
					{billed}
					today={data.today}
					hourlyRate={job.hourlyRate}
					hourlyCost={job.hourlyCost}
					chargeable={!job.fixedPrice}
					{errors}
					{wrongForm}
					bind:adding
				/>
			</section>
			<section class="panel part">
				<h2>Photos and files</h2>
				<ul class="files">
					{#each data.files as file (file.id)}
						<li>
							<a href="/work/{job.id}/files/{file.id}" target="_blank" rel="noreferrer"
								>{#if file.type === 'image/jpeg'}<img
										src="/work/{job.id}/files/{file.id}?small"
										alt={file.name}
										loading="lazy"
									/>{:else}{file.name}{/if}</a
							>
							<form method="post" action="?/removeFile" use:enhance>
								<input type="hidden" name="entry" value={file.id} />
								<button class="button plain">Remove<span class="sr-only"> {file.name}</span></button
								>
							</form>
						</li>
					{/each}
				</ul>
				<form
					bind:this={files}
					method="post"
					action="?/file"
					enctype="multipart/form-data"
					use:enhance
				>
					<FilePick
						label="Photo or file"
						name="file"
						multiple
						error={errors.file}
						onchoose={() => files.requestSubmit()}
					/>
				</form>
			</section>
			<Visits
				visits={data.visits}
				today={data.today}
				errors={wrongForm === 'visit' ? errors : {}}
			/>
		</div>
		<aside>
			{#if data.work.lines.length}<StagePanel
					jobId={job.id}
					position={data.position}
					stages={data.stages}
					retentions={data.retentions}
					canStage={data.canStage && job.state !== 'dropped' && job.state !== 'enquiry'}
					today={data.today}
				/>{/if}
			<MarginPanel margin={data.margin} />
			{#if data.customer.kind === 'contractor'}
				<section class="panel part">
					<h2>Class of the contract</h2>
					<p>
						{job.contract ? CLASSES[job.contract] : 'Not decided yet'}{job.contractReason
							? `: ${job.contractReason}`
							: ''}
					</p>
					<ul class="quiet">
						{#each data.contract.workings as step (step)}<li>{step}</li>{/each}
						<li>So the lines make it: {CLASSES[data.contract.contract].toLowerCase()}.</li>
						<li>{data.contract.reference}</li>
					</ul>
				</section>
			{/if}
			<section class="panel part">
				<h2>Trail</h2>
				<ul class="trail">
					{#each data.trail as entry (entry.id)}
						<li>
							{entry.words}{entry.detail ? `: ${entry.detail}` : ''}
							<span class="quiet">{displayMoment(entry.at)}</span>
						</li>
					{/each}
				</ul>
				{#if data.billed.length === 0 && data.stages.length === 0}
					<form method="post" action="?/remove" use:enhance>
						<button class="button plain">Remove this job</button>
					</form>
				{/if}
			</section>
		</aside>
	</div>

	{#if data.toBillCount > 0 && job.state !== 'dropped' && job.state !== 'enquiry'}
		<form class="thumb" method="post" action="?/bill" use:enhance>
			<input type="hidden" name="key" value={billKey} />
			{#if working}<input type="hidden" name="finish" value="yes" />{/if}
			<input type="hidden" name="shape" value="lines" />
			<button class="button filled"
				>{working ? 'Finished: bill' : 'Bill'} {displayPounds(data.toBill)}</button
			>
		</form>
	{/if}
</div>

<style>
	header {
		display: flex;
		gap: 8px 12px;
		align-items: end;
		flex-wrap: wrap;
		margin-bottom: 14px;
		padding-bottom: 12px;
		border-bottom: 8px solid var(--tape);
		border-image: repeating-linear-gradient(90deg, var(--ink) 0 1.5px, var(--tape) 1.5px 12px) 8;
	}
	h1 {
		overflow-wrap: anywhere;
	}
	.gap {
		flex: 1;
	}
	header form {
		display: flex;
		gap: 8px;
	}
	.bill .box {
		width: auto;
	}
	.note {
		padding: 10px 14px;
		background: var(--tape-tint);
		margin-bottom: 14px;
		white-space: pre-line;
	}
	.columns {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 380px;
		gap: 18px 22px;
		align-items: start;
	}
	.main,
	aside {
		display: grid;
		gap: 14px;
	}
	.part {
		padding: 16px 18px;
		display: grid;
		gap: 8px;
		justify-items: start;
	}
	.part > :global(*) {
		width: 100%;
	}
	.part form .button {
		width: auto;
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 14px;
	}
	.lines li {
		display: grid;
		grid-template-columns: minmax(0, 1fr) auto auto;
		gap: 10px;
		padding: 9px 0;
		border-bottom: 1px solid var(--hair);
		align-items: center;
	}
	.what > * {
		display: block;
		overflow-wrap: anywhere;
		white-space: pre-line;
	}
	.files {
		display: flex;
		flex-wrap: wrap;
		gap: 10px;
	}
	.files li {
		display: grid;
		justify-items: start;
	}
	.files img {
		height: 110px;
		border: 1px solid var(--hair);
	}
	.trail li {
		padding: 4px 0;
	}
	.quick,
	.thumb {
		display: none;
	}
	@media (max-width: 1050px) {
		.columns {
			grid-template-columns: minmax(0, 1fr);
		}
	}
	@media (max-width: 760px) {
		.page {
			padding-bottom: 180px;
		}
		.wide-only {
			display: none;
		}
		.gap {
			display: none;
		}
		header .button {
			flex: 1;
		}
		.quick {
			display: grid;
			grid-template-columns: repeat(3, 1fr);
			gap: 10px;
		}
		.quick .button {
			min-height: 48px;
			justify-content: center;
		}
		.thumb {
			position: fixed;
			inset: auto 0 64px 0;
			z-index: 20;
			display: block;
			padding: 10px 16px;
			background: var(--sheet);
			border-top: 1.5px solid var(--ink);
		}
		.thumb .button {
			width: 100%;
			min-height: 54px;
		}
	}
</style>
