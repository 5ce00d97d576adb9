<script lang="ts">
	import { page } from '$app/state';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import { counted } from '$lib/core/words';
	import Choice from '$lib/ui/parts/Choice.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Fold from '$lib/ui/parts/Fold.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import Table from '$lib/ui/parts/Table.svelte';

	let { data } = $props();
	let columns = $state<HTMLFormElement>();
	let query = $derived(page.url.searchParams.toString());
	const FORMATS = { csv: 'CSV', ofx: 'OFX', camt053: 'camt.053' } as const;
	/** With the columns as they stand, and something else beside them. */
	const address = (name: string, value: string | number) => {
		const params = new URLSearchParams(page.url.searchParams);
		params.set(name, String(value));
		return `?${params}`;
	};
	let heading = $derived(
		data.fresh.count === 0
			? 'Nothing new is in this file'
			: `${counted(data.fresh.count, 'line')} ${data.fresh.count === 1 ? 'is' : 'are'} new`
	);
	let sums = $derived(
		[
			data.fresh.in ? `${displayPounds(data.fresh.in)} came in` : '',
			data.fresh.out ? `${displayPounds(data.fresh.out)} went out` : ''
		]
			.filter(Boolean)
			.join(', ')
	);
	/** The same as the page without them: what was chosen is looked at anew. */
	const again = () => columns?.requestSubmit();
	type Line = (typeof data.lines)[number];
</script>

