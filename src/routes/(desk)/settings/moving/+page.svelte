<script lang="ts">
	import { displayMoment } from '$lib/core/calendar/conversion';
	import Confirm from '$lib/ui/parts/Confirm.svelte';
	import Form from '$lib/ui/parts/Form.svelte';

	let { data, form } = $props();
	let back = $derived(form && 'back' in form ? form.back : null);

	const forms = $state<Record<number, HTMLFormElement | undefined>>({});
	let asked = $state(0);
	let asking = $state(false);

	const STEPS = [
		{
			href: '/customers/import',
			title: 'Customers',
			text: 'From a spreadsheet, or the address book of a phone. Contractors get their CIS rate on their page.'
		},
		{
			href: '/work/prices/import',
			title: 'Price list',
			text: 'What you charge for: labour, materials, kits.'
		},
		{
			href: '/settings/moving/invoices',
			title: 'Open invoices',
			text: 'With their own numbers, their VAT by rate, what is paid of them, what is expected to be deducted and what is held back.'
		},
		{
			href: '/settings/moving/deposits',
			title: 'Deposits and credit held',
			text: 'Money of your customers that is in hand, with the deposit invoice where you wrote one.'
		},
		{
			href: '/settings/moving/repeats',
			title: 'Repeats',
			text: 'Who is billed what, how often, and when next.'
		},
		{
			href: '/work/import',
			title: 'Jobs',
			text: 'What is agreed and not done, with its day.'
		}
	];
	const KINDS = { invoices: 'open invoices', deposits: 'deposits', repeats: 'repeats' };
	const ONE = { invoices: 'open invoice', deposits: 'deposit', repeats: 'repeat' };
</script>

<svelte:head><title>Moving in · Axiometer</title></svelte:head>
<div class="page max-w-245">
	<p class="quiet"><a href="/settings">Settings</a></p>
	<h1 class="mb-1">Moving in</h1>
	<p class="mb-4">
		From a spreadsheet or another program, as CSV. Each file is looked through first, and nothing is
		written before you say so. What came in wrongly is taken back as long as nothing was built on
		it.
	</p>
	{#if back}
		<section class="panel grid gap-2 py-4 px-4.5 mb-4" role="status">
			<h2>
				{back.taken === 0 ? 'Nothing' : back.taken} taken back{back.kept.length
					? `, ${back.kept.length} stayed`
					: ''}
			</h2>
			{#if back.kept.length}
				<ul>
					{#each back.kept as { name, why }, index (index)}<li><b>{name}</b>: {why}</li>{/each}
				</ul>
			{/if}
		</section>
	{/if}
	<ol class="grid gap-2.5 mb-6">
		{#each STEPS as step, index (step.href)}
			<li
				class="panel grid grid-cols-[1.25rem_minmax(0,1fr)_auto] items-center gap-3 py-3 px-4.5 max-[500px]:px-3 max-[500px]:gap-2"
			>
				<span class="mono quiet" aria-hidden="true">{index + 1}</span>
				<span><b>{step.title}</b><br /><span class="quiet">{step.text}</span></span>
				<a class="button" href={step.href}
					>Bring in<span class="sr-only">: {step.title.toLowerCase()}</span></a
				>
			</li>
		{/each}
	</ol>
	{#if data.movings.length}
		<h2 class="mb-2">What came in</h2>
		<ul class="panel">
			{#each data.movings as one (one.id)}
				<li
					class="flex flex-wrap items-center justify-between gap-3 py-2.5 px-4.5 not-last:border-b border-(--hair)"
				>
					<span
						><b>{one.left} {one.left === 1 ? ONE[one.kind] : KINDS[one.kind]}</b>
						<span class="quiet">from {one.name}, {displayMoment(one.createdAt)}</span></span
					>
					<Form action="?/back" hidden={{ id: one.id }} bind:root={forms[one.id]}>
						<button
							class="button plain"
							onclick={(event) => {
								event.preventDefault();
								asked = one.id;
								asking = true;
							}}
							>Take back<span class="sr-only">
								: what came from {one.name}, {displayMoment(one.createdAt)}</span
							></button
						>
					</Form>
				</li>
			{/each}
		</ul>
	{/if}
</div>
<Confirm
	bind:open={asking}
	title="Take it back?"
	text="It is removed as if it had never come in. What something was built on, a payment or a reminder, stays, and is named."
	yes="Take it back"
	onyes={() => forms[asked]?.requestSubmit()}
/>
