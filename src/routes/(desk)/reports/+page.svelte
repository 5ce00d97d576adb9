<script lang="ts">
	import { page } from '$app/state';
	import { displayDate, displayMoment, londonDate } from '$lib/core/calendar/conversion';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import { mayDo } from '$lib/core/people/roles';
	import { boxRows } from '$lib/core/reports/boxes';
	import { counted } from '$lib/core/words';
	import Field from '$lib/ui/parts/Field.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import PeriodChoice from '$lib/ui/reports/PeriodChoice.svelte';

	let { data } = $props();
	let profit = $derived(data.profit);
	let cash = $derived(data.basis === 'cash');
	let tax = $derived(mayDo(page.data.role ?? 'owner', 'tax'));
	/** The documents or payments behind a figure. */
	let income = $derived(
		cash
			? `/lists/payments?f=date.from.${data.period.from}&f=date.to.${data.period.to}`
			: `/billing?f=issued.from.${data.period.from}&f=issued.to.${data.period.to}`
	);
	const costs = $derived((category: string) => {
		const day = cash ? 'paid' : 'date';
		return `/lists/costs?f=${day}.from.${data.period.from}&f=${day}.to.${data.period.to}${category ? `&f=category.is.${category}` : ''}`;
	});
	let fees = $derived(
		`/lists/payments?f=fee.least.1&f=date.from.${data.period.from}&f=date.to.${data.period.to}`
	);
	const tagged = (sort: 'income' | 'centre', name: string) => ofWord(sort, name);
	const ofKind = (name: string) => ofWord('workKind', name);
	const ofWord = (field: string, name: string) =>
		`/billing?f=${field}.has.${encodeURIComponent(name)}${cash ? '' : `&f=issued.from.${data.period.from}&f=issued.to.${data.period.to}`}`;
	let widest = $derived(
		profit.byKind.reduce((most, { amount }) => (amount > most ? amount : most), 1n)
	);
	const share = (amount: bigint) =>
		`${Math.max(0, Number((amount * 1000n) / (widest || 1n)) / 10)}%`;
	let pack = $derived(
		`/reports/pack?from=${data.period.from}&to=${data.period.to}&basis=${data.basis}`
	);
</script>

