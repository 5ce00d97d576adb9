<script lang="ts">
	import NeedsScripts from '$lib/ui/parts/NeedsScripts.svelte';
	import Choice from '$lib/ui/parts/Choice.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import { untrack } from 'svelte';
	import Trash2 from '@lucide/svelte/icons/trash-2';
	import type { Channel, Tone } from '$lib/core/chasing/types';
	import { MERGE_FIELDS } from '$lib/core/chasing/wording';
	import FieldList from '$lib/ui/wordings/FieldList.svelte';
	import FieldsOffered from '$lib/ui/wordings/FieldsOffered.svelte';
	import { wordsBox, type Box } from '$lib/ui/wordings/fields';
	import { CHANNEL_WORDS, offsetInWords, TONE_WORDS } from '$lib/ui/chasing/words';

	let { data } = $props();
	let plan = $state(
		untrack(() => ({
			...data.plan,
			chargeAfter: data.plan.chargeAfter === null ? '' : String(data.plan.chargeAfter),
			steps: data.plan.steps.map((step) => ({ ...step, offset: String(step.offset) }))
		}))
	);
	let box = $state<Box | null>(null);
	let removed = $state<{ step: (typeof plan.steps)[number]; index: number } | null>(null);
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
			text: '{greeting}\n\n{amount} is still open.\n\n{invoices}\n\nKind regards\n{owner}',
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
<NeedsScripts />
<div class="page">
	<p class="quiet">
		<a href="/owed/chasing">Chasing</a> · <a href="/owed/chasing/plans">Chase plans</a>
	</p>
	<h1 class="mb-3">{data.plan.name || 'Another plan'}</h1>
	<div
		class="columns grid grid-cols-[minmax(0,1fr)_330px] gap-y-4.5 gap-x-5.5 items-start narrow:grid-cols-1"
	>
		<Form
			class="grid gap-3.5"
			action="?/save"
			hidden={{ version: data.plan.version, plan: sent }}
			onfocusin={(event) => (box = wordsBox(event.target) ?? box)}
		>
			<div
				class="panel py-4 px-4.5 grid gap-3 grid-cols-[minmax(0,1fr)_minmax(0,1fr)] items-end narrow:grid-cols-1"
			>
				<Field label="Name" name="name" bind:value={plan.name} />
				<Field
					label="Charge for lateness by itself after so many days"
					name="chargeAfter"
					inputmode="numeric"
					placeholder="never"
					bind:value={plan.chargeAfter}
				/>
				<label class="check"
					><input type="checkbox" bind:checked={plan.standard} />The standard plan, for everybody
					without another</label
				>
				{#if whole.size}
					<fieldset class="col-span-full flex flex-wrap gap-y-1 gap-x-4">
						<legend class="name">For customers with the label</legend>
						{#each [...whole] as label (label)}<label class="check"
								><input type="checkbox" value={label} bind:group={plan.labels} />{label}</label
							>{/each}
					</fieldset>
				{/if}
			</div>
			{#each plan.steps as step, index (step)}
				<fieldset class="panel step py-4 px-4.5 grid gap-3">
					<legend class="sr-only">Step {index + 1}</legend>
					<div class="line flex flex-wrap gap-y-2 gap-x-4 items-end">
						<Field
							label="Days after due"
							look="w-30"
							name="steps.{index}.offset"
							inputmode="numeric"
							bind:value={step.offset}
						/>
						<span class="quiet where min-w-32.5 pb-2.5">{where(step.offset)}</span>
						<Choice label="How" bind:value={step.channel}
							>{#each Object.entries(CHANNEL_WORDS) as [value, words] (value)}<option
									value={value as Channel}>{words}</option
								>{/each}</Choice
						>
						<Choice label="Tone" bind:value={step.tone}
							>{#each Object.entries(TONE_WORDS) as [value, words] (value)}<option
									value={value as Tone}>{words}</option
								>{/each}</Choice
						>
						<label class="check"
							><input type="checkbox" bind:checked={step.byHand} />I decide each time</label
						>
						<button
							class="button plain ml-auto"
							type="button"
							aria-label="Remove step {index + 1}"
							onclick={() => remove(index)}><Trash2 size={18} /></button
						>
					</div>
					<FieldsOffered fields={MERGE_FIELDS}>
						{#if step.channel !== 'text'}
							<Field label="Subject" name="steps.{index}.subject" bind:value={step.subject} />
						{/if}
						<Field
							label="Words"
							name="steps.{index}.text"
							rows={step.channel === 'text' ? 3 : 9}
							bind:value={step.text}
						/>
					</FieldsOffered>
				</fieldset>
			{/each}
			{#if removed}<p class="panel note py-2.5 px-4" role="status">
					A step was removed. <button class="button plain" type="button" onclick={restore}
						>Bring it back</button
					>
				</p>{/if}
			<div class="flex flex-wrap gap-2">
				<button class="button filled">Save the plan</button>
				<button class="button" type="button" onclick={add}>Another step</button>
				<a class="button plain" href="/owed/chasing/plans">Leave it as it was</a>
			</div>
		</Form>
		<aside class="panel py-4 px-4.5 grid gap-2.5 sticky top-3.5 narrow:static">
			<h2>Fields</h2>
			<p class="quiet">In braces in the words; filled in for each message.</p>
			<FieldList fields={MERGE_FIELDS} {box} />
		</aside>
	</div>
</div>
