<script lang="ts">
	import Segments from '$lib/ui/parts/Segments.svelte';
	import Labels from '$lib/ui/parts/Labels.svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { tick, untrack } from 'svelte';
	import { goto } from '$app/navigation';
	import Field from '$lib/ui/parts/Field.svelte';
	import WorkKindChoice from '$lib/ui/letterheads/WorkKindChoice.svelte';
	import CustomerFinder from '$lib/ui/customers/CustomerFinder.svelte';
	import Choice from '$lib/ui/parts/Choice.svelte';
	import LineEditor from '$lib/ui/lines/LineEditor.svelte';
	import { Draft } from '$lib/ui/lines/draft.svelte';
	import { SvelteMap } from 'svelte/reactivity';

	let { data } = $props();
	const start = untrack(() => data);
	let job = $state({
		title: start.job.title,
		siteId: start.job.siteId,
		billToId: start.job.billToId,
		workKindId: start.job.workKindId,
		contractReason: start.job.contractReason,
		endUserStatement: start.job.endUserStatement,
		endUserDate: start.job.endUserDate ?? '',
		description: start.job.description,
		privateNote: start.job.privateNote,
		fixedPrice: start.job.fixedPrice,
		hourlyRate: start.job.hourlyRate,
		hourlyCost: start.job.hourlyCost,
		retention: start.job.retention,
		retentionDue: start.job.retentionDue ?? ''
	});
	let labels = $state(start.job.labels.join(', '));
	/** A line of the job is a row of the grid; its own mark is kept beside it. */
	const idOf = (rowId: string) => Number(/^l(\d+)$/.exec(rowId)?.[1]) || null;
	const extra = new SvelteMap(start.lines.map((line) => [`l${line.id}`, line.extra]));
	/** New lines are extras once something is agreed and billed. */
	const isExtra = (rowId: string) => extra.get(rowId) ?? start.billed.length > 0;
	const draft = new Draft({
		...start.parties,
		of: 'job',
		draft: { id: start.job.id, sheet: start.sheet }
	});
	let errors = $state<Record<string, string>>({});
	let message = $state('');
	let busy = $state(false);
	let root: HTMLFormElement;
	let contractor = $derived(start.customer.kind === 'contractor');

	async function save(event: SubmitEvent) {
		event.preventDefault();
		busy = true;
		const rows = draft.kept.filter((row) => row.type === 'line');
		const body = {
			version: start.job.version,
			job: {
				...$state.snapshot(job),
				customerId: start.job.customerId,
				contract: draft.sheet.contract,
				labels: labels
					.split(',')
					.map((label) => label.trim())
					.filter(Boolean),
				pricesIncludeVat: draft.sheet.pricesIncludeVat,
				lines: rows.map(({ id, type: _type, itemId, ...line }) => ({
					...(idOf(id) ? { id: idOf(id) } : {}),
					...line,
					extra: isExtra(id),
					itemId: itemId ?? null
				}))
			}
		};
		const response = await fetch(`/work/${start.job.id}/api`, {
			method: 'PUT',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify(body)
		}).catch(() => null);
		busy = false;
		if (response?.ok) return goto(`/work/${start.job.id}`);
		const answer = await response?.json().catch(() => null);
		errors = answer?.fields ?? {};
		// `lines.1.unitPrice` is a cell of the second row.
		draft.refused = Object.fromEntries(
			Object.entries(errors).map(([path, said]) => [
				path.replace(/^lines\.(\d+)/, (whole, n) => {
					const row = rows[Number(n)];
					return row ? `rows.${row.id}` : whole;
				}),
				said
			])
		);
		message = answer?.message ?? 'The connection is lost. Nothing was saved; try again.';
		await tick();
		root.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus();
	}
</script>

