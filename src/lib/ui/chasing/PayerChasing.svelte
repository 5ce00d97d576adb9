<!-- How one payer is chased: by which plan, on hold or not, its own terms for lateness, and what was written. -->
<script lang="ts">
	import Fold from '$lib/ui/parts/Fold.svelte';
	import { enhance } from '$app/forms';
	import { displayMoment } from '$lib/core/calendar/conversion';
	import { displayAmount } from '$lib/core/money/display';
	import Field from '../parts/Field.svelte';
	import { notices } from '../parts/notices.svelte';
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
		errors: Record<string, string>;
	}
	let { payerId, chasing, plans, reminders, terms, errors }: Props = $props();
	const kept =
		() =>
		async ({
			result,
			update
		}: {
			result: { type: string };
			update: (options: { reset: boolean }) => Promise<void>;
		}) => {
			await update({ reset: false });
			if (result.type === 'success') notices.say('Kept.');
		};
</script>

<section class="panel">
	<h2>Chasing</h2>
	<form method="post" action="?/chasing" use:enhance={kept}>
		<label class="field"
			><span class="name">Plan</span><select class="box" name="plan">
				<option value="" selected={!chasing.never && chasing.planId === null}
					>by label, or the standard one</option
				>
				{#each plans as plan (plan.id)}<option
						value={plan.id}
						selected={!chasing.never && chasing.planId === plan.id}>{plan.name}</option
					>{/each}
				<option value="never" selected={chasing.never}>never chased</option>
			</select></label
		>
		<label class="check"
			><input type="checkbox" name="onHold" checked={chasing.onHold} />On hold for now</label
		>
		<Field label="Why" name="note" value={chasing.note} error={errors.note} />
		<button class="button">Chase them so</button>
	</form>
	<ul>
		{#each reminders as one (one.id)}
			<li>
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
		{:else}<li class="quiet">
				No reminder yet. <a href="/owed/chasing/{payerId}">Write one</a>
			</li>{/each}
	</ul>
	<Fold
		label={terms ? 'Their contract’s terms for lateness' : 'Agreed other terms for lateness?'}
		open={Boolean(errors.terms || errors.fee || errors.rate || errors.afterDays)}
	>
		<form method="post" action="?/terms" use:enhance={kept}>
			<p class="quiet">
				They stand in place of the Late Payment Act; with a household they are all you may charge.
			</p>
			<Field
				label="Fee, £"
				name="fee"
				inputmode="decimal"
				value={terms?.fee ? displayAmount(terms.fee) : ''}
				error={errors.fee}
			/>
			<Field
				label="Interest, % a year"
				name="rate"
				inputmode="decimal"
				value={terms?.rate ?? ''}
				error={errors.rate}
			/>
			<Field
				label="Days of grace after due"
				name="afterDays"
				inputmode="numeric"
				value={terms ? String(terms.afterDays) : ''}
				error={errors.afterDays}
			/>
			<Field
				label="As the contract says it (empty: none)"
				name="terms"
				rows={2}
				value={terms?.terms ?? ''}
				error={errors.terms}
			/>
			<button class="button">Keep the terms</button>
		</form>
	</Fold>
</section>

<style>
	section {
		padding: 16px 18px;
		display: grid;
		gap: 10px;
	}
	form {
		display: grid;
		gap: 8px;
		justify-items: start;
	}
	form :global(.field) {
		width: 100%;
	}
	li {
		display: grid;
		padding: 7px 0;
		border-bottom: 1px solid var(--hair);
	}
</style>
