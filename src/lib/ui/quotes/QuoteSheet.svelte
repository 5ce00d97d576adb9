<!-- A quote being written: the sheet of invoices, with ways to choose and what is kept of each.
	Over 300 lines: the parts of one sheet, which share its keys and its draft. -->
<script lang="ts">
	import { onMount, tick, untrack } from 'svelte';
	import { goto } from '$app/navigation';
	import { displayDate, londonTime } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import { fromList } from '$lib/core/sheet/priceBasis';
	import { quoteName } from '$lib/core/quotes/terms';
	import type { SheetLine } from '$lib/core/sheet/types';
	import CustomerPanel from '../customers/CustomerPanel.svelte';
	import CustomerPicker from '../invoices/sheet/CustomerPicker.svelte';
	import ProblemList from '../invoices/sheet/ProblemList.svelte';
	import SheetBanners from '../invoices/sheet/SheetBanners.svelte';
	import { Autosave } from '../invoices/sheet/autosave.svelte';
	import WorkingsPanel from '../invoices/WorkingsPanel.svelte';
	import Cell from '../lines/Cell.svelte';
	import LineGrid from '../lines/LineGrid.svelte';
	import Totals from '../lines/Totals.svelte';
	import { Draft, type DraftPage } from '../lines/draft.svelte';
	import WorkKindChoice from '../letterheads/WorkKindChoice.svelte';
	import LetterheadChoice from '../letterheads/LetterheadChoice.svelte';
	import Files from '../files/Files.svelte';
	import type { FileShown } from '../files/types';
	import Fold from '../parts/Fold.svelte';
	import NeedsScripts from '../parts/NeedsScripts.svelte';
	import { typesInto } from '../parts/keys';
	import { notices } from '../parts/notices.svelte';
	import LineMarks from './LineMarks.svelte';
	import QuoteTerms from './QuoteTerms.svelte';
	import SendQuote from './SendQuote.svelte';
	import TryOut from './TryOut.svelte';

	interface Props {
		page: DraftPage & { sent: number; number: string | null; forJob: string };
		files: readonly FileShown[];
	}
	let { page, files }: Props = $props();
	const place = untrack(() => `/work/quotes/${page.draft.id}`);
	const draft = untrack(() => new Draft({ ...page, of: 'quote' }));
	const save = untrack(() => new Autosave(page.draft, place));
	let sending = $state(false);
	let clash = $state<ReturnType<Autosave['leftover']>>(null);
	let root: HTMLElement;
	let quote = $derived(draft.quote?.quote ?? null);
	let inIt = $derived(
		quote ? quote.included.map((index) => draft.reading.lines[index]!) : draft.reading.lines
	);
	/** A line's own workings are those of the line as it stands, in or not. */
	let whole = $derived(draft.figure.startsWith('lines.') || !quote);
	let name = $derived(quoteName(draft.sheet.quote!));
	let title = $derived(
		page.number
			? `${name} ${page.number}${page.sent ? `, version ${page.sent + 1}` : ''}`
			: draft.customer
				? `${name} for ${draft.customer.name}`
				: `New ${name.toLowerCase()}`
	);
	let saved = $derived(
		{
			saved: `${page.sent ? 'changes' : 'draft'} · saved ${londonTime(save.savedAt)}`,
			typing: 'saving …',
			saving: 'saving …',
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
	async function toSend() {
		draft.triedToIssue = true;
		sending = await save.flush();
	}
	function keys(event: KeyboardEvent) {
		// One press takes back one thing: a notice may have been first.
		if (event.defaultPrevented) return;
		if ((event.ctrlKey || event.metaKey) && event.key === 'Enter') {
			event.preventDefault();
			void toSend();
		} else if (
			(event.ctrlKey || event.metaKey) &&
			event.key.toLowerCase() === 'z' &&
			!typesInto(event.target) &&
			draft.undo(event.shiftKey) !== null
		)
			event.preventDefault();
	}
	const post = (action: string) =>
		fetch(`${place}/api`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ action })
		});
	async function discard() {
		await save.flush();
		const response = await post('discard');
		if (!response.ok) return notices.say('It could not be thrown away just now.');
		save.forget();
		await goto('/lists/quotes');
		notices.say('Thrown away.', {
			label: 'Undo',
			run: async () => {
				await post('restore');
				await goto(place);
			}
		});
	}
</script>

