<script lang="ts">
	import { displayDate, displayMoment } from '$lib/core/calendar/conversion';
	import { counted } from '$lib/core/words';
	import Form from '$lib/ui/parts/Form.svelte';
	import Tick from '$lib/ui/parts/Tick.svelte';

	let { data } = $props();
	let stays = $derived(
		[
			data.stays.documents ? counted(data.stays.documents, 'issued document') : '',
			data.stays.payments ? counted(data.stays.payments, 'payment') : ''
		].filter(Boolean)
	);
</script>

<svelte:head><title>Data of {data.name} · Axiometer</title></svelte:head>
<div class="page max-w-190">
	<p class="quiet"><a href="/customers/{data.id}">{data.name}</a></p>
	<h1 class="mb-3.5">Their data</h1>
	<div class="grid gap-4.5">
		<section class="panel py-5 px-5.5 max-[900px]:p-4" aria-labelledby="kept">
			<h2 id="kept">What is kept</h2>
			<p class="my-2">
				A person may ask what you keep of them. This is all of it in one ZIP: documents, messages,
				payments, jobs with photos and files, notes.
			</p>
			<a class="button" href="/customers/{data.id}/data/zip" download data-sveltekit-preload-data="off"
				>Download it</a
			>
		</section>
		<section class="panel py-5 px-5.5 max-[900px]:p-4" aria-labelledby="gone">
			<h2 id="gone">Remove what need not be kept</h2>
			{#if data.removed}
				<p class="my-2">
					On {displayMoment(data.removed.at)} this was removed: {data.removed.what}. A backup from before
					that is brought up to it when it is restored.
				</p>
			{/if}
			{#if stays.length && data.stays.until}
				<p class="my-2">
					<b>Stays until {displayDate(data.stays.until)}</b>: {stays.join(' and ')}, with name and address
					on them, the jobs and lines that they bill, and where they were sent. Tax law asks you to keep
					them; a person cannot ask for their removal before that.
				</p>
			{/if}
			{#if data.why}
				<p class="my-2">{data.why}</p>
			{:else if !data.removed}
				<p class="my-2">
					Goes: phone, e-mail, address and notes; contacts; photos and files; notes of calls and visits;
					the words of messages; kept cards; jobs of which nothing was billed. Backups made before keep it
					for up to twelve months.
				</p>
				<Form class="grid gap-3 justify-items-start" action="?/remove">
					<Tick name="sure">I have seen what goes. It cannot be had back.</Tick>
					<button class="button">Remove it</button>
				</Form>
			{/if}
		</section>
	</div>
</div>
