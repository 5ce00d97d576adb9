<script lang="ts">
	import { page } from '$app/state';
	import { displayWeekday } from '$lib/core/calendar/conversion';
	import Field from '$lib/ui/parts/Field.svelte';
	import Fold from '$lib/ui/parts/Fold.svelte';
	import Form from '$lib/ui/parts/Form.svelte';

	let { data } = $props();
	let action = $derived(`${page.url.pathname}?/answer`);
</script>

<svelte:head>
	<title>{data.title}, {data.from}</title>
	<meta name="robots" content="noindex" />
</svelte:head>
<main class="mx-auto grid max-w-140 gap-4 px-4 pt-5 pb-15">
	<section class="panel grid gap-2 border-t-8 border-t-(--ink) px-5 py-4">
		<p class="quiet">{data.from}</p>
		<h1 class="text-[1.7rem] wrap-anywhere">{data.title}</h1>
		{#if data.off}<p class="text-[1.2rem] font-semibold">
				We do not come on {displayWeekday(data.date)}.
			</p>
		{:else}
			<p class="text-[1.2rem]">
				{data.past ? 'We came' : 'We come'} on <b>{displayWeekday(data.date)}</b>{data.arrival
					? `, ${data.arrival}`
					: ''}.
			</p>
			{#if data.address}<p class="quiet whitespace-pre-line">{data.address}</p>{/if}
			<p><a href="{page.url.pathname}/calendar">Put it into your calendar</a></p>
		{/if}
		{#if data.phone}<p>
				Questions? Call <a href="tel:{data.phone.replace(/\s/g, '')}">{data.phone}</a>.
			</p>{/if}
	</section>
	{#if !data.off && !data.past}
		<section class="panel grid gap-3 px-5 py-4" aria-label="Your answer">
			{#if data.answer === 'confirmed'}<p role="status" class="font-semibold">
					Thank you: you confirmed it.
				</p>
			{:else if data.answer === 'other'}<p role="status">
					You asked for another time: “{data.words}”. We get back to you.
				</p>{/if}
			{#if data.answer !== 'confirmed'}<Form {action} hidden={{ answer: 'confirmed', words: '' }}
					><button class="button filled min-h-12">That suits me</button></Form
				>{/if}
			<Fold label="Ask for another time">
				<Form {action} hidden={{ answer: 'other' }} class="grid gap-3" done="It has reached us.">
					<Field label="Which times would suit you?" name="words" rows={2} maxlength={1000} />
					<div><button class="button">Send it</button></div>
				</Form>
			</Fold>
		</section>
	{/if}
</main>