<svelte:head><title>{title} · Axiometer</title></svelte:head>
<svelte:window onkeydown={keys} />
<div class="page pt-3.5 phone:pb-42.5" bind:this={root}>
	<p class="quiet">
		<a href="/lists/quotes">Quotes</a>{#if page.forJob}, extra work on {page.forJob}{/if}
	</p>
	<div class="flex items-center gap-y-2 gap-x-3.5 flex-wrap mb-3.5">
		<h1 class="text-[1.65rem] wrap-anywhere">{title}</h1>
		<span class="tag numbers" role="status" data-state={save.state}>{saved}</span>
		<span class="flex-1 phone:hidden"></span>
		{#if page.sent === 0}<button class="button plain whitespace-nowrap" onclick={discard}
				>Throw it away</button
			>{:else}<a class="button plain" href={place}>What is out</a>{/if}
		<a class="button phone:flex-1" href="{place}/preview" onclick={() => void save.flush()}
			>Preview</a
		>
		<button class="button filled phone:hidden" title="Ctrl Enter" onclick={toSend}>Send…</button>
	</div>
	<NeedsScripts />
	<SheetBanners
		{save}
		draftId={draft.id}
		clash={clash !== null}
		onkeep={() => {
			if (clash) draft.replace(clash.sheet);
			clash = null;
		}}
		ontake={() => {
			save.forget();
			window.location.reload();
		}}
		onforget={() => {
			save.forget();
			clash = null;
		}}
	/>
	<div
		class="columns grid grid-cols-[minmax(0,1fr)_340px] gap-y-3.5 gap-x-5 items-start beside:grid-cols-1"
	>
		<section class="panel sheet py-4 pr-4.5 pl-2.5 phone:py-3 phone:px-2.5" aria-label="The quote">
			<div
				class="grid grid-cols-[1.25fr_1.6fr_1fr] gap-y-1.5 gap-x-4.5 pb-2.5 border-b border-b-(--hair) phone:grid-cols-1 [&_.line-box]:pl-0"
			>
				<div>
					<CustomerPicker
						name={draft.customer?.name ?? ''}
						wrong={draft.problemAt.get('customer')?.message}
						autofocus={!draft.customer}
						onchoose={(record, mailTo) => {
							draft.chooseCustomer(record, mailTo);
							draft.wanted = 'quote.title';
						}}
					/>
					{#if draft.customer}<button
							class="quiet underline underline-offset-[3px] min-h-6 cursor-pointer"
							data-path="customer.details"
							onclick={() => (draft.customerField = 'name')}>details</button
						>{/if}
					{#if draft.customer?.sites.length}
						<label class="field site mt-1">
							<span class="name mb-0">Work at</span>
							<select
								class="line-box"
								data-path="siteId"
								value={draft.sheet.siteId ?? ''}
								onchange={(event) =>
									(draft.sheet.siteId = Number(event.currentTarget.value) || null)}
							>
								<option value="">their own address</option>
								{#each draft.customer.sites as site (site.id)}<option value={site.id}
										>{site.name}</option
									>{/each}
							</select>
						</label>
					{/if}
				</div>
				<div class="field content-start">
					<span class="name mb-0">What it is for</span><Cell
						bind:value={draft.sheet.quote!.title}
						label="What it is for"
						path="quote.title"
						problem={draft.problemAt.get('quote.title')}
						placeholder="Front room ceiling"
					/>
				</div>
				<div class="quiet content-start">
					<span class="name">Holds until</span>
					<p class="py-1 text-(--ink)">{draft.quote ? displayDate(draft.quote.validUntil) : ''}</p>
				</div>
				{#if draft.customer?.kind === 'contractor'}
					<fieldset class="col-span-full flex flex-wrap gap-x-5.5" data-path="contract">
						<legend class="float-left pt-1 text-(--ink-2) text-[0.906rem]"
							>Construction work in this contract?</legend
						>
						{#each [['construction', 'Yes'], ['minor', 'At most 5 % of it'], ['none', 'No']] as const as [value, words] (value)}
							<label class="check"
								><input
									type="radio"
									name="contract"
									{value}
									bind:group={draft.sheet.contract}
								/>{words}</label
							>
						{/each}
						{#if draft.problemAt.get('contract')}<p class="wrong basis-full">
								{draft.problemAt.get('contract')?.message}
							</p>{/if}
					</fieldset>
				{/if}
			</div>
			<LineGrid {draft}>
				{#snippet beside(line: SheetLine, number: number)}<LineMarks
						{draft}
						{line}
						{number}
					/>{/snippet}
			</LineGrid>
			{#if quote}<Totals
					figures={quote.figures}
					registered={draft.reading.seller.vatRegistered}
					figure={draft.figure}
					onpick={(figure) => (draft.figure = figure)}
					last={quote.figures.cis ? undefined : 'In all'}
				/>{/if}
			<QuoteTerms {draft} />
			<Fold
				label="Discount, retention, order number, kind of work, letterhead, private note"
				open={Boolean(draft.sheet.discount || draft.sheet.retention || draft.sheet.note)}
				class="whole"
			>
				<div class="grid grid-cols-3 gap-4 px-1.5 pt-0.5 pb-2 phone:grid-cols-1">
					<div class="field">
						<span class="name">Discount on what is chosen</span><Cell
							bind:value={draft.sheet.discount}
							label="Discount on what is chosen"
							path="discount"
							problem={draft.problemAt.get('discount')}
							placeholder="5% or an amount"
						/>
					</div>
					<div class="field">
						<span class="name">Held back (retention), %</span><Cell
							bind:value={draft.sheet.retention}
							label="Held back (retention), %"
							path="retention"
							problem={draft.problemAt.get('retention')}
							placeholder="none"
						/>
					</div>
					<div class="field">
						<span class="name">Their order number</span><Cell
							bind:value={draft.sheet.orderNumber}
							label="Their order number"
							path="orderNumber"
							problem={draft.problemAt.get('orderNumber')}
							placeholder="none"
						/>
					</div>
					<WorkKindChoice
						path="workKindId"
						bind:value={
							() => draft.sheet.workKindId ?? null,
							(id) => (draft.sheet.workKindId = id ?? undefined)
						}
					/>
					<LetterheadChoice
						label="Letterhead"
						standard="as for the customer and the kind of work"
						path="letterheadId"
						bind:value={
							() => draft.sheet.letterheadId ?? null,
							(id) => (draft.sheet.letterheadId = id ?? undefined)
						}
					/>
				</div>
			</Fold>
			<Fold label="Photos and files" open={files.length > 0} class="whole">
				<Files to="quote" id={draft.id} {files} mayGoOut />
			</Fold>
		</section>
		<aside
			class="panel py-4.5 px-5 border-l-6 border-l-(--tape) sticky top-3 max-h-[calc(100vh_-_24px)] overflow-auto beside:static beside:max-h-none grid gap-4"
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
			{:else}
				<TryOut {draft} />
				<ProblemList
					problems={draft.problems}
					onfix={(fix) => draft.apply(fix)}
					ongiven={(seller) => (draft.seller = seller)}
					where={(path) => draft.whereIs(path)}
				/>
				{#if draft.reading.figures}<Fold label="Workings">
						<WorkingsPanel
							figures={whole ? draft.reading.figures : quote!.figures}
							more={draft.headingSums}
							contractor={draft.customer?.kind === 'contractor'}
							listed={(line) => fromList(line, draft.sheet.pricesIncludeVat, draft.rateOf)}
							lines={whole ? draft.reading.lines : inIt}
							figure={draft.figure}
							onpick={(figure) => (draft.figure = figure)}
						/>
					</Fold>{/if}
			{/if}
		</aside>
	</div>
	<div
		class="thumb hidden low:static! phone:fixed phone:[inset:auto_0_64px_0] phone:z-20 phone:flex phone:gap-3.5 phone:items-center phone:justify-between phone:py-2.5 phone:px-4 phone:bg-(--sheet) phone:border-t-[1.5px] phone:border-t-(--ink)"
	>
		<span
			><span class="quiet phone:block phone:leading-[1.2]">In all</span><b
				class="numbers phone:block phone:[font:650_1.3rem_var(--font-heading)]"
				>{quote ? displayPounds(quote.figures.total) : '–'}</b
			></span
		>
		<button class="button filled phone:min-h-12.5 phone:min-w-37.5" onclick={toSend}>Send…</button>
	</div>
	<SendQuote
		id={draft.id}
		version={() => save.version}
		bind:open={sending}
		onfix={(path) => (draft.wanted = path)}
		onsent={() => {
			save.forget();
			window.location.assign(`${place}?just=sent`);
		}}
	/>
</div>
