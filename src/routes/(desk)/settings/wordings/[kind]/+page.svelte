<script lang="ts">
	import { untrack } from 'svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Finder from '$lib/ui/parts/Finder.svelte';
	import Fold from '$lib/ui/parts/Fold.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import FieldList from '$lib/ui/wordings/FieldList.svelte';
	import FieldsOffered from '$lib/ui/wordings/FieldsOffered.svelte';
	import { wordsBox, type Box } from '$lib/ui/wordings/fields';
	import { textParts } from '$lib/core/documents/wording';
	import { fillWords, LINK_PLACEHOLDER, type Values } from '$lib/core/wordings/fill';
	import { counted } from '$lib/core/words';

	let { data } = $props();
	let subject = $state(untrack(() => data.wording.subject));
	let text = $state(untrack(() => data.wording.text));
	let values = $state.raw<Values>(untrack(() => data.shown));
	let about = $state(untrack(() => data.real[0]?.title ?? ''));
	let real = $state.raw(untrack(() => data.real));
	let box = $state<Box | null>(null);
	let lost = $state(false);
	let shown = $derived(fillWords({ subject, text }, values));
	let mail = $derived(data.standard.subject !== '');
	/** A link of a document is as long as this. */
	const LINK_LENGTH = 62;
	let length = $derived(shown.text.replaceAll(LINK_PLACEHOLDER, 'x'.repeat(LINK_LENGTH)));
	let standard = $derived(subject === data.standard.subject && text === data.standard.text);
	let asked = 0;

	async function ask<Answer>(query: string): Promise<Answer | null> {
		const mine = ++asked;
		const response = await fetch(`/settings/wordings/${data.kind}/api?${query}`).catch(() => null);
		lost = !response?.ok;
		// Whoever types on asks again: only the last answer counts.
		return response?.ok && mine === asked ? ((await response.json()) as Answer) : null;
	}
	async function search(typed: string) {
		real = (await ask<typeof real>(`q=${encodeURIComponent(typed)}`)) ?? real;
	}
	async function choose({ key, title }: { key: string; title: string }) {
		about = title;
		values = (await ask<Values>(`about=${key}`)) ?? values;
	}
</script>

<svelte:head><title>{data.title} · Wordings · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet">
		<a href="/settings">Settings</a> · <a href="/settings/wordings">Wordings</a>
	</p>
	<h1 class="mb-1">{data.title}</h1>
	<p class="mb-3">It goes out {data.when}.</p>
	<div
		class="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-y-4.5 gap-x-5.5 items-start narrow:grid-cols-1"
	>
		<div class="grid gap-3.5">
			<Form
				class="panel grid gap-3.5 py-4 px-4.5"
				action="?/save"
				hidden={{ version: data.wording.version }}
				done="These are your words now."
				onfocusin={(event) => (box = wordsBox(event.target) ?? box)}
			>
				<FieldsOffered fields={data.fields}>
					{#if mail}<Field
							label="Subject"
							name="subject"
							bind:value={subject}
							maxlength={300}
						/>{/if}
					<Field label="Words" name="text" rows={mail ? 15 : 4} bind:value={text} />
				</FieldsOffered>
				<p class="quiet">
					An open brace offers the fields. A paragraph whose fields are empty is left out.
				</p>
				<div class="flex flex-wrap gap-2">
					<button class="button filled">Save the words</button>
					{#if !standard}<button
							class="button"
							formaction="?/standard"
							onclick={(event) => {
								// Put into the boxes first, so that it is seen before it is saved.
								event.preventDefault();
								subject = data.standard.subject;
								text = data.standard.text;
							}}>Put the standard words in</button
						>{/if}
					<a class="button plain" href="/settings/wordings">Leave it as it was</a>
				</div>
			</Form>
			<Fold label="All fields" open={false}>
				<FieldList fields={data.fields} {box} />
			</Fold>
		</div>
		<section
			class="panel grid gap-3 py-4 px-4.5 sticky top-3.5 narrow:static"
			aria-labelledby="shown"
		>
			<h2 id="shown">As it goes out</h2>
			{#if data.real.length}
				<div class="field">
					<Finder
						label="Shown with"
						placeholder="A number or a name"
						bind:typed={about}
						items={real.map(({ id, title, detail }) => ({ key: String(id), title, detail }))}
						none="Nothing is called so."
						onsearch={search}
						onchoose={choose}
					>
						{#snippet item(one)}<b>{one.title}</b><span class="quiet">{one.detail}</span>{/snippet}
					</Finder>
				</div>
				{#if lost}<p class="wrong" role="alert">
						The connection is lost. Try again when it is back.
					</p>{/if}
			{:else}<p class="quiet">With an example, as long as there is nothing of your own.</p>{/if}
			<div
				class="border border-(--hair) rounded-[3px] bg-(--ground) py-3.5 px-4"
				aria-live="polite"
			>
				{#if mail}<p class="font-semibold border-b border-(--hair) pb-2 mb-3 wrap-anywhere">
						{shown.subject}
					</p>{/if}
				<p class="whitespace-pre-wrap wrap-anywhere">
					{#each shown.text.split(LINK_PLACEHOLDER) as part, index (index)}{#if index}<span
								class="tag">the link</span
							>{/if}{part}{/each}
				</p>
			</div>
			{#if !mail}<p class="quiet">
					{counted(length.length, 'character')} with the link, sent in {counted(
						textParts(length),
						'part'
					)}.
				</p>{/if}
		</section>
	</div>
</div>
