<!-- Whose payment is it? The way to recording one, or to giving money back, from anywhere. -->
<script lang="ts">
	import Search from '@lucide/svelte/icons/search';
	import { displayAmount } from '$lib/core/money/display';
	import { filtersOf } from '$lib/ui/parts/filters';

	let { data } = $props();
	const { search } = filtersOf('/money/record');
	let title = $derived(data.back ? 'Who gets money back?' : 'Whose payment is it?');
	const ROW =
		'flex items-baseline justify-between gap-4 min-h-11.5 px-4 py-2.5 no-underline border-t border-t-(--hair) hover:bg-(--tape-tint)';
</script>

<svelte:head><title>{title} · Axiometer</title></svelte:head>
<div class="page max-w-170">
	<p class="quiet"><a href="/money">Money in</a></p>
	<h1 class="mb-3">{title}</h1>
	<form
		class="relative mb-3 flex gap-2 [&_svg]:absolute [&_svg]:left-2.5 [&_svg]:top-3 [&_svg]:text-(--ink-2)"
	>
		<Search size={18} aria-hidden="true" />
		{#if data.back}<input type="hidden" name="back" value="1" />{/if}
		<input
			class="box pl-9"
			type="search"
			name="q"
			aria-label="Search payers"
			placeholder={data.back ? 'A name' : 'A name, or the number of an invoice'}
			value={data.typed}
			oninput={(event) => search(event.currentTarget.value)}
		/>
		<noscript><button class="button">Search</button></noscript>
	</form>
	{#if data.rows.length}
		<section class="panel" aria-label={data.back ? 'In hand' : 'They owe you'}>
			<p class="quiet flex justify-between px-4 py-1.5">
				<span>{data.back ? 'Who has paid too much' : 'Who owes you'}</span><span>£</span>
			</p>
			<ul>
				{#each data.rows as row (row.id)}
					<li>
						<a class={ROW} href="/owed/{row.id}{data.back ? '' : '?pay'}"
							><span class="min-w-0 wrap-anywhere">{row.name}</span><b class="numbers"
								>{displayAmount(row.sum)}</b
							></a
						>
					</li>
				{/each}
			</ul>
		</section>
	{:else if !data.others.length}
		<p class="panel p-6">
			{data.typed
				? `Nobody${data.back ? ' with money in hand' : ''} is called “${data.typed}”.`
				: data.back
					? 'Nobody has paid you too much.'
					: 'Nobody owes you anything. Type a name to record a payment in advance.'}
		</p>
	{/if}
	{#if data.others.length}
		<section class="panel mt-3" aria-label="They owe you nothing">
			<p class="quiet px-4 py-1.5">Owe you nothing: it would be paid in advance</p>
			<ul>
				{#each data.others as one (one.id)}
					<li><a class={ROW} href="/owed/{one.id}?pay"><span>{one.name}</span></a></li>
				{/each}
			</ul>
		</section>
	{/if}
</div>
