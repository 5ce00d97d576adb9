<script lang="ts">
	import FilePick from '$lib/ui/parts/FilePick.svelte';
	import Progress from '$lib/ui/parts/Progress.svelte';
	import Tabs from '$lib/ui/parts/Places.svelte';
	import { WORK_PAGES } from '$lib/ui/jobs/tabs';

	const FIELDS = [
		['name', 'Name'],
		['code', 'Code'],
		['text', 'Text for the customer'],
		['kind', 'Kind'],
		['unit', 'Unit'],
		['unitPrice', 'Price'],
		['cost', 'Cost to you'],
		['category', 'Category']
	] as const;
	interface Row {
		line: number;
		outcome: 'new' | 'changed' | 'same' | 'wrong';
		name: string;
		detail: string;
	}
	interface Preview {
		headings: string[];
		mapping: Record<string, number>;
		encoding: string;
		separator: string;
		notes: string[];
		counts: Record<Row['outcome'], number>;
		rows: Row[];
		sample: string[][];
	}
	const WORDS = { new: 'new', changed: 'changes', same: 'as it is', wrong: 'left out' };
	const SEPARATORS: Record<string, string> = {
		',': 'commas',
		';': 'semicolons',
		'\t': 'tabs',
		'|': 'bars'
	};
	let file = $state<File | null>(null);
	let preview = $state<Preview | null>(null);
	let failed = $state('');
	let busy = $state(false);
	let progress = $state<{ done: number; of: number } | null>(null);
	let report = $state<Row[] | null>(null);
	let counted = $derived(
		report?.reduce((counts, row) => ({ ...counts, [row.outcome]: counts[row.outcome] + 1 }), {
			new: 0,
			changed: 0,
			same: 0,
			wrong: 0
		})
	);

	async function send(write: boolean, mapping?: Record<string, number>): Promise<Response | null> {
		if (!file) return null;
		if (file.size > 25 * 1024 * 1024) {
			failed = `The file has ${Math.ceil(file.size / 1024 / 1024)} MB. At most 25 MB can be read: split it.`;
			return null;
		}
		const body = new FormData();
		body.set('file', file);
		if (mapping) body.set('mapping', JSON.stringify(mapping));
		failed = '';
		const response = await fetch(`/work/prices/import/api${write ? '?write' : ''}`, {
			method: 'POST',
			body
		}).catch(() => null);
		if (response?.ok) return response;
		const answer = await response?.json().catch(() => null);
		failed =
			answer?.message ?? 'The connection is lost. Do it again: what is in already changes nothing.';
		return null;
	}

	async function look(mapping?: Record<string, number>) {
		report = null;
		busy = true;
		const response = await send(false, mapping);
		busy = false;
		preview = response ? await response.json() : preview;
	}

	async function write() {
		if (!preview) return;
		progress = { done: 0, of: preview.counts.new + preview.counts.changed };
		const response = await send(true, preview.mapping);
		const reader = response?.body?.pipeThrough(new TextDecoderStream()).getReader();
		let rest = '';
		for (;;) {
			const part = await reader?.read().catch(() => null);
			if (!part || part.done) break;
			const lines = (rest + part.value).split('\n');
			rest = lines.pop() ?? '';
			for (const line of lines) {
				const step = JSON.parse(line);
				progress = { done: step.done, of: step.of };
				if (step.report) report = step.report;
			}
		}
		progress = null;
		if (!report && !failed)
			failed = 'It broke off. Do it again: what is in already changes nothing.';
	}
</script>

<svelte:head><title>Bring in a price list · Axiometer</title></svelte:head>
<div class="page">
	<h1>Bring in a price list</h1>
	<Tabs label="Work" pages={WORK_PAGES} />
	<section class="panel py-4 px-4.5 mb-3 grid gap-2.5 justify-items-start max-w-245 *:max-w-full">
		<FilePick
			label="A CSV file, as your supplier or a spreadsheet makes it"
			name="file"
			accept=".csv,.txt,.tsv,text/csv"
			onchoose={([chosen]) => {
				file = chosen ?? null;
				preview = null;
				if (file) void look();
			}}
		/>
		{#if busy}<p class="quiet" role="status">Reading …</p>{/if}
		{#if failed}<p class="wrong" role="alert">{failed}</p>{/if}
	</section>
	{#if report && counted}
		<section
			class="panel py-4 px-4.5 mb-3 grid gap-2.5 justify-items-start max-w-245 *:max-w-full"
			role="status"
		>
			<h2>
				{counted.new.toLocaleString('en-GB')} added, {counted.changed.toLocaleString('en-GB')} changed,
				{counted.same.toLocaleString('en-GB')} as they were, {counted.wrong.toLocaleString('en-GB')} left
				out
			</h2>
			<a class="button filled" href="/work/prices">To the price list</a>
			{#if counted.wrong}
				<ul>
					{#each report.filter((row) => row.outcome === 'wrong').slice(0, 500) as row (row.line)}
						<li class="py-1.25 px-0 border-b border-b-(--hair)">
							<span class="quiet">line {row.line}</span>
							{row.name} <span>{row.detail}</span>
						</li>
					{/each}
				</ul>
			{/if}
		</section>
	{:else if preview}
		<section class="panel py-4 px-4.5 mb-3 grid gap-2.5 justify-items-start max-w-245 *:max-w-full">
			<h2>Which column is which?</h2>
			<p class="quiet">
				Separated by {SEPARATORS[preview.separator] ?? preview.separator}, {preview.encoding}. {preview.notes.join(
					' '
				)}
			</p>
			<div
				class="fields grid grid-cols-[repeat(auto-fit,minmax(220px,1fr))] gap-y-2.5 gap-x-4 w-full"
			>
				{#each FIELDS as [field, label] (field)}
					<label class="field"
						><span class="name">{label}</span><select
							class="box"
							value={preview.mapping[field] ?? ''}
							onchange={(event) => {
								const mapping = { ...preview!.mapping };
								if (event.currentTarget.value === '') delete mapping[field];
								else mapping[field] = Number(event.currentTarget.value);
								void look(mapping);
							}}
						>
							<option value="">not in the file</option>
							{#each preview.headings as heading, index (index)}<option value={index}
									>{heading || `column ${index + 1}`}: {preview.sample[0]?.[index] ?? ''}</option
								>{/each}
						</select></label
					>
				{/each}
			</div>
		</section>
		<section class="panel py-4 px-4.5 mb-3 grid gap-2.5 justify-items-start max-w-245 *:max-w-full">
			<h2>
				{preview.counts.new.toLocaleString('en-GB')} new, {preview.counts.changed.toLocaleString(
					'en-GB'
				)} changed, {preview.counts.same.toLocaleString('en-GB')} as they are, {preview.counts.wrong.toLocaleString(
					'en-GB'
				)} left out
			</h2>
			{#if progress}
				<p role="status">
					{progress.done.toLocaleString('en-GB')} of {progress.of.toLocaleString('en-GB')}
				</p>
				<Progress value={progress.done} max={progress.of} label="Progress" />
			{:else if preview.counts.new + preview.counts.changed > 0}
				<button class="button filled" onclick={write}>Add them to the price list</button>
			{:else}<p>Nothing in this file would change the price list.</p>{/if}
			<ul>
				{#each preview.rows as row (row.line)}
					<li class="py-1.25 px-0 border-b border-b-(--hair)">
						<span class="quiet">line {row.line}</span> <b>{row.name}</b>
						<span class="tag">{WORDS[row.outcome]}</span> <span class="quiet">{row.detail}</span>
					</li>
				{/each}
			</ul>
		</section>
	{/if}
</div>
