<!-- Where a job is and who is there: the address in the device's own maps, a call, a text or an e-mail with one press. -->
<script lang="ts">
	import Mail from '@lucide/svelte/icons/mail';
	import MapPin from '@lucide/svelte/icons/map-pin';
	import MessageSquare from '@lucide/svelte/icons/message-square';
	import Phone from '@lucide/svelte/icons/phone';

	interface Props {
		address: string;
		people: { name: string; phone: string; email: string }[];
		/** It stands on a panel already. */
		flat?: boolean;
	}
	let { address, people, flat = false }: Props = $props();
	let lines = $derived(
		address
			.split('\n')
			.map((line) => line.trim())
			.filter(Boolean)
	);
	let reachable = $derived(people.filter((one) => one.phone || one.email));
	const dial = (phone: string) => phone.replace(/[^\d+]/g, '');
	const press = 'button plain min-h-11 px-2.5 no-underline';
</script>

{#if lines.length || reachable.length}
	<section
		class="grid gap-1.5 {flat ? '' : 'panel py-3 px-4.5'}"
		aria-label="Where, and who is there"
	>
		{#if lines.length}
			<a
				class="flex gap-2.5 items-start min-h-11 py-1.5"
				href="geo:0,0?q={encodeURIComponent(lines.join(', '))}"
				><MapPin class="flex-none mt-0.5" size={18} aria-hidden="true" /><span
					><span class="sr-only">Map of </span>{lines.join(', ')}</span
				></a
			>
		{/if}
		{#each reachable as one (one.name + one.phone + one.email)}
			<div class="flex gap-x-1 items-center flex-wrap">
				<span class="mr-auto min-w-0 wrap-anywhere"
					>{one.name} <span class="quiet numbers whitespace-nowrap">{one.phone}</span></span
				>
				{#if one.phone}
					<a class={press} href="tel:{dial(one.phone)}"
						><Phone size={18} aria-hidden="true" />Call <span class="sr-only">{one.name}</span></a
					>
					<a class={press} href="sms:{dial(one.phone)}"
						><MessageSquare size={18} aria-hidden="true" />Text
						<span class="sr-only">{one.name}</span></a
					>
				{/if}
				{#if one.email}<a class={press} href="mailto:{one.email}"
						><Mail size={18} aria-hidden="true" />E-mail <span class="sr-only">{one.name}</span></a
					>{/if}
			</div>
		{/each}
	</section>
{/if}
