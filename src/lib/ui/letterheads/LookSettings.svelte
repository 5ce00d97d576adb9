<!-- What can be set of a letterhead, from the look to the words. What the law asks for stands there, and cannot be moved.
	Over 300 lines: one form, part by part. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import { contrastOnWhite, darkEnough, ENOUGH_CONTRAST } from '$lib/core/letterheads/contrast';
	import { ALWAYS, detailRule } from '$lib/core/letterheads/law';
	import {
		DETAILS,
		DOCUMENT_SORTS,
		type Detail,
		type DocumentSort
	} from '$lib/core/letterheads/look';
	import {
		DETAIL_NAMES,
		LINE_DETAIL_NAMES,
		SORT_NAMES,
		TYPEFACE_NAMES
	} from '$lib/core/letterheads/names';
	import Choice from '../parts/Choice.svelte';
	import Field from '../parts/Field.svelte';
	import FilePick from '../parts/FilePick.svelte';
	import Fold from '../parts/Fold.svelte';
	import Segments from '../parts/Segments.svelte';
	import Switch from '../parts/Switch.svelte';
	import ColumnSettings from './ColumnSettings.svelte';
	import type { LookEditor } from './look.svelte';

	interface Props {
		editor: LookEditor;
		registered: boolean;
		logoName: string | null;
	}
	let { editor, registered, logoName }: Props = $props();
	let look = $derived(editor.look);
	let logo = $state(untrack(() => logoName));
	let sort = $state<DocumentSort>('invoice');
	let own = $derived(look.words[sort] ?? { title: '', above: '', below: '' });
	let wrong = $derived((path: string) => editor.problems[path] || undefined);
	/** Inks that print well, none of them anybody's in particular. */
	const INKS = ['#1f5d57', '#17212b', '#9c2f20', '#47527a', '#6b4a14', '#5b2a57'] as const;
	const INK_NAMES = ['verdigris', 'ink', 'oxide', 'slate blue', 'umber', 'plum'] as const;
	let colour = $state(untrack(() => editor.look.accent));
	let pale = $derived(
		/^#[0-9a-f]{6}$/i.test(colour) && contrastOnWhite(colour) < ENOUGH_CONTRAST
			? darkEnough(colour)
			: null
	);
	const take = (accent: string) => {
		colour = accent;
		look.accent = accent;
	};
	const isShown = (detail: Detail) => !look.hidden.includes(detail);
	function show(detail: Detail, shown: boolean) {
		look.hidden = shown ? look.hidden.filter((one) => one !== detail) : [...look.hidden, detail];
	}
	const setOwn = (more: Partial<typeof own>) =>
		(look.words = { ...look.words, [sort]: { ...own, ...more } });
	async function bring(files: File[]) {
		const name = files[0] && (await editor.bringLogo(files[0]));
		if (name) logo = name;
	}
	const millimetres = (typed: string) => (/^\d{1,3}$/.test(typed.trim()) ? Number(typed) : NaN);
</script>

