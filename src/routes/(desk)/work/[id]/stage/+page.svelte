<script lang="ts">
	import { untrack } from 'svelte';
	import { enhance } from '$app/forms';
	import type { StagePreview } from '$lib/core/jobs/stages';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import Field from '$lib/ui/parts/Field.svelte';
	import { pressKey } from '$lib/ui/parts/keys';

	let { data, form } = $props();
	const fresh = untrack(() => data.position.billed === 0n);
	let kind = $state(fresh ? 'deposit' : 'valuation');
	let by = $state(fresh ? 'percent' : 'toDate');
	let percent = $state('');
	let amount = $state('');
	let chosen = $state(untrack(() => data.lines.map((line) => line.id)));
	const key = pressKey();
	let root: HTMLFormElement;
	let errors = $derived<Record<string, string>>((form && 'fields' in form && form.fields) || {});
	let message = $derived(
		form && 'message' in form && !Object.keys(errors).length ? form.message : ''
	);
	let preview = $derived<StagePreview | null>((form && 'preview' in form && form.preview) || null);
	let asked = $state(false);
	const WAYS = [
		{ value: 'percent', words: 'A part of the whole, in percent' },
		{ value: 'amount', words: 'An amount' },
		{ value: 'toDate', words: 'Done to date, in percent' },
		{ value: 'lines', words: 'Valued line by line' },
		{ value: 'rest', words: 'All that is left' }
	];
	let parts = $derived(new Map(preview?.stage.parts.map((part) => [part.lineId, part.amount])));

	let timer: ReturnType<typeof setTimeout>;
	/** Shows what it comes to as soon as something is typed. */
	function look() {
		clearTimeout(timer);
		asked = false;
		const ready =
			by === 'rest' || by === 'lines' || (by === 'amount' ? amount : percent).trim() !== '';
		if (ready)
			timer = setTimeout(
				() => root.querySelector<HTMLButtonElement>('[formaction="?/preview"]')?.click(),
				300
			);
	}
</script>

