<!-- Signing: what it says, a name, a signature drawn or typed. -->
<script lang="ts">
	import { KEPT_WORDS, SIGNED_WORDS } from '$lib/core/jobs/signed';
	import Choice from '../parts/Choice.svelte';
	import Field from '../parts/Field.svelte';
	import Form from '../parts/Form.svelte';
	import Signature from './Signature.svelte';

	interface Props {
		action: string;
		/** The hash of what lies before whoever signs. */
		of: string;
		/** An invoice is signed for as received, or its work as accepted; a job sheet as what was done. */
		about: 'sheet' | 'invoice';
		firm?: boolean;
		class?: string;
	}
	let { action, of, about, firm = true, class: look = '' }: Props = $props();
	let signature = $state('');
</script>

<Form class="grid gap-3.5 {look}" {action} keyed hidden={{ of, signature }}>
	{#snippet children(frame)}
		{#if about === 'invoice'}
			<Choice label="What you sign" name="what" value="accepted">
				<option value="accepted">{SIGNED_WORDS.accepted}</option>
				<option value="received">{SIGNED_WORDS.received}</option>
			</Choice>
		{:else}<p class="text-[1.1rem] font-semibold">{SIGNED_WORDS.done}</p>{/if}
		<div class="grid grid-cols-2 gap-3 phone:grid-cols-1">
			<Field label="Your name" name="name" autocomplete="name" maxlength={200} />
			{#if firm}<Field label="Your position" name="position" maxlength={200} />{/if}
		</div>
		<Signature bind:value={signature} error={frame.error('signature')} />
		<div><button class="button filled min-h-12">Sign it</button></div>
		<p class="quiet">{KEPT_WORDS}</p>
	{/snippet}
</Form>
