<script lang="ts">
	import { displayMoment } from '$lib/core/calendar/conversion';
	import { counted } from '$lib/core/words';
	import Form from '$lib/ui/parts/Form.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Segments from '$lib/ui/parts/Segments.svelte';

	let { data } = $props();
	let heard = $state<{ taken: number; known: number; aside: number; silent: string[] } | null>(
		null
	);
	const NAMES = { invoice: 'invoice', creditNote: 'credit note' } as const;
</script>

<svelte:head><title>After a restore · Axiometer</title></svelte:head>
<div class="page max-w-215">
	<h1 class="mb-1">These books come from a backup</h1>
	<p class="mb-4">
		They stand as on <b>{displayMoment(data.restore.madeAt)}</b>. What happened until
		{displayMoment(data.restore.restoredAt)} is not in them: look for it here. Until you go on, no message
		goes out, no card is charged and no number is taken.
	</p>
	{#if data.restore.missing.length}<p class="wrong mb-4">
			{counted(data.restore.missing.length, 'photo or file', 'photos and files')} could not be found,
			neither with the backup nor here.
		</p>{/if}
	<div class="grid gap-4.5">
		<section class="panel py-5 px-5.5 max-[900px]:p-4" aria-labelledby="heard">
			<h2 id="heard">1. What card and bank know</h2>
			<p class="my-2">
				The card processor and the bank gateway still know what they have told since. Asked again,
				it is taken as if it came now; nothing is taken twice.
			</p>
			<Form action="?/ask" ondone={(answer) => (heard = answer.heard as typeof heard)}>
				<button class="button">Ask them</button>
			</Form>
			{#if heard}<div class="mt-2" aria-live="polite">
					<p>
						{heard.taken
							? `${counted(heard.taken, 'message was', 'messages were')} taken.`
							: heard.silent.length
								? ''
								: 'There was nothing new.'}
						{#if heard.aside}
							{counted(heard.aside, 'payment')} for what these books do not know:
							<a href="/money/payouts#odd">decide about them</a>.
						{/if}
					</p>
					{#each heard.silent as name (name)}<p class="wrong">
							{name[0]?.toUpperCase()}{name.slice(1)} could not be reached. Ask again later; it also tells
							anew by itself.
						</p>{/each}
				</div>{/if}
			<p class="quiet mt-2">
				Transfers come with the next statement of your bank. Cash and cheques you know yourself.
			</p>
		</section>
		<Form class="panel grid gap-4 py-5 px-5.5 max-[900px]:p-4" action="?/go">
			<div>
				<h2>2. From which number you go on</h2>
				<p class="my-2">
					Look at the last document you sent, in your mail or at a customer’s. A number that was
					given out since must not be given again.
				</p>
				<div class="flex flex-wrap gap-4">
					{#each data.series as { kind, next, written } (kind)}
						<Field
							label="The next {NAMES[kind]}"
							name={kind}
							value={String(next)}
							inputmode="numeric"
							hint="In the backup it is {written}."
						/>
					{/each}
				</div>
			</div>
			<div>
				<h2>3. What waited to go</h2>
				{#if data.waiting}
					<p class="my-2">
						{counted(data.waiting, 'message')} waited when the backup was made. Most likely they have
						gone since.
					</p>
					<Segments
						label="These"
						name="waiting"
						value="gone"
						options={[
							{ value: 'gone', label: 'Ask me about each' },
							{ value: 'send', label: 'Send them now' }
						]}
					/>
				{:else}<p class="my-2">Nothing waited when the backup was made.</p>{/if}
				{#if data.due.repeats}<p class="my-2">
						{counted(data.due.repeats, 'repeat goes', 'repeats go')} on once you do, and make up what
						fell due since{data.due.charges
							? '; a card that was charged already is not charged again'
							: ''}: <a href="/billing/repeats">look through them</a> first.
					</p>{/if}
			</div>
			{#if data.secrets.length}<div>
					<h2>4. What to enter again</h2>
					<p class="my-2">
						{data.secrets.includes('backup key')
							? 'The passphrase of the backups: without it no backup is made.'
							: data.secrets.join(', ')}
						<a href="/settings/keep">Enter it</a>.
					</p>
				</div>{/if}
			<div><button class="button filled">Go on from here</button></div>
		</Form>
	</div>
</div>