<svelte:head><title>Change {start.job.number} · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/work/{start.job.id}">{start.job.number}</a> · {start.customer.name}</p>
	<h1>Change the job</h1>
	<form class="grid gap-3.5 mt-3 max-w-275" bind:this={root} onsubmit={save} novalidate>
		{#if message}<p class="wrong" role="alert">{message}</p>{/if}
		<section class="panel py-4 px-4.5 grid gap-2.5" id="lines">
			<h2>What is agreed</h2>
			<LineEditor {draft} last={job.fixedPrice ? 'Agreed' : 'Of the lines'}>
				{#snippet beside(line, number)}
					<label class="check min-h-6.5 text-[0.875rem] text-(--ink-2) items-center"
						><input
							type="checkbox"
							checked={isExtra(line.id)}
							aria-label="Extra, line {number}"
							onchange={(event) => extra.set(line.id, event.currentTarget.checked)}
						/> extra</label
					>
				{/snippet}
			</LineEditor>
			{#if errors.lines}<p class="wrong">{errors.lines}</p>{/if}
		</section>
		<section
			class="panel py-4 px-4.5 grid grid-cols-[repeat(auto-fit,minmax(260px,1fr))] gap-y-3 gap-x-4.5"
		>
			<Field label="Title" name="title" bind:value={job.title} error={errors.title} />
			<Labels label="Labels" name="labels" bind:value={labels} error={errors.labels} />
			<Choice label="Site" bind:value={job.siteId} error={errors.siteId}>
				<option value={null}>none in particular</option>
				{#each start.sites as site (site.id)}<option value={site.id}>{site.name}</option>{/each}
			</Choice>
			<WorkKindChoice bind:value={job.workKindId} error={errors.workKindId} />
			<CustomerFinder
				label="The bill goes to"
				placeholder="as for the customer and site"
				bind:value={job.billToId}
				except={start.job.customerId}
				error={errors.billToId}
			/>
			<Field
				label="Description"
				name="description"
				rows={3}
				bind:value={job.description}
				error={errors.description}
			/>
			<Field
				label="Private note: never on a document"
				name="privateNote"
				rows={3}
				bind:value={job.privateNote}
				error={errors.privateNote}
			/>
		</section>
		{#if contractor}
			<section class="panel py-4 px-4.5 grid gap-2.5">
				<Segments
					label="Is there construction work in this contract?"
					bind:value={draft.sheet.contract}
					options={[
						{ value: 'construction', label: 'Yes' },
						{ value: 'minor', label: 'At most 5 % of it' },
						{ value: 'none', label: 'No' }
					]}
				/>
				{#if errors.contract}<p class="wrong">{errors.contract}</p>{/if}
				<p class="quiet">{start.contract.workings.join(' ')} {start.contract.reference}.</p>
				{#if draft.sheet.contract && draft.sheet.contract !== start.contract.contract}
					<Field
						label="The lines say otherwise. Why is it so?"
						name="contractReason"
						bind:value={job.contractReason}
						error={errors.contractReason}
					/>
				{/if}
				<div class="grid grid-cols-[minmax(0,1fr)_14rem] gap-x-4.5 gap-y-2.5 phone:grid-cols-1">
					<Field
						label="What they wrote of being the end user of this job"
						name="endUserStatement"
						placeholder="nothing: the reverse charge applies where it can"
						bind:value={job.endUserStatement}
						error={errors.endUserStatement}
					/>
					<DateField
						label="On"
						name="endUserDate"
						max={data.today}
						bind:value={job.endUserDate}
						error={errors.endUserDate}
					/>
				</div>
			</section>
		{/if}
		<section
			class="panel py-4 px-4.5 grid grid-cols-[repeat(auto-fit,minmax(260px,1fr))] gap-y-3 gap-x-4.5"
		>
			<label class="check"
				><input type="checkbox" bind:checked={job.fixedPrice} /><span
					>A price is agreed: time and costs count for the margin alone</span
				></label
			>
			<Field
				label={data.registered
					? `Charged for an hour, ${draft.sheet.pricesIncludeVat ? 'with' : 'without'} VAT, £`
					: 'Charged for an hour, £'}
				name="hourlyRate"
				inputmode="decimal"
				bind:value={job.hourlyRate}
				error={errors.hourlyRate}
			/>
			<Field
				label="An hour costs you, £"
				name="hourlyCost"
				inputmode="decimal"
				bind:value={job.hourlyCost}
				error={errors.hourlyCost}
			/>
			<Field
				label="Held back on each stage, %"
				name="retention"
				inputmode="decimal"
				placeholder="none"
				bind:value={job.retention}
				error={errors.retention}
			/>
			<DateField
				label="Held back until"
				name="retentionDue"
				bind:value={job.retentionDue}
				error={errors.retentionDue}
			/>
		</section>
		<div
			class="flex gap-2.5 sticky bottom-0 z-5 bg-(--plaster) border-t-[1.5px] border-t-(--ink) py-2.5 px-0 flex-wrap phone:static"
		>
			<button class="button filled" aria-busy={busy}>Save the job</button>
			<a class="button" href="/work/{start.job.id}">Leave it as it was</a>
		</div>
	</form>
</div>
