<script lang="ts">
	import FilePick from '$lib/ui/parts/FilePick.svelte';
	import Progress from '$lib/ui/parts/Progress.svelte';
	import { enhance } from '$app/forms';
	import { invalidateAll } from '$app/navigation';
	import { displayMoment } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import BankLineRow from '$lib/ui/money/BankLineRow.svelte';
	import { notices } from '$lib/ui/parts/notices.svelte';

	let { data, form } = $props();
	let busy = $state(false);
	let progress = $state<{ done: number; of: number } | null>(null);
	let fields = $derived<Record<string, string>>((form && 'fields' in form && form.fields) || {});
	let message = $derived(
		form && 'message' in form && !fields.file ? String(form.message ?? '') : ''
	);
	let upload: HTMLFormElement;
	const STATES = [
		{ state: 'open', words: 'To look at' },
		{ state: 'accepted', words: 'Accepted' },
		{ state: 'notBusiness', words: 'Not business' },
		{ state: 'out', words: 'Money out' }
	] as const;

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
	<div class="top">
		<div>
			<h1>Money in</h1>
			<p class="quiet">
				{data.counts.open
					? `${data.counts.open} ${data.counts.open === 1 ? 'line' : 'lines'} from the bank to look at`
					: 'Every line from the bank is dealt with'}
			</p>
		</div>
		<span class="gap"></span>
		<a class="button" href="/money/charts">Charts</a>
		<a class="button" href="/money/payouts">Card payouts</a>
		<form
			bind:this={upload}
			method="post"
			action="?/file"
			enctype="multipart/form-data"
			use:enhance={() => {
				busy = true;
				return async ({ result, update }) => {
					await update();
					busy = false;
					if (result.type === 'success' && result.data?.came) {
						const came = result.data.came as { added: number; known: number; unread: number };
						notices.say(
							`${came.added} new, ${came.known} known already${came.unread ? `, ${came.unread} could not be read` : ''}.`
						);
					}
				};
			}}
		>
			<FilePick
				label="Bring in a bank statement"
				name="file"
				accept=".csv,.txt,.ofx,.qfx,.xml"
				onchoose={() => upload.requestSubmit()}
			/>
		</form>
	</div>
	{#if fields.file}<p class="wrong" role="alert">{fields.file}</p>{/if}
	{#if fields.payerId}<p class="wrong" role="alert">{fields.payerId}</p>{/if}
	{#if message}<p class="wrong" role="alert">{message}</p>{/if}
	{#if progress}
		<div class="panel sure">
			<p role="status">Looking for what each line pays: {progress.done} of {progress.of}</p>
			<Progress value={progress.done} max={progress.of} label="Matching" />
		</div>
	{:else if data.counts.sure > 0}
		<form
			class="panel sure"
			method="post"
			action="?/sure"
			use:enhance={() => {
				busy = true;
				return async ({ result, update }) => {
					await update();
					busy = false;
					if (result.type === 'success' && result.data?.sure) {
						const done = result.data.sure as { accepted: number; amount: number; left: number };
						notices.say(
							`${done.accepted} recorded, ${displayPounds(done.amount)} in all${done.left ? `; ${done.left} left to look at` : ''}.`
						);
					}
				};
			}}
		>
			<p>
				<b
					>{data.counts.sure}
					{data.counts.sure === 1 ? 'is' : 'are'} sure: {displayPounds(data.counts.sureSum)}</b
				> <span class="quiet">each can be undone</span>
			</p>
			<button class="button filled" aria-busy={busy}
				>Accept {data.counts.sure === 1 ? 'it' : `all ${data.counts.sure}`}</button
			>
		</form>
	{/if}
	<nav class="states" aria-label="Lines">
		{#each STATES as { state, words } (state)}
			<a
				href="/money?state={state}"
				class:on={data.state === state}
				aria-current={data.state === state ? 'page' : undefined}
				>{words} <span class="numbers">{data.counts[state]}</span></a
			>
		{/each}
	</nav>
	{#if data.lines.length}
		<ul class="panel">
			{#each data.lines as line (line.id)}<BankLineRow {line} payers={data.payers} />{/each}
		</ul>
	{:else if data.imports.length === 0}
		<div class="panel empty">
			<h2>Bring in what your bank gives you</h2>
			<p>
				A statement as CSV, OFX or camt.053 (XML). Each line that came in gets a proposal, with the
				reason: the number in its text, the amount, the amount less a deduction, several invoices
				together, who paid before. Nothing is recorded until you accept it, and the same file twice
				brings nothing twice.
			</p>
		</div>
	{:else}
		<p class="panel empty">Nothing stands here.</p>
	{/if}
	{#if data.page > 1 || data.more}
		<nav class="pages" aria-label="Pages">
			{#if data.page > 1}<a class="button" href="/money?state={data.state}&page={data.page - 1}"
					>Before</a
				>{/if}
			{#if data.more}<a class="button" href="/money?state={data.state}&page={data.page + 1}">Next</a
				>{/if}
		</nav>
	{/if}
	{#if data.imports.length}
		<h2 class="files">Files</h2>
		<ul>
			{#each data.imports as file (file.id)}
				<li class="quiet">
					{displayMoment(file.createdAt)} · {file.name} ·
					{#if file.state === 'asking'}<a href="/money/columns/{file.id}">confirm its columns</a
						>{:else}{file.added} new, {file.known} known{file.unread
							? `, ${file.unread} could not be read`
							: ''}{/if}
				</li>
			{/each}
		</ul>
	{/if}
</div>

<style>
	.top {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 16px;
		align-items: end;
		margin-bottom: 12px;
	}
	.gap {
		flex: 1;
	}
	.sure {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 18px;
		justify-content: space-between;
		align-items: center;
		padding: 12px 18px;
		margin-bottom: 12px;
		border-left: 6px solid var(--tape);
	}
	.states {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 20px;
		margin-bottom: 8px;
	}
	.states a {
		text-decoration: none;
		color: var(--ink-2);
		padding: 6px 0 8px;
		border-bottom: 4px solid transparent;
	}
	.states a.on {
		color: var(--ink);
		font-weight: 650;
		border-bottom-color: var(--tape);
	}
	.empty {
		padding: 24px;
		display: grid;
		gap: 8px;
	}
	.pages {
		display: flex;
		gap: 12px;
		justify-content: center;
		margin-top: 14px;
	}
	.files {
		margin: 18px 0 4px;
		font-size: 1.05rem;
	}
</style>
