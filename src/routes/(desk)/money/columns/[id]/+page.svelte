<script lang="ts">
	import Choice from '$lib/ui/parts/Choice.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import Table from '$lib/ui/parts/Table.svelte';

	let { data } = $props();
</script>

<svelte:head><title>Columns of the statement · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/money">Money in</a></p>
	<h1>Is this what its columns hold?</h1>
	<p class="quiet">
		{data.read} rows can be read like this{data.unread ? `, ${data.unread} cannot` : ''}. It is
		asked once: files with these headings are known after that.
	</p>
	<Form class="panel py-4.5 px-5 mt-3 grid gap-4 justify-items-start">
		<div
			class="fields grid grid-cols-[repeat(auto-fit,minmax(170px,1fr))] gap-y-2.5 gap-x-4 w-full"
		>
			{#each data.fields as { field, label } (field)}
				<Choice {label} name={field} value={String(data.layout[field] ?? '')}>
					<option value="">not there</option>
					{#each data.headings as heading, index (index)}<option value={String(index)}
							>{heading || `column ${index + 1}`}</option
						>{/each}
				</Choice>
			{/each}
			<Choice label="Dates are written" name="dates" value={data.layout.dates}>
				<option value="dmy">day, month, year</option>
				<option value="mdy">month, day, year</option>
				<option value="ymd">year, month, day</option>
			</Choice>
			<Field label="Account, for you" name="account" value="Business account" />
		</div>
		<div class="overflow-x-auto w-full">
			<Table
				label="The file’s first lines"
				rows={data.sample.map((cells, index) => ({ cells, index }))}
				columns={data.headings.map((head, index) => ({
					id: String(index),
					head,
					text: ({ cells }: { cells: string[] }) => cells[index] ?? ''
				}))}
				id={(row) => row.index}
				flush
				class="text-[0.906rem] whitespace-nowrap"
			/>
		</div>
		<button class="button filled">Bring the lines in</button>
	</Form>
</div>
