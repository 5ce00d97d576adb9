<script lang="ts">
	import EnquiryFields from '$lib/ui/enquiries/EnquiryFields.svelte';
	import { shrink } from '$lib/ui/files/shrink';
	import FilePick from '$lib/ui/parts/FilePick.svelte';
	import Form from '$lib/ui/parts/Form.svelte';

	let { data, form } = $props();
	let asked = $state(false);
	let done = $derived(asked || form?.asked === true);
	let picker = $state<HTMLElement>();
	/** Photos that are being made smaller: what is sent waits for them. */
	let shrinking = $state(0);
	/** Photos are made smaller before they travel. */
	async function smaller(files: File[]) {
		const input = picker?.querySelector<HTMLInputElement>('input[type=file]');
		if (!input) return;
		shrinking++;
		try {
			const carried = new DataTransfer();
			for (const file of files.slice(0, 6)) carried.items.add(await shrink(file));
			input.files = carried.files;
		} finally {
			shrinking--;
		}
	}
</script>

<svelte:head>
	<title>Ask {data.name}</title>
	<meta name="robots" content="noindex" />
</svelte:head>
<main class="mx-auto grid max-w-160 gap-4 px-4 pt-5 pb-15">
	<header class="grid gap-1 border-t-8 border-t-(--ink) bg-(--sheet) px-5 py-4">
		<p class="quiet">{data.name}</p>
		<h1 class="text-[1.8rem]">
			{done ? 'Thank you. It has reached us.' : 'What can we do for you?'}
		</h1>
		{#if !done && data.intro}<p class="whitespace-pre-line">{data.intro}</p>{/if}
	</header>
	{#if done}
		<section class="panel px-5 py-4" role="status">
			<p class="whitespace-pre-line">
				{data.next || 'We read it and get back to you.'}
			</p>
			{#if data.phone}<p class="pt-2">
					In a hurry? Call <a href="tel:{data.phone.replace(/\s/g, '')}">{data.phone}</a>.
				</p>{/if}
		</section>
	{:else}
		<Form
			class="panel grid gap-4 px-5 py-4.5"
			keyed
			enctype="multipart/form-data"
			hidden={{ opened: String(data.opened) }}
			ondone={() => (asked = true)}
		>
			<EnquiryFields stranger questions={data.questions} kinds={data.kinds} />
			<!-- For robots: nobody sees it, nobody reaches it. -->
			<div class="absolute -left-[9999px]" aria-hidden="true">
				<label>Website <input name="website" tabindex="-1" autocomplete="off" /></label>
			</div>
			<div bind:this={picker}>
				<FilePick
					label="Photos, if they help"
					name="photo"
					accept="image/*"
					multiple
					onchoose={(files) => void smaller(files)}
				/>
			</div>
			<button
				class="button filled min-h-12 justify-self-start"
				disabled={shrinking > 0}
				aria-busy={shrinking > 0}>Send it to {data.name}</button
			>
			<p class="quiet">
				What you write goes to {data.name} alone and is kept to answer you. If nothing comes of it, it
				is erased after twelve months.
			</p>
		</Form>
	{/if}
</main>
