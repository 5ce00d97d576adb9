<!-- The last look before a number is taken: what it comes to, where it goes, and what is still in the way. -->
<script lang="ts">
	import Dialog from '$lib/ui/parts/Dialog.svelte';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayMoney } from '$lib/core/money/display';
	import { pressKey } from '../../parts/keys';
	import Field from '../../parts/Field.svelte';
	import Fold from '../../parts/Fold.svelte';
	import AskBusiness from '../../business/AskBusiness.svelte';
	import type { Draft, DraftPage } from '../../lines/draft.svelte';
	import ProblemList from './ProblemList.svelte';

	interface Props {
		draft: Draft;
		open: boolean;
		nextNumber: string;
		/** Where the numbers begin, until one has been taken. */
		series: DraftPage['series'];
		ownAddress: string;
		/** Saves what is not saved yet; false where that failed. */
		flush: () => Promise<boolean>;
		version: () => number;
		onissued: (id: number, sent: boolean) => void;
	}
	let {
		draft,
		open = $bindable(),
		nextNumber,
		series,
		ownAddress,
		flush,
		version,
		onissued
	}: Props = $props();

	let wasOpen = false;
	let to = $state('');
	let cc = $state('');
	/** The message it goes out with, once it is there; changed or not. */
	let standard = $state<{ subject: string; text: string; number: string } | null>(null);
	let written = $state<{ subject: string; text: string } | null>(null);
	let fields = $state<Record<string, string>>({});
	let copy = $state(true);
	let busy = $state<'send' | 'issue' | 'tryOut' | null>(null);
	let message = $state('');
	let done = $state('');
	/** What the payer has in hand, in pence. */
	let inHand = $state(0);
	let useCredit = $state(true);
	let figures = $derived(draft.reading.figures);
	/** A contractor wrote it: it is recorded, and goes to nobody. */
	let theirs = $derived(draft.sheet.selfBilled);
	let warnings = $derived(draft.problems.filter((problem) => problem.level === 'warning'));
	let ready = $derived(draft.stops.length === 0);
	let title = $derived(
		!figures
			? 'Nothing on it yet'
			: ready
				? theirs
					? `Record ${theirs.number} for ${displayMoney(figures.payable, draft.currency)}`
					: `Issue ${nextNumber} for ${displayMoney(figures.payable, draft.currency)}`
				: 'Not ready to issue yet'
	);

	$effect(() => {
		if (open && !wasOpen) {
			to = draft.mailTo;
			cc = '';
			standard = written = null;
			fields = {};
			message = '';
			done = '';
			inHand = 0;
			void flush()
				.then(() => fetch(`/billing/${draft.id}/api/before-issue`))
				.then((response) => response.json())
				.then((answer) => {
					inHand = Number(answer.inHand) || 0;
					standard = answer.message;
					written = answer.message && { ...answer.message };
				})
				.catch(() => undefined);
		}
		wasOpen = open;
	});

	/** Posts what `body` gives once everything typed is saved: the version is known only then. */
	async function post(body: () => object): Promise<Response | null> {
		if (!(await flush())) {
			message =
				'The draft could not be saved just now, so nothing was issued. Try again in a moment.';
			return null;
		}
		return fetch(`/billing/${draft.id}/api`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify(body())
		}).catch(() => {
			message =
				'The connection is lost. Nothing was changed as far as is known; look again when it is back.';
			return null;
		});
	}

	let changed = $derived(
		written !== null && (written.subject !== standard?.subject || written.text !== standard?.text)
	);

	async function issue(send: boolean) {
		busy = send ? 'send' : 'issue';
		message = '';
		fields = {};
		const response = await post(() => ({
			action: 'issue',
			version: version(),
			sendTo: send ? to : null,
			cc: send ? cc : '',
			...(send && written && standard && changed
				? { message: { ...written, number: standard.number } }
				: {}),
			copyToSelf: copy,
			useCredit: inHand > 0 && useCredit
		}));
		busy = null;
		if (!response) return;
		const answer = await response.json().catch(() => null);
		if (response.ok) onissued(answer.id, send);
		else {
			fields = answer?.fields ?? {};
			message = answer?.message ?? 'That did not work. Nothing was issued.';
		}
	}

	async function tryOut() {
		busy = 'tryOut';
		message = '';
		const key = pressKey();
		const response = await post(() => ({ action: 'tryOut', key }));
		busy = null;
		if (!response) return;
		const answer = await response.json().catch(() => null);
		if (response.ok) done = `The test is on its way to ${answer.to}. Nothing of it counts.`;
		else message = answer?.message ?? 'That did not work.';
	}

	const given = (seller: Draft['seller']) => (draft.seller = seller);
	function fix(action: Parameters<Draft['apply']>[0]) {
		open = false;
		draft.apply(action);
	}
