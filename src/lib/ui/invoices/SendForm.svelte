<!-- Sending: by e-mail with the PDF, by text, by link, by download, or handed over. -->
<script lang="ts">
	import Form from '../parts/Form.svelte';
	import Link2 from '@lucide/svelte/icons/link-2';
	import { LINK_PLACEHOLDER } from '$lib/core/documents/wording';
	import { textSize } from '$lib/core/wordings/texts';
	import { counted } from '$lib/core/words';
	import Field from '../parts/Field.svelte';
	import Fold from '../parts/Fold.svelte';
	import PanelForm from '../parts/PanelForm.svelte';
	import { notices } from '../parts/notices.svelte';

	interface Props {
		sending: {
			to: string;
			subject: string;
			text: string;
			copyToSelf: boolean;
			ownAddress: string;
			/** The customer's mobile number, and what a text says; empty where none is known. */
			mobile: string;
			words: string;
			textPrice: string;
		};
		link: string;
		id: number;
		onclose: () => void;
	}
	let { sending, link, id, onclose }: Props = $props();
	// svelte-ignore state_referenced_locally
	let to = $state(sending.to);
	// svelte-ignore state_referenced_locally
	let words = $state(sending.words);
	let texted = $derived(words.replaceAll(LINK_PLACEHOLDER, link));

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

<section
	class="panel py-4.5 px-5 mb-3.5 grid grid-cols-[minmax(0,1fr)_320px] gap-7 max-[900px]:grid-cols-1"
	aria-label="Send"
>
	<PanelForm
		action="?/send"
		submit="Send it with the PDF"
		done="Sent to {to}."
		first={to ? 'button.filled' : '[name="to"]'}
		{onclose}
		class="gap-2.5"
	>
		<Field
			label="To"
			name="to"
			bind:value={to}
			inputmode="email"
			autocomplete="off"
			hint="Several addresses with commas between."
		/>
		<Field
			label="Copy to (cc), where others may see it"
			name="cc"
			inputmode="email"
			autocomplete="off"
		/>
		<Field label="Subject" name="subject" value={sending.subject} />
		<Field label={'Message; {link} becomes the link'} name="text" rows={9} value={sending.text} />
		{#if sending.ownAddress}<label class="check"
				><input type="checkbox" name="copyToSelf" checked={sending.copyToSelf} /> A copy to me, at {sending.ownAddress}</label
			>{/if}
	</PanelForm>
	<div class="other grid gap-2.5 content-start">
		<h2>Or another way</h2>
		<Fold label="By text">
			<Form
				class="grid gap-2.5"
				action="?/text"
				keyed
				done="The text is on its way."
				ondone={onclose}
			>
				<Field label="Mobile number" name="mobile" type="tel" value={sending.mobile} />
				<Field
					label={'Text; {link} becomes the link'}
					name="words"
					rows={4}
					bind:value={words}
					hint="{counted(texted.length, 'letter')}, {textSize(texted, sending.textPrice)}"
				/>
				<button class="button">Send the text</button>
			</Form>
		</Fold>
		<p class="link mono wrap-anywhere text-[0.85rem] select-all">{link}</p>
		<button class="button" onclick={copyLink}
			><Link2 size={18} aria-hidden="true" />Copy the link</button
		>
		<Form action="?/renewLink" done="The link is new. The earlier one opens nothing any more.">
			<button class="button plain">Renew the link</button>
		</Form>
		<a class="button" href="/billing/{id}/pdf?download" onclick={() => tell('downloaded')}
			>Download the PDF</a
		>
		<Form
			action="?/handed"
			hidden={{ how: 'handedOver' }}
			done="Noted: handed over."
			ondone={onclose}
		>
			<button class="button">Mark as handed over</button>
		</Form>
	</div>
</section>
