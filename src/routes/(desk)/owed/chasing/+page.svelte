<script lang="ts">
	import Switch from '$lib/ui/parts/Switch.svelte';
	import Fold from '$lib/ui/parts/Fold.svelte';
	import { enhance } from '$app/forms';
	import { page } from '$app/state';
	import { displayDate, displayMoment, displayWeekday } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import MessageCard from '$lib/ui/chasing/MessageCard.svelte';
	import { CHANNEL_WORDS, HELD_WORDS } from '$lib/ui/chasing/words';
	import Field from '$lib/ui/parts/Field.svelte';
	import { notices } from '$lib/ui/parts/notices.svelte';

	let { data, form } = $props();
	let fields = $derived<Record<string, string>>((form && 'fields' in form && form.fields) || {});
	let message = $derived(
		form && 'message' in form && Object.keys(fields).length === 0 ? String(form.message ?? '') : ''
	);
	let setting = $state(false);
	/** Who opens the settings of what is off wants it on. */
	let wanted = $state(true);
	const SENT_WORDS = {
		onItsWay: 'on its way',
		sent: 'went out',
		failed: 'did not arrive',
		unsure: 'perhaps not arrived',
		toPost: 'to print and post',
		posted: 'posted',
		withdrawn: 'taken back: overtaken before it went'
	};
	let count = $derived(data.counts.now + data.counts.next);
	const more = (shown: unknown[], all: number) =>
		all > shown.length ? `The largest ${shown.length} of ${all}.` : '';
	let open = $derived(setting || Object.keys(fields).length > 0);
	let justSent = $derived(Number(page.url.searchParams.get('sent')) || 0);
</script>

