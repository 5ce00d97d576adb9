<script lang="ts">
	import { displayMoment } from '$lib/core/calendar/conversion';
	import Form from '$lib/ui/parts/Form.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Entrance from '$lib/ui/business/Entrance.svelte';

	let { data, form } = $props();
	let file = $state('');
	let look = $state<string[] | null>(null);
	let seen = $state('');
	let sealed = $state(false);
	const answered = () =>
		form && 'look' in form ? (form as { look: string[]; file: string; sealed: boolean }) : null;
	// Without scripts the answer comes with the page.
	let shown = $derived(look ?? answered()?.look ?? null);
	let chosen = $derived(seen || answered()?.file || '');
</script>

{#snippet code(label: string)}
	{#if !data.known}
		<Field
			{label}
			name="code"
			autocomplete="off"
			hint="It stands in the window in which Axiometer was started."
		/>
	{/if}
{/snippet}
{#snippet passphrase(label: string)}
	<Field {label} name="passphrase" type="password" autocomplete="off" />
{/snippet}

<svelte:head><title>Restore a backup · Axiometer</title></svelte:head>
<Entrance title="Restore a backup">
	<p class="mb-4.5">
		It is opened and looked through before anything is done. Afterwards nothing goes out by itself
		until you have said from where the books go on.
	</p>
	<Form
		class="grid gap-4"
		action="?/look"
		hidden={data.known ? { code: data.code } : {}}
		ondone={(answer) => {
			look = answer.look as string[];
			seen = String(answer.file);
			sealed = Boolean(answer.sealed);
		}}
	>
		{@render code('Code')}
		{#if data.found.length}
			<fieldset class="grid gap-1.5">
				<legend class="mb-1.5">Found on this machine</legend>
				{#each data.found as one (one.path)}
					<button
						type="button"
						class="button justify-start text-left"
						aria-pressed={file === one.path}
						onclick={() => (file = one.path)}
						>{displayMoment(one.madeAt)}{one.sealed ? ', sealed' : ''}</button
					>
				{/each}
			</fieldset>
		{/if}
		<Field
			label="The backup’s file"
			name="file"
			bind:value={file}
			autocomplete="off"
			hint="Where it lies on this machine, from the / at its beginning, with its photos and files beside it."
		/>
		{@render passphrase('Its passphrase, if it is sealed')}
		<div><button class="button {shown ? '' : 'filled'}">Look what is in it</button></div>
	</Form>
	{#if shown}
		<section class="panel mt-5 p-4" aria-live="polite">
			<h2>In it</h2>
			{#each shown as line, index (index)}<p class="my-1">{line}</p>{/each}
			<Form
				class="grid gap-3 mt-3"
				action="?/restore"
				hidden={{ file: chosen, ...(data.known ? { code: data.code } : {}) }}
			>
				{@render code('Code, once more')}
				{#if sealed || answered()?.sealed}{@render passphrase('Its passphrase once more')}{/if}
				<div><button class="button filled">Go on with these books</button></div>
			</Form>
		</section>
	{/if}
	<p class="quiet mt-5">
		<a href="/welcome{data.code ? `?code=${data.code}` : ''}">Begin new books instead</a>
	</p>
</Entrance>
