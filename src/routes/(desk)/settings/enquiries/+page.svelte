<script lang="ts">
	import { page as shown } from '$app/state';
	import Choice from '$lib/ui/parts/Choice.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import Tick from '$lib/ui/parts/Tick.svelte';

	let { data } = $props();
	let kinds = $derived<{ id: number; name: string }[]>(shown.data.offers?.workKinds ?? []);
	const nameOf = (id: number | null) => kinds.find((kind) => kind.id === id)?.name ?? 'always';
	const KINDS = {
		text: 'in words',
		number: 'a number',
		choice: 'one of several',
		yesNo: 'yes or no'
	};
	let kind = $state('text');
</script>

<svelte:head><title>Enquiries · Axiometer</title></svelte:head>
<div class="page max-w-235">
	<p class="quiet"><a href="/settings">Settings</a></p>
	<h1 class="mb-3">How people ask you</h1>
	<div class="grid grid-cols-2 items-start gap-4 narrow:grid-cols-1">
		<section class="panel grid gap-3 px-5 py-4">
			<h2>Your page</h2>
			<p class="quiet">
				Anybody with its link can ask you for work, with photos and without an account. What comes
				in is an enquiry, and you hear of it by e-mail.
			</p>
			<Form action="?/page" done="Kept." class="grid gap-3">
				<Tick name="on" checked={data.page.on}>The page is open</Tick>
				<Field label="What you say first" name="intro" rows={2} value={data.page.intro} />
				<Field
					label="What happens next, said once they have asked"
					name="next"
					rows={2}
					value={data.page.next}
					placeholder="We call you within two working days."
				/>
				<div><button class="button filled">Keep it</button></div>
			</Form>
			{#if data.link}
				<p class="mono wrap-anywhere">
					{#if data.page.on}<a href={data.link}>{data.link}</a>{:else}{data.link}{/if}
				</p>
				<svg
					class="h-44 w-44 bg-[#fff]"
					viewBox="0 0 {data.code.length} {data.code.length}"
					role="img"
					aria-label="The link as a QR code"
					shape-rendering="crispEdges"
				>
					<path
						fill="#17212b"
						d={data.code
							.flatMap((row, y) => row.map((dark, x) => (dark ? `M${x} ${y}h1v1h-1z` : '')))
							.join('')}
					/>
				</svg>
				<Form action="?/renew" done="Another link from now on: the old one opens nothing."
					><button class="button plain">Give it another link</button></Form
				>
			{/if}
		</section>
		<section class="panel grid gap-3 px-5 py-4">
			<h2>Your own questions</h2>
			<p class="quiet">
				Asked for one kind of work, or always; on the page, and when you write one down.
			</p>
			{#if data.questions.length}<ul class="grid">
					{#each data.questions as question (question.id)}<li
							class="flex flex-wrap items-center justify-between gap-x-3 border-b border-(--hair) py-1 last:border-b-0"
						>
							<span class="wrap-anywhere"
								>{question.question}<span class="quiet block"
									>{nameOf(question.workKindId)}, {KINDS[question.kind]}{question.unit
										? `, ${question.unit}`
										: ''}{question.options.length ? `: ${question.options.join(', ')}` : ''}</span
								></span
							>
							<Form action="?/remove" hidden={{ id: question.id }} done="It is asked no more."
								><button class="button plain" aria-label="Remove: {question.question}"
									>Remove</button
								></Form
							>
						</li>{/each}
				</ul>{/if}
			<Form action="?/add" reset done="It is asked now." class="grid gap-3">
				<Field label="What you ask" name="question" maxlength={300} />
				<Choice label="For" name="workKindId" value="">
					<option value="">always</option>
					{#each kinds as one (one.id)}<option value={String(one.id)}>{one.name}</option>{/each}
				</Choice>
				<Choice label="They answer" name="kind" bind:value={kind}>
					{#each Object.entries(KINDS) as [value, words] (value)}<option {value}>{words}</option
						>{/each}
				</Choice>
				{#if kind === 'number'}<Field label="Unit" name="unit" placeholder="m²" />{/if}
				{#if kind === 'choice'}<Field
						label="The answers, with commas between"
						name="options"
						rows={2}
					/>{/if}
				<div><button class="button">Ask it</button></div>
			</Form>
		</section>
	</div>
</div>
