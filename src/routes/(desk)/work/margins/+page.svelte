<script lang="ts">
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { displayPounds } from '$lib/core/money/display';
	import { counted } from '$lib/core/words';
	import Tabs from '$lib/ui/parts/Places.svelte';
	import MarginPanel from '$lib/ui/jobs/MarginPanel.svelte';
	import { WORK_PAGES } from '$lib/ui/jobs/tabs';

	let { data } = $props();
	let form: HTMLFormElement;
	const of = (kind: number) => {
		const { label, from, to, customerId } = data.query;
		const given = Object.entries({ label, from, to, customer: customerId, sort: data.sort, kind });
		return `?${new URLSearchParams(
			given.flatMap(([name, value]) =>
				value === undefined || value === '' ? [] : [[name, String(value)]]
			)
		)}`;
	};
	/** A job each, or a kind of work each, which opens into its jobs. */
	let shown = $derived(
		data.by === 'kind'
			? data.kinds.map(({ id, name, count, margin }) => ({
					href: of(id),
					title: name || 'No kind of work',
					number: '',
					detail: counted(count, 'job'),
					margin
				}))
			: data.rows.map(({ id, title, number, customer, margin }) => ({
					href: `/work/${id}`,
					title,
					number,
					detail: customer,
					margin
				}))
	);
	let kind = $derived(
		data.query.workKindId === undefined ? '' : (data.kinds[0]?.name ?? '') || 'no kind of work'
	);
	const percent = (perMille: number | null) => (perMille === null ? '–' : `${perMille / 10} %`);
	/** How much of its income a job keeps, as a length; below zero it is hatched. */
	const part = (perMille: number | null) => Math.min(100, Math.abs(perMille ?? 0) / 10);
</script>

<svelte:head><title>Margins · Axiometer</title></svelte:head>
<div class="page">
	<h1>Work</h1>
	<Tabs label="Work" pages={WORK_PAGES} />
	<form
		class="flex gap-y-2.5 gap-x-3.5 flex-wrap mb-3"
		bind:this={form}
		data-sveltekit-keepfocus
		data-sveltekit-noscroll
		onchange={() => form.requestSubmit()}
	>
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
		<label class="field"
			><span class="name">Each row is</span><select class="box" name="by" value={data.by}>
				<option value="job">a job</option>
				<option value="kind">a kind of work</option>
			</select></label
		>
		{#if data.query.customerId}<input
				type="hidden"
				name="customer"
				value={data.query.customerId}
			/>{/if}
	</form>
	{#if kind}<p class="mb-3">
			Of {kind} alone. <a href="/work/margins?by=kind">All kinds of work</a>
		</p>{/if}
	{#if data.rows.length === 0}
		<div class="panel p-5.5">
			<h2>No job fits</h2>
			<p>Margins of jobs stand here as soon as there are jobs.</p>
		</div>
	{:else}
		<div
			class="columns grid grid-cols-[minmax(0,1fr)_360px] gap-y-4 gap-x-5.5 items-start narrow:grid-cols-1"
		>
			<ul class="panel">
				{#each shown as row (row.href)}
					<li>
						<a
							class="grid grid-cols-[minmax(0,1fr)_180px_70px_110px] gap-y-1 gap-x-3.5 items-center py-2.25 px-4 no-underline border-b border-b-(--hair) phone:grid-cols-[minmax(0,1fr)_auto] hover:bg-(--tape-tint)"
							href={row.href}
						>
							<span class="what"
								><b class="block wrap-anywhere">{row.title}</b><span
									class="quiet block wrap-anywhere"
									>{#if row.number}<span class="mono">{row.number}</span> ·
									{/if}{row.detail}</span
								></span
							>
							<span
								class="h-3 border border-(--hair) bg-(--plaster) phone:hidden"
								aria-hidden="true"
								><span
									class="block h-full bg-(--ink) [&.below]:[background:repeating-linear-gradient(45deg,var(--oxide)_0_2px,transparent_2px_6px)]"
									class:below={(row.margin.perMille ?? 0) < 0}
									style:width="{part(row.margin.perMille)}%"
								></span></span
							>
							<span class="numbers quiet text-right">{percent(row.margin.perMille)}</span>
							<b class="numbers text-right" class:late={row.margin.margin < 0n}
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
