<script lang="ts">
	import { enhance } from '$app/forms';
	import { displayPounds } from '$lib/core/money/display';
	import { OCCASION_WORDS } from '$lib/core/sheet/occasion';
	import { pressKey } from '$lib/ui/parts/keys';
	import RepeatFields from '$lib/ui/repeats/RepeatFields.svelte';

	let { data, form } = $props();
	const key = pressKey();
	let errors = $derived<Record<string, string>>((form && 'fields' in form && form.fields) || {});
	let given = $derived<Record<string, unknown>>((form && 'values' in form && form.values) || {});
	let values = $derived({
		name: String(given.name ?? data.title),
		start: String(given.start ?? data.today),
		every: String(given.every ?? '1'),
		unit: String(given.unit ?? 'month'),
		ends: String(given.ends ?? 'never'),
		after: String(given.after ?? ''),
		on: String(given.on ?? ''),
		weekend: String(given.weekend ?? 'asIs'),
		action: String(given.action ?? 'draft')
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
	<form
		class="panel"
		method="post"
		use:enhance={() =>
			({ update }) =>
				update({ reset: false })}
	>
		<input type="hidden" name="key" value={key} />
		<RepeatFields {values} {errors} card={data.card} />
		<p class="quiet">
			In its lines, {Object.entries(OCCASION_WORDS)
				.map(([word, sample]) => `{${word}} becomes ${sample}`)
				.join('; ')}. You can change the lines on the next page.
		</p>
		{#if data.draft}
			<label class="check"
				><input type="checkbox" name="discard" checked />Throw this draft away: the repeat makes its
				own</label
			>
		{/if}
		{#if form && 'message' in form && !Object.keys(errors).length}<p class="wrong" role="alert">
				{form.message}
			</p>{/if}
		<button class="button filled">Begin the repeat</button>
	</form>
</div>

<style>
	form {
		display: grid;
		gap: 14px;
		padding: 18px 20px;
		max-width: 760px;
		margin-top: 12px;
		justify-items: start;
	}
	form > :global(*) {
		width: 100%;
	}
	form > .button {
		width: auto;
	}
</style>
