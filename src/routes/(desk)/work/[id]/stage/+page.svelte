<script lang="ts">
	import NeedsScripts from '$lib/ui/parts/NeedsScripts.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import Table from '$lib/ui/parts/Table.svelte';
	import type { Column } from '$lib/ui/parts/table';
	import { onMount, untrack } from 'svelte';
	import { page } from '$app/state';
	import type { StagePreview } from '$lib/core/jobs/stages';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import Field from '$lib/ui/parts/Field.svelte';
	import Choice from '$lib/ui/parts/Choice.svelte';
	import Money from '$lib/ui/parts/Money.svelte';

	let { data, form } = $props();
	const fresh = untrack(() => data.position.billed === 0n);
	// What the plan of the quote says stands in the address.
	const asked = untrack(() => page.url.searchParams);
	const given = (name: string, otherwise: string) => asked.get(name) ?? otherwise;
	let kind = $state(given('kind', fresh ? 'deposit' : 'valuation'));
	let by = $state(given('by', fresh ? 'percent' : 'toDate'));
	let percent = $state(given('percent', ''));
	let amount = $state(given('amount', ''));
	let chosen = $state(untrack(() => data.lines.map((line) => line.id)));
	let root = $state<HTMLFormElement>();
	let preview = $derived<StagePreview | null>((form && 'preview' in form && form.preview) || null);
	const WAYS = [
		{ value: 'percent', words: 'A part of the whole, in percent' },
		{ value: 'amount', words: 'An amount' },
		{ value: 'toDate', words: 'Done to date, in percent' },
		{ value: 'lines', words: 'Valued line by line' },
		{ value: 'rest', words: 'All that is left' }
	];
	let parts = $derived(new Map(preview?.stage.parts.map((part) => [part.lineId, part.amount])));

	/** Line by line, nothing is said before something is typed. */
	const anyDone = () =>
		[...(root?.querySelectorAll<HTMLInputElement>('[name^="done"]') ?? [])].some(
			({ value }) => value.trim() !== ''
		);

	let timer: ReturnType<typeof setTimeout>;
	/** Shows what it comes to as soon as something is typed. */
	function look() {
		clearTimeout(timer);
		const ready =
			by === 'rest' ||
			(by === 'lines' ? anyDone() : (by === 'amount' ? amount : percent).trim() !== '');
		if (ready)
			timer = setTimeout(
				() => root?.querySelector<HTMLButtonElement>('[formaction="?/preview"]')?.click(),
				300
			);
	}

	/** What is pressed counts: a look that was about to begin would break it off. */
	const pressed = () => clearTimeout(timer);

	onMount(() => {
		if (asked.has('by')) look();
		return pressed;
	});

	type Agreed = { line: (typeof data.lines)[number]; so: (typeof data.contractLines)[number] };
	let lines = $derived<Column<Agreed>[]>([
		{ id: 'chosen', head: 'Chosen', quiet: true, cell: chosenCell },
		{
			id: 'line',
			head: 'Agreed line',
			text: ({ line }) => `${line.description}${line.extra ? ' (extra)' : ''}`,
			names: true,
			look: () => 'wrap-anywhere'
		},
		{ id: 'agreed', head: 'Agreed, £', text: ({ so }) => displayAmount(so.net), figures: true },
		{
			id: 'billed',
			head: 'Billed',
			text: ({ so }) => displayAmount(so.billed),
			figures: true,
			desk: true
		},
		...(by === 'lines'
			? [{ id: 'done', head: 'Done, %', cell: doneCell, figures: true } satisfies Column<Agreed>]
			: []),
		{
			id: 'stage',
			head: 'This stage',
			text: ({ line }) => (parts.has(line.id) ? displayAmount(parts.get(line.id)!) : '–'),
			figures: true,
			look: () => 'font-[650]'
		}
	]);
</script>

<svelte:head><title>Bill a stage of {data.job.number} · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet">
		<a href="/work/{data.job.id}">{data.job.number}: {data.job.title}</a> · {data.customer.name}
	</p>
	<NeedsScripts />
	<h1>Bill a stage</h1>
	<Form
		class="grid grid-cols-[minmax(0,1fr)_340px] gap-y-3.5 gap-x-5.5 items-start mt-3 max-[900px]:grid-cols-1"
		bind:root
		action="?/preview"
		keyed
		live
	>
		<section class="panel col-start-1 py-4 px-4.5 grid gap-2.5">
			<fieldset>
				<legend class="font-semibold">How much?</legend>
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
				/>
			{:else if by === 'amount'}
				<Money
					label={data.job.pricesIncludeVat ? 'Amount with VAT, £' : 'Amount without VAT, £'}
					name="amount"
					bind:value={amount}
					oninput={look}
				/>
			{/if}
			<Choice label="It is" name="kind" bind:value={kind}>
				<option value="deposit">a deposit</option>
				<option value="stage">a stage payment</option>
				<option value="valuation">a valuation to date</option>
				<option value="rest">the rest</option>
			</Choice>
		</section>
		<section class="panel col-start-1 py-4 px-4.5 grid gap-2.5">
			<h2>Lines</h2>
			<Table
				label="Agreed lines"
				rows={data.lines.map((line, index) => ({ line, so: data.contractLines[index]! }))}
				columns={lines}
				id={({ line }) => line.id}
				flush
			/>
		</section>
		<aside
			class="panel col-start-2 row-[1_/_span_2] py-4.5 px-5 border-l-6 border-l-(--tape) grid gap-2.5 sticky top-3 max-[900px]:col-start-1 max-[900px]:row-[auto] max-[900px]:static"
		>
			<dl
				class="numbers [&_div]:flex [&_div]:justify-between [&_div]:py-1 [&_div]:px-0"
				aria-live="polite"
			>
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
					<dd class="[font:650_1.3rem_var(--font-heading)]">
						{preview ? displayPounds(preview.stage.amount) : '–'}
					</dd>
				</div>
				<div class="sum border-t-[1.5px] border-t-(--ink) font-semibold">
					<dt>Left</dt>
					<dd>{displayPounds(preview ? preview.after.left : data.position.left)}</dd>
				</div>
			</dl>
			{#if preview}<p class="quiet">{preview.stage.basis}</p>{/if}
			{#if data.job.retention}<p class="quiet">{data.job.retention} % of it is held back.</p>{/if}
			<button class="button filled" formaction="?/bill" onclick={pressed}>Write the invoice</button>
			<button class="button" formaction="?/apply" onclick={pressed}>Apply for payment first</button>
			<button class="button plain" formaction="?/preview">Work it out</button>
		</aside>
	</Form>
</div>

{#snippet chosenCell({ line }: Agreed)}
	{#if by !== 'lines' && by !== 'rest'}<input
			class="h-5 w-5 accent-(--ink)"
			type="checkbox"
			name="line"
			value={line.id}
			aria-label="Bill of {line.description}"
			bind:group={chosen}
			onchange={look}
		/>{/if}
{/snippet}

{#snippet doneCell({ line }: Agreed)}
	<Field
		label="Done of {line.description}, percent"
		quiet
		look="ml-auto w-21"
		name="done.{line.id}"
		class="box numbers text-right"
		inputmode="decimal"
		oninput={look}
	/>
{/snippet}
