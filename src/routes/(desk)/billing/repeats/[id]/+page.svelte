<script lang="ts">
	import { counted } from '$lib/core/words';
	import Form from '$lib/ui/parts/Form.svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { tick, untrack } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import { BILLING_PAGES } from '$lib/ui/invoices/tabs';
	import RepeatFields from '$lib/ui/repeats/RepeatFields.svelte';
	import { notices } from '$lib/ui/parts/notices.svelte';
	import Tabs from '$lib/ui/parts/Places.svelte';
	import Fold from '$lib/ui/parts/Fold.svelte';
	import LineEditor from '$lib/ui/lines/LineEditor.svelte';
	import { Draft } from '$lib/ui/lines/draft.svelte';
	import { ruleWords } from '$lib/core/calendar/ruleWords';

	let { data } = $props();
	let repeat = $derived(data.repeat);
	let rule = $derived(repeat.rule);
	let values = $derived({
		name: repeat.name,
		start: rule.start,
		every: String(rule.every),
		unit: rule.unit,
		ends: 'after' in rule.end ? 'after' : 'on' in rule.end ? 'on' : 'never',
		after: 'after' in rule.end ? String(rule.end.after) : '',
		on: 'on' in rule.end ? rule.end.on : '',
		weekend: rule.weekend,
		action: repeat.action
	});
	/** So many of those to come stand in sight. */
	const SHOWN = 5;
	const STATES = {
		drafted: 'draft',
		issued: 'issued',
		sent: 'sent',
		charging: 'being charged',
		paid: 'paid by card',
		open: 'not charged'
	};
	/** What happens on the day, in words. */
	let does = $derived(
		{
			draft: 'It is left as a draft for you.',
			send: 'It is issued and sent by itself.',
			charge: 'It is issued, sent and charged to the kept card.'
		}[repeat.action]
	);
	const draft = untrack(
		() => new Draft({ ...data.parties, draft: { id: data.repeat.id, sheet: data.sheet } })
	);
	const begun = draft.json();
	let from = $state(untrack(() => data.coming[0]?.nominal ?? data.today));
	let wrong = $state<Record<string, string>>({});
	/** The change is for the occurrence of `from` alone. */
	let only = $state(false);
	let lineEditor = $state<HTMLElement>();
	let api = $derived(`/billing/repeats/${repeat.id}/api`);

	/** Brings the lines of one occurrence, which may have other ones than today's. */
	async function changeOne(nominal: string) {
		if (draft.json() === begun) {
			const response = await fetch(`${api}?on=${nominal}`).catch(() => null);
			if (!response?.ok) return notices.say('Its lines cannot be had just now.');
			draft.replace(await response.json());
		}
		from = nominal;
		only = true;
		await tick();
		lineEditor?.querySelector<HTMLElement>('textarea, input')?.focus();
	}

	async function change() {
		const response = await fetch(api, {
			method: 'PUT',
			headers: { 'content-type': 'application/json' },
			body: `{"from":${JSON.stringify(from)},"only":${only},"sheet":${draft.json()}}`
		}).catch(() => null);
		const answer = await response?.json().catch(() => null);
		wrong = draft.refused = answer?.fields ?? {};
		if (!response?.ok) {
			draft.wanted = Object.keys(wrong)[0] ?? null;
			return notices.say(answer?.message ?? 'It could not be saved just now.');
		}
		await invalidateAll();
		notices.say(
			only ? `Saved: ${displayDate(from)} alone.` : `Saved: from ${displayDate(from)} on.`
		);
		only = false;
	}
</script>

