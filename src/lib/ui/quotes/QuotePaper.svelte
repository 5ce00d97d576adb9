<!-- A quote as its customer reads and chooses on it: what it comes to answers at once. -->
<script lang="ts">
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import { publicFigures, type PublicQuote } from '$lib/core/quotes/public';
	import { addsOf, stagePlan, type Picked } from '$lib/core/quotes/chosen';
	import RangeTape from './RangeTape.svelte';

	interface Props {
		quote: PublicQuote;
		number: string;
		/** Empty before it goes out. */
		validUntil: string;
		picked: Picked;
		/** Another heading stands above it. */
		below?: boolean;
		/** It has been answered: what was chosen stays. */
		fixed?: boolean;
		/** What a contractor deducts, as the server works it out. */
		payable?: bigint | null;
	}
	let {
		quote,
		number,
		validUntil,
		picked = $bindable(),
		below = false,
		fixed = false,
		payable = null
	}: Props = $props();
	let computed = $derived(publicFigures(quote, picked));
	let figures = $derived(computed.quote.figures);
	let adds = $derived(addsOf(computed.asked, computed.quote));
	let extras = $derived(
		adds.extras.map((extra) => ({
			...extra,
			line: quote.rows.flatMap((row) =>
				'line' in row && row.index === extra.index ? [row.line] : []
			)[0]!
		}))
	);
	/** What is in whatever is chosen, under its headings. */
	let fixedRows = $derived(
		quote.rows.filter((row) => 'heading' in row || (!row.line.choice && !row.line.extra))
	);
	let shownRows = $derived(
		fixedRows.filter((row, index) => {
			const next = fixedRows[index + 1];
			return 'line' in row || (next !== undefined && 'line' in next);
		})
	);
	let plan = $derived(
		stagePlan({ deposit: computed.quote.deposit, stages: quote.stages }, figures.total)
	);
	let net = $derived(!quote.includesVat && quote.registered);
	const net_ = (index: number) => computed.quote.lines[index]!.net;
	const signed = (amount: bigint | null) =>
		amount === null
			? ''
			: amount < 0n
				? `− ${displayPounds(-amount)}`
				: `+ ${displayPounds(amount)}`;
	const of = (group: string, option: string) =>
		quote.rows.flatMap((row) =>
			'line' in row &&
			row.line.choice?.group.trim() === group &&
			row.line.choice.option.trim() === option
				? [row.line]
				: []
		);
	const words = (line: (typeof extras)[number]['line']) => line.description.trim();
	/** Each heading's lines come to this. */
	function sectionSum(at: number): bigint {
		let sum = 0n;
		for (const row of shownRows.slice(at + 1)) {
			if ('heading' in row) break;
			sum += net_(row.index);
		}
		return sum;
	}
	function take(group: string, option: string) {
		picked = { ...picked, options: { ...picked.options, [group]: option } };
	}
	function many(id: string, quantity: string | null) {
		const { [id]: _gone, ...others } = picked.extras;
		picked = { ...picked, extras: quantity === null ? others : { ...others, [id]: quantity } };
	}
</script>

