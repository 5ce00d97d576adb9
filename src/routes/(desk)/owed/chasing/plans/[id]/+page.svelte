<script lang="ts">
	import { enhance } from '$app/forms';
	import { untrack } from 'svelte';
	import Trash2 from '@lucide/svelte/icons/trash-2';
	import type { Channel, Tone } from '$lib/core/chasing/types';
	import { MERGE_FIELDS } from '$lib/core/chasing/wording';
	import { CHANNEL_WORDS, offsetInWords, TONE_WORDS } from '$lib/ui/chasing/words';

	let { data, form } = $props();
	let plan = $state(
		untrack(() => ({
			...data.plan,
			chargeAfter: data.plan.chargeAfter === null ? '' : String(data.plan.chargeAfter),
			steps: data.plan.steps.map((step) => ({ ...step, offset: String(step.offset) }))
		}))
	);
	let removed = $state<{ step: (typeof plan.steps)[number]; index: number } | null>(null);
	let errors = $derived<Record<string, string>>((form && 'fields' in form && form.fields) || {});
	let refused = $derived(
		form && 'message' in form && Object.keys(errors).length === 0 ? String(form.message ?? '') : ''
	);
	let sent = $derived(
		JSON.stringify({
			...plan,
			chargeAfter: plan.chargeAfter.trim() === '' ? null : plan.chargeAfter
		})
	);
	let whole = $derived(new Set([...data.labels, ...data.plan.labels]));
	function add() {
		const last = Math.max(0, ...plan.steps.map((step) => Number(step.offset) || 0));
		plan.steps.push({
			id: '',
			offset: String(last + 7),
			channel: 'mail',
			tone: 'plain',
			subject: 'Still open: {amount}',
			text: 'Hello\n\n{amount} is still open.\n\n{invoices}\n\nKind regards\n{owner}',
			byHand: false
		});
	}
	function remove(index: number) {
		removed = { step: plan.steps[index]!, index };
		plan.steps.splice(index, 1);
	}
	function restore() {
		if (removed) plan.steps.splice(removed.index, 0, removed.step);
		removed = null;
	}
	const where = (offset: string) =>
		/^-?\d+$/.test(offset.trim()) ? offsetInWords(Number(offset)) : '';
</script>

