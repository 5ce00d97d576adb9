<script lang="ts">
	import Form from '$lib/ui/parts/Form.svelte';
	import Pager from '$lib/ui/parts/Pager.svelte';
	import Switch from '$lib/ui/parts/Switch.svelte';
	import Fold from '$lib/ui/parts/Fold.svelte';
	import { page } from '$app/state';
	import { displayDate, displayMoment, displayWeekday } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import MessageCard from '$lib/ui/chasing/MessageCard.svelte';
	import { CHANNEL_WORDS, HELD_WORDS } from '$lib/ui/chasing/words';
	import Field from '$lib/ui/parts/Field.svelte';

	let { data } = $props();
	let open = $state(false);
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

	let justSent = $derived(Number(page.url.searchParams.get('sent')) || 0);
</script>

<svelte:head><title>Chasing · Owed · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/owed">Owed</a></p>
	<div class="flex flex-wrap gap-y-2 gap-x-3 items-end mb-3.5">
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
		<span class="flex-1"></span>
		<button
			class="button"
			class:filled={!data.settings.on}
			aria-expanded={open}
			onclick={() => (open = !open)}>{data.settings.on ? 'When it writes' : 'Turn it on'}</button
		>
		<a class="button" href="/owed/chasing/plans">Plans</a>
	</div>
	{#if open}
		<Form
			class="panel py-4 px-4.5 mb-4.5 flex flex-wrap gap-y-3 gap-x-5 items-end"
			action="?/settings"
			done="Kept."
			ondone={() => (open = false)}
		>
			<Switch name="on" bind:checked={wanted}>Remind by itself, by plan</Switch>
			<Field
				label="From"
				name="from"
				inputmode="numeric"
				placeholder="09:30"
				value={data.settings.from}
			/>
			<Field
				label="To"
				name="to"
				inputmode="numeric"
				placeholder="09:30"
				value={data.settings.to}
			/>
			<Field
				label="Hours of quiet after a payment"
				name="quietHours"
				inputmode="numeric"
				value={String(data.settings.quietHours)}
			/>
			<Field
				label="Days between two messages to one payer"
				name="gapDays"
				inputmode="numeric"
				value={String(data.settings.gapDays)}
			/>
			<button class="button filled">Keep it</button>
		</Form>
	{/if}

	{#if data.toDecide.length}
		<section class="mb-5" aria-labelledby="decide">
			<h2 class="mb-1.5" id="decide">For you to decide</h2>
			<ul class="panel">
				{#each data.toDecide as one (one.payerId)}<MessageCard message={one} />{/each}
			</ul>
			<p class="quiet">{more(data.toDecide, data.counts.toDecide)}</p>
		</section>
	{/if}
	{#if data.now.length}
		<section class="mb-5" aria-labelledby="today">
			<h2 class="mb-1.5" id="today">Still today</h2>
			<ul class="panel">
				{#each data.now as one (one.payerId)}<MessageCard message={one} />{/each}
			</ul>
			<p class="quiet">{more(data.now, data.counts.now)}</p>
		</section>
	{/if}
	<section class="mb-5" aria-labelledby="tomorrow">
		<h2 class="mb-1.5" id="tomorrow">{displayWeekday(data.tomorrow)}</h2>
		{#if data.next.length}
			<ul class="panel">
				{#each data.next as one (one.payerId)}<MessageCard message={one} />{/each}
			</ul>
			<p class="quiet">{more(data.next, data.counts.next)}</p>
		{:else}<p class="panel quiet py-3.5 px-4.5">Nothing is due to be said.</p>{/if}
	</section>
	{#if data.held.length}
		<section class="mb-5" aria-labelledby="held">
			<h2 class="mb-1.5" id="held">Held back</h2>
			<ul class="panel held">
				{#each data.held as one (one.documentId)}
					<li
						class="flex flex-wrap gap-y-0.5 gap-x-3.5 py-2.25 px-4.5 border-b border-b-(--hair) last:border-b-0"
					>
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
	<section class="mb-5" aria-labelledby="written" id="sent">
		<h2 class="mb-1.5" id="written">Written</h2>
		{#if data.sent.length}
			<ul class="panel">
				{#each data.sent as one (one.id)}
					<li
						class="sent grid grid-cols-[165px_minmax(0,1fr)_220px_100px] gap-y-1 gap-x-4 py-2.5 px-4.5 border-b border-b-(--hair) items-start last:border-b-0 [&.just]:bg-(--tape-tint) max-[900px]:grid-cols-[minmax(0,1fr)_auto] max-[900px]:py-2.5 max-[900px]:px-3.5 max-[900px]:[&>:first-child]:col-span-full"
						class:just={one.id === justSent}
					>
						<span class="quiet">{displayMoment(one.createdAt)}</span>
						<div>
							<a class="inline-block min-h-6" href="/owed/{one.payerId}"><b>{one.payer}</b></a>
							<Fold>
								{#snippet label()}<span
										>{one.subject || one.text.split('\n')[0]}
										<span class="sr-only">to {one.payer}, {displayMoment(one.createdAt)}</span
										></span
									>{/snippet}
								<p
									class="words whitespace-pre-wrap wrap-anywhere py-2 pr-0 pl-3.5 border-l-3 border-l-(--hair)"
								>
									{one.text}
								</p>
							</Fold>
							<span class="quiet"
								>by {CHANNEL_WORDS[one.channel]} to {one.to.split('\n')[0]}{one.who === 'you'
									? ', sent by you'
									: ''}</span
							>
						</div>
						<div class="state grid gap-1.5 justify-items-start max-[900px]:col-span-full">
							<span class:late={one.state === 'failed' || one.state === 'unsure'}
								>{one.openedAt
									? `opened ${displayMoment(one.openedAt)}`
									: SENT_WORDS[one.state]}</span
							>
							{#if one.channel === 'letter'}<a class="button" href="/owed/chasing/letters/{one.id}"
									>Print it</a
								>{/if}
							{#if one.state === 'toPost'}<Form action="?/posted" hidden={{ message: one.id }}>
									<button class="button">Posted</button>
								</Form>{/if}
							{#if one.state === 'failed' || one.state === 'unsure'}<Form
									action="?/again"
									hidden={{ mail: one.mailId ?? '', message: one.id }}
								>
									<span class="quiet">{one.error}</span>
									<button class="button">Send again</button>
								</Form>{/if}
						</div>
						<b class="numbers text-right max-[900px]:row-start-2 max-[900px]:col-start-2"
							>{displayPounds(one.amount)}</b
						>
					</li>
				{/each}
			</ul>
		{:else}<p class="panel quiet py-3.5 px-4.5">No reminder was written yet.</p>{/if}
		<Pager before={data.before} after={data.after} at="sent" />
	</section>
</div>
