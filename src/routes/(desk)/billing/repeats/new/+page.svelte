<script lang="ts">
	import Form from '$lib/ui/parts/Form.svelte';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import { wordsOn } from '$lib/core/sheet/occasion';
	import Tick from '$lib/ui/parts/Tick.svelte';
	import RepeatFields from '$lib/ui/repeats/RepeatFields.svelte';

	let { data } = $props();
	let values = $derived({
		name: data.title,
		start: data.start,
		every: '1',
		unit: 'month',
		ends: 'never',
		after: '',
		on: '',
		weekend: 'asIs',
		action: 'draft'
	});
</script>

<svelte:head><title>Repeat it · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet">
		<a href="/billing/{data.from}">{data.number ?? 'Draft'}</a> to {data.customer}, {displayPounds(
			data.total
		)}
	</p>
	<h1>Repeat this invoice</h1>
	<Form class="panel grid gap-3.5 py-4.5 px-5 max-w-190 mt-3 justify-items-start *:w-full" keyed>
		<RepeatFields {values} card={data.card} />
		<p class="quiet">
			In its lines, {Object.entries(wordsOn(data.start))
				.map(([word, sample]) => `{${word}} becomes ${sample}`)
				.join('; ')} on {displayDate(data.start)}. You can change the lines on the next page.
		</p>
		{#if data.draft}
			<Tick name="discard" checked>Throw this draft away: the repeat makes its own</Tick>
		{/if}
		<button class="button filled w-auto!">Begin the repeat</button>
	</Form>
</div>
