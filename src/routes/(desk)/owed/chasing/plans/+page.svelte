<script lang="ts">
	import { counted } from '$lib/core/words';
	import Field from '$lib/ui/parts/Field.svelte';
	import Fold from '$lib/ui/parts/Fold.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import { CHANNEL_WORDS, offsetInWords, TONE_WORDS } from '$lib/ui/chasing/words';

	let { data } = $props();
	let steps = $derived([
		...data.quotes.after.map((days) => ({
			words: `${counted(days, 'day')} after it went out`,
			kind: 'quoteReminder'
		})),
		...data.quotes.before.toReversed().map((days) => ({
			words: `${counted(days, 'day')} before it expires`,
			kind: 'quoteExpires'
		}))
	]);
</script>

<svelte:head><title>Chase plans · Owed · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/owed">Owed</a> · <a href="/owed/chasing">Chasing</a></p>
	<div class="flex gap-3 items-end">
		<h1>Chase plans</h1>
		<span class="flex-1"></span>
		<a class="button" href="/owed/chasing/plans/new">Another plan</a>
	</div>
	<p class="quiet mt-1 mb-3.5 mx-0">
		A customer’s own choice comes first, then the plan of its label, then the standard one.
	</p>
	{#each data.plans as plan (plan.id)}
		<section class="panel py-4 px-5 mb-3.5">
			<div class="flex flex-wrap gap-y-1 gap-x-3 items-center mb-2.5">
				<h2><a href="/owed/chasing/plans/{plan.id}">{plan.name}</a></h2>
				{#if plan.standard}<span class="tag">standard</span>{/if}
				{#each plan.labels as label (label)}<span class="tag">label {label}</span>{/each}
				{#if plan.chosenBy}<span class="quiet"
						>chosen for {plan.chosenBy} {plan.chosenBy === 1 ? 'payer' : 'payers'}</span
					>{/if}
				{#if !plan.standard}<span class="flex-1"></span>
					<Form
						action="?/archive"
						hidden={{ id: plan.id }}
						done="The plan is archived: nobody is chased by it."
						undo={{ action: '?/restore', values: { id: plan.id } }}
						><button class="button plain">Archive<span class="sr-only">: {plan.name}</span></button
						></Form
					>{/if}
			</div>
			<ol
				class="flex flex-wrap border-t-8 border-t-(--tape) phone:grid phone:border-t-0 phone:border-l-8 phone:border-l-(--tape)"
			>
				{#each plan.steps as step (step.id)}
					<li
						class="flex-[1_1_150px] grid content-start pt-2 pb-1 px-3 border-l-[1.5px] border-l-(--ink) phone:border-l-0 phone:border-t phone:border-t-(--hair)"
						class:late={step.offset > 0 && step.tone === 'last'}
					>
						<b>{offsetInWords(step.offset)}</b>
						<span
							>{CHANNEL_WORDS[step.channel]}, {TONE_WORDS[step.tone]}{step.byHand
								? ', you decide'
								: ''}</span
						>
					</li>
				{/each}
				{#if plan.chargeAfter}<li
						class="flex-[1_1_150px] grid content-start pt-2 pb-1 px-3 border-l-[1.5px] border-l-(--ink) phone:border-l-0 phone:border-t phone:border-t-(--hair)"
					>
						<b>{offsetInWords(plan.chargeAfter)}</b>
						<span>charged for lateness, by itself</span>
					</li>{/if}
			</ol>
		</section>
	{/each}
	<section class="panel py-4 px-5 mb-3.5" aria-labelledby="quotes">
		<div class="flex flex-wrap gap-y-1 gap-x-3 items-center mb-2.5">
			<h2 id="quotes">Quotes</h2>
			<span class="quiet">stopped by any answer, held while a question is open</span>
		</div>
		{#if steps.length}<ol
				class="flex flex-wrap border-t-8 border-t-(--tape) phone:grid phone:border-t-0 phone:border-l-8 phone:border-l-(--tape)"
			>
				{#each steps as step (step.words)}<li
						class="flex-[1_1_150px] grid content-start pt-2 pb-1 px-3 border-l-[1.5px] border-l-(--ink) phone:border-l-0 phone:border-t phone:border-t-(--hair)"
					>
						<b>{step.words}</b>
						<span
							>by e-mail, <a href="/settings/wordings/{step.kind}"
								>its words<span class="sr-only">: {step.words}</span></a
							></span
						>
					</li>{/each}
			</ol>{:else}<p>Quotes are not reminded of.</p>{/if}
		<Fold label="When they are reminded of" class="mt-2">
			<Form action="?/quotes" class="grid gap-3 max-w-120" done="The plan is kept.">
				<Field
					label="Days after they went out"
					name="after"
					value={data.quotes.after.join(', ')}
					inputmode="numeric"
					hint="With commas between, such as 5, 14; empty: not at all."
				/>
				<Field
					label="Days before they expire"
					name="before"
					value={data.quotes.before.join(', ')}
					inputmode="numeric"
				/>
				<div><button class="button">Keep it</button></div>
			</Form>
		</Fold>
	</section>
</div>