<svelte:head><title>Reports · Axiometer</title></svelte:head>
<div class="page">
	<div class="flex flex-wrap items-center justify-between gap-3 mb-3">
		<h1>Reports</h1>
		<span class="flex flex-wrap gap-2 print:hidden">
			{#if tax}<a class="button" href="/reports/vat">VAT period</a>
				<a class="button filled" href={pack} download>Pack for the accountant</a>{/if}
		</span>
	</div>
	<PeriodChoice {data} bases={{ cash: 'By the money that came in', invoice: 'By invoice' }} />
	<p class="text-[1.35rem] mb-4">
		From {displayDate(data.period.from)} to {displayDate(data.period.to)} you earned
		<b>{displayPounds(profit.income)}</b>
		and spent <b>{displayPounds(profit.costs)}</b>{#if profit.exchange > 0n}, and gained <b
				>{displayPounds(profit.exchange)}</b
			> on exchange rates{:else if profit.exchange < 0n}, and lost <b
				>{displayPounds(-profit.exchange)}</b
			> on exchange rates{/if}:
		{#if profit.profit >= 0n}a profit of <b>{displayPounds(profit.profit)}</b>.{:else}a loss of <b
				>{displayPounds(-profit.profit)}</b
			>.{/if}
		<span class="quiet block text-base">Without VAT throughout.</span>
	</p>
	<div class="grid grid-cols-2 gap-4 items-start narrow:grid-cols-1">
		<section class="panel py-4 px-5">
			<h2 class="mb-2">
				<a href={income}>Income</a> <span class="quiet font-normal">by kind of work, £</span>
			</h2>
			<ul class="grid gap-2">
				{#each profit.byKind as { name, amount, count } (name)}
					<li class="grid grid-cols-[minmax(0,1fr)_auto] gap-x-4">
						<a class="wrap-anywhere" href={name ? ofKind(name) : income}>{name || 'no kind'}</a>
						<span class="numbers">{displayAmount(amount)}</span>
						<span class="col-span-full h-2 bg-(--quiet-fill)" aria-hidden="true"
							><span class="block h-full bg-(--verdigris)" style:width={share(amount)}></span></span
						>
						<span class="quiet">{counted(count, cash ? 'payment' : 'document')}</span>
					</li>
				{:else}<li class="quiet">Nothing came in.</li>{/each}
			</ul>
		</section>
		<section class="panel py-4 px-5">
			<h2 class="mb-2">
				<a href={costs('')}>Costs</a>
				<span class="quiet font-normal">by box of the self-assessment return, £</span>
			</h2>
			<ul class="grid gap-1.5">
				{#each boxRows(profit.byCategory, profit.fees) as { category, name, amount } (name)}
					<li class="flex justify-between gap-4">
						<a href={category ? costs(category) : fees}>{name}</a><span class="numbers"
							>{displayAmount(amount)}</span
						>
					</li>
				{/each}
				{#if profit.costs === 0n}<li class="quiet">
						No cost is written down for these days. <a href="/costs/new">Write one down</a>
					</li>{/if}
			</ul>
			<p class="quiet mt-3">
				What was typed on jobs without a bill is not in here: write the bill as a <a
					href="/costs/new">cost</a
				>.
			</p>
		</section>
		{#if profit.byIncome.length}<section class="panel py-4 px-5">
				<h2 class="mb-2">
					Income <span class="quiet font-normal">by category, £</span>
				</h2>
				<ul class="grid gap-1.5">
					{#each profit.byIncome as { name, amount } (name)}
						<li class="flex justify-between gap-4">
							<a class="wrap-anywhere" href={name ? tagged('income', name) : income}
								>{name || 'no category'}</a
							><span class="numbers">{displayAmount(amount)}</span>
						</li>
					{/each}
				</ul>
			</section>{/if}
		{#if profit.byCentre.length}<section class="panel py-4 px-5">
				<h2 class="mb-2">Cost centres <span class="quiet font-normal">£</span></h2>
				<table class="w-full">
					<thead
						><tr class="quiet text-right"
							><th class="text-left font-normal">Centre</th><th class="font-normal">earned</th><th
								class="font-normal">spent</th
							><th class="font-normal">left</th></tr
						></thead
					>
					<tbody>
						{#each profit.byCentre as { name, income: earned, costs: spent } (name)}
							<tr class="numbers text-right"
								><th class="text-left font-normal wrap-anywhere">{name || 'none'}</th><td
									><a href={name ? tagged('centre', name) : income}>{displayAmount(earned)}</a></td
								><td
									><a
										href={name
											? `${costs('')}&f=centre.has.${encodeURIComponent(name)}`
											: costs('')}>{displayAmount(spent)}</a
									></td
								><td>{displayAmount(earned - spent)}</td></tr
							>
						{/each}
					</tbody>
				</table>
			</section>{/if}
		<section class="panel py-4 px-5">
			<h2 class="mb-2">Sales by customer <span class="quiet font-normal">£</span></h2>
			<ul class="grid gap-1.5">
				{#each profit.byCustomer.slice(0, 25) as { id, name, amount } (id)}
					<li class="flex justify-between gap-4">
						<a class="wrap-anywhere" href="/owed/{id}">{name}</a><span class="numbers"
							>{displayAmount(amount)}</span
						>
					</li>
				{/each}
			</ul>
		</section>
		{#if mayDo(page.data.role ?? 'owner', 'owner')}<section
				class="panel grid gap-3 py-4 px-5 content-start print:hidden"
				id="pack"
			>
				<h2>For your accountant</h2>
				<p class="quiet">
					The pack of {displayDate(data.period.from)} to {displayDate(data.period.to)} by a link that
					opens for thirty days, to whoever has it.
				</p>
				<Form
					class="grid gap-3"
					action="?/sendPack&from={data.period.from}&to={data.period.to}&basis={data.basis}"
					keyed
					done="The link is on its way."
				>
					<Field label="E-mail" name="to" type="email" value={data.accountant} />
					<Field label="What you write with it, if anything" name="words" rows={2} value="" />
					<div><button class="button">Send the link</button></div>
				</Form>
				{#if data.packs.length}
					<ul class="grid gap-2">
						{#each data.packs as one (one.id)}
							<li class="flex flex-wrap items-center justify-between gap-x-3">
								<span
									>{displayDate(one.from)} to {displayDate(one.to)}, to {one.sentTo}<span
										class="quiet block"
										>{one.takenAt === null
											? 'not fetched yet'
											: `fetched ${displayMoment(one.takenAt)}`}, opens until {displayDate(
											londonDate(one.until)
										)}</span
									></span
								>
								<Form
									action="?/revokePack"
									hidden={{ id: one.id }}
									done="That link opens nothing any more."
									><button class="button plain"
										>Take it back<span class="sr-only"
											>: {one.sentTo}, {displayDate(one.from)} to {displayDate(one.to)}, number {one.id}</span
										></button
									></Form
								>
							</li>
						{/each}
					</ul>
				{/if}
			</section>{/if}
		<section class="panel grid gap-2 py-4 px-5">
			<h2>More</h2>
			{#if profit.withheld !== 0n}<p>
					Contractors withheld <b>{displayPounds(profit.withheld)}</b>, which is paid towards your
					tax already{#if tax}: <a href="/tax">by contractor and month</a>{/if}.
				</p>{/if}
			<ul class="grid gap-1.5">
				<li><a href="/owed">Unpaid by age</a></li>
				<li><a href="/money/charts">Charts: by month, days to pay, likely to come</a></li>
				{#if mayDo(page.data.role ?? 'owner', 'work')}<li>
						<a href="/work/margins">Margin by job</a>
					</li>
					<li><a href="/work/margins?by=kind">Margin by kind of work</a></li>{/if}
			</ul>
		</section>
	</div>
</div>