<svelte:head><title>{repeat.name} · Axiometer</title></svelte:head>
<div class="page">
	<h1>Billing</h1>
	<Tabs label="Billing" pages={BILLING_PAGES} />
	<div class="flex gap-y-2 gap-x-3 items-center flex-wrap mb-3">
		<div>
			<h2 class="text-[1.5rem]">{repeat.name}</h2>
			<p class="quiet">
				<a href="/customers/{data.customer.id}">{data.customer.name}</a>{data.card
					? ` · card ending ${data.card.lastDigits} is kept`
					: ''}{repeat.state === 'active' ? '' : ` · ${repeat.state}`}
			</p>
		</div>
		<span class="flex-1"></span>
		<Form action="?/state">
			{#if repeat.state === 'active'}<button class="button" name="to" value="paused">Pause</button>
			{:else if repeat.state === 'paused'}<button class="button filled" name="to" value="active"
					>Start it again</button
				>{/if}
			{#if repeat.state !== 'ended'}<button class="button plain" name="to" value="ended"
					>End it</button
				>{/if}
		</Form>
		{#if data.card}<Form action="?/forgetCard">
				<button class="button plain">Forget the card</button>
			</Form>{/if}
	</div>
	{#if data.pile}
		{@const { count, from, to, all } = data.pile}
		<Form
			class="panel py-3.5 px-4.5 bg-(--tape-tint) mb-3.5 flex flex-wrap gap-2.5 items-center"
			action="?/pile"
		>
			<p class="flex-[1_1_300px]">
				<b
					>{counted(count, 'invoice is', 'invoices are')} due already, {displayDate(from)}
					{count > 1 ? `to ${displayDate(to)}` : ''}.</b
				> Nothing has been made of it.
			</p>
			{#if all}<button class="button filled" name="answer" value="all"
					>Make {repeat.action === 'draft' ? '' : 'and send '}{count > 1
						? `all ${count}`
						: 'it'}</button
				>{/if}
			{#if count > 1}<button class="button {all ? '' : 'filled'}" name="answer" value="latest"
					>Only the latest</button
				>{/if}
			<button class="button plain" name="answer" value="none">None: begin with the next</button>
		</Form>
	{/if}
	<div class="grid gap-3.5">
		<div
			class="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-3.5 items-start max-[900px]:grid-cols-1"
		>
			<div class="grid gap-3.5">
				<Form
					class="panel py-4 px-4.5 grid gap-2.5 justify-items-start *:w-full"
					action="?/save"
					hidden={{ version: repeat.version }}
					done="Saved. What was made stays as it is."
				>
					<h2>When and how</h2>
					<p>{ruleWords(rule)}<br />{does}</p>
					<Fold label="Change when and how">
						{#key repeat.version}<RepeatFields {values} card={data.card?.lastDigits ?? ''} />{/key}
						<button class="button mt-3">Save</button>
					</Fold>
				</Form>
				<section class="panel py-4 px-4.5 grid gap-2.5">
					<h2>{data.made.length} made</h2>
					<ul>
						{#each data.made as one (one.nominal)}
							<li class="flex justify-between gap-2.5 py-1.5 px-0 border-b border-b-(--hair)">
								<span
									>{#if one.documentId}<a href="/billing/{one.documentId}"
											>{one.number ?? 'Draft'}</a
										>{/if}
									{displayDate(one.date)}
									<span class="quiet"
										>{STATES[one.state]}{one.note ? `: ${one.note}` : ''}{one.nextAttemptOn &&
										one.attempts
											? ` Again on ${displayDate(one.nextAttemptOn)}.`
											: ''}</span
									></span
								>
								<b class="numbers">{displayPounds(one.total ?? 0)}</b>
							</li>
						{:else}<li
								class="quiet flex justify-between gap-2.5 py-1.5 px-0 border-b border-b-(--hair)"
							>
								None yet.
							</li>{/each}
					</ul>
				</section>
			</div>
			<section class="panel py-4 px-4.5 grid gap-2.5">
				<h2>To come</h2>
				{#if data.coming.length === 0}<p class="quiet">Nothing more.</p>{/if}
				<ol>
					{#each data.coming.slice(0, SHOWN) as one (one.nominal)}{@render occurrence(one)}{/each}
				</ol>
				{#if data.coming.length > SHOWN}
					<Fold label="{data.coming.length - SHOWN} more">
						<ol>
							{#each data.coming.slice(SHOWN) as one (one.nominal)}{@render occurrence(one)}{/each}
						</ol>
					</Fold>
				{/if}
			</section>
		</div>
		<section class="panel py-4 px-4.5 grid gap-2.5" bind:this={lineEditor}>
			<h2>{only ? `What it bills on ${displayDate(from)} alone` : 'What it bills'}</h2>
			<LineEditor {draft} />
			<div class="from flex gap-2.5 items-end flex-wrap">
				{#if only}
					<button class="button" onclick={change}>Change this one alone</button>
					<button class="button plain" onclick={() => (only = false)}
						>From that day on instead</button
					>
				{:else}
					<DateField label="From which day" bind:value={from} />
					<button class="button" onclick={change}>Change from that day on</button>
				{/if}
				{#if wrong.from}<span class="wrong">{wrong.from}</span>{/if}
			</div>
			{#if data.changes.length}<p class="quiet">
					Changed from {data.changes.map((one) => displayDate(one.from)).join(', ')} on.
				</p>{/if}
		</section>
	</div>
</div>

{#snippet occurrence(one: (typeof data.coming)[number])}
	<li
		class="grid grid-cols-[1fr_auto_auto_auto] gap-x-2 items-center border-b border-b-(--hair)"
		class:off={one.skipped}
	>
		<span class="in-[.off]:line-through"
			>{displayDate(one.date)}{one.date !== one.nominal
				? ` (for ${displayDate(one.nominal)})`
				: ''}</span
		>
		<b class="numbers">{one.skipped ? 'left out' : displayPounds(one.total)}</b>
		{#if !one.skipped}<button
				class="button plain"
				type="button"
				onclick={() => changeOne(one.nominal)}
				>Change <span class="sr-only">{displayDate(one.date)} alone</span></button
			>{/if}
		<Form action="?/skip" hidden={{ nominal: one.nominal, skip: one.skipped ? 'no' : 'yes' }}>
			<button class="button plain"
				>{one.skipped ? 'Take it in' : 'Skip'}
				<span class="sr-only in-[.off]:line-through">{displayDate(one.date)}</span></button
			>
		</Form>
	</li>
{/snippet}
