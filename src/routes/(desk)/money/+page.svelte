<script lang="ts">
	import Form from '$lib/ui/parts/Form.svelte';
	import FilePick from '$lib/ui/parts/FilePick.svelte';
	import Pager from '$lib/ui/parts/Pager.svelte';
	import Progress from '$lib/ui/parts/Progress.svelte';
	import { tick } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import { displayMoment } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import BankLineRow from '$lib/ui/money/BankLineRow.svelte';

	let { data } = $props();
	let progress = $state<{ done: number; of: number } | null>(null);
	let upload = $state<HTMLFormElement>();
	const STATES = [
		{ state: 'open', words: 'To look at' },
		{ state: 'accepted', words: 'Accepted' },
		{ state: 'notBusiness', words: 'Not business' },
		{ state: 'out', words: 'Money out' }
	] as const;

	let brought = $derived(
		data.imports.find((one) => one.id === data.brought && one.state === 'done')
	);
	function accepted(answer: Record<string, unknown>): string {
		const sure = answer.sure as { accepted: number; amount: number; left: number };
		return `${sure.accepted} recorded, ${displayPounds(sure.amount)} in all${sure.left ? `; ${sure.left} left to look at` : ''}.`;
	}

	let list = $state<HTMLElement>();
	/** The line that was dealt with is gone: the cursor goes to what has moved to its place. */
	async function goOn(index: number) {
		await tick();
		const rows = list?.children ?? [];
		const row = rows[Math.min(index, rows.length - 1)];
		(row?.querySelector('button') ?? document.querySelector<HTMLElement>('#main'))?.focus();
	}

	$effect(() => {
		if (!data.matching) return;
		progress = data.matching;
		const timer = setInterval(async () => {
			const response = await fetch('/money/api/matching').catch(() => null);
			if (!response?.ok) return;
			progress = await response.json();
			if (progress === null) await invalidateAll();
		}, 300);
		return () => clearInterval(timer);
	});
</script>

<svelte:head><title>Money in · Axiometer</title></svelte:head>
<div class="page">
	<div class="flex flex-wrap gap-y-2 gap-x-4 items-end mb-3">
		<div>
			<h1>Money in</h1>
			<p class="quiet">
				{data.counts.open
					? `${data.counts.open} ${data.counts.open === 1 ? 'line' : 'lines'} from the bank to look at`
					: 'Every line from the bank is dealt with'}
			</p>
		</div>
		<span class="flex-1"></span>
		<a class="button" href="/lists/payments">Payments</a>
		<a class="button" href="/money/charts">Charts</a>
		<a class="button" href="/money/payouts">Card payouts</a>
		<a class="button" href="/money/record">Record a payment</a>
		<Form id="bring-in" bind:root={upload} action="?/file" enctype="multipart/form-data">
			<FilePick
				label="Bring in a bank statement"
				name="file"
				accept=".csv,.txt,.ofx,.qfx,.xml"
				onchoose={() => upload?.requestSubmit()}
			/>
		</Form>
	</div>
	{#if brought}
		<p class="panel py-2.5 px-4 mb-3 bg-(--tape-tint)" role="status">
			{brought.name}: {brought.added} new, {brought.known} known already{brought.unread
				? `, ${brought.unread} left out`
				: ''}.
		</p>
	{/if}
	{#if progress}
		<div
			class="panel sure flex flex-wrap gap-y-2 gap-x-4.5 justify-between items-center py-3 px-4.5 mb-3 border-l-6 border-l-(--tape)"
		>
			<p role="status">Looking for what each line pays: {progress.done} of {progress.of}</p>
			<Progress value={progress.done} max={progress.of} label="Matching" />
		</div>
	{:else if data.counts.sure > 0}
		<Form
			class="panel sure flex flex-wrap gap-y-2 gap-x-4.5 justify-between items-center py-3 px-4.5 mb-3 border-l-6 border-l-(--tape)"
			action="?/sure"
			done={accepted}
		>
			<p>
				<b
					>{data.counts.sure}
					{data.counts.sure === 1 ? 'is' : 'are'} sure: {displayPounds(data.counts.sureSum)}</b
				> <span class="quiet">each can be undone</span>
			</p>
			<button class="button filled"
				>Accept {data.counts.sure === 1 ? 'it' : `all ${data.counts.sure}`}</button
			>
		</Form>
	{/if}
	<nav
		class="flex flex-wrap gap-y-1 gap-x-5 mb-2"
		aria-label="Lines"
		data-sveltekit-keepfocus
		data-sveltekit-noscroll
	>
		{#each STATES as { state, words } (state)}
			<a
				class="no-underline text-(--ink-2) pt-1.5 pb-2 px-0 border-b-4 border-b-transparent [&.on]:text-(--ink) [&.on]:font-[650] [&.on]:border-b-(--tape)"
				href="/money?state={state}"
				class:on={data.state === state}
				aria-current={data.state === state ? 'page' : undefined}
				>{words} <span class="numbers">{data.counts[state]}</span></a
			>
		{/each}
	</nav>
	{#if data.lines.length}
		<ul class="panel" bind:this={list}>
			{#each data.lines as line, index (line.id)}<BankLineRow
					{line}
					ondone={() => goOn(index)}
				/>{/each}
		</ul>
	{:else if data.imports.length === 0}
		<div class="panel p-6 grid gap-2">
			<h2>Bring in what your bank gives you</h2>
			<p>
				A statement as CSV, OFX or camt.053 (XML). Each line that came in gets a proposal, with the
				reason: the number in its text, the amount, the amount less a deduction, several invoices
				together, who paid before. Nothing is recorded until you accept it, and the same file twice
				brings nothing twice.
			</p>
		</div>
	{:else}
		<p class="panel p-6 grid gap-2">Nothing stands here.</p>
	{/if}
	<Pager before={data.before} after={data.after} words={['Before', 'Next']} />
	<p class="mt-3"><a href="/money/learned">Under which names they pay</a></p>
	{#if data.imports.length}
		<h2 class="files mt-4.5 mb-1 mx-0 text-[1.05rem]">Files</h2>
		<ul>
			{#each data.imports as file (file.id)}
				<li class="quiet">
					{displayMoment(file.createdAt)} · {file.name} ·
					{#if file.state === 'asking'}<a href="/money/look/{file.id}">look at it and bring it in</a
						>{:else}{file.added} new, {file.known} known{file.unread
							? `, ${file.unread} left out`
							: ''}{/if}
				</li>
			{/each}
		</ul>
	{/if}
</div>
