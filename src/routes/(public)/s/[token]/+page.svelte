<script lang="ts">
	import Table from '$lib/ui/parts/Table.svelte';
	import Download from '@lucide/svelte/icons/download';
	import { page } from '$app/state';
	import PayTogether from '$lib/ui/money/PayTogether.svelte';

	let { data } = $props();
	let view = $derived(data.view);
</script>

<svelte:head>
	<title>Statement from {view.seller.name}</title>
	<meta name="robots" content="noindex" />
</svelte:head>
<main class="max-w-225 my-0 mx-auto pt-6 pb-15 px-3.5 grid grid-cols-[minmax(0,1fr)] gap-4">
	<PayTogether name={view.seller.name} {data}>
		<a class="button self-end" href="{page.url.pathname}/pdf"
			><Download size={18} aria-hidden="true" />PDF</a
		>
	</PayTogether>
	<article class="panel py-6.5 px-7 grid gap-4.5 max-[640px]:py-4.5 max-[640px]:px-4">
		<header class="flex flex-wrap gap-y-2.5 gap-x-6 justify-between">
			<div>
				<h2>{view.seller.name}</h2>
				{#each view.seller.lines as line, index (index)}<p class="quiet">{line}</p>{/each}
			</div>
			<h2 class="title text-(--verdigris) text-[1.4rem]">{view.title}</h2>
		</header>
		<div class="flex flex-wrap gap-y-2.5 gap-x-6 justify-between">
			<div>
				{#each view.payer as line, index (index)}<p
						class="[&.strong]:font-[650]"
						class:strong={index === 0}
					>
						{line}
					</p>{/each}
			</div>
			<dl>
				{#each view.facts as fact (fact.label)}<div class="grid grid-cols-[100px_1fr]">
						<dt class="text-(--ink-2)">{fact.label}</dt>
						<dd class="numbers">{fact.value}</dd>
					</div>{/each}
			</dl>
		</div>
		<Table
			label="Statement of account"
			rows={view.rows.map((row, index) => ({ ...row, index }))}
			columns={[
				{ id: 'date', head: 'Date', text: (row) => row.date },
				{ id: 'what', head: 'What', cell: what },
				{ id: 'amount', head: view.columns[0], text: (row) => row.amount, figures: true },
				{ id: 'left', head: view.columns[1], text: (row) => row.left, figures: true }
			]}
			id={(row) => row.index}
			flush
		>
			{#snippet lead()}
				{#if view.opening !== null}<tr class="*:border-b *:border-b-(--hair) *:py-1.5 *:pr-2.5"
						><td></td><td>Balance before</td><td></td><td class="numbers text-right"
							>{view.opening}</td
						></tr
					>{/if}
			{/snippet}
			{#snippet foot()}
				<tr class="font-[650] *:py-1.5 *:pr-2.5"
					><td></td><td>Balance</td><td></td><td class="numbers text-right">{view.balance}</td></tr
				>
			{/snippet}
		</Table>
		<dl class="ages numbers flex flex-wrap gap-y-2 gap-x-6">
			{#each view.ages as age (age.label)}<div>
					<dt class="text-(--ink-2)">{age.label}</dt>
					<dd>{age.amount}</dd>
				</div>{/each}
		</dl>
		{#each view.notes as note, index (index)}<p>{note}</p>{/each}
	</article>
</main>

{#snippet what(row: (typeof view.rows)[number])}
	{row.what}{#if row.due}<span class="quiet"> due {row.due}</span>{/if}
	{#each row.details as line, n (n)}<span class="block text-[0.875rem] text-(--ink-2)">{line}</span
		>{/each}
{/snippet}
