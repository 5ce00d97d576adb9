<!-- How one payer is chased: by which plan, on hold or not, its own terms for lateness, and what was written. -->
<script lang="ts">
	import Form from '../parts/Form.svelte';
	import LateFold from '$lib/ui/parts/LateFold.svelte';
	import DateField from '../parts/DateField.svelte';
	import { displayDate, displayMoment } from '$lib/core/calendar/conversion';
	import { displayAmount } from '$lib/core/money/display';
	import Field from '../parts/Field.svelte';
	import Choice from '../parts/Choice.svelte';
	import Money from '../parts/Money.svelte';
	import { CHANNEL_WORDS } from './words';
	import type { Channel } from '$lib/core/chasing/types';

	interface Props {
		payerId: number;
		chasing: { planId: number | null; never: boolean; onHold: boolean; note: string };
		plans: { id: number; name: string; standard: boolean }[];
		reminders: {
			id: number;
			createdAt: number;
			channel: Channel;
			subject: string;
			text: string;
			openedAt: number | null;
			state: string;
		}[];
		terms: { fee: number; rate: string; afterDays: number; terms: string } | null;
		/** Breathing spaces that run or are to come. */
		breathing: { id: number; from: string; to: string; note: string }[];
		today: string;
	}
	let { payerId, chasing, plans, reminders, terms, breathing, today }: Props = $props();
</script>

<section class="panel py-4 px-4.5 grid gap-2.5">
	<h2>Chasing</h2>
	<Form class="grid gap-2 justify-items-start [&_.field]:w-full" action="?/chasing" done="Kept.">
		<Choice label="Plan" name="plan" value={chasing.never ? 'never' : String(chasing.planId ?? '')}>
			<option value="">by label, or the standard one</option>
			{#each plans as plan (plan.id)}<option value={String(plan.id)}>{plan.name}</option>{/each}
			<option value="never">never chased</option>
		</Choice>
		<label class="check"
			><input type="checkbox" name="onHold" checked={chasing.onHold} />On hold for now</label
		>
		<Field label="Why" name="note" value={chasing.note} />
		<button class="button">Save</button>
	</Form>
	{#each breathing as one (one.id)}
		<div class="grid gap-1.5 border-l-4 border-l-(--tape) bg-(--tape-tint) py-2 px-3">
			<p>
				<b>Breathing space</b>
				{one.from > today ? `from ${displayDate(one.from)} ` : ''}until {displayDate(
					one.to
				)}{one.note ? `, ${one.note}` : ''}. No interest, no fee and no reminder on any of its days.
			</p>
			<Form action="?/breatheNoMore" hidden={{ space: one.id }} done="It has ended.">
				<button class="button">It has ended</button>
			</Form>
		</div>
	{/each}
	<LateFold label="Are they in breathing space?">
		<Form
			class="grid gap-2 justify-items-start [&_.field]:w-full"
			action="?/breathe"
			keyed
			reset
			done="Nothing is added or asked for until it ends."
		>
			<p class="quiet">
				The Debt Respite Scheme gives an individual sixty days. You hear of it by a notice, which
				names the day it begins.
			</p>
			<DateField label="It began on" name="from" value={today} />
			<Field label="Reference of the notice" name="note" maxlength={200} />
			<button class="button">Stop asking</button>
		</Form>
	</LateFold>
	<ul>
		{#each reminders as one (one.id)}
			<li class="grid py-1.75 px-0 border-b border-b-(--hair)">
				<span class="quiet">{displayMoment(one.createdAt)} · {CHANNEL_WORDS[one.channel]}</span>
				<span>{one.subject || one.text.split('\n')[0]}</span>
				<span class="quiet"
					>{one.state === 'withdrawn'
						? 'taken back before it went'
						: one.openedAt
							? `opened ${displayMoment(one.openedAt)}`
							: 'not opened so far'}</span
				>
			</li>
		{:else}<li class="quiet grid py-1.75 px-0 border-b border-b-(--hair)">
				No reminder yet. <a href="/owed/chasing/{payerId}">Write one</a>
			</li>{/each}
	</ul>
	<LateFold
		label={terms ? 'Their contract’s terms for lateness' : 'Agreed other terms for lateness?'}
	>
		<Form class="grid gap-2 justify-items-start [&_.field]:w-full" action="?/terms" done="Kept.">
			<p class="quiet">
				They stand in place of the Late Payment Act; with a household they are all you may charge.
			</p>
			<Money label="Fee" name="fee" value={terms?.fee ? displayAmount(terms.fee) : ''} />
			<Field label="Interest, % a year" name="rate" inputmode="decimal" value={terms?.rate ?? ''} />
			<Field
				label="Days of grace after due"
				name="afterDays"
				inputmode="numeric"
				value={terms ? String(terms.afterDays) : ''}
			/>
			<Field
				label="As the contract says it (empty: none)"
				name="terms"
				rows={2}
				value={terms?.terms ?? ''}
			/>
			<button class="button">Save the terms</button>
		</Form>
	</LateFold>
</section>
