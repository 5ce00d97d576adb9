<script lang="ts">
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { displayPounds } from '$lib/core/money/display';
	import Tabs from '$lib/ui/parts/Places.svelte';
	import MarginPanel from '$lib/ui/jobs/MarginPanel.svelte';
	import { WORK_PAGES } from '$lib/ui/jobs/tabs';

	let { data } = $props();
	let form: HTMLFormElement;
	const percent = (perMille: number | null) => (perMille === null ? '–' : `${perMille / 10} %`);
	/** How much of its income a job keeps, as a length; below zero it is hatched. */
	const part = (perMille: number | null) => Math.min(100, Math.abs(perMille ?? 0) / 10);
</script>

<svelte:head><title>Margins · Axiometer</title></svelte:head>
<div class="page">
	<h1>Work</h1>
	<Tabs label="Work" pages={WORK_PAGES} />
	<form class="filters" bind:this={form} onchange={() => form.requestSubmit()}>
		<label class="field"
			><span class="name">Label</span><select class="box" name="label" value={data.query.label}>
				<option value="">any</option>
				{#each data.labels as label (label)}<option value={label}>{label}</option>{/each}
			</select></label
		>
		<DateField label="Finished from" name="from" value={data.query.from ?? ''} />
		<DateField label="until" name="to" value={data.query.to ?? ''} />
		<label class="field"
			><span class="name">Sorted by</span><select class="box" name="sort" value={data.sort}>
				<option value="money">money, least first</option>
				<option value="percent">percent, least first</option>
			</select></label
		>
		{#if data.query.customerId}<input
				type="hidden"
				name="customer"
				value={data.query.customerId}
			/>{/if}
	</form>
	{#if data.rows.length === 0}
		<div class="panel empty">
			<h2>No job fits</h2>
			<p>Margins of jobs stand here as soon as there are jobs.</p>
		</div>
	{:else}
		<div class="columns">
			<ul class="panel">
				{#each data.rows as row (row.id)}
					<li>
						<a href="/work/{row.id}">
							<span class="what"
								><b>{row.title}</b><span class="quiet"
									><span class="mono">{row.number}</span> · {row.customer}</span
								></span
							>
							<span class="bar" aria-hidden="true"
								><span
									class:below={(row.margin.perMille ?? 0) < 0}
									style:width="{part(row.margin.perMille)}%"
								></span></span
							>
							<span class="numbers r quiet">{percent(row.margin.perMille)}</span>
							<b class="numbers r" class:late={row.margin.margin < 0n}
								>{displayPounds(row.margin.margin)}</b
							>
						</a>
					</li>
				{/each}
			</ul>
			<MarginPanel
				margin={data.total}
				title={`${data.count} ${data.count === 1 ? 'job' : 'jobs'} together`}
			/>
		</div>
	{/if}
</div>

<style>
	.filters {
		display: flex;
		gap: 10px 14px;
		flex-wrap: wrap;
		margin-bottom: 12px;
	}
	.columns {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 360px;
		gap: 16px 22px;
		align-items: start;
	}
	li a {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 180px 70px 110px;
		gap: 4px 14px;
		align-items: center;
		padding: 9px 16px;
		text-decoration: none;
		border-bottom: 1px solid var(--hair);
	}
	li a:hover {
		background: var(--tape-tint);
	}
	.what > * {
		display: block;
		overflow-wrap: anywhere;
	}
	.bar {
		height: 12px;
		border: 1px solid var(--hair);
		background: var(--plaster);
	}
	.bar span {
		display: block;
		height: 100%;
		background: var(--ink);
	}
	.bar .below {
		background: repeating-linear-gradient(45deg, var(--oxide) 0 2px, transparent 2px 6px);
	}
	.r {
		text-align: right;
	}
	.empty {
		padding: 22px;
	}
	@media (max-width: 1000px) {
		.columns {
			grid-template-columns: minmax(0, 1fr);
		}
	}
	@media (max-width: 760px) {
		li a {
			grid-template-columns: minmax(0, 1fr) auto;
		}
		.bar {
			display: none;
		}
	}
</style>