<svelte:head><title>Chasing · Owed · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/owed">Owed</a></p>
	<div class="top">
		<div>
			<h1>
				{#if !data.settings.on}Chasing is off
				{:else if count === 0}Nobody is written to by {displayWeekday(data.tomorrow)}
				{:else}{count}
					{count === 1 ? 'reminder goes' : 'reminders go'} out by {displayWeekday(
						data.tomorrow
					)}{/if}
			</h1>
			<p class="quiet">
				{#if data.settings.on}On working days from {data.settings.from} to {data.settings.to}, never
					within {data.settings.quietHours} hours of a payment{:else}Nothing goes out by itself.
					Below you see what would go.{/if}
			</p>
		</div>
		<span class="gap"></span>
		<button
			class="button"
			class:filled={!data.settings.on}
			aria-expanded={open}
			onclick={() => (setting = !open)}>{data.settings.on ? 'When it writes' : 'Turn it on'}</button
		>
		<a class="button" href="/owed/chasing/plans">Plans</a>
	</div>
	{#if message}<p class="wrong" role="alert">{message}</p>{/if}
	{#if open}
		<form
			class="panel settings"
			method="post"
			action="?/settings"
			use:enhance={() =>
				async ({ result, update }) => {
					await update({ reset: false });
					if (result.type !== 'success') return;
					setting = false;
					notices.say('Kept.');
				}}
		>
			<Switch name="on" bind:checked={wanted}>Remind by itself, by plan</Switch>
			<Field
				label="From"
				name="from"
				inputmode="numeric"
				placeholder="09:30"
				value={data.settings.from}
				error={fields.from}
			/>
			<Field
				label="To"
				name="to"
				inputmode="numeric"
				placeholder="09:30"
				value={data.settings.to}
				error={fields.to}
			/>
			<Field
				label="Hours of quiet after a payment"
				name="quietHours"
				inputmode="numeric"
				value={String(data.settings.quietHours)}
				error={fields.quietHours}
			/>
			<Field
				label="Days between two messages to one payer"
				name="gapDays"
				inputmode="numeric"
				value={String(data.settings.gapDays)}
				error={fields.gapDays}
			/>
			<button class="button filled">Keep it</button>
		</form>
	{/if}

	{#if data.toDecide.length}
		<section aria-labelledby="decide">
			<h2 id="decide">For you to decide</h2>
			<ul class="panel">
				{#each data.toDecide as one (one.payerId)}<MessageCard message={one} />{/each}
			</ul>
			<p class="quiet">{more(data.toDecide, data.counts.toDecide)}</p>
		</section>
	{/if}
	{#if data.now.length}
		<section aria-labelledby="today">
			<h2 id="today">Still today</h2>
			<ul class="panel">
				{#each data.now as one (one.payerId)}<MessageCard message={one} />{/each}
			</ul>
			<p class="quiet">{more(data.now, data.counts.now)}</p>
		</section>
	{/if}
	<section aria-labelledby="tomorrow">
		<h2 id="tomorrow">{displayWeekday(data.tomorrow)}</h2>
		{#if data.next.length}
			<ul class="panel">
				{#each data.next as one (one.payerId)}<MessageCard message={one} />{/each}
			</ul>
			<p class="quiet">{more(data.next, data.counts.next)}</p>
		{:else}<p class="panel none quiet">Nothing is due to be said.</p>{/if}
	</section>
	{#if data.held.length}
		<section aria-labelledby="held">
			<h2 id="held">Held back</h2>
			<ul class="panel held">
				{#each data.held as one (one.documentId)}
					<li>
						<a class="mono" href="/billing/{one.documentId}">{one.number}</a>
						<a href="/owed/{one.payerId}">{one.payer}</a>
						<span class="quiet"
							>{HELD_WORDS[one.because]}{one.because === 'promised' && one.until
								? ` by ${displayDate(one.until)}`
								: ''}</span
						>
					</li>
				{/each}
			</ul>
			<p class="quiet">{more(data.held, data.counts.held)}</p>
		</section>
	{/if}
	<section aria-labelledby="written" id="sent">
		<h2 id="written">Written</h2>
		{#if data.sent.length}
			<ul class="panel">
				{#each data.sent as one (one.id)}
					<li class="sent" class:just={one.id === justSent}>
						<span class="quiet">{displayMoment(one.createdAt)}</span>
						<div>
							<a href="/owed/{one.payerId}"><b>{one.payer}</b></a>
							<Fold label={one.subject || one.text.split('\n')[0]!}>
								<p class="words">{one.text}</p>
							</Fold>
							<span class="quiet"
								>by {CHANNEL_WORDS[one.channel]} to {one.to.split('\n')[0]}{one.who === 'you'
									? ', sent by you'
									: ''}</span
							>
						</div>
						<div class="state">
							<span class:late={one.state === 'failed' || one.state === 'unsure'}
								>{one.openedAt
									? `opened ${displayMoment(one.openedAt)}`
									: SENT_WORDS[one.state]}</span
							>
							{#if one.channel === 'letter'}<a class="button" href="/owed/chasing/letters/{one.id}"
									>Print it</a
								>{/if}
							{#if one.state === 'toPost'}<form method="post" action="?/posted" use:enhance>
									<input type="hidden" name="message" value={one.id} />
									<button class="button">Posted</button>
								</form>{/if}
							{#if one.state === 'failed' || one.state === 'unsure'}<form
									method="post"
									action="?/again"
									use:enhance
								>
									{#if one.mailId}<input
											type="hidden"
											name="mail"
											value={one.mailId}
										/>{:else}<input type="hidden" name="message" value={one.id} />{/if}
									<span class="quiet">{one.error}</span>
									<button class="button">Send again</button>
								</form>{/if}
						</div>
						<b class="numbers">{displayPounds(one.amount)}</b>
					</li>
				{/each}
			</ul>
		{:else}<p class="panel none quiet">No reminder was written yet.</p>{/if}
		{#if data.page > 1 || data.more}
			<nav class="pages" aria-label="Pages">
				{#if data.page > 1}<a class="button" href="/owed/chasing?page={data.page - 1}#sent">Newer</a
					>{/if}
				{#if data.more}<a class="button" href="/owed/chasing?page={data.page + 1}#sent">Older</a
					>{/if}
			</nav>
		{/if}
	</section>
</div>

<style>
	.top {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 12px;
		align-items: end;
		margin-bottom: 14px;
	}
	.gap {
		flex: 1;
	}
	section {
		margin-bottom: 20px;
	}
	h2 {
		margin-bottom: 6px;
	}
	.settings {
		padding: 16px 18px;
		margin-bottom: 18px;
		display: flex;
		flex-wrap: wrap;
		gap: 12px 20px;
		align-items: end;
	}
	.none {
		padding: 14px 18px;
	}
	.held li {
		display: flex;
		flex-wrap: wrap;
		gap: 2px 14px;
		padding: 9px 18px;
		border-bottom: 1px solid var(--hair);
	}
	.held li:last-child,
	.sent:last-child {
		border-bottom: 0;
	}
	.sent {
		display: grid;
		grid-template-columns: 165px minmax(0, 1fr) 220px 100px;
		gap: 4px 16px;
		padding: 10px 18px;
		border-bottom: 1px solid var(--hair);
		align-items: start;
	}
	.sent.just {
		background: var(--tape-tint);
	}
	.sent > b {
		text-align: right;
	}
	.state {
		display: grid;
		gap: 6px;
		justify-items: start;
	}
	.words {
		white-space: pre-wrap;
		overflow-wrap: anywhere;
		padding: 8px 0 8px 14px;
		border-left: 3px solid var(--hair);
	}
	.pages {
		display: flex;
		gap: 12px;
		justify-content: center;
		margin-top: 12px;
	}
	@media (max-width: 900px) {
		.sent {
			grid-template-columns: minmax(0, 1fr) auto;
			padding: 10px 14px;
		}
		.sent > :first-child,
		.state {
			grid-column: 1 / -1;
		}
		.sent > b {
			grid-row: 2;
			grid-column: 2;
		}
	}
</style>
