<!-- An open invoice of a payer with what can be said about it: disputed, promised, given up, claimed. -->
<script lang="ts">
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { enhance } from '$app/forms';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { addDays } from '$lib/core/calendar/manipulation';
	import { daysBetween } from '$lib/core/calendar/queries';
	import { displayPounds } from '$lib/core/money/display';
	import { pressKey } from '../parts/keys';
	import { daysInWords } from './scale';

	interface Props {
		item: {
			documentId: number;
			number: string;
			customer: string;
			dueDate: string;
			toPay: number;
			leftToDeduct: number;
			hold: { kind: 'dispute' | 'promise'; until: string | null } | null;
			claim: number;
		};
		payer: string;
		today: string;
		hasCredit: boolean;
		errors: Record<string, string>;
		wrongForm: string;
	}
	let { item, payer, today, hasCredit, errors, wrongForm }: Props = $props();
	let saying = $state<'promise' | 'dispute' | 'writeOff' | null>(null);
	let key = $state(pressKey());
	let days = $derived(daysBetween(item.dueDate, today));
	let broken = $derived(item.hold?.kind === 'promise' && (item.hold.until ?? '') < today);
	let wrong = $derived(
		wrongForm === `hold.${item.documentId}` || wrongForm === `writeOff.${item.documentId}`
			? errors
			: {}
	);
	const done =
		() =>
		async ({ result, update }: { result: { type: string }; update: () => Promise<void> }) => {
			await update();
			key = pressKey();
			if (result.type === 'success') saying = null;
		};
	const toggle = (what: 'promise' | 'dispute' | 'writeOff') =>
		(saying = saying === what ? null : what);
</script>

<li>
	<div class="row">
		<div class="what">
			<a class="mono" href="/billing/{item.documentId}">{item.number}</a>
			{#if item.customer && item.customer !== payer}<span class="quiet">for {item.customer}</span
				>{/if}
			<span class:late={days > 0} class="quiet"
				>due {displayDate(item.dueDate)} · {daysInWords(days)}</span
			>
			{#if item.hold}
				<span class="tag"
					>{item.hold.kind === 'dispute'
						? 'disputed'
						: broken
							? `promised by ${displayDate(item.hold.until!)}, not kept`
							: `promised by ${displayDate(item.hold.until!)}`}</span
				>
			{/if}
			{#if item.claim > 0}<a class="tag" href="/billing/{item.documentId}#late"
					>could claim {displayPounds(item.claim)} today</a
				>{/if}
		</div>
		<b class="numbers"
			>{displayPounds(item.toPay)}{#if item.leftToDeduct > 0}<small class="quiet"
					>and {displayPounds(item.leftToDeduct)} they deduct</small
				>{/if}</b
		>
	</div>
	<div class="doing">
		{#if hasCredit}
			<form method="post" action="?/apply" use:enhance={done}>
				<input type="hidden" name="document" value={item.documentId} />
				<input type="hidden" name="key" value={key} />
				<button class="button">Use the credit<span class="sr-only"> for {item.number}</span></button
				>
			</form>
		{/if}
		<a class="button" href="/billing/{item.documentId}?send">Send it again</a>
		{#if item.hold}
			<form method="post" action="?/release" use:enhance={done}>
				<input type="hidden" name="document" value={item.documentId} />
				<button class="button plain"
					>{item.hold.kind === 'dispute' ? 'Dispute settled' : 'Forget the promise'}</button
				>
			</form>
		{/if}
		<button
			class="button plain"
			type="button"
			aria-expanded={saying === 'promise'}
			onclick={() => toggle('promise')}>Promised</button
		>
		<button
			class="button plain"
			type="button"
			aria-expanded={saying === 'dispute'}
			onclick={() => toggle('dispute')}>Disputed</button
		>
		<button
			class="button plain"
			type="button"
			aria-expanded={saying === 'writeOff'}
			onclick={() => toggle('writeOff')}>Write off</button
		>
	</div>
	{#if saying === 'promise' || saying === 'dispute'}
		<form class="say" method="post" action="?/hold" use:enhance={done}>
			<input type="hidden" name="document" value={item.documentId} />
			<input type="hidden" name="kind" value={saying} />
			{#if saying === 'promise'}
				<DateField
					label="They pay by"
					name="until"
					min={today}
					value={addDays(today, 7)}
					error={wrong.until}
				/>
			{/if}
			<label class="field wide"
				><span class="name"
					>{saying === 'promise' ? 'Who said so, and what' : 'What they dispute'}</span
				><input
					class="box"
					name="note"
					autocomplete="off"
					aria-invalid={wrong.note ? 'true' : undefined}
				/>{#if wrong.note}<span class="wrong">{wrong.note}</span>{/if}</label
			>
			<button class="button">Keep it</button>
		</form>
	{:else if saying === 'writeOff'}
		<form class="say" method="post" action="?/writeOff" use:enhance={done}>
			<input type="hidden" name="document" value={item.documentId} />
			<input type="hidden" name="key" value={key} />
			<label class="field wide"
				><span class="name">Why {displayPounds(item.toPay)} will not come</span><input
					class="box"
					name="reason"
					autocomplete="off"
					aria-invalid={wrong.reason ? 'true' : undefined}
				/>{#if wrong.reason}<span class="wrong">{wrong.reason}</span>{/if}</label
			>
			<button class="button">Write it off</button>
		</form>
	{/if}
</li>

<style>
	li {
		padding: 12px 0;
		border-bottom: 1px solid var(--hair);
		display: grid;
		gap: 8px;
	}
	.row {
		display: flex;
		gap: 12px;
		justify-content: space-between;
		align-items: start;
	}
	.what {
		display: flex;
		flex-wrap: wrap;
		gap: 2px 10px;
		align-items: center;
	}
	b.numbers {
		text-align: right;
		white-space: nowrap;
	}
	small {
		display: block;
		font-weight: 400;
	}
	.doing {
		display: flex;
		flex-wrap: wrap;
		gap: 6px 8px;
	}
	.say {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 12px;
		align-items: end;
	}
	.wide {
		flex: 1 1 240px;
	}
</style>
