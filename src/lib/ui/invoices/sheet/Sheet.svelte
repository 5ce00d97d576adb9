<!-- The sheet: an invoice being written, edited in place, saved as it is typed.
	Over 300 lines: the parts of one sheet, which share its keys and its draft. -->
<script lang="ts">
	import NeedsScripts from '$lib/ui/parts/NeedsScripts.svelte';
	import { onMount, tick, untrack } from 'svelte';
	import { goto } from '$app/navigation';
	import { londonTime } from '$lib/core/calendar/conversion';
	import { fromList } from '$lib/core/sheet/priceBasis';
	import { displayMoney } from '$lib/core/money/display';
	import type { SheetBeside } from '$lib/core/documents/detail';
	import Files from '../../files/Files.svelte';
	import SheetsBeside from '../../signing/SheetsBeside.svelte';
	import type { FileShown } from '../../files/types';
	import Fold from '../../parts/Fold.svelte';
	import UseAgain from '../UseAgain.svelte';
	import CustomerPanel from '../../customers/CustomerPanel.svelte';
	import { pressKey, typesInto } from '../../parts/keys';
	import { notices } from '../../parts/notices.svelte';
	import WorkingsPanel from '../WorkingsPanel.svelte';
	import { Autosave } from './autosave.svelte';
	import { Draft, type DraftPage } from '../../lines/draft.svelte';
	import IssueDialog from './IssueDialog.svelte';
	import CorrectionPanel from './CorrectionPanel.svelte';
	import LineGrid from '../../lines/LineGrid.svelte';
	import ProblemList from './ProblemList.svelte';
	import SelfBilledPanel from './SelfBilledPanel.svelte';
	import SheetBanners from './SheetBanners.svelte';
	import Whole from '../../lines/Whole.svelte';
	import SheetHead from './SheetHead.svelte';
	import SheetKeys from './SheetKeys.svelte';
	import Spoken from './Spoken.svelte';
	import Unbilled from './Unbilled.svelte';
	import Totals from '../../lines/Totals.svelte';

	interface Props {
		page: DraftPage;
		files: readonly FileShown[];
		sheets: readonly SheetBeside[];
	}
	let { page, files, sheets }: Props = $props();
	const draft = untrack(() => new Draft(page));
	const save = untrack(() => new Autosave(page.draft));
	let issuing = $state(false);
	let clash = $state<ReturnType<Autosave['leftover']>>(null);
	let root: HTMLElement;
	let aside = $state<HTMLElement>();
	let figures = $derived(draft.reading.figures);
	let about = $derived(draft.sheet.about);
	let title = $derived(
		page.corrects
			? `${about?.as === 'debit' ? 'Debit note to' : 'In place of'} ${page.corrects.number}`
			: draft.sheet.selfBilled
				? 'Self-billed invoice'
				: draft.customer
					? `Invoice to ${draft.customer.name}`
					: 'New invoice'
	);
	let saved = $derived(
		{
			saved: `draft · saved ${londonTime(save.savedAt)}`,
			typing: 'draft · saving …',
			saving: 'draft · saving …',
			waiting: 'not saved yet · kept here',
			conflict: 'changed in another tab',
			gone: 'not saved',
			signedOut: 'not saved yet · kept here'
		}[save.state]
	);

	onMount(() => {
		const left = save.leftover();
		if (left && !left.clash) {
			draft.replace(left.sheet);
			notices.say('What you had typed before it could be saved is back.');
		} else if (left) clash = left;
		return save.begin();
	});

	$effect(() => save.changed(draft.json()));

	// A fix, or what is missing, sends the cursor to its field.
	$effect(() => {
		const path = draft.wanted;
		if (!path) return;
		draft.wanted = null;
		void tick().then(async () => {
			const at =
				root?.querySelector<HTMLElement>(`[data-path="${CSS.escape(path)}"]`) ??
				root?.querySelector<HTMLElement>(`[data-path^="${CSS.escape(path)}."]`);
			const fold = at?.closest<HTMLElement>('[data-scope="collapsible"][data-part="root"]');
			if (fold?.dataset['state'] === 'closed') {
				fold.querySelector<HTMLElement>('[data-part="trigger"]')?.click();
				await tick();
			}
			(at?.matches('input, textarea, select, button')
				? at
				: at?.querySelector<HTMLElement>('input, textarea')
			)?.focus();
		});
	});

	function pick(figure: string) {
		draft.figure = figure;
		draft.customerField = null;
		if (aside && window.innerWidth < 1240)
			aside.scrollIntoView({ behavior: 'smooth', block: 'start' });
	}

	function tryToIssue() {
		draft.triedToIssue = true;
		issuing = true;
	}

	function keys(event: KeyboardEvent) {
		// One press takes back one thing: a notice may have been first.
		if (event.defaultPrevented) return;
		if ((event.ctrlKey || event.metaKey) && event.key === 'Enter') {
			event.preventDefault();
			tryToIssue();
		} else if (
			(event.ctrlKey || event.metaKey) &&
			event.key.toLowerCase() === 'z' &&
			!typesInto(event.target) &&
			draft.undo(event.shiftKey) !== null
		) {
			event.preventDefault();
		} else if (
			event.key === 'w' &&
			event.target instanceof HTMLButtonElement &&
			!event.ctrlKey &&
			!event.metaKey
		) {
			event.target.click();
		}
	}

	async function discard() {
		await save.flush();
		const response = await fetch(`/billing/${draft.id}/api`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: '{"action":"discard"}'
		});
		if (!response.ok) return notices.say('It could not be thrown away just now.');
		save.forget();
		const { id } = draft;
		await goto('/billing');
		notices.say('Draft thrown away.', {
			label: 'Undo',
			run: async () => {
				await fetch(`/billing/${id}/api`, {
					method: 'POST',
					headers: { 'content-type': 'application/json' },
					body: '{"action":"restore"}'
				});
				await goto(`/billing/${id}`);
			}
		});
	}

	/** Keeps what is typed here as a draft of its own, beside the one of the other tab. */
	async function keepMine() {
		const sheet = clash?.sheet ?? draft.json();
		const body = new URLSearchParams({ copyOf: String(draft.id), key: pressKey() });
		const response = await fetch('/billing/new', {
			method: 'POST',
			body,
			headers: { 'content-type': 'application/x-www-form-urlencoded' }
		});
		const id = /billing\/(\d+)/.exec(response.url)?.[1];
		if (!id) return notices.say('The copy could not be made just now.');
		const text = typeof sheet === 'string' ? sheet : JSON.stringify(sheet);
		await fetch(`/billing/${id}/api`, {
			method: 'PUT',
			headers: { 'content-type': 'application/json' },
			body: `{"version":1,"sheet":${text}}`
		});
		save.forget();
		window.location.assign(`/billing/${id}`);
	}

	function takeTheirs() {
		save.forget();
		window.location.reload();
	}
