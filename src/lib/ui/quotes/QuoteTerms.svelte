<!-- What a quote says beside its lines. -->
<script lang="ts">
	import { displayPounds } from '$lib/core/money/display';
	import { stagePlan } from '$lib/core/quotes/chosen';
	import { unfairTerms } from '$lib/core/regimes/gb/consumer';
	import type { ContractPlace, QuoteTerms } from '$lib/core/sheet/types';
	import Fold from '../parts/Fold.svelte';
	import Segments from '../parts/Segments.svelte';
	import Cell from '../lines/Cell.svelte';
	import type { Draft } from '../lines/draft.svelte';

	let { draft }: { draft: Draft } = $props();
	let terms = $derived(draft.sheet.quote!);
	let figures = $derived(draft.quote?.quote ?? null);
	/** A consumer, whom the law protects. */
	let household = $derived(draft.customer?.kind === 'household' && !draft.customer.inTrade);
	const wrong = (path: string) => draft.problemAt.get(path);
	let plan = $derived(
		figures
			? stagePlan({ deposit: figures.deposit, stages: terms.stages }, figures.figures.total)
			: []
	);
	let unfair = $derived(household ? unfairTerms(terms.terms) : []);
	const TEXTS: [
		keyof QuoteTerms & ('before' | 'notIncluded' | 'assumed' | 'guarantee' | 'terms'),
		string,
		string
	][] = [
		['before', 'Before the lines', 'What you saw, and what you propose.'],
		['notIncluded', 'Not included', 'Skip hire, decorating, parking …'],
		['assumed', 'Assumed', 'The laths are sound; power and water are there …'],
		['guarantee', 'Guarantee and insurance', 'Two years on our work; insured up to …'],
		['terms', 'Your terms', 'They stand below everything.']
	];
	const PLACES: { value: ContractPlace; label: string }[] = [
		{ value: 'unsettled', label: 'Looked at on site, accepted from home' },
		{ value: 'offPremises', label: 'Face to face, at their place' },
		{ value: 'distance', label: 'All by phone, mail or web' },
		{ value: 'onPremises', label: 'At your own shop or office' }
	];
	let texts = $derived(TEXTS.some(([name]) => terms[name].trim() !== ''));
</script>