<svelte:head><title>{plan.name || 'Another plan'} · Chase plans · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet">
		<a href="/owed/chasing">Chasing</a> · <a href="/owed/chasing/plans">Chase plans</a>
	</p>
	<h1>{data.plan.name || 'Another plan'}</h1>
	{#if refused}<p class="wrong" role="alert">{refused}</p>{/if}
	<div class="columns">
		<form
			method="post"
			action="?/save"
			use:enhance={() =>
				({ update }) =>
					update({ reset: false })}
		>
			<input type="hidden" name="version" value={data.plan.version} />
			<input type="hidden" name="plan" value={sent} />
			<div class="panel head">
				<label class="field wide"
					><span class="name">Name</span><input
						class="box"
						bind:value={plan.name}
						aria-invalid={errors.name ? 'true' : undefined}
					/>{#if errors.name}<span class="wrong">{errors.name}</span>{/if}</label
				>
				<label class="field"
					><span class="name">Charge for lateness by itself after so many days</span><input
						class="box numbers"
						inputmode="numeric"
						placeholder="never"
						bind:value={plan.chargeAfter}
						aria-invalid={errors.chargeAfter ? 'true' : undefined}
					/>{#if errors.chargeAfter}<span class="wrong">{errors.chargeAfter}</span>{/if}</label
				>
				<label class="check"
					><input type="checkbox" bind:checked={plan.standard} />The standard plan, for everybody
					without another</label
				>
				{#if whole.size}
					<fieldset>
						<legend class="name">For customers with the label</legend>
						{#each [...whole] as label (label)}<label class="check"
								><input type="checkbox" value={label} bind:group={plan.labels} />{label}</label
							>{/each}
					</fieldset>
				{/if}
			</div>
			{#if errors.steps}<p class="wrong" role="alert">{errors.steps}</p>{/if}
			{#each plan.steps as step, index (step)}
				<fieldset class="panel step">
					<legend class="sr-only">Step {index + 1}</legend>
					<div class="line">
						<label class="field days"
							><span class="name">Days after due</span><input
								class="box numbers"
								inputmode="numeric"
								bind:value={step.offset}
								aria-invalid={errors[`steps.${index}.offset`] ? 'true' : undefined}
							/></label
						>
						<span class="quiet where">{where(step.offset)}</span>
						<label class="field"
							><span class="name">How</span><select class="box" bind:value={step.channel}
								>{#each Object.entries(CHANNEL_WORDS) as [value, words] (value)}<option
										value={value as Channel}>{words}</option
									>{/each}</select
							></label
						>
						<label class="field"
							><span class="name">Tone</span><select class="box" bind:value={step.tone}
								>{#each Object.entries(TONE_WORDS) as [value, words] (value)}<option
										value={value as Tone}>{words}</option
									>{/each}</select
							></label
						>
						<label class="check"
							><input type="checkbox" bind:checked={step.byHand} />I decide each time</label
						>
						<button
							class="button plain icon"
							type="button"
							aria-label="Remove step {index + 1}"
							onclick={() => remove(index)}><Trash2 size={18} /></button
						>
					</div>
					{#if errors[`steps.${index}.offset`]}<span class="wrong"
							>{errors[`steps.${index}.offset`]}</span
						>{/if}
					{#if step.channel !== 'text'}
						<label class="field"
							><span class="name">Subject</span><input
								class="box"
								bind:value={step.subject}
								aria-invalid={errors[`steps.${index}.subject`] ? 'true' : undefined}
							/>{#if errors[`steps.${index}.subject`]}<span class="wrong"
									>{errors[`steps.${index}.subject`]}</span
								>{/if}</label
						>
					{/if}
					<label class="field"
						><span class="name">Words</span><textarea
							class="box"
							rows={step.channel === 'text' ? 3 : 9}
							bind:value={step.text}
							aria-invalid={errors[`steps.${index}.text`] ? 'true' : undefined}
						></textarea>{#if errors[`steps.${index}.text`]}<span class="wrong"
								>{errors[`steps.${index}.text`]}</span
							>{/if}</label
					>
				</fieldset>
			{/each}
			{#if removed}<p class="panel note" role="status">
					A step was removed. <button class="button plain" type="button" onclick={restore}
						>Bring it back</button
					>
				</p>{/if}
			<div class="doing">
				<button class="button filled">Keep the plan</button>
				<button class="button" type="button" onclick={add}>Another step</button>
				<a class="button plain" href="/owed/chasing/plans">Leave it as it was</a>
			</div>
		</form>
		<aside class="panel">
			<h2>Fields</h2>
			<p class="quiet">In braces in the words; filled in for each message.</p>
			<dl>
				{#each Object.entries(MERGE_FIELDS) as [name, what] (name)}<dt class="mono">
						{`{${name}}`}
					</dt>
					<dd class="quiet">{what}</dd>{/each}
			</dl>
			{#if data.plan.id !== null && !data.plan.standard}
				<form method="post" action="?/archive" use:enhance>
					<button class="button plain">Put the plan away</button>
				</form>
			{/if}
		</aside>
	</div>
</div>

<style>
	h1 {
		margin-bottom: 12px;
	}
	.columns {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 330px;
		gap: 18px 22px;
		align-items: start;
	}
	.columns > form {
		display: grid;
		gap: 14px;
	}
	.head,
	.step {
		padding: 16px 18px;
		display: grid;
		gap: 12px;
	}
	.head {
		grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
		align-items: end;
	}
	.head fieldset {
		grid-column: 1 / -1;
		display: flex;
		flex-wrap: wrap;
		gap: 4px 16px;
	}
	.line {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 16px;
		align-items: end;
	}
	.days {
		width: 120px;
	}
	.where {
		min-width: 130px;
		padding-bottom: 10px;
	}
	.icon {
		margin-left: auto;
	}
	.note {
		padding: 10px 16px;
	}
	.doing {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
	}
	aside {
		padding: 16px 18px;
		display: grid;
		gap: 10px;
		position: sticky;
		top: 14px;
	}
	dt {
		margin-top: 6px;
	}
	@media (max-width: 1000px) {
		.columns,
		.head {
			grid-template-columns: minmax(0, 1fr);
		}
		aside {
			position: static;
		}
	}
</style>
