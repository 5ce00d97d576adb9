<script lang="ts">
	import Download from '@lucide/svelte/icons/download';
	import { page } from '$app/state';
	import { displayMoment } from '$lib/core/calendar/conversion';
	import Paper from '$lib/ui/invoices/Paper.svelte';
	import Reach from '$lib/ui/money/Reach.svelte';
	import SignForm from '$lib/ui/signing/SignForm.svelte';

	let { data } = $props();
	let at = $derived(page.url.pathname);
</script>

<svelte:head>
	<title>{data.view.title} {data.view.number} from {data.view.seller.name}</title>
	<meta name="robots" content="noindex" />
</svelte:head>
<main class="mx-auto grid max-w-225 grid-cols-[minmax(0,1fr)] gap-4 px-3.5 pt-6 pb-15">
	<section
		class="panel grid gap-3 border-t-8 border-t-(--ink) px-6 py-5 phone:px-4"
		aria-label="Job sheet"
	>
		<p class="quiet">{data.view.seller.name}</p>
		<h1 class="text-[1.7rem] wrap-anywhere">What was done: {data.view.above[0]}</h1>
		{#if data.signed}<p role="status" class="font-semibold">
				Signed by {data.signed.name} on {displayMoment(data.signed.at)}.
			</p>{/if}
		<div class="flex flex-wrap gap-2.5">
			<a class="button" href="{at}/pdf"><Download size={18} aria-hidden="true" />PDF</a>
			{#if !data.signed}<a class="button" href="#sign">Sign it</a>{/if}
		</div>
		<Reach name={data.view.seller.name} reach={data.reach} />
	</section>
	<Paper
		view={data.view}
		logo={data.view.look.logo && `${at}/logo`}
		photo={(photo) => `${at}/photos/${photo}`}
	/>
	{#if !data.signed}<section class="panel px-6 py-5 phone:px-4" id="sign" aria-label="Sign it">
			<SignForm action={at} of={data.of} about="sheet" />
		</section>{/if}
</main>
