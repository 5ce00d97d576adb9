<!-- An open invoice of a payer with what can be said about it: disputed, promised, given up, claimed. -->
<script lang="ts">
	import Form from '../parts/Form.svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { addDays } from '$lib/core/calendar/manipulation';
	import { daysBetween } from '$lib/core/calendar/queries';
	import { BOOKS, type Currency } from '$lib/core/money/currencies';
	import { displayMoney, displayPounds } from '$lib/core/money/display';
	import type { Minor } from '$lib/core/money/types';
	import Field from '../parts/Field.svelte';
	import Menu from '../parts/Menu.svelte';
	import { daysInWords } from './scale';

	interface Props {
		item: {
			documentId: number;
			number: string;
			customer: string;
			dueDate: string;
			/** What it is in; the rest of it too. */
			currency: Currency;
			toPay: Minor;
			toPaySterling: Minor;
			leftToDeduct: Minor;
			hold: { kind: 'dispute' | 'promise'; until: string | null } | null;
			claim: Minor;
		};
		payer: string;
		today: string;
		hasCredit: boolean;
	}
	let { item, payer, today, hasCredit }: Props = $props();
	let saying = $state<'promise' | 'dispute' | 'writeOff' | null>(null);
	let days = $derived(daysBetween(item.dueDate, today));
	let broken = $derived(item.hold?.kind === 'promise' && (item.hold.until ?? '') < today);
	const toggle = (what: 'promise' | 'dispute' | 'writeOff') =>
		(saying = saying === what ? null : what);
</script>

<li class="py-3 px-0 border-b border-b-(--hair) grid gap-2">
	<div class="row flex flex-wrap gap-x-3 gap-y-1 justify-between items-start">
		<div class="what flex flex-wrap gap-y-0.5 gap-x-2.5 items-center">
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
		<b class="numbers text-right whitespace-nowrap phone:text-left"
			>{displayMoney(item.toPay, item.currency)}{#if item.currency !== BOOKS}<small
					class="quiet block font-normal">about {displayPounds(item.toPaySterling)}</small
				>{/if}{#if item.leftToDeduct > 0}<small class="quiet block font-normal"
					>and {displayPounds(item.leftToDeduct)} they deduct</small
				>{/if}</b
		>
	</div>
	<div class="flex flex-wrap gap-y-1.5 gap-x-2">
		{#if hasCredit && item.currency === BOOKS}
			<Form
				action="?/apply"
				keyed
				hidden={{ document: item.documentId }}
				ondone={() => (saying = null)}
			>
				<button class="button">Use the credit <span class="sr-only">for {item.number}</span></button
				>
			</Form>
		{/if}
		{#if item.hold}
			<Form
				action="?/release"
				hidden={{ document: item.documentId }}
				ondone={() => (saying = null)}
			>
				<button class="button plain"
					>{item.hold.kind === 'dispute' ? 'Dispute settled' : 'Forget the promise'}</button
				>
			</Form>
		{/if}
		<button
			class="button"
			type="button"
			aria-expanded={saying === 'promise'}
			onclick={() => toggle('promise')}
			>Promised <span class="sr-only">: {item.number}</span></button
		>
		<Menu
			about={item.number}
			entries={[
				{ label: 'Send it again', href: `/billing/${item.documentId}?send` },
				{ label: 'They dispute it', run: () => toggle('dispute') },
				{ label: 'Write it off', run: () => toggle('writeOff') }
			]}
		/>
	</div>
	{#if saying === 'promise' || saying === 'dispute'}
		<Form
			class="flex flex-wrap gap-y-2 gap-x-3 items-end"
			action="?/hold"
			hidden={{ document: item.documentId, kind: saying }}
			ondone={() => (saying = null)}
		>
			{#if saying === 'promise'}
				<DateField label="They pay by" name="until" min={today} value={addDays(today, 7)} />
			{/if}
			<Field
				look="flex-[1_1_240px]"
				label={saying === 'promise' ? 'Who said so, and what' : 'What they dispute'}
				name="note"
				autocomplete="off"
			/>
			<button class="button">Keep it</button>
		</Form>
	{:else if saying === 'writeOff'}
		<Form
			class="flex flex-wrap gap-y-2 gap-x-3 items-end"
			action="?/writeOff"
			keyed
			hidden={{ document: item.documentId }}
			ondone={() => (saying = null)}
		>
			<Field
				look="flex-[1_1_240px]"
				label="Why {displayMoney(item.toPay, item.currency)} will not come"
				name="reason"
				autocomplete="off"
			/>
			<button class="button">Write it off</button>
		</Form>
	{/if}
</li>