</script>

<Dialog bind:open {title} first={draft.mailTo ? '[data-first]' : undefined}>
	{#if open && figures}
		{#if ready}
			<p>
				{#if draft.sheet.about?.as === 'replacement'}With it goes a credit note for all that is left
					of the invoice it stands in for; what was paid of that moves here.
				{/if}To <b>{draft.customer?.name}</b>, due {displayDate(
					draft.reading.dates.dueDate
				)}{figures.cis
					? `, after a deduction of ${displayMoney(figures.cis.deduction, draft.currency)}`
					: ''}. Once issued it never changes; a mistake is put right by a credit note.
			</p>
			{#if series && !theirs}
				<div class="mt-2 text-[0.94rem]">
					<span class="quiet">It is the first here, so it takes {nextNumber}.</span>
					<AskBusiness
						asks="series"
						label="Begin with another number"
						values={series}
						ongiven={given}
					/>
				</div>
			{/if}
			<ProblemList
				problems={warnings}
				onfix={fix}
				ongiven={given}
				where={(path) => draft.whereIs(path)}
			/>
			<form
				class="grid gap-2.5 mt-3.5"
				onsubmit={(event) => {
					event.preventDefault();
					void issue(!theirs);
				}}
			>
				{#if !theirs}
					<Field
						label="E-mail it to"
						name="to"
						bind:value={to}
						inputmode="email"
						autocomplete="off"
						error={fields.to}
						hint="Several addresses with commas between."
					/>
					<Fold
						label="Copies, and the message"
						open={Boolean(fields.cc ?? fields.subject ?? fields.text)}
					>
						<div class="grid gap-2.5">
							<Field
								label="Copy to (cc), where others may see it"
								name="cc"
								bind:value={cc}
								inputmode="email"
								autocomplete="off"
								error={fields.cc}
							/>
							{#if written}
								<Field
									label="Subject"
									name="subject"
									bind:value={written.subject}
									error={fields.subject}
								/>
								<Field
									label={'Message; {link} becomes the link'}
									name="text"
									rows={8}
									bind:value={written.text}
									error={fields.text}
								/>
							{/if}
						</div>
					</Fold>
				{/if}
				{#if ownAddress && !theirs}<label class="check"
						><input type="checkbox" bind:checked={copy} /> A copy to me</label
					>{/if}
				{#if inHand > 0}<label class="check"
						><input type="checkbox" bind:checked={useCredit} /> Use the {displayMoney(
							inHand,
							draft.currency
						)} they have in hand for it</label
					>{/if}
				<div class="flex gap-y-2 gap-x-2.5 flex-wrap">
					<button class="button filled" data-first aria-busy={busy === 'send'}
						>{theirs ? 'Record it' : 'Issue and send'}</button
					>
					{#if !theirs}<button
							type="button"
							class="button"
							aria-busy={busy === 'issue'}
							onclick={() => issue(false)}>Issue, send later</button
						>
						<button
							type="button"
							class="button plain"
							aria-busy={busy === 'tryOut'}
							onclick={tryOut}>Send myself a test first</button
						>{/if}
				</div>
			</form>
		{:else}
			<ProblemList
				problems={draft.stops}
				onfix={fix}
				ongiven={given}
				where={(path) => draft.whereIs(path)}
			/>
		{/if}
		{#if message}<p class="wrong" role="alert">{message}</p>{/if}
		{#if done}<p role="status" class="mt-2.5 font-semibold">{done}</p>{/if}
	{:else if open}
		<ProblemList
			problems={draft.stops}
			onfix={fix}
			ongiven={given}
			where={(path) => draft.whereIs(path)}
		/>
	{/if}
	<button class="button plain close mt-2" onclick={() => (open = false)}>Back to the sheet</button>
</Dialog>