<svelte:head><title>Bill a stage of {data.job.number} · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet">
		<a href="/work/{data.job.id}">{data.job.number}: {data.job.title}</a> · {data.customer.name}
	</p>
	<h1>Bill a stage</h1>
	<form
		bind:this={root}
		method="post"
		action="?/preview"
		use:enhance={({ action }) => {
			asked = !action.search.includes('preview');
			return ({ update }) => update({ reset: false });
		}}
	>
		<input type="hidden" name="key" value={key} />
		<section class="panel">
			<fieldset>
				<legend>How much?</legend>
				{#each WAYS as way (way.value)}
					<label class="check"
						><input
							type="radio"
							name="by"
							value={way.value}
							bind:group={by}
							onchange={() => {
								if (way.value === 'rest') kind = 'rest';
								else if (way.value === 'toDate' || way.value === 'lines') kind = 'valuation';
								else kind = fresh ? 'deposit' : 'stage';
								look();
							}}
						/>
						{way.words}</label
					>
				{/each}
			</fieldset>
			{#if by === 'percent' || by === 'toDate'}
				<Field
					label="Percent"
					name="percent"
					inputmode="decimal"
					placeholder="10"
					bind:value={percent}
					oninput={look}
					error={errors.percent}
				/>
			{:else if by === 'amount'}
				<Field
					label={data.job.pricesIncludeVat ? 'Amount with VAT, £' : 'Amount without VAT, £'}
					name="amount"
					inputmode="decimal"
					bind:value={amount}
					oninput={look}
					error={errors.amount}
				/>
			{/if}
			<label class="field"
				><span class="name">It is</span><select class="box" name="kind" bind:value={kind}>
					<option value="deposit">a deposit</option>
					<option value="stage">a stage payment</option>
					<option value="valuation">a valuation to date</option>
					<option value="rest">the rest</option>
				</select></label
			>
		</section>
		<section class="panel">
			<h2>Lines</h2>
			{#if errors.lines}<p class="wrong">{errors.lines}</p>{/if}
			<table>
				<thead
					><tr
						><th><span class="sr-only">Chosen</span></th><th>Agreed line</th><th class="r"
							>Agreed, £</th
						><th class="r">Billed</th>{#if by === 'lines'}<th class="r">Done, %</th>{/if}<th
							class="r">This stage</th
						></tr
					></thead
				>
				<tbody>
					{#each data.lines as line, index (line.id)}
						{@const so = data.contractLines[index]!}
						<tr>
							<td
								>{#if by !== 'lines' && by !== 'rest'}<input
										type="checkbox"
										name="line"
										value={line.id}
										aria-label="Bill of {line.description}"
										bind:group={chosen}
										onchange={look}
									/>{/if}</td
							>
							<td>{line.description}{line.extra ? ' (extra)' : ''}</td>
							<td class="r numbers">{displayAmount(so.net)}</td>
							<td class="r numbers">{displayAmount(so.billed)}</td>
							{#if by === 'lines'}<td class="r"
									><input
										class="box numbers"
										name="done.{line.id}"
										inputmode="decimal"
										aria-label="Done of {line.description}, percent"
										aria-invalid={errors[`done.${line.id}`] ? 'true' : undefined}
										oninput={look}
									/></td
								>{/if}
							<td class="r numbers"
								><b>{parts.has(line.id) ? displayAmount(parts.get(line.id)!) : '–'}</b></td
							>
						</tr>
					{/each}
				</tbody>
			</table>
			{#if by === 'lines' && errors.percent}<p class="wrong">{errors.percent}</p>{/if}
		</section>
		<aside class="panel">
			<dl class="numbers" aria-live="polite">
				<div>
					<dt>Contract sum</dt>
					<dd>{displayPounds(data.position.contractSum)}</dd>
				</div>
				<div>
					<dt>Extras</dt>
					<dd>{displayPounds(data.position.extras)}</dd>
				</div>
				<div>
					<dt>Billed</dt>
					<dd>{displayPounds(data.position.billed)}</dd>
				</div>
				<div class="now">
					<dt>This stage</dt>
					<dd>{preview ? displayPounds(preview.stage.amount) : '–'}</dd>
				</div>
				<div class="sum">
					<dt>Left</dt>
					<dd>{displayPounds(preview ? preview.after.left : data.position.left)}</dd>
				</div>
			</dl>
			{#if preview}<p class="quiet">{preview.stage.basis}</p>{/if}
			{#if data.job.retention}<p class="quiet">{data.job.retention} % of it is held back.</p>{/if}
			{#if message || (asked && Object.values(errors).length)}<p class="wrong" role="alert">
					{message || Object.values(errors)[0]}
				</p>{/if}
			<button class="button filled" formaction="?/bill">Write the invoice</button>
			<button class="button" formaction="?/apply">Apply for payment first</button>
			<button class="button plain" formaction="?/preview">Work it out</button>
		</aside>
	</form>
</div>

<style>
	td.numbers {
		white-space: nowrap;
	}
	form {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 340px;
		gap: 14px 22px;
		align-items: start;
		margin-top: 12px;
	}
	form section {
		grid-column: 1;
		padding: 16px 18px;
		display: grid;
		gap: 10px;
	}
	aside {
		grid-column: 2;
		grid-row: 1 / span 2;
		padding: 18px 20px;
		border-left: 6px solid var(--tape);
		display: grid;
		gap: 10px;
		position: sticky;
		top: 12px;
	}
	legend {
		font-weight: 600;
	}
	table {
		width: 100%;
		border-collapse: collapse;
	}
	th {
		text-align: left;
		font-weight: 500;
		color: var(--ink-2);
		font-size: 0.906rem;
		padding: 4px 8px;
	}
	td {
		padding: 7px 8px;
		border-top: 1px solid var(--hair);
		overflow-wrap: anywhere;
	}
	.r {
		text-align: right;
	}
	td .box {
		width: 84px;
		text-align: right;
	}
	td input[type='checkbox'] {
		width: 20px;
		height: 20px;
		accent-color: var(--ink);
	}
	dl div {
		display: flex;
		justify-content: space-between;
		padding: 4px 0;
	}
	.now dd {
		font: 650 1.3rem var(--font-heading);
	}
	.sum {
		border-top: 1.5px solid var(--ink);
		font-weight: 600;
	}
	@media (max-width: 900px) {
		form {
			grid-template-columns: minmax(0, 1fr);
		}
		aside {
			grid-column: 1;
			grid-row: auto;
			position: static;
		}
		th:nth-child(4),
		td:nth-child(4) {
			display: none;
		}
	}
</style>
