<!-- Messages that did not go as they should: shown, kept, and sent again when told to. -->
<script lang="ts">
	import Form from '../parts/Form.svelte';
	import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
	import { displayMoment } from '$lib/core/calendar/conversion';
	import type { DocumentDetail } from '$lib/core/documents/detail';

	let { mails, texts }: Pick<DocumentDetail, 'mails' | 'texts'> = $props();
	let late = $derived(texts.filter((text) => text.state === 'failed' || text.attempts > 0));
	let troubled = $derived(
		mails.filter(
			(mail) =>
				(mail.state !== 'sent' || mail.missed !== '') &&
				!(mail.state === 'queued' && mail.attempts === 0)
		)
	);
	const WHAT = {
		invoice: 'The invoice',
		creditNote: 'The credit note',
		receipt: 'The receipt',
		paidNotice: 'The notice to you',
		trial: 'The test',
		statement: 'The statement',
		reminder: 'The reminder',
		notice: 'The notice',
		quote: 'The quote',
		quoteNews: 'News of a quote',
		enquiry: 'The answer',
		enquiryNews: 'News of an enquiry',
		visit: 'The news of a visit',
		deposit: 'The deposit request',
		jobSheet: 'The job sheet',
		signed: 'News of a signature',
		textReply: 'An answer by text'
	};
	const WORDS = {
		queued: 'has not gone out yet',
		sending: 'is on its way',
		failed: 'was refused',
		unsure: 'may or may not have arrived',
		sent: 'went out',
		withdrawn: 'was taken back before it went'
	};
</script>

{#each troubled as mail (mail.id)}
	<div
		class="panel flex gap-3 items-center py-2.5 px-3.5 mb-3 border-[1.5px] border-(--oxide) flex-wrap"
		role="status"
	>
		<TriangleAlert size={20} aria-hidden="true" />
		<p class="flex-[1_1_260px]">
			<b
				>{WHAT[mail.kind]} to {mail.missed || mail.to}
				{mail.missed && mail.state === 'sent' ? WORDS.failed : WORDS[mail.state]}.</b
			>
			{mail.lastError ? `Because: ${mail.lastError}.` : ''}
			{#if mail.state === 'queued'}It is kept and tried again, next at {displayMoment(
					mail.nextAttemptAt
				)}.{/if}
		</p>
		{#if mail.state !== 'sending'}
			<Form action="?/again" hidden={{ mail: mail.id }}>
				<button class="button">{mail.state === 'queued' ? 'Try now' : 'Send it again'}</button>
			</Form>
		{/if}
		{#if mail.state === 'unsure'}
			<Form action="?/arrived" hidden={{ mail: mail.id }}>
				<button class="button">It did arrive</button>
			</Form>
		{/if}
	</div>
{/each}
{#each late as text (text.id)}
	<div
		class="panel flex gap-3 items-center py-2.5 px-3.5 mb-3 border-[1.5px] border-(--oxide) flex-wrap"
		role="status"
	>
		<TriangleAlert size={20} aria-hidden="true" />
		<p class="flex-[1_1_260px]">
			<b
				>The text to {text.to}
				{text.state === 'failed' ? 'was refused' : 'has not gone out yet'}.</b
			>
			Because: {text.lastError}.
			{#if text.state === 'queued'}It is kept and tried again.{/if}
		</p>
		{#if text.state === 'failed'}<Form action="?/textAgain" hidden={{ text: text.id }}>
				<button class="button">Send it again</button>
			</Form>{/if}
	</div>
{/each}
