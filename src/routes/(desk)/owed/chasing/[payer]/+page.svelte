<script lang="ts">
	import Fold from '$lib/ui/parts/Fold.svelte';
	import { enhance } from '$app/forms';
	import { untrack } from 'svelte';
	import { displayDate, displayMoment, displayWeekday } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import { fillWording, MERGE_FIELDS } from '$lib/core/chasing/wording';
	import { CHANNEL_WORDS, offsetInWords, TONE_WORDS } from '$lib/ui/chasing/words';
	import { pressKey } from '$lib/ui/parts/keys';
	import { notices } from '$lib/ui/parts/notices.svelte';

	let { data, form } = $props();
	let message = $derived(data.message);
	let subject = $state(untrack(() => data.message.wording.subject));
	let text = $state(untrack(() => data.message.wording.text));
	let channel = $state(untrack(() => data.message.channel));
	let changing = $state(false);
	const key = pressKey();
	let errors = $derived<Record<string, string>>((form && 'fields' in form && form.fields) || {});
	let refused = $derived(
		form && 'message' in form && Object.keys(errors).length === 0 ? String(form.message ?? '') : ''
	);
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
	<p class="quiet under">
		{back} · plan “{message.planName}”, {offsetInWords(message.step.offset)}, {TONE_WORDS[
			message.step.tone
		]}
	</p>
	{#if refused}<p class="wrong" role="alert">{refused}</p>{/if}
	<div class="columns">
		<form
			class="panel"
			method="post"
			action="?/send"
			use:enhance={() =>
				async ({ result, update }) => {
					await update({ reset: false });
					if (result.type === 'success') notices.say('It goes with these words.');
					if (result.type === 'redirect') notices.say('Done.');
				}}
		>
			<input type="hidden" name="why" value={message.why} />
			<input type="hidden" name="mark" value={message.mark} />
			<input type="hidden" name="key" value={key} />
			<div class="letter" aria-label="As it will be read">
				<p class="quiet to">
					{#if message.to}{CHANNEL_WORDS[channel]} to {message.to.replaceAll(
							'\n',
							', '
						)}{:else}<span class="late">No mail address and no postal address is known.</span>
						<a href="/customers/{message.payerId}">Add one</a>{/if}
				</p>
				{#if channel !== 'text'}<p class="subject"><b>{shown.subject}</b></p>{/if}
				<p class="words">{shown.text}</p>
			</div>
			{#if changing || errors.text || errors.subject}
				<label class="field"
					><span class="name">How</span><select class="box" name="channel" bind:value={channel}>
						<option value="mail">mail</option><option value="text">text message</option><option
							value="letter">letter</option
						>
					</select></label
				>
				<label class="field"
					><span class="name">Subject</span><input
						class="box"
						name="subject"
						bind:value={subject}
						aria-invalid={errors.subject ? 'true' : undefined}
					/>{#if errors.subject}<span class="wrong">{errors.subject}</span>{/if}</label
				>
				<label class="field"
					><span class="name">Words, with fields in braces</span><textarea
						class="box"
						name="text"
						rows="12"
						bind:value={text}
						aria-invalid={errors.text ? 'true' : undefined}></textarea>{#if errors.text}<span
							class="wrong">{errors.text}</span
						>{/if}</label
				>
				<Fold label="The fields">
					<dl class="fields">
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
			<div class="doing">
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
		</form>
		<aside>
			<section class="panel part">
				<h2>About</h2>
				<ul>
					{#each message.items as item (item.documentId)}<li>
							<a class="mono" href="/billing/{item.documentId}">{item.number}</a>
							<span class="quiet">due {displayDate(item.dueDate)}</span>
							<b class="numbers">{displayPounds(item.toPay)}</b>
						</li>{/each}
				</ul>
			</section>
			<section class="panel part">
				<h2>Written before</h2>
				<ul>
					{#each data.before as one (one.id)}<li class="before">
							<span class="quiet">{displayMoment(one.createdAt)}</span>
							<span>{one.subject || one.text.split('\n')[0]}</span>
							<span class="quiet"
								>{one.openedAt
									? `opened ${displayMoment(one.openedAt)}`
									: 'not opened so far'}</span
							>
						</li>{:else}<li class="quiet">Nothing yet.</li>{/each}
				</ul>
			</section>
		</aside>
	</div>
</div>

<style>
	.under {
		margin-bottom: 14px;
	}
	.columns {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 360px;
		gap: 18px 22px;
		align-items: start;
	}
	form {
		padding: 18px 20px;
		display: grid;
		gap: 14px;
	}
	.letter {
		border: 1px solid var(--hair);
		padding: 18px 22px;
		display: grid;
		gap: 10px;
		max-width: 68ch;
	}
	.to {
		border-bottom: 1px solid var(--hair);
		padding-bottom: 8px;
	}
	.words {
		white-space: pre-wrap;
		overflow-wrap: anywhere;
	}
	.doing {
		position: sticky;
		bottom: 0;
		background: var(--sheet);
		padding: 10px 0;
		display: flex;
		flex-wrap: wrap;
		gap: 8px 10px;
	}
	.fields {
		display: grid;
		grid-template-columns: auto minmax(0, 1fr);
		gap: 2px 14px;
		padding-top: 8px;
	}
	aside {
		display: grid;
		gap: 14px;
	}
	.part {
		padding: 14px 18px;
	}
	.part li {
		display: flex;
		flex-wrap: wrap;
		gap: 2px 12px;
		padding: 6px 0;
		border-bottom: 1px solid var(--hair);
	}
	.part li b {
		margin-left: auto;
	}
	.part li.before {
		display: grid;
	}
	@media (max-width: 1000px) {
		.columns {
			grid-template-columns: minmax(0, 1fr);
		}
		.letter {
			padding: 14px;
		}
	}
</style>