</script>

<svelte:head><title>{title} · Axiometer</title></svelte:head>
<svelte:window onkeydown={keys} />

<div class="page pt-3.5 phone:pb-42.5" bind:this={root}>
	<div class="flex items-center gap-y-2 gap-x-3.5 flex-wrap mb-3.5">
		<h1 class="text-[1.65rem] wrap-anywhere">{title}</h1>
		<span class="tag numbers" data-state={save.state}>{saved}</span>
		<Spoken {draft} {save} />
		<span class="flex-1 phone:hidden"></span>
		<button class="button plain whitespace-nowrap" onclick={discard}>Throw it away</button>
		<a
			class="button phone:flex-1"
			href="/billing/{draft.id}/preview"
			onclick={() => void save.flush()}
			><span class="max-[1239px]:hidden">See it as the customer</span><span
				class="min-[1240px]:hidden">Preview</span
			></a
		>
		<button class="button filled phone:hidden phone:flex-1" title="Ctrl Enter" onclick={tryToIssue}
			>Issue…</button
		>
	</div>
	<NeedsScripts />
	<SheetBanners
		{save}
		draftId={draft.id}
		clash={clash !== null}
		onkeep={keepMine}
		ontake={takeTheirs}
		onforget={() => {
			save.forget();
			clash = null;
		}}
	/>
	{#if !about && !draft.sheet.selfBilled && !draft.sheet.charge && !draft.sheet.releases}<Unbilled
			{draft}
		/>{/if}
	{#if draft.sheet.selfBilled}<SelfBilledPanel {draft} />{/if}
	{#if page.corrects && about}<CorrectionPanel {draft} corrects={page.corrects} />{/if}
	<div
		class="columns grid grid-cols-[minmax(0,1fr)_340px] gap-y-3.5 gap-x-5 items-start beside:grid-cols-1"
	>
		<section class="panel sheet py-4 pr-4.5 pl-2.5 phone:py-3 phone:px-2.5" aria-label="The sheet">
			<SheetHead {draft} />
			<LineGrid {draft} />
			{#if figures}<Totals
					{figures}
					registered={draft.reading.seller.vatRegistered}
					figure={draft.figure}
					onpick={pick}
					currency={draft.currency}
				/>{/if}
			{#if draft.problemAt.get('total')}<p class="wrong total text-right pr-14.5">
					{draft.problemAt.get('total')?.message}
				</p>{/if}
			<Whole {draft} />
			<Fold
				label="Photos and files"
				open={files.length > 0 || sheets.some((one) => !one.with)}
				class="whole"
			>
				<SheetsBeside id={draft.id} {sheets} />
				<Files to="document" id={draft.id} {files} mayGoOut />
			</Fold>
			{#if !about && !draft.sheet.selfBilled}<UseAgain
					id={draft.id}
					suggestion={title}
					before={() => save.flush()}
				/>{/if}
		</section>
		<aside
			class="panel py-4.5 px-5 border-l-6 border-l-(--tape) sticky top-3 max-h-[calc(100vh_-_24px)] overflow-auto beside:static beside:max-h-none"
			bind:this={aside}
		>
			{#if draft.customerField !== null && draft.customer}
				{#key draft.customer.id}
					<CustomerPanel
						id={draft.customer.id}
						field={draft.customerField}
						onsaved={(record, mailTo) => draft.updateCustomer(record, mailTo)}
						onclose={() => (draft.customerField = null)}
					/>
				{/key}
			{:else if figures}
				<WorkingsPanel
					{figures}
					more={draft.headingSums}
					contractor={draft.customer?.kind === 'contractor'}
					listed={(line) => fromList(line, draft.sheet.pricesIncludeVat, draft.rateOf)}
					lines={draft.reading.lines}
					figure={draft.figure}
					onpick={pick}
				/>
				<ProblemList
					problems={draft.problems}
					onfix={(fix) => draft.apply(fix)}
					ongiven={(seller) => (draft.seller = seller)}
					where={(path) => draft.whereIs(path)}
				/>
			{:else}
				<h2>Every amount explains itself</h2>
				<p class="quiet">
					As soon as a line has a price, its workings stand here: step by step, down to the rule.
				</p>
				<SheetKeys />
				<ProblemList
					problems={draft.problems}
					onfix={(fix) => draft.apply(fix)}
					ongiven={(seller) => (draft.seller = seller)}
					where={(path) => draft.whereIs(path)}
				/>
			{/if}
		</aside>
	</div>
	<div
		class="thumb hidden low:static! phone:fixed phone:[inset:auto_0_64px_0] phone:z-20 phone:flex phone:gap-3.5 phone:items-center phone:justify-between phone:py-2.5 phone:px-4 phone:bg-(--sheet) phone:border-t-[1.5px] phone:border-t-(--ink)"
	>
		<span
			><span class="quiet phone:block phone:leading-[1.2]">They pay you</span><b
				class="numbers phone:block phone:[font:650_1.3rem_var(--font-heading)]"
				>{figures ? displayMoney(figures.payable, draft.currency) : '–'}</b
			></span
		>
		<button class="button filled phone:min-h-12.5 phone:min-w-37.5" onclick={tryToIssue}
			>Issue…</button
		>
	</div>
	<IssueDialog
		{draft}
		bind:open={issuing}
		nextNumber={page.nextNumber}
		series={page.series}
		ownAddress={page.ownAddress}
		flush={() => save.flush()}
		version={() => save.version}
		onissued={(id, sent) => {
			save.forget();
			window.location.assign(
				`/billing/${id}?just=${sent ? 'sent' : draft.sheet.selfBilled ? 'recorded' : 'issued&send'}`
			);
		}}
	/>
</div>