{#snippet words(name: (typeof TEXTS)[number][0], label: string, hint: string)}
	<label class="field col-span-full"
		><span class="name">{label}</span><textarea
			class="box [field-sizing:content]"
			rows="2"
			placeholder={hint}
			data-path="quote.{name}"
			aria-invalid={wrong(`quote.${name}`) ? 'true' : undefined}
			bind:value={terms[name]}></textarea>{#if wrong(`quote.${name}`)}<span class="wrong"
				>{wrong(`quote.${name}`)?.message}</span
			>{/if}</label
	>
{/snippet}

<Fold
	label="Deposit, and what is paid when"
	open={terms.deposit !== '' || terms.stages.length > 0}
	class="whole"
>
	<div class="grid gap-3 px-1.5 pt-0.5 pb-2">
		<div class="field max-w-60">
			<span class="name">Deposit, with VAT</span><Cell
				bind:value={terms.deposit}
				label="Deposit, with VAT"
				path="quote.deposit"
				problem={wrong('quote.deposit')}
				placeholder="25% or an amount"
			/>
		</div>
		{#each terms.stages as stage, index (index)}
			<div class="grid grid-cols-[minmax(0,1fr)_110px_auto] items-end gap-3">
				<div class="field">
					<span class="name">{index + 1}. When</span><Cell
						bind:value={stage.title}
						label="When stage {index + 1} is due"
						path="quote.stages.{index}.title"
						problem={wrong(`quote.stages.${index}.title`)}
						placeholder="when the laths are up"
					/>
				</div>
				{#if index < terms.stages.length - 1}<div class="field">
						<span class="name">% of it all</span><Cell
							bind:value={stage.percent}
							label="Percent, stage {index + 1}"
							path="quote.stages.{index}.percent"
							problem={wrong(`quote.stages.${index}.percent`)}
							numeric
							placeholder="40"
						/>
					</div>{:else}<span class="quiet pb-2">the rest</span>{/if}
				<button
					type="button"
					class="button plain"
					aria-label="Remove stage {index + 1}"
					onclick={() => terms.stages.splice(index, 1)}>Remove</button
				>
			</div>
		{/each}
		{#if wrong('quote.stages')}<p class="wrong">{wrong('quote.stages')?.message}</p>{/if}
		<div>
			<button
				type="button"
				class="button plain"
				onclick={() =>
					terms.stages.push({
						title: terms.stages.length ? '' : 'When it is done',
						percent: ''
					})}>{terms.stages.length ? 'Another stage' : 'Plan stages'}</button
			>
		</div>
		{#if plan.length}<ul class="grid max-w-120">
				{#each plan as { title, amount }, index (index)}<li
						class="flex justify-between gap-4 border-b border-(--hair) py-1 last:border-b-0"
					>
						<span>{title || '…'}</span><span class="numbers">{displayPounds(amount)}</span>
					</li>{/each}
			</ul>{/if}
	</div>
</Fold>
<Fold
	label="Words: before the lines, not included, assumed, guarantee, terms"
	open={texts}
	class="whole"
>
	<div class="grid gap-3 px-1.5 pt-0.5 pb-2">
		{#each TEXTS as [name, label, hint] (name)}{@render words(name, label, hint)}{/each}
		{#each unfair as said (said)}<p class="border-l-4 border-l-(--oxide) py-1 pl-3">
				{said}
			</p>{/each}
	</div>
</Fold>
<Fold label="How it is shown, and how binding it is" class="whole">
	<div class="grid gap-3.5 px-1.5 pt-0.5 pb-2">
		<Segments
			label="It is"
			value={terms.binding ? 'quote' : 'estimate'}
			options={[
				{ value: 'quote', label: 'A quote: a price that binds' },
				{ value: 'estimate', label: 'An estimate: a best guess' }
			]}
			onchange={(value) => (terms.binding = value === 'quote')}
		/>
		<Segments
			label="They see"
			bind:value={terms.detail}
			options={[
				{ value: 'all', label: 'Every price' },
				{ value: 'sections', label: 'A sum for each section' },
				{ value: 'total', label: 'The total only' }
			]}
		/>
		<div class="grid grid-cols-3 gap-4 phone:grid-cols-1">
			<div class="field">
				<span class="name">Holds for, days</span><Cell
					bind:value={terms.validDays}
					label="Holds for, days"
					path="quote.validDays"
					problem={wrong('quote.validDays')}
					numeric
				/>
			</div>
			<div class="field">
				<span class="name">Work could begin</span><Cell
					bind:value={terms.begin}
					label="Work could begin"
					path="quote.begin"
					problem={wrong('quote.begin')}
					placeholder="in the week of 7 Dec"
				/>
			</div>
			<div class="field">
				<span class="name">It takes</span><Cell
					bind:value={terms.duration}
					label="It takes"
					path="quote.duration"
					problem={wrong('quote.duration')}
					placeholder="about 6 days"
				/>
			</div>
		</div>
		{#if household}
			<fieldset class="grid gap-1">
				<legend class="name">Where did or will you agree?</legend>
				{#each PLACES as { value, label } (value)}<label class="check"
						><input type="radio" name="place" {value} bind:group={terms.place} /> {label}</label
					>{/each}
				<label class="check"
					><input type="checkbox" bind:checked={terms.urgent} /> They called for an urgent repair</label
				>
				<label class="check"
					><input type="checkbox" bind:checked={terms.newBuilding} /> It is for a new building, or a conversion
					that amounts to one</label
				>
				<p class="quiet">
					It decides what they must be told about cancelling. In doubt it is on their side.
				</p>
			</fieldset>
		{/if}
	</div>
</Fold>
