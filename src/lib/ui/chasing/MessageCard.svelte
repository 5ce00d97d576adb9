<!-- A message that is about to go: to whom, how, about what; read, left out, or decided about. -->
<script lang="ts">
	import { enhance } from '$app/forms';
	import { displayPounds } from '$lib/core/money/display';
	import type { Channel, Tone } from '$lib/core/chasing/types';
	import { CHANNEL_WORDS, TONE_WORDS } from './words';

	interface Props {
		message: {
			payerId: number;
			payer: string;
			why: string;
			mark: string;
			channel: Channel;
			detour: string;
			to: string;
			subject: string;
			text: string;
			amount: number;
			step: { tone: Tone };
			wording: { changed: boolean };
			items: { documentId: number; number: string }[];
		};
	}
	let { message }: Props = $props();
	let first = $derived(
		message.text
			.split('\n')
			.filter((line) => line.trim() && !/^(hello|dear|to) ?/i.test(line))
			.at(0) ?? ''
	);
</script>

<li>
	<div class="what">
		<p>
			<a href="/owed/{message.payerId}"><b>{message.payer}</b></a>
			<span class="tag">{TONE_WORDS[message.step.tone]}</span>
			{#if message.wording.changed}<span class="tag">words changed</span>{/if}
		</p>
		<p>{message.channel === 'text' ? first : message.subject}</p>
		<p class="quiet">
			{#if message.to}by {CHANNEL_WORDS[message.channel]} to {message.to.split(
					'\n'
				)[0]}{message.detour ? ` (${message.detour})` : ''}{:else}<span class="late"
					>no mail address and no postal address: it cannot go</span
				>{/if}
			· {message.items.map((item) => item.number).join(', ')}
		</p>
	</div>
	<b class="numbers">{displayPounds(message.amount)}</b>
	<div class="doing">
		<a class="button" href="/owed/chasing/{message.payerId}"
			>{message.why === 'decide' ? 'Read and decide' : 'Read or change'}<span class="sr-only">
				the message to {message.payer}</span
			></a
		>
		<form method="post" action="?/skip" use:enhance>
			<input type="hidden" name="payer" value={message.payerId} />
			<input type="hidden" name="why" value={message.why} />
			<input type="hidden" name="mark" value={message.mark} />
			<button class="button plain"
				>Leave out<span class="sr-only"> the message to {message.payer}</span></button
			>
		</form>
	</div>
</li>

<style>
	li {
		display: grid;
		grid-template-columns: minmax(0, 1fr) auto 260px;
		gap: 6px 18px;
		align-items: center;
		padding: 12px 18px;
		border-bottom: 1px solid var(--hair);
	}
	li:last-child {
		border-bottom: 0;
	}
	.what {
		display: grid;
		gap: 2px;
		overflow-wrap: anywhere;
	}
	.doing {
		display: flex;
		gap: 8px;
		justify-content: flex-end;
	}
	@media (max-width: 760px) {
		li {
			grid-template-columns: minmax(0, 1fr) auto;
			padding: 12px 14px;
		}
		.doing {
			grid-column: 1 / -1;
			justify-content: flex-start;
		}
	}
</style>
