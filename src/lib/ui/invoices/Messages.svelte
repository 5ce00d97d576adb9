<!-- Messages that did not go as they should: shown, kept, and sent again when told to. -->
<script lang="ts">
	import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
	import { enhance } from '$app/forms';
	import { displayMoment } from '$lib/core/calendar/conversion';
	import type { DocumentDetail } from '$lib/core/documents/detail';

	let { mails }: { mails: DocumentDetail['mails'] } = $props();
	let troubled = $derived(
		mails.filter(
			(mail) => mail.state !== 'sent' && !(mail.state === 'queued' && mail.attempts === 0)
		)
	);
	const WHAT = {
		invoice: 'The invoice',
		creditNote: 'The credit note',
		receipt: 'The receipt',
		paidNotice: 'The notice to you',
		trial: 'The test',
		statement: 'The statement',
		reminder: 'The reminder'
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
	<div class="panel" role="status">
		<TriangleAlert size={20} aria-hidden="true" />
		<p>
			<b>{WHAT[mail.kind]} to {mail.to} {WORDS[mail.state]}.</b>
			{mail.lastError ? `Because: ${mail.lastError}.` : ''}
			{#if mail.state === 'queued'}It is kept and tried again, next at {displayMoment(
					mail.nextAttemptAt
				)}.{/if}
		</p>
		{#if mail.state !== 'sending'}
			<form method="post" action="?/again" use:enhance>
				<input type="hidden" name="mail" value={mail.id} /><button class="button"
					>{mail.state === 'queued' ? 'Try now' : 'Send it again'}</button
				>
			</form>
		{/if}
		{#if mail.state === 'unsure'}
			<form method="post" action="?/arrived" use:enhance>
				<input type="hidden" name="mail" value={mail.id} /><button class="button"
					>It did arrive</button
				>
			</form>
		{/if}
	</div>
{/each}

<style>
	div {
		display: flex;
		gap: 12px;
		align-items: center;
		padding: 10px 14px;
		margin-bottom: 12px;
		border: 1.5px solid var(--oxide);
		flex-wrap: wrap;
	}
	p {
		flex: 1 1 260px;
	}
</style>
