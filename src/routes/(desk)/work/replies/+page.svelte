<script lang="ts">
	import { displayMoment } from '$lib/core/calendar/conversion';
	import Form from '$lib/ui/parts/Form.svelte';
	import Places from '$lib/ui/parts/Places.svelte';
	import { WORK_PAGES } from '$lib/ui/jobs/tabs';

	let { data } = $props();
	let unread = $derived(data.replies.filter(({ seen }) => !seen).length);
</script>

<svelte:head><title>Answers by text · Axiometer</title></svelte:head>
<div class="page">
	<h1>Work</h1>
	<Places label="Work" pages={WORK_PAGES} />
	<h2 class="mb-3 text-[1.35rem]">
		Answers by text{unread ? `: ${unread} not read yet` : ''}
	</h2>
	<ul class="grid max-w-190 gap-3">
		{#each data.replies as reply (reply.id)}
			<li
				class="panel grid gap-2 px-4.5 py-3 [&.unread]:border-l-6 [&.unread]:border-l-(--tape)"
				class:unread={!reply.seen}
			>
				<div class="flex flex-wrap items-baseline gap-x-3">
					<h3 class="text-[1.05rem] wrap-anywhere">
						{#if reply.customerId}<a href="/customers/{reply.customerId}">{reply.customer}</a
							>{:else}Nobody you have on file{/if}
					</h3>
					<span class="mono">{reply.from}</span>
					<span class="quiet">{displayMoment(reply.at)}</span>
					{#if reply.stopped}<span class="tag">wants no more texts</span>{/if}
				</div>
				<p class="whitespace-pre-wrap wrap-anywhere">{reply.text}</p>
				{#if reply.about}<p class="quiet border-l-3 border-l-(--hair) pl-3 wrap-anywhere">
						You had written: {reply.about}
					</p>{/if}
				<div class="flex flex-wrap gap-2">
					{#if !reply.seen}<Form action="?/read" hidden={{ id: reply.id }}
							><button class="button"
								>I have read it<span class="sr-only">: {reply.customer || reply.from}</span></button
							></Form
						>{/if}
					{#if reply.jobId}<a class="button" href="/work/{reply.jobId}"
							>The job<span class="sr-only">: {reply.customer || reply.from}</span></a
						>{/if}
					{#if reply.documentId}<a class="button" href="/billing/{reply.documentId}"
							>The invoice<span class="sr-only">: {reply.customer || reply.from}</span></a
						>{/if}
					<a class="button" href="tel:{reply.from}"
						>Call<span class="sr-only">: {reply.customer || reply.from}</span></a
					>
				</div>
			</li>
		{:else}<li class="quiet">
				Nobody has answered by text yet. Whoever writes STOP gets no more of them.
			</li>{/each}
	</ul>
</div>
