<script lang="ts">
	import { untrack } from 'svelte';
	import { displayDate } from '$lib/core/calendar/conversion';
	import {
		claimDeadline,
		claimLetter,
		claimSum,
		DAYS_TO_ANSWER,
		enclosuresOf,
		type Debtor
	} from '$lib/core/chasing/claim';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import Field from '$lib/ui/parts/Field.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import Segments from '$lib/ui/parts/Segments.svelte';

	let { data } = $props();
	let debtor = $state<Debtor>(untrack(() => data.debtor));
	let agreed = $state('');
	let chosen = $state(
		untrack(() => data.invoices.flatMap((one) => (one.against ? [] : [one.documentId])))
	);
	let wanted = $derived(data.invoices.filter(({ documentId }) => chosen.includes(documentId)));
	let facts = $derived({ ...data.facts, debtor, agreed, invoices: wanted });
	let letter = $derived(claimLetter(facts));
	let enclosed = $derived(enclosuresOf({ ...facts, sum: claimSum(facts) }));
	const WHO: { value: Debtor; label: string }[] = [
		{ value: 'individual', label: 'A person or sole trader' },
		{ value: 'firm', label: 'A company or public body' }
	];
</script>

<svelte:head><title>Letter of claim to {data.payer.name} · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet">
		<a href="/owed">Owed</a> · <a href="/owed/{data.payer.id}">{data.payer.name}</a>
	</p>
	<h1>Letter of claim to {data.payer.name}</h1>
	<p class="quiet mb-3.5">
		The last letter before court. It is printed and posted on the day it is dated, and no claim is
		begun before its time to answer is over.
	</p>
	{#if data.breathing}<p class="panel py-2.5 px-3.5 mb-3 bg-(--tape-tint)" role="status">
			They are in breathing space until {displayDate(data.breathing)}: nothing may be claimed before
			that.
		</p>{/if}
	{#if data.before.length}<p class="panel py-2.5 px-3.5 mb-3">
			Written before: {#each data.before as one, index (one.id)}{index ? ', ' : ''}<a
					href="/owed/chasing/letters/{one.id}"
					>{displayDate(one.day)}{one.state === 'posted' ? ', posted' : ', not posted yet'}</a
				>{/each}.
		</p>{/if}
	{#if data.invoices.length === 0}
		<p class="panel p-6">Nothing of theirs is late.</p>
	{:else}
		<Form
			class="grid grid-cols-[minmax(0,1fr)_minmax(0,1.1fr)] gap-y-3.5 gap-x-5.5 items-start max-[900px]:grid-cols-1"
			action="?/write"
			keyed
		>
			<div class="grid gap-3.5">
				<section class="panel grid gap-3 py-4 px-4.5">
					<Segments label="It goes to" name="debtor" options={WHO} bind:value={debtor} />
					<p class="quiet">
						{debtor === 'individual'
							? 'The Pre-Action Protocol for Debt Claims applies: thirty days, with an information sheet, a reply form and a statement of means, which are printed with it.'
							: 'The Practice Direction on pre-action conduct applies: fourteen days are usual.'}
					</p>
					<Field
						label="How it was agreed"
						name="agreed"
						rows={4}
						bind:value={agreed}
						placeholder="You accepted our quote of 3 June 2026 by e-mail on 8 June."
						hint={debtor === 'individual'
							? 'By whom, when, and whether in writing or by word of mouth: the protocol asks for it.'
							: 'Not asked for by law; it helps.'}
					/>
				</section>
				<section class="panel py-4 px-4.5">
					<h2>What is claimed</h2>
					<ul>
						{#each data.invoices as one (one.documentId)}
							<li
								class="flex justify-between gap-3 items-center border-b border-b-(--hair) py-1.5 last:border-b-0"
							>
								<label class="check"
									><input
										type="checkbox"
										name="document"
										value={one.documentId}
										bind:group={chosen}
									/><span
										><span class="mono">{one.number}</span>
										<span class="quiet block"
											>due {displayDate(one.due)}{one.against ? ` · ${one.against}` : ''}</span
										></span
									></label
								>
								<span class="numbers text-right"
									>{displayAmount(one.open)}{#if one.added > 0n}<small class="quiet block"
											>and {displayAmount(one.added)} for its lateness</small
										>{/if}</span
								>
							</li>
						{/each}
					</ul>
					<p class="flex justify-between pt-2 font-[650]">
						<span>In all</span><span class="numbers">{displayPounds(claimSum(facts))}</span>
					</p>
				</section>
				<div class="flex flex-wrap gap-2.5 items-center">
					<button class="button filled" disabled={data.breathing !== null}>Write the letter</button>
					<span class="quiet"
						>To answer by {displayDate(claimDeadline(facts))}, {DAYS_TO_ANSWER[debtor]} days</span
					>
				</div>
			</div>
			<section class="panel py-4.5 px-5 border-l-6 border-l-(--tape)" aria-label="The letter">
				{#if wanted.length === 0}<p class="quiet">
						Choose what is claimed: then the letter stands here.
					</p>
				{:else}
					<p class="quiet whitespace-pre-line mb-2">
						{data.payer.name}{data.payer.address ? `\n${data.payer.address}` : ''}
					</p>
					<h2 class="mb-2">{letter.subject}</h2>
					<p class="whitespace-pre-line wrap-anywhere">{letter.text}</p>
					{#if enclosed.length}<p class="quiet mt-3">
							Enclosed: {enclosed.map(({ title }) => title.toLowerCase()).join(', ')}.
						</p>{/if}
				{/if}
			</section>
		</Form>
	{/if}
</div>