{#snippet number(label: string, name: string, value: number, set: (value: number) => void)}
	<Field
		{label}
		{name}
		inputmode="numeric"
		maxlength={3}
		error={wrong(name)}
		bind:value={
			() => (Number.isNaN(value) ? '' : String(value)), (typed) => set(millimetres(String(typed)))
		}
	/>
{/snippet}

<div class="panel grid gap-5 py-4.5 px-5">
	<section class="grid gap-3" aria-labelledby="look">
		<h2 id="look">Look</h2>
		{#if look.logo}
			<div class="flex flex-wrap items-center justify-between gap-2.5">
				<span class="scheme-light bg-[#fff] border border-(--hair) p-1.5"
					><img
						class="max-h-12 max-w-40 object-contain"
						src="/settings/letterheads/logo/{look.logo}"
						alt="The logo, {logo ?? ''}"
					/></span
				>
				<button
					class="button plain"
					type="button"
					onclick={() => {
						look.logo = null;
						logo = null;
					}}>Take the logo away</button
				>
			</div>
			<div class="flex flex-wrap items-end gap-3">
				<Segments
					label="Where it stands"
					bind:value={look.logoPlace}
					options={[
						{ value: 'left', label: 'Left' },
						{ value: 'middle', label: 'Middle' },
						{ value: 'right', label: 'Right' }
					]}
				/>
				<div class="w-28">
					{@render number(
						'Width, mm',
						'logoWidth',
						look.logoWidth,
						(value) => (look.logoWidth = value)
					)}
				</div>
			</div>
		{/if}
		<FilePick
			label={look.logo ? 'Another logo' : 'Your logo'}
			name="file"
			accept="image/png,image/jpeg,image/svg+xml,.svg"
			hint="A PNG, a JPEG or an SVG."
			error={wrong('logo')}
			onchoose={bring}
		/>
		<fieldset>
			<legend class="name">Colour</legend>
			<div class="flex flex-wrap items-center gap-2">
				{#each INKS as ink, index (ink)}
					<label
						class="grid h-10 w-10 cursor-pointer place-items-center border-2 border-transparent has-checked:border-(--ink) has-focus-visible:outline-3 has-focus-visible:outline-(--tape)"
					>
						<input
							class="sr-only"
							type="radio"
							name="ink"
							checked={look.accent === ink}
							onchange={() => take(ink)}
						/>
						<span class="h-8 w-8 border border-(--dotted)" style:background={ink}></span>
						<span class="sr-only">{INK_NAMES[index]}</span>
					</label>
				{/each}
				<input
					class="h-10 w-12 cursor-pointer border border-(--dotted) bg-(--sheet) p-1"
					type="color"
					aria-label="A colour of your own"
					value={colour}
					oninput={(event) => {
						colour = event.currentTarget.value;
						if (contrastOnWhite(colour) >= ENOUGH_CONTRAST) look.accent = colour;
					}}
				/>
			</div>
			{#if pale}<p class="wrong mt-1.5">
					Too pale to be read on white paper: {contrastOnWhite(colour).toFixed(1)} to 1, where 4.5 are
					needed.
					<button class="button plain" type="button" onclick={() => take(pale)}
						>Take it as much darker as it must be</button
					>
				</p>{/if}
			{#if wrong('accent')}<p class="wrong">{wrong('accent')}</p>{/if}
		</fieldset>
		<Segments
			label="Typeface"
			bind:value={look.typeface}
			options={Object.entries(TYPEFACE_NAMES).map(([value, label]) => ({
				value: value as typeof look.typeface,
				label
			}))}
		/>
		<Segments
			label="Size of type"
			bind:value={look.size}
			options={[
				{ value: 'small', label: 'Small' },
				{ value: 'normal', label: 'Normal' },
				{ value: 'large', label: 'Large' }
			]}
		/>
	</section>

	<section class="grid gap-3 border-t border-(--hair) pt-4" aria-labelledby="columns">
		<h2 id="columns">Lines</h2>
		<Choice label="How much of them" bind:value={look.lines}>
			{#each Object.entries(LINE_DETAIL_NAMES) as [value, label] (value)}<option {value}
					>{label}</option
				>{/each}
		</Choice>
		<ColumnSettings {editor} {registered} />
	</section>

	<section class="grid gap-1 border-t border-(--hair) pt-4" aria-labelledby="shows">
		<h2 id="shows" class="mb-1">What shows</h2>
		{#each DETAILS as detail (detail)}
			{@const rule = detailRule(detail)}
			{#if rule}
				<p class="flex min-h-9 items-center gap-2.5">
					{@render fixed()}
					<span>{DETAIL_NAMES[detail]} <span class="quiet">· {rule.because}</span></span>
				</p>
			{:else}
				<Switch bind:checked={() => isShown(detail), (shown) => show(detail, shown)}
					>{DETAIL_NAMES[detail]}</Switch
				>
			{/if}
			{#if detail === 'tradeBody' && isShown(detail)}
				<Field
					label="Which one, and your number there"
					name="tradeBody"
					maxlength={120}
					error={wrong('tradeBody')}
					bind:value={look.tradeBody}
				/>
			{:else if detail === 'insurance' && isShown(detail)}
				<Field
					label="Insurer and how much is covered"
					name="insurance"
					maxlength={120}
					error={wrong('insurance')}
					bind:value={look.insurance}
				/>
			{/if}
		{/each}
		<Switch bind:checked={look.slip}>A slip to cut off and send with a cheque</Switch>
		<Fold label="What the law asks for, and always shows">
			<ul class="grid gap-1">
				{#each ALWAYS as { what, registered: only, reference } (what)}
					{#if registered || !only}<li class="flex min-h-9 items-center gap-2.5">
							{@render fixed()}
							<span>{what} <span class="quiet">{reference}</span></span>
						</li>{/if}
				{/each}
			</ul>
		</Fold>
	</section>

	<section class="grid gap-3 border-t border-(--hair) pt-4" aria-labelledby="words">
		<h2 id="words">Words</h2>
		<Field
			label="Above the lines"
			name="above"
			rows={2}
			error={wrong('above')}
			bind:value={look.above}
		/>
		<Field
			label="Below everything"
			name="below"
			rows={2}
			error={wrong('below')}
			bind:value={look.below}
		/>
		<Field
			label="Your conditions"
			name="conditions"
			rows={2}
			error={wrong('conditions')}
			bind:value={look.conditions}
		/>
		<Field
			label="Title of how to pay"
			name="payTitle"
			placeholder="How to pay"
			maxlength={40}
			error={wrong('payTitle')}
			bind:value={look.payTitle}
		/>
		<Field
			label="After the bank details"
			name="payWords"
			rows={2}
			error={wrong('payWords')}
			bind:value={look.payWords}
		/>
		<div class="grid gap-3 border-l-4 border-(--hair) pl-3.5">
			<Choice label="Only on one kind of document" bind:value={sort}>
				{#each DOCUMENT_SORTS as one (one)}<option value={one}>{SORT_NAMES[one]}</option>{/each}
			</Choice>
			{#key sort}
				<Field
					label="Its title"
					name="words.title"
					maxlength={40}
					placeholder={sort === 'invoice' && registered ? 'VAT invoice' : SORT_NAMES[sort]}
					error={wrong(`words.${sort}.title`)}
					bind:value={() => own.title, (title) => setOwn({ title: String(title) })}
				/>
				<Field
					label="Above its lines"
					name="words.above"
					rows={2}
					error={wrong(`words.${sort}.above`)}
					bind:value={() => own.above, (above) => setOwn({ above: String(above) })}
				/>
				<Field
					label="Below its lines"
					name="words.below"
					rows={2}
					error={wrong(`words.${sort}.below`)}
					bind:value={() => own.below, (below) => setOwn({ below: String(below) })}
				/>
			{/key}
		</div>
	</section>

	<section class="grid gap-3 border-t border-(--hair) pt-4" aria-labelledby="paper">
		<h2 id="paper">Paper</h2>
		<Segments
			label="Address in the window of a long (DL) envelope"
			bind:value={look.window}
			options={[
				{ value: 'none', label: 'No window' },
				{ value: 'left', label: 'Left' },
				{ value: 'right', label: 'Right' }
			]}
		/>
		<Switch bind:checked={look.preprinted}>The paper has your name and address on it already</Switch
		>
		<fieldset>
			<legend class="name">Margins, mm</legend>
			<div class="grid grid-cols-4 gap-2.5">
				{@render number('Top', 'margins.top', look.margins.top, (v) => (look.margins.top = v))}
				{@render number(
					'Right',
					'margins.right',
					look.margins.right,
					(v) => (look.margins.right = v)
				)}
				{@render number(
					'Bottom',
					'margins.bottom',
					look.margins.bottom,
					(v) => (look.margins.bottom = v)
				)}
				{@render number('Left', 'margins.left', look.margins.left, (v) => (look.margins.left = v))}
			</div>
		</fieldset>
		<Switch bind:checked={look.draftAcross}>Drafts say so across the page as well</Switch>
		<p class="quiet">
			You write as a sole trader: a limited company has to name its number and office on everything
			it sends, and Axiometer does not do that yet.
		</p>
	</section>
</div>

{#snippet fixed()}
	<span
		class="relative h-6 w-11 flex-none rounded-[3px] border-[1.5px] border-dashed border-(--ink) bg-(--sheet) p-[3px]"
		aria-hidden="true"><span class="block h-full w-4 translate-x-[18px] bg-(--ink)"></span></span
	>
{/snippet}
