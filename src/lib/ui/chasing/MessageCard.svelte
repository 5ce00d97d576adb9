<!-- A message that is about to go: to whom, how, about what; read, left out, or decided about. -->
<script lang="ts">
	import Form from '../parts/Form.svelte';
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
			amount: bigint;
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

<li
	class="grid grid-cols-[minmax(0,1fr)_auto_260px] gap-y-1.5 gap-x-4.5 items-center py-3 px-4.5 border-b border-b-(--hair) last:border-b-0 phone:grid-cols-[minmax(0,1fr)_auto] phone:py-3 phone:px-3.5"
>
	<div class="what grid gap-0.5 wrap-anywhere">
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
					>no e-mail address and no postal address: it cannot go</span
				>{/if}
			· {message.items.map((item) => item.number).join(', ')}
		</p>
	</div>
	<b class="numbers">{displayPounds(message.amount)}</b>
	<div class="flex gap-2 justify-end phone:col-span-full phone:justify-start">
		<a class="button" href="/owed/chasing/{message.payerId}"
			>{message.why === 'decide' ? 'Read and decide' : 'Read or change'}
			<span class="sr-only">the message to {message.payer}</span></a
		>
		<Form action="?/skip" hidden={{ payer: message.payerId, why: message.why, mark: message.mark }}>
			<button class="button plain"
				>Leave out <span class="sr-only">the message to {message.payer}</span></button
			>
		</Form>
	</div>
</li>