<article class="grid gap-5">
	<header class="-mx-0 grid gap-1 border-t-8 border-t-(--ink) bg-(--sheet) px-5 py-4">
		<p class="quiet">
			{quote.seller.name}{number ? ` · ${quote.name.toLowerCase()} ${number}` : ''}
		</p>
		<svelte:element this={below ? 'h2' : 'h1'} class="text-[1.7rem] wrap-anywhere"
			>{quote.title || quote.name}</svelte:element
		>
		<p class="quiet">
			{[
				`for ${[quote.customer.name, quote.site].filter(Boolean).join(', ')}`,
				validUntil ? `holds until ${displayDate(validUntil)}` : ''
			]
				.filter(Boolean)
				.join(' · ')}
		</p>
		<p class="quiet">
			{[quote.seller.address.replaceAll('\n', ', '), quote.seller.phone, quote.seller.email]
				.filter(Boolean)
				.join(' · ')}
		</p>
		{#if !quote.binding}<p>This is an estimate: a best guess, which does not bind.</p>{/if}
	</header>
	<section class="grid gap-2 px-5" aria-label="What it comes to">
		<p role="status">
			<b class="numbers text-[2.3rem] leading-tight [font-family:var(--font-heading)]"
				>{displayPounds(net ? figures.net : figures.total)}</b
			>
			<span class="quiet"
				>{quote.registered ? (net ? 'without VAT' : 'with VAT') : ''}{adds.options.length ||
				extras.length
					? fixed
						? ', as chosen'
						: ', as chosen below'
					: ''}</span
			>
		</p>
		{#if net}<p class="quiet numbers">
				{#if figures.vatReverseCharged}Reverse charge: you account for {displayPounds(
						figures.vatReverseCharged
					)} VAT.
				{:else}{displayPounds(figures.total)} with {displayPounds(figures.vatCharged)} VAT.{/if}
				{#if figures.retention}Retention {displayPounds(figures.retention)}, paid later.{/if}
				{#if payable !== null && payable !== figures.total}You deduct {displayPounds(
						figures.total - payable
					)} under CIS and pay {displayPounds(payable)}.{/if}
			</p>{/if}
		{#if computed.quote.lowest !== null && computed.quote.highest !== null && computed.quote.lowest < computed.quote.highest && !fixed}<RangeTape
				lowest={computed.quote.lowest}
				highest={computed.quote.highest}
				now={figures.total}
			/>{/if}
	</section>
	{#each quote.texts.slice(0, quote.texts[0]?.title === '' ? 1 : 0) as text (text.words)}<p
			class="px-5 whitespace-pre-line"
		>
			{text.words}
		</p>{/each}
	{#if shownRows.length}
		<section class="grid gap-2 px-5">
			<h2>What is done</h2>
			<ul class="panel grid">
				{#each shownRows as row, index (index)}
					{#if 'heading' in row}<li
							class="flex justify-between gap-4 border-b border-(--hair) bg-(--quiet-fill) px-4 py-2 font-semibold"
						>
							<span>{row.heading}</span>{#if quote.detail !== 'total'}<span class="numbers"
									>{displayPounds(sectionSum(index))}</span
								>{/if}
						</li>
					{:else}<li
							class="flex justify-between gap-4 border-b border-(--hair) px-4 py-2.5 last:border-b-0"
						>
							<span class="whitespace-pre-line wrap-anywhere"
								>{row.line.description}{#if row.line.provisional}
									<span class="quiet">(provisional)</span
									>{/if}{#if row.line.unit.trim() || row.line.quantity.trim() !== '1'}<span
										class="quiet block">{row.line.quantity} {row.line.unit}</span
									>{/if}</span
							>{#if quote.detail === 'all'}<span class="numbers"
									>{displayPounds(net_(row.index))}</span
								>{/if}
						</li>{/if}
				{/each}
			</ul>
		</section>
	{/if}
	{#each adds.options as { group, taken, options } (group)}
		<fieldset class="grid gap-2 px-5" disabled={fixed}>
			<legend class="mb-2 text-[1.25rem] font-semibold [font-family:var(--font-heading)]"
				>{group}</legend
			>
			<div class="panel grid">
				{#each options as { option, total, adds: more } (option)}
					<label
						class="flex cursor-pointer items-start gap-3 border-b border-(--hair) px-4 py-3 last:border-b-0"
						class:bg-(--tape-tint)={option === taken}
					>
						<input
							class="mt-0.5 h-6 w-6 shrink-0"
							type="radio"
							name="group-{group}"
							checked={option === taken}
							onchange={() => take(group, option)}
						/>
						<span class="flex-1"
							><b class="font-semibold">{option}</b>{#each of(group, option) as line (line.id)}<span
									class="quiet block whitespace-pre-line wrap-anywhere">{line.description}</span
								>{/each}</span
						>
						<span class="numbers whitespace-nowrap"
							>{option === taken ? (total === null ? '' : 'chosen') : signed(more)}</span
						>
					</label>
				{/each}
			</div>
		</fieldset>
	{/each}
	{#if extras.length}
		<fieldset class="grid gap-2 px-5" disabled={fixed}>
			<legend class="mb-2 text-[1.25rem] font-semibold [font-family:var(--font-heading)]"
				>Optional</legend
			>
			<div class="panel grid">
				{#each extras as { index, isIn, adds: more, line } (index)}
					<div
						class="grid border-b border-(--hair) px-4 py-3 last:border-b-0"
						class:bg-(--tape-tint)={isIn}
					>
						<label class="flex cursor-pointer items-start gap-3">
							<input
								class="mt-0.5 h-6 w-6 shrink-0"
								type="checkbox"
								checked={isIn}
								onchange={(event) =>
									many(line.id, event.currentTarget.checked ? line.quantity.trim() || '1' : null)}
							/>
							<span class="flex-1 whitespace-pre-line wrap-anywhere font-semibold"
								>{words(line)}</span
							>
							<span class="numbers whitespace-nowrap">{signed(more)}</span>
						</label>
						{#if line.most && isIn}<label class="flex items-center gap-2 pt-2 pl-9"
								>How many {line.unit}, up to {line.most}
								<input
									class="box w-20"
									inputmode="decimal"
									value={picked.extras[line.id] ?? '1'}
									onchange={(event) => {
										const typed = Number(event.currentTarget.value.replace(',', '.'));
										const most = Number(line.most);
										const kept = typed > 0 ? Math.min(typed, most) : 1;
										event.currentTarget.value = String(kept);
										many(line.id, String(kept));
									}}
								/></label
							>{/if}
					</div>
				{/each}
			</div>
		</fieldset>
	{/if}
	{#if plan.length}
		<section class="grid gap-1 px-5">
			<h2>How it goes</h2>
			<ul>
				{#each plan as { title, amount }, index (index)}<li
						class="flex justify-between gap-4 border-b border-(--hair) py-2.5"
					>
						<span>{title}</span><span class="numbers">{displayPounds(amount)}</span>
					</li>{/each}
			</ul>
		</section>
	{/if}
	{#each quote.texts.slice(quote.texts[0]?.title === '' ? 1 : 0) as text (text.title + text.words)}
		<section class="grid gap-1 px-5">
			{#if text.title}<h2 class="text-[1.1rem]">{text.title}</h2>{/if}
			<p class="whitespace-pre-line">{text.words}</p>
		</section>
	{/each}
	{#if quote.registered}<p class="quiet px-5">
			VAT is charged at the rate that holds on the tax point. This is no VAT invoice.
		</p>{/if}
	{#if quote.terms}<details class="px-5">
			<summary class="cursor-pointer font-semibold">Terms</summary>
			<p class="pt-2 whitespace-pre-line">{quote.terms}</p>
		</details>{/if}
</article>