{#snippet amount(line: Line)}<b class="font-[650]">{displayAmount(line.amount)}</b>{/snippet}
{#snippet state(line: Line)}{#if line.here}<span class="tag">here already</span
		>{:else if line.pending}<span class="tag">not booked yet</span>{/if}{/snippet}
{#snippet words(line: Line)}<span class="wrap-anywhere"
		>{#if line.payer && line.payer !== line.text}<b class="font-[650] mr-1.5">{line.payer}</b
			>{/if}{line.text}{#if line.reference && !line.text.includes(line.reference)}
			<span class="quiet block">reference {line.reference}</span>{/if}</span
	>{/snippet}

<svelte:head><title>{data.name} · Money in · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/money">Money in</a> · {data.name}</p>
	<div class="flex flex-wrap gap-y-2 gap-x-4 items-end mb-3">
		<div class="flex-1 min-w-65">
			<h1>{heading}</h1>
			<p class="quiet">
				{sums ? `${sums}. ` : ''}Nothing is in the books until you bring it in, and each line only
				once.
			</p>
		</div>
		{#if data.fresh.count > 0}
			<Form action="?{query ? `${query}&` : ''}/take">
				<button class="button filled">Bring {counted(data.fresh.count, 'line')} in</button>
			</Form>
		{/if}
		<Form action="?/leave"><button class="button">Leave the file</button></Form>
	</div>

	<section class="panel py-3 px-4.5 mb-3 grid grid-cols-[minmax(0,1fr)] gap-2">
		<p>
			Read as {FORMATS[data.format]}, written in {data.encoding}. {data.account
				? `The account is ${data.account}`
				: 'It names no account'}{data.currency
				? `, kept in ${data.currency === 'GBP' ? 'pounds' : data.currency}.`
				: ', and no currency: it is taken to be in pounds.'}
		</p>
		{#if data.csv}
			{@const { headings, layout, sample } = data.csv}
			<Fold
				label={data.known
					? 'Its columns, known from a file before'
					: 'Its columns, as they were understood'}
				open={query !== '' || data.problem !== '' || data.count === 0}
			>
				<form
					class="grid gap-3 pt-1"
					method="get"
					bind:this={columns}
					data-sveltekit-keepfocus
					data-sveltekit-noscroll
				>
					<input type="hidden" name="seen" value="1" />
					{#if data.problem}<p class="wrong" role="alert">{data.problem}</p>{/if}
					{#key query + data.known}
						<div class="grid grid-cols-[repeat(auto-fill,minmax(170px,1fr))] gap-y-2.5 gap-x-4">
							{#each data.fields as { field, label } (field)}
								<Choice
									{label}
									name={field}
									value={String(layout[field as keyof typeof layout] ?? '')}
									onchange={again}
								>
									<option value="">not there</option>
									{#each sample[0] ?? headings as cell, index (index)}<option value={String(index)}
											>{headings[index] ||
												`column ${index + 1}: ${(cell || 'empty').slice(0, 24)}`}</option
										>{/each}
								</Choice>
							{/each}
							<Choice
								label="Dates are written"
								name="dates"
								value={layout.dates ?? 'dmy'}
								onchange={again}
							>
								<option value="dmy">day, month, year</option>
								<option value="mdy">month, day, year</option>
								<option value="ymd">year, month, day</option>
							</Choice>
							<Choice
								label="Before the pence stands"
								name="decimal"
								value={layout.decimal ?? '.'}
								onchange={again}
							>
								<option value=".">a point: 1,234.56</option>
								<option value=",">a comma: 1.234,56</option>
							</Choice>
							<Choice
								label="Its first line"
								name="headless"
								value={layout.headless ? 'yes' : ''}
								onchange={again}
							>
								<option value="">names the columns</option>
								<option value="yes">is a movement already</option>
							</Choice>
							<Field label="Account, for you" name="account" value={data.account} />
						</div>
					{/key}
					<button class="button justify-self-start">Look again</button>
				</form>
				<div
					class="overflow-x-auto mt-3"
					role="region"
					aria-label="The file as it stands"
					tabindex="-1"
				>
					<Table
						label="The file’s first lines"
						rows={sample.map((cells, index) => ({ cells, index }))}
						columns={(sample[0] ?? []).map((_, index) => ({
							id: String(index),
							head: headings[index] || `column ${index + 1}`,
							text: ({ cells }: { cells: string[] }) => cells[index] ?? ''
						}))}
						id={(row) => row.index}
						flush
						class="text-[0.906rem] whitespace-nowrap"
					/>
				</div>
				{#if data.known}
					<Form action="?/forget" class="mt-2">
						<button class="button plain">Forget what is known of files like this</button>
					</Form>
				{/if}
			</Fold>
		{/if}
	</section>

	{#if data.leftOutCount}
		<section class="panel py-3 px-4.5 mb-3">
			<Fold
				label="{counted(data.leftOutCount, 'row')} left out, and why"
				open={data.leftOutCount < 6}
			>
				<ul>
					{#each data.leftOut as { row, why }, index (index)}
						<li class="py-1 border-b border-b-(--hair) last:border-0">
							<span class="quiet numbers">{data.format === 'csv' ? 'line' : 'entry'} {row}</span>
							{why}
						</li>
					{/each}
				</ul>
				{#if data.leftOutCount > data.leftOut.length}<p class="quiet">
						and {counted(data.leftOutCount - data.leftOut.length, 'more', 'more')}
					</p>{/if}
			</Fold>
		</section>
	{/if}

	<section class="panel py-2 px-4.5 phone:px-4" aria-label="Lines">
		<Table
			label="Lines as they were understood"
			rows={data.lines}
			columns={[
				{
					id: 'date',
					head: 'Date',
					text: (line) => displayDate(line.date),
					look: () => 'whitespace-nowrap'
				},
				{ id: 'text', head: 'Text', cell: words, names: true },
				{ id: 'amount', head: 'Amount, £', figures: true, cell: amount },
				{ id: 'state', head: 'State', quiet: true, cell: state }
			]}
			id={(line) => line.nth}
			empty="No row could be read as a movement."
			stack
			flush
		/>
		{#if data.count > data.lines.length}
			<p class="flex gap-4 py-2">
				{#if data.from > 0}<a href={address('from', Math.max(0, data.from - 100))}>Earlier rows</a
					>{/if}
				<span class="quiet numbers"
					>{data.from + 1} to {data.to} of {data.count.toLocaleString('en-GB')}</span
				>
				{#if data.to < data.count}<a href={address('from', data.to)}>Further rows</a>{/if}
			</p>
		{/if}
	</section>
</div>
