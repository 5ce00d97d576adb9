<script lang="ts">
	import Form from '$lib/ui/parts/Form.svelte';
	import Fold from '$lib/ui/parts/Fold.svelte';
	import { untrack } from 'svelte';
	import { displayDate, displayMoment, displayWeekday } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import FieldsOffered from '$lib/ui/wordings/FieldsOffered.svelte';
	import { fillWording, MERGE_FIELDS } from '$lib/core/chasing/wording';
	import { CHANNEL_WORDS, offsetInWords, TONE_WORDS } from '$lib/ui/chasing/words';
	import Choice from '$lib/ui/parts/Choice.svelte';
	import Field from '$lib/ui/parts/Field.svelte';

	let { data } = $props();
	let message = $derived(data.message);
	let subject = $state(untrack(() => data.message.wording.subject));
	let text = $state(untrack(() => data.message.wording.text));
	let channel = $state(untrack(() => data.message.channel));
	let changing = $state(false);
	let shown = $derived(fillWording({ subject, text }, data.facts));
	let back = $derived(
		message.why === 'decide'
			? 'A last letter, for you to decide'
			: message.why === 'planned'
				? `Goes by itself on ${displayWeekday(message.day)}`
				: 'A reminder now, because you want one'
	);
	let original = $derived(subject === message.step.subject && text === message.step.text);
</script>

<svelte:head><title>To {message.payer} · Chasing · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet">
		<a href="/owed/chasing">Chasing</a> · <a href="/owed/{message.payerId}">{message.payer}</a>
	</p>
	<h1>{displayPounds(message.amount)} from {message.payer}</h1>
	<p class="quiet mb-3.5">
		{back} · plan “{message.planName}”, {offsetInWords(message.step.offset)}, {TONE_WORDS[
			message.step.tone
		]}
	</p>
	<div
		class="columns grid grid-cols-[minmax(0,1fr)_360px] gap-y-4.5 gap-x-5.5 items-start narrow:grid-cols-1"
	>
		<Form
			class="panel py-4.5 px-5 grid gap-3.5"
			action="?/send"
			keyed
			hidden={{ why: message.why, mark: message.mark }}
			done="It goes with these words."
		>
			<div
				class="border border-(--hair) py-4.5 px-5.5 grid gap-2.5 max-w-[68ch] narrow:p-3.5"
				aria-label="As it will be read"
			>
				<p class="quiet to border-b border-b-(--hair) pb-2">
					{#if message.to}{CHANNEL_WORDS[channel]} to {message.to.replaceAll(
							'\n',
							', '
						)}{:else}<span class="late">No e-mail address and no postal address is known.</span>
						<a href="/customers/{message.payerId}">Add one</a>{/if}
				</p>
				{#if channel !== 'text'}<p class="subject"><b>{shown.subject}</b></p>{/if}
				<p class="words whitespace-pre-wrap wrap-anywhere">{shown.text}</p>
			</div>
			{#if changing}
				<Choice label="How" name="channel" bind:value={channel}>
					<option value="mail">mail</option>
					<option value="text">text message</option>
					<option value="letter">letter</option>
				</Choice>
				<FieldsOffered fields={MERGE_FIELDS}>
					<Field label="Subject" name="subject" bind:value={subject} />
					<Field label="Words, with fields in braces" name="text" rows={12} bind:value={text} />
				</FieldsOffered>
				<Fold label="The fields">
					<dl class="fields grid grid-cols-[auto_minmax(0,1fr)] gap-y-0.5 gap-x-3.5 pt-2">
						{#each Object.entries(MERGE_FIELDS) as [name, what] (name)}<dt class="mono">
								{`{${name}}`}
							</dt>
							<dd>{what}</dd>{/each}
					</dl>
				</Fold>
			{:else}
				<input type="hidden" name="channel" value={channel} />
				<input type="hidden" name="subject" value={subject} />
				<input type="hidden" name="text" value={text} />
			{/if}
			<div class="sticky bottom-0 bg-(--sheet) py-2.5 px-0 flex flex-wrap gap-y-2 gap-x-2.5">
				<button class="button filled" disabled={message.to === ''}
					>{message.why === 'decide'
						? channel === 'letter'
							? 'Make the letter'
							: 'Send it'
						: channel === 'letter'
							? 'Make the letter now'
							: 'Send it now'}</button
				>
				{#if !changing}<button class="button" type="button" onclick={() => (changing = true)}
						>Change the words</button
					>
				{:else if message.why !== 'now'}<button class="button" formaction="?/keep"
						>{original ? 'Keep the plan’s words' : 'Keep for its day'}</button
					>{/if}
				{#if message.why !== 'now'}<button class="button plain" formaction="?/skip"
						>Leave it out</button
					>{/if}
			</div>
		</Form>
		<aside class="grid gap-3.5">
			<section class="panel part py-3.5 px-4.5">
				<h2>About</h2>
				<ul>
					{#each message.items as item (item.documentId)}<li
							class="flex flex-wrap gap-y-0.5 gap-x-3 py-1.5 px-0 border-b border-b-(--hair)"
						>
							<a class="mono" href="/billing/{item.documentId}">{item.number}</a>
							<span class="quiet">due {displayDate(item.dueDate)}</span>
							<b class="numbers ml-auto">{displayPounds(item.toPay)}</b>
						</li>{/each}
				</ul>
			</section>
			<section class="panel part py-3.5 px-4.5">
				<h2>Written before</h2>
				<ul>
					{#each data.before as one (one.id)}<li
							class="before flex-wrap gap-y-0.5 gap-x-3 py-1.5 px-0 border-b border-b-(--hair) grid"
						>
							<span class="quiet">{displayMoment(one.createdAt)}</span>
							<span>{one.subject || one.text.split('\n')[0]}</span>
							<span class="quiet"
								>{one.openedAt
									? `opened ${displayMoment(one.openedAt)}`
									: 'not opened so far'}</span
							>
						</li>{:else}<li
							class="quiet flex flex-wrap gap-y-0.5 gap-x-3 py-1.5 px-0 border-b border-b-(--hair)"
						>
							Nothing yet.
						</li>{/each}
				</ul>
			</section>
		</aside>
	</div>
</div>
