<!-- Sending: by mail with the PDF, by link, by download, or handed over. -->
<script lang="ts">
	import Link2 from '@lucide/svelte/icons/link-2';
	import { enhance } from '$app/forms';
	import Field from '../parts/Field.svelte';
	import PanelForm from '../parts/PanelForm.svelte';
	import { notices } from '../parts/notices.svelte';
	import { fieldsOf, typedOf, type FormAnswer } from './answers';

	interface Props {
		sending: { to: string; subject: string; text: string; copyToSelf: boolean; ownAddress: string };
		link: string;
		id: number;
		form: FormAnswer;
		onclose: () => void;
	}
	let { sending, link, id, form, onclose }: Props = $props();
	let errors = $derived(fieldsOf(form));
	// svelte-ignore state_referenced_locally
	let to = $state(typedOf(form, 'to') ?? sending.to);

	async function copyLink() {
		try {
			await navigator.clipboard.writeText(link);
			notices.say('The link is copied.');
		} catch {
			notices.say('Copying is not allowed here. Mark the link and copy it by hand.');
		}
		await tell('linkCopied');
	}

	async function tell(how: string) {
		await fetch(`/billing/${id}?/handed`, {
			method: 'POST',
			body: new URLSearchParams({ how }),
			headers: { 'x-sveltekit-action': 'true', accept: 'application/json' }
		});
	}
</script>

<section class="panel" aria-label="Send">
	<PanelForm
		action="?/send"
		submit="Send it with the PDF"
		done="It is on its way."
		first={to ? 'button.filled' : '[name="to"]'}
		message={Object.keys(errors).length ? undefined : form?.message}
		{onclose}
		class="gap-2.5"
	>
		<Field
			label="To"
			name="to"
			bind:value={to}
			inputmode="email"
			autocomplete="off"
			error={errors.to}
		/>
		<Field
			label="Subject"
			name="subject"
			value={typedOf(form, 'subject') ?? sending.subject}
			error={errors.subject}
		/>
		<Field
			label={'Message; {link} becomes the link'}
			name="text"
			rows={9}
			value={typedOf(form, 'text') ?? sending.text}
			error={errors.text}
		/>
		{#if sending.ownAddress}<label class="check"
				><input type="checkbox" name="copyToSelf" checked={sending.copyToSelf} /> A copy to me, at {sending.ownAddress}</label
			>{/if}
	</PanelForm>
	<div class="other">
		<h2>Or another way</h2>
		<p class="link mono">{link}</p>
		<button class="button" onclick={copyLink}
			><Link2 size={18} aria-hidden="true" />Copy the link</button
		>
		<a class="button" href="/billing/{id}/pdf?download" onclick={() => tell('downloaded')}
			>Download the PDF</a
		>
		<form
			method="post"
			action="?/handed"
			use:enhance={() =>
				async ({ update }) => {
					await update();
					notices.say('Noted: handed over.');
					onclose();
				}}
		>
			<input type="hidden" name="how" value="handedOver" /><button class="button"
				>Mark as handed over</button
			>
		</form>
	</div>
</section>

<style>
	section {
		padding: 18px 20px;
		margin-bottom: 14px;
		display: grid;
		grid-template-columns: minmax(0, 1fr) 280px;
		gap: 28px;
	}
	.other {
		display: grid;
		gap: 10px;
		align-content: start;
	}
	.link {
		overflow-wrap: anywhere;
		font-size: 0.85rem;
		user-select: all;
	}
	@media (max-width: 760px) {
		section {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
